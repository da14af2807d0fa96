"""Single changes as edits of the rig, named so that a page can ask for one."""

from __future__ import annotations

from typing import Any

from fenwick.core.rules import ENTRY_LOSS
from fenwick.core.search.changes import NARROWER, STEP_DOWN, Candidate
from fenwick.rig.edits.edit import edit_rig, value_at
from fenwick.rig.format.elements import ElbowPart, HosePart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart


def candidate_key(candidate: Candidate) -> str:
    """A short text that stands for a candidate."""
    return f"{candidate.kind}~{candidate.part}~{candidate.value:.6g}"


def candidate_of(key: str) -> Candidate | None:
    """The candidate a text stands for; None when it is not one."""
    kind, _, rest = key.partition("~")
    part, _, value = rest.rpartition("~")
    try:
        return Candidate(kind, part, float(value)) if part else None
    except ValueError:
        return None


def apply_candidate(rig: Rig, candidate: Candidate) -> Rig:
    """The rig with a candidate made.

    Raises
    ------
    RigError
        When the changed rig breaks a rule.
    KeyError
        When the rig has no such part, or the part cannot be changed so.
    """
    if candidate.kind == "stiffen":
        return _stiffened(rig, candidate)
    if candidate.part == "vacuum":
        return edit_rig(
            rig, {{"clean": "vacuum.filter.held_kg", "clean-bag": "vacuum.bag.held_kg"}[candidate.kind]: 0.0}
        )
    return edit_rig(rig, _edits(rig, candidate, path_of(rig.model_dump(mode="json"), candidate.part)))


#: kind of change to (key below the part, new value; None takes the candidate's)
EDITS: dict[str, tuple[str, Any]] = {
    "bore": ("bore_m", None),
    "shorter": ("length_m", None),
    "smooth": ("wall", "smooth"),
    "straight": ("bends", []),
    "nearer": ("port.hood.distance_m", None),
    "taper": ("length_m", None),
    "clean-inline": ("held_kg", 0.0),
    "shut": ("gate.opening", 0.0),
    "seal": ("area_m2", 0.0),
    "seal-bin": ("bin.leak_area_m2", 0.0),
    "empty": ("bin.fill_height_m", 0.0),
    "upright": ("tilt_deg", 0.0),
}


def _edits(rig: Rig, candidate: Candidate, path: str) -> dict[str, Any]:
    if candidate.kind == "entry":
        return {f"{path}.port.entry": {loss: kind for kind, loss in ENTRY_LOSS.items()}[candidate.value]}
    if candidate.kind == "close-in":
        hood = value_at(rig, f"{path}.port.hood")
        box = getattr(hood, "box", None)
        if box is not None:  # as wide, less high
            openings = [(f"passages[{i}]", one) for i, one in enumerate(box.passages)]
            openings += [(f"doors[{i}]", one) for i, one in enumerate(box.doors)]
            at = f"{path}.port.hood.box"
            return {f"{at}.{key}.height_m": candidate.value * one.height_m for key, one in openings}
        ways = getattr(hood, "openings", None) or ()
        return {f"{path}.port.hood.openings[{i}].area_m2": candidate.value * way.area_m2 for i, way in enumerate(ways)}
    if candidate.kind in (NARROWER, STEP_DOWN):
        return _narrowed(rig, candidate, path)
    key, value = EDITS[candidate.kind]
    return {f"{path}.{key}": candidate.value if value is None else value}


def _narrowed(rig: Rig, candidate: Candidate, path: str) -> dict[str, Any]:
    """The runs of a branch no wider than a bore; stepped down, its port, too, with what was thrown at the old mouth."""
    branch = value_at(rig, path)
    runs = [(i, part) for i, part in enumerate(branch.elements) if isinstance(part, HosePart | ElbowPart)]
    edits: dict[str, Any] = {
        f"{path}.elements[{i}].bore_m": candidate.value for i, part in runs if part.bore_m > candidate.value
    }
    if candidate.kind == STEP_DOWN and branch.port is not None and branch.port.hood is not None:
        hood = branch.port.hood
        edits[f"{path}.port.bore_m"] = candidate.value
        edits[f"{path}.port.hood.thrown_bore_m"] = hood.thrown_bore_m or branch.port.bore_m
    return edits


def _stiffened(rig: Rig, candidate: Candidate) -> Rig:
    path = path_of(rig.model_dump(mode="json"), candidate.part)
    separator = next(e for e in rig.line.elements if e.id == candidate.part)
    if not isinstance(separator, SeparatorPart):
        raise KeyError(candidate.part)
    rings = [ring.model_dump(mode="json") for ring in separator.bin.stiffeners]
    return edit_rig(rig, {f"{path}.bin.stiffeners": [*rings, {"height_m": round(candidate.value, 4)}]})
