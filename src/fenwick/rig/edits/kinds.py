"""The kinds of separator: their names, sizes to begin with, and exchanging one for another over the same bin."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import pi, sqrt
from typing import Any

from fenwick.core.components.separator import round_bore, square_side
from fenwick.core.formulas.cyclone import FAMILIES, CycloneGeometry
from fenwick.rig.edits.edit import check_change
from fenwick.rig.edits.structure import fresh_name
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.separator import ChamberPart, CyclonePart, SeparatorPart

COMMON_KEYS = ("id", "kind", "name", "tilt_deg", "hoses_swapped", "tool_end", "vacuum_end", "make", "bin")
ROUND_TO = 0.0005  #: sizes of a design to begin with [m]
UPRIGHT = 1.4  #: a rectangular inlet begins that much higher than the square of its area [-]
DECK_LEAK = 5e-6  #: at the deck of a one-body build, to begin with [m^2]
DISC_DEEP, DISC_CLEAR = 0.12, 0.006  #: how deep a hung disc begins, and its play to the wall [m]


@dataclass(frozen=True)
class SeparatorKind:
    """One kind of separator."""

    label: str
    sentence: str  #: what it is, for who chooses
    begin: Callable[[float, float, dict[str, Any]], dict[str, Any]]  #: from inlet bore, outlet bore and bin


def _cyclone(inlet: float, outlet: float, bin_: dict[str, Any]) -> dict[str, Any]:
    """A high-efficiency cyclone whose inlet has the area of the hose's bore."""
    family = FAMILIES["high-efficiency"]
    body = _round(sqrt(pi / 4.0 * inlet**2 / (family.a * family.b)))
    return {"type": "cyclone", "finish": "smooth", **cyclone_sizes(family.of(body))}


def cyclone_sizes(shape: CycloneGeometry) -> dict[str, Any]:
    """The sizes of a cyclone as keys of the rig file, rounded to what can be measured."""
    values = {
        "body_d_m": shape.body,
        "inlet_height_m": shape.inlet_height,
        "inlet_width_m": shape.inlet_width,
        "outlet_d_m": shape.outlet,
        "outlet_length_m": shape.outlet_length,
        "cylinder_height_m": shape.cylinder,
        "total_height_m": shape.height,
        "dust_outlet_d_m": shape.dust_outlet,
    }
    return {key: _round(float(value)) for key, value in values.items()}


def across(point: dict[str, Any]) -> float:
    """Diameter of a bin at one of its heights, or its narrow side [m]."""
    d = point.get("d_m")
    return float(min(point["width_m"], point["depth_m"]) if d is None else d)


def _disc(inlet: float, outlet: float, bin_: dict[str, Any]) -> dict[str, Any]:
    top = across(bin_["profile"][-1])
    return {
        "type": "slotted-disc",
        "chamber_d_m": top,
        "chamber_height_m": max(DISC_DEEP, inlet),
        "inlet_bore_m": min(inlet, top / 2.0),
        "outlet_d_m": min(outlet, top / 2.0),
        "outlet_length_m": max(DISC_DEEP, inlet) / 2.0,
        "slots": [{"width_m": min(0.03, top / 5.0), "arc_deg": 240.0}],
    }


def _hung_disc(inlet: float, outlet: float, bin_: dict[str, Any]) -> dict[str, Any]:
    found = _disc(inlet, outlet, bin_)
    low, high = bin_["profile"][-2:]
    deep = found["chamber_height_m"]
    taper = (across(high) - across(low)) / (high["height_m"] - low["height_m"])
    return {**found, "hung": True, "chamber_d_m": _round(across(high) - taper * deep - DISC_CLEAR)}


def _open_bin(kind: str) -> Callable[[float, float, dict[str, Any]], dict[str, Any]]:
    def begin(inlet: float, outlet: float, bin_: dict[str, Any]) -> dict[str, Any]:
        top = bin_["profile"][-1]
        most = across(top) / 2.0
        return {
            "type": kind,
            "inlet_bore_m": min(inlet, most),
            "outlet_d_m": min(outlet, most),
            "outlet_length_m": min(0.08, top["height_m"] / 4.0),
        }

    return begin


def _one_body(inlet: float, outlet: float, bin_: dict[str, Any]) -> dict[str, Any]:
    window = pi / 4.0 * min(inlet, across(bin_["profile"][-1]) / 2.0) ** 2
    return {
        **_disc(inlet, outlet, bin_),
        "type": "one-body",
        "window_area_m2": round(window, 6),
        "deck_leak_m2": DECK_LEAK,
    }


