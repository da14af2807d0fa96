"""Every field of a separator, in groups; and the rows of its lists."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from fenwick.core.components.bins import OTHER
from fenwick.core.components.dust import GLOWING
from fenwick.rig import Rig
from fenwick.rig.format.guesses import guess_path
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import (
    ChamberPart,
    CyclonePart,
    ElbowLidPart,
    OneBodyPart,
    SeparatorPart,
    SlottedDiscPart,
)
from fenwick.web.kit.editor import Editor, rig_field
from fenwick.web.kit.fields import Field

#: what can be added to a list, with what a new row begins as
ROWS: dict[str, tuple[str, str]] = {
    "slots": ("slot", "slots"),
    "profile": ("height", "bin.profile"),
    "ledges": ("ledge", "bin.ledges"),
    "stiffeners": ("ring", "bin.stiffeners"),
}
PREFIX = "separator:"


def separator_of(rig: Rig, part: str) -> SeparatorPart | None:
    """The separator of that id, or the first one; None where the line has none."""
    stages = [element for element in rig.line.elements if isinstance(element, SeparatorPart)]
    return next((stage for stage in stages if stage.id == part), stages[0] if stages else None)


def shape_keys(part: SeparatorPart) -> list[str]:
    """Keys of the body, by kind."""
    ways = ["inlet_bore_m", "outlet_d_m", "outlet_length_m"]
    match part:
        case CyclonePart():
            inlet = ["inlet_bore_m"] if part.inlet_bore_m is not None else ["inlet_height_m", "inlet_width_m"]
            return ["body_d_m", "cylinder_height_m", "total_height_m", "dust_outlet_d_m", *inlet, *ways[1:], "finish"]
        case ChamberPart():
            rectangle = part.inlet_height_m is not None
            keys = [
                "chamber_d_m",
                "chamber_height_m",
                *(["inlet_height_m", "inlet_width_m"] if rectangle else ways[:1]),
            ]
            keys += ways[1:]
            for i in range(len(part.slots)):
                keys += [f"slots[{i}].width_m", f"slots[{i}].arc_deg", f"slots[{i}].start_deg"]
            if isinstance(part, SlottedDiscPart):
                keys += ["hung", "inlet_style"]
                keys += ["outlet_aim", "elbow_reach_m"] if part.inlet_style == "elbow" else []
            if isinstance(part, OneBodyPart):
                keys += ["window_area_m2", "deck_leak_m2", "head_d_m", "head_height_m"]
            return keys
        case ElbowLidPart():
            return [*ways, "outlet_aim"]
        case _:
            return ways


def bin_keys(part: SeparatorPart) -> list[str]:
    """Keys of the bin, and of how all of it stands."""
    keys = []
    for i in range(len(part.bin.profile)):
        keys += [f"profile[{i}].height_m"] if i else []
        keys += [f"profile[{i}].{key}" for key in (("d_m",) if part.bin.is_round else ("width_m", "depth_m"))]
    keys += ["fill_height_m", "sight", "closure", "leak_area_m2", "wall_m", "material", "ribs", "nested"]
    for i in range(len(part.bin.ledges)):
        keys += [f"ledges[{i}].height_m", f"ledges[{i}].depth_m"]
    keys += [f"stiffeners[{i}].height_m" for i in range(len(part.bin.stiffeners))]
    return [*(f"bin.{key}" for key in keys), "tilt_deg", "hoses_swapped"]


def _without_other(field: Field) -> Field:
    """The field without the material of one's own, whose figures stand with the checks, unless it is taken already."""
    if not field.path.endswith("bin.material") or field.text == OTHER:
        return field
    return replace(field, choices=tuple(choice for choice in field.choices if choice[0] != OTHER))


