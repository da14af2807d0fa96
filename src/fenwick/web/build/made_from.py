"""What a separator is made from, as fields: what is left empty goes by rule of thumb, and says which."""

from __future__ import annotations

from dataclasses import replace

from fenwick.core.making.given import Making
from fenwick.rig import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.services.making import STAND
from fenwick.units import format_value
from fenwick.web.kit.editor import Editor, rig_field
from fenwick.web.kit.fields import Field
from fenwick.wording.making.names import HANDS, MATERIALS, SEALANTS

KEYS = (
    "plate", "plate_m", "wall", "wall_m", "tube", "tube_wall_m", "sealant", "swirl", "overlap_m", "groove_m", "stub_m",
    "bevel_deg",
)  # fmt: skip
STAND_KEYS = ("stands_on", "base_height_m", "base_m", "wheels", "caster_kg", "doorway_m", "fixed", "tied", "nozzles")
VACUUM_KEYS = ("vacuum_d_m", "vacuum_height_m", "vacuum_mass_kg")
OVER_KEYS = ("head_lift_m",)  #: of what the vacuum stands under
PREFIX = "made-from"


def made_from_editor(rig: Rig, part: str, making: Making, system: str) -> Editor | None:
    """The fields of what a separator is made from, or of how it is to stand; None for something else.

    Parameters
    ----------
    making : what is in force, for what is said of an empty field
    """
    if part == STAND:
        return _stand_editor(rig, system)
    own = next((e for e in rig.line.elements if e.id == part), None)
    if not isinstance(own, SeparatorPart | WetStagePart):
        return None
    document = rig.model_dump(mode="json")
    root = path_of(document, part)
    fields = (_field(rig, document, f"{root}.make.{key}", key, making, system) for key in KEYS)
    return Editor(part, f"{own.name or part}, made from", PREFIX, tuple(fields))


def _stand_editor(rig: Rig, system: str) -> Editor | None:
    own = next((e for e in rig.line.elements if isinstance(e, SeparatorPart)), None)
    if own is None:
        return None
    document = rig.model_dump(mode="json")
    root = path_of(document, own.id)
    on = "floor" if own.stand is None else own.stand.stands_on
    keys = (*STAND_KEYS, *(OVER_KEYS if on in ("deck", "shelf") else ()), *(VACUUM_KEYS if on != "floor" else ()))
    fields = (rig_field(rig, document, f"{root}.stand.{key}", system) for key in keys)
    return Editor(STAND, f"Stand of {own.name or own.id}", PREFIX, tuple(fields))


def _field(rig: Rig, document: object, path: str, key: str, making: Making, system: str) -> Field:
    field = rig_field(rig, document, path, system)
    words = {**MATERIALS, **SEALANTS, **HANDS}
    choices = tuple((value, words.get(value, value).capitalize()) for value, _ in field.choices)
    return replace(field, choices=choices, unknown=_by_rule(key, making, system))


def _by_rule(key: str, making: Making, system: str) -> str:
    """What an empty field stands for."""
    cone = making.cone.material != making.wall.material
    names = {
        "plate": MATERIALS[making.plate.material],
        "wall": "as usual" if cone else MATERIALS[making.wall.material],
        "tube": MATERIALS[making.tube.material],
        "sealant": SEALANTS[making.sealant],
        "swirl": HANDS[making.swirl],
    }
    lengths = {
        "plate_m": making.plate.thickness, "tube_wall_m": making.tube.thickness, "overlap_m": making.overlap,
        "groove_m": making.groove, "stub_m": making.stub,
    }  # fmt: skip
    if key in names:
        return names[key].capitalize()
    return format_value(lengths[key], "bore", system, field=True) if key in lengths else "as usual"