def unlink(document: dict[str, Any], index: int) -> None:
    """Take out the hoses and fittings between a stage and the vacuum, or the next stage: its head stands on it."""
    elements = document["line"]["elements"]
    end = index + 1
    while end < len(elements) and elements[end]["kind"] not in ("separator", "wet-stage"):
        end += 1
    gone = {element["id"] for element in elements[index + 1 : end]}
    del elements[index + 1 : end]
    document["guesses"] = [guess for guess in document["guesses"] if guess["part"] not in gone]


def _round(value: float) -> float:
    return round(round(value / ROUND_TO) * ROUND_TO, 6)


KINDS: dict[str, SeparatorKind] = {
    "cyclone": SeparatorKind("Conical cyclone", "A cone on the bin's lid: the finest cut, and the tallest.", _cyclone),
    "slotted-disc": SeparatorKind(
        "Slotted disc, on top", "A flat chamber on the bin, its floor slotted at the rim.", _disc
    ),
    "hung-disc": SeparatorKind("Slotted disc, in the bin", "Under the lid: nothing stands on the bin.", _hung_disc),
    "elbow-lid": SeparatorKind(
        "Two elbows in a lid", "The least work: two fittings in a lid, and no disc.", _open_bin("elbow-lid")
    ),
    "rim-inlet": SeparatorKind("Tall bin, inlet at the rim", "A tangential inlet and no disc.", _open_bin("rim-inlet")),
    "one-body": SeparatorKind("One body", "The vacuum's head on a deck over the chamber; no link hose.", _one_body),
}


def kind_of(part: SeparatorPart) -> str:
    """Which of KINDS a separator is."""
    hung = bool(getattr(part, "hung", False))
    return "hung-disc" if hung else str(part.type)  # type: ignore[attr-defined]


def turn_inlet(rig: Rig, part: str) -> Rig:
    """A rig whose separator's inlet is a rectangle instead of a round hose of the same area, or the reverse.

    Raises
    ------
    RigError
        When the kind has a round inlet only, or the other one does not fit.
    """
    document = rig.model_dump(mode="json")
    old = next(e for e in rig.line.elements if e.id == part)
    if not isinstance(old, CyclonePart | ChamberPart):
        raise RigError((Problem("", "this kind has a round inlet"),))
    keys = document["line"]["elements"][int(path_of(document, part).split("[")[-1].rstrip("]"))]
    if old.inlet_height_m is None:
        side = float(square_side(old.inlet_bore_m or 0.0))
        keys |= {"inlet_height_m": _round(side * UPRIGHT), "inlet_width_m": _round(side / UPRIGHT)}
        if isinstance(old, CyclonePart):
            keys["inlet_bore_m"] = None
    else:
        height, width = old.inlet
        keys |= {"inlet_height_m": None, "inlet_width_m": None}
        keys["inlet_bore_m"] = _round(float(round_bore(height * width)))
    return check_change(rig, document)


def turn_bin(rig: Rig, part: str) -> Rig:
    """A rig whose separator's bin is square instead of round, of the same areas, or round instead of rectangular.

    Raises
    ------
    RigError
        When the other shape does not fit.
    """
    document = rig.model_dump(mode="json")
    own = document["line"]["elements"][next(i for i, e in enumerate(rig.line.elements) if e.id == part)]
    for point in own["bin"]["profile"]:
        if point["d_m"] is None:
            point |= {
                "d_m": _round(float(round_bore(point["width_m"] * point["depth_m"]))),
                "width_m": None,
                "depth_m": None,
            }
        else:
            side = _round(float(square_side(point["d_m"])))
            point |= {"d_m": None, "width_m": side, "depth_m": side}
    return check_change(rig, document)


def change_kind(rig: Rig, part: str, kind: str) -> Rig:
    """A rig whose separator is of another kind, with sizes to begin with, over the same bin and between the same hoses.

    Raises
    ------
    RigError
        When there is no such kind, or the bin does not take it.
    """
    if kind not in KINDS:
        raise RigError((Problem("", f"there is no kind of separator called “{kind[:20]}”"),))
    document = rig.model_dump(mode="json")
    old = next(e for e in rig.line.elements if e.id == part)
    assert isinstance(old, SeparatorPart)
    kept = {key: value for key, value in old.model_dump(mode="json").items() if key in COMMON_KEYS}
    area = old.inlet[0] * old.inlet[1]
    round_one = getattr(old, "inlet_bore_m", None)
    inlet = round_one or sqrt(4.0 * area / pi)
    index = int(path_of(document, part).split("[")[-1].rstrip("]"))
    begun = KINDS[kind].begin(inlet, max(old.outlet_d_m, inlet), kept["bin"])
    document["line"]["elements"][index] = {**kept, **begun, "name": fresh_name(rig, KINDS[kind].label)}
    if kind == "one-body":
        unlink(document, index)
    document["guesses"] = [
        guess for guess in document["guesses"] if guess["part"] != part or guess["key"].startswith("bin.")
    ]
    return check_change(rig, document)