def whole_editor(rig: Rig, part: SeparatorPart, title: str, system: str) -> Editor:
    """The editor with every field of a separator."""
    document = rig.model_dump(mode="json")
    root = path_of(document, part.id)
    keys = [*shape_keys(part), *bin_keys(part), "name"]
    guessed = {guess_path(document, guess) for guess in document["guesses"]}
    fields = (_without_other(_field(rig, document, root, key, system)) for key in keys)
    return Editor(part.id, title, PREFIX, tuple(replace(f, guess=f.path in guessed) for f in fields))


def _field(rig: Rig, document: Any, root: str, key: str, system: str) -> Field:
    field = rig_field(rig, document, f"{root}.{key}", system)
    words = _list_words(key)
    return replace(field, label=words) if words else field


def _list_words(key: str) -> str:
    """What a value in a list is called; empty for the others."""
    if "[" not in key:
        return ""
    index = int(key.split("[")[1].split("]")[0])
    last = key.rsplit(".", 1)[1]
    if key.startswith("slots"):
        which = "Slot" if index == 0 else f"Slot {index + 1}"
        return f"{which} {({'width_m': 'wide', 'arc_deg': 'arc', 'start_deg': 'starts'})[last]}"
    if ".profile" in key:
        word = {"height_m": "Height", "depth_m": "Deep"}.get(last, "Wide")
        return f"{word} at floor" if index == 0 else f"{word} {index}"
    if ".ledges" in key:
        return f"Ledge {index + 1} {'deep' if last == 'depth_m' else 'at'}"
    return f"Ring {index + 1} at"


def new_row(part: SeparatorPart, rows: str) -> dict[str, Any]:
    """What a new row of a list begins as."""
    profile = part.bin.profile
    top = profile[-1]
    if rows == "slots":
        return {"width_m": 0.03, "arc_deg": 30.0, "start_deg": 0.0}
    if rows == "profile":
        return {**top.model_dump(), "height_m": round(top.height_m + 0.05, 4)}
    if rows == "ledges":
        return {"height_m": round(0.9 * top.height_m, 4), "depth_m": 0.01}
    return {"height_m": round(top.height_m / 2.0, 4)}


DUST = "dust"  #: the editor of the dust
NO_WOOD = (*GLOWING, "plaster", "blasting-media", "fibre-composite")  #: kinds that have no species
DUST_ROWS = {"mixture": ("kind", "kinds"), "own": ("mode", "modes")}  #: by kind: what a row is called, its list


def dust_editor(rig: Rig, system: str) -> Editor:
    """The editor of the line's dust; only its kind where it is not known."""
    document = rig.model_dump(mode="json")
    if rig.dust is None:
        kind = replace(_dust_field(rig, document, "kind", system), optional=True)
        return Editor(DUST, "Dust", DUST, (kind,))
    keys = ["kind"]
    for i in range(len(rig.dust.kinds or ())):
        keys += [f"kinds[{i}].kind", f"kinds[{i}].parts"]
    for i in range(len(rig.dust.modes or ())):
        keys += [f"modes[{i}].median_m", f"modes[{i}].geometric_sd", f"modes[{i}].parts"]
    if rig.dust.modes:
        keys += ["particle_density_kg_m3", "bulk_density_kg_m3", "longest_chip_m", "settles_below_m_s",
                 "carries_above_m_s", "name"]  # fmt: skip
    if rig.dust.kind not in NO_WOOD:
        keys.append("species")
    fields = (_dust_field(rig, document, key, system) for key in keys)
    return Editor(DUST, "Dust", DUST, tuple(fields))


def _dust_field(rig: Rig, document: Any, key: str, system: str) -> Field:
    field = rig_field(rig, document, f"dust.{key}", system)
    if "[" in key:
        row = int(key.split("[")[1].split("]")[0]) + 1
        return replace(field, label=f"{field.label} {row}")
    return field


def new_dust_row(kind: str) -> dict[str, Any]:
    """What a new kind in a mixture, or a new mode, begins as."""
    if kind == "mixture":
        return {"kind": "planer", "parts": 1.0}
    return {"median_m": 40e-6, "geometric_sd": 2.2, "parts": 0.05}
