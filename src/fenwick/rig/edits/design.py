"""A design that was found, put into a line; sizes rounded to what can be measured."""

from __future__ import annotations

from math import degrees
from typing import Any

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import ElbowLid, OneBody, OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.search.finder import Design
from fenwick.rig.edits.edit import check_change, edit_rig
from fenwick.rig.edits.kinds import COMMON_KEYS, DECK_LEAK, KINDS, cyclone_sizes, unlink
from fenwick.rig.edits.structure import fresh_name
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart

STEP = 0.0005  #: sizes are rounded to this [m]


def _mm(value: object) -> float:
    return round(round(float(value) / STEP) * STEP, 6)  # type: ignore[arg-type]


def design_keys(separator: Separator) -> dict[str, Any]:
    """The sizes of a design as keys of the rig file."""
    match separator:
        case Cyclone():
            return {"type": "cyclone", "finish": separator.finish, **cyclone_sizes(separator.shape)}
        case SlottedDisc():
            slot = separator.slots[0]
            own: dict[str, Any] = {"type": "slotted-disc", "hung": separator.hung}
            if isinstance(separator, OneBody):
                window = None if separator.window_area is None else round(one_value(separator.window_area), 7)
                own = {"type": "one-body", "window_area_m2": window, "deck_leak_m2": DECK_LEAK}
            return {
                **own,
                "chamber_d_m": _mm(separator.chamber_diameter),
                "chamber_height_m": _mm(separator.chamber_height),
                "inlet_bore_m": _mm(separator.inlet_bore),
                "outlet_d_m": _mm(separator.outlet_diameter),
                "outlet_length_m": _mm(separator.outlet_length),
                "slots": [{"width_m": _mm(slot.width), "arc_deg": float(round(degrees(float(slot.arc))))}],
            }
        case OpenBin():
            return {
                "type": "elbow-lid" if isinstance(separator, ElbowLid) else "rim-inlet",
                "inlet_bore_m": _mm(separator.inlet_bore),
                "outlet_d_m": _mm(separator.outlet_diameter),
                "outlet_length_m": _mm(separator.outlet_length),
            }
    raise TypeError(f"no such separator: {type(separator).__name__}")


def mended(rig: Rig, part: str) -> Rig:
    """A rig whose separator's bin is sealed, empty and upright.

    Raises
    ------
    RigError
    """
    path = path_of(rig.model_dump(mode="json"), part)
    return edit_rig(rig, {f"{path}.bin.leak_area_m2": 0.0, f"{path}.bin.fill_height_m": 0.0, f"{path}.tilt_deg": 0.0})


def with_design(rig: Rig, part: str, design: Design) -> Rig:
    """A rig with a design in the place of a separator: same bin, same hoses.

    Raises
    ------
    RigError
        When rounding made it break a rule.
    """
    document = rig.model_dump(mode="json")
    old = next(element for element in rig.line.elements if element.id == part)
    assert isinstance(old, SeparatorPart)
    kept = {key: value for key, value in old.model_dump(mode="json").items() if key in COMMON_KEYS}
    kept["hoses_swapped"], kept["tilt_deg"] = False, 0.0
    index = int(path_of(document, part).split("[")[-1].rstrip("]"))
    name = fresh_name(rig, KINDS[design.kind].label)
    document["line"]["elements"][index] = {**kept, **design_keys(design.separator), "name": name}
    if isinstance(design.separator, OneBody):
        unlink(document, index)
    document["guesses"] = [  # of the bin that it stands on nobody knows more than before
        guess for guess in document["guesses"] if guess["part"] != part or guess["key"].startswith("bin.")
    ]
    return check_change(rig, document)
