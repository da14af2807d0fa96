"""Which fields the editor of each part of a line has."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from fenwick.rig import Rig
from fenwick.rig.format.elements import BranchPart, HosePart, PlatePart
from fenwick.rig.format.guesses import guess_path
from fenwick.rig.format.separator import SeparatorPart
from fenwick.web.kit.editor import DUST_KIND, Editor, rig_field
from fenwick.web.kit.fields import Field

PART_KEYS: dict[str, tuple[str, ...]] = {
    "hose": ("bore_m", "length_m", "wall", "rise_m", "roughness_m"),
    "reducer": ("bore_in_m", "bore_out_m", "length_m"),
    "loss": ("bore_m", "k"),
    "leak": ("area_m2",),
    "gate": ("bore_m", "opening"),
    "elbow": ("bore_m", "angle_deg", "style", "radius_m"),
    "plate": ("bore_m",),
    "filter": ("bore_m", "medium", "area_m2", "held_kg"),
    "wet-stage": ("throat_d_m", "immersion_m", "vessel_d_m", "water_kg", "outlet_height_m"),
}
#: of a separator, what is changed most; the rest is on its own page
SEPARATOR_KEYS: dict[str, tuple[str, ...]] = {
    "cyclone": ("body_d_m", "outlet_d_m", "total_height_m"),
    "slotted-disc": ("slots[0].width_m", "slots[0].arc_deg", "inlet_bore_m"),
    "elbow-lid": ("inlet_bore_m", "outlet_d_m", "outlet_aim"),
    "rim-inlet": ("inlet_bore_m", "outlet_d_m", "outlet_length_m"),
    "one-body": ("slots[0].width_m", "inlet_bore_m", "window_area_m2"),
}
BIN_KEYS = ("bin.fill_height_m", "bin.closure", "bin.leak_area_m2", "tilt_deg")
TOOL_KEYS = ("port.bore_m", "port.entry", "port.machine", "port.dust_rate_kg_s")
#: of a hood, by its kind, what is changed most; the rest is on its own page
HOOD_KEYS: dict[str, tuple[str, ...]] = {
    "opening": ("distance_m", "release", "thrown_share"),
    "built-in": ("distance_m", "release", "thrown_share"),
    "slot": ("distance_m", "release", "thrown_share"),
    "enclosure": ("openings[0].area_m2", "release", "thrown_share"),
    "floor": ("gap_m", "thrown_share"),
}
CURVE_KEYS = ("vacuum.curve.sealed_suction_pa", "vacuum.curve.open_flow_m3_s", "vacuum.curve.air_watts")
VACUUM_KEYS = ("vacuum.electrical_power_w", "vacuum.inlet_bore_m")
LABEL = "vacuum:label"  #: the vacuum on its own page, where there is room for all of it
FILTER_KEYS = ("vacuum.filter.kind", "vacuum.filter.area_m2", "vacuum.filter.held_kg")
JOIN_KEY = "join_angle_deg"
SITE_KEYS = ("site.temperature_c", "site.altitude_m")


def part_paths(rig: Rig, part: str) -> tuple[str, tuple[str, ...]] | None:
    """(kind, paths of the fields) of a part; None when the line has none of that id."""
    if part == LABEL:
        return "label", _label_paths(rig)
    if part == "vacuum":
        curve = CURVE_KEYS if rig.vacuum.curve.kind == "nameplate" else ()
        usual = (DUST_KIND,) if rig.dust and len(rig.line.ways) > 1 else ()  # of several tools none says it for all
        return "vacuum", curve + VACUUM_KEYS + (FILTER_KEYS if rig.vacuum.filter else ()) + SITE_KEYS + usual
    groups = [("line", rig.line.elements)]
    for way, branch in rig.line.walk():
        root = f"line.{way}"
        groups.append((root, branch.elements))
        if branch.id == part:
            return "tool", _tool_paths(rig, root, branch)
    for root, elements in groups:
        for e, element in enumerate(elements):
            if element.id == part:
                return element.kind, _element_paths(f"{root}.elements[{e}]", element)
    return None


def _label_paths(rig: Rig) -> tuple[str, ...]:
    """All there is to say about a vacuum, but for a measured curve, which is a table of its own."""
    keys = [*CURVE_KEYS, "vacuum.curve.exponent"] if rig.vacuum.curve.kind == "nameplate" else []
    keys += ["vacuum.name", *VACUUM_KEYS, "vacuum.current_a", "vacuum.motor_speed", "vacuum.loudness_dba"]
    for name, medium in (("filter", rig.vacuum.filter), ("bag", rig.vacuum.bag)):
        if medium is not None:
            kind = [f"vacuum.{name}.kind"] if name == "filter" else []
            keys += [*kind, *(f"vacuum.{name}.{key}" for key in ("area_m2", "held_kg", "price"))]
    return (*keys, *SITE_KEYS)


def _tool_paths(rig: Rig, root: str, branch: BranchPart) -> tuple[str, ...]:
    """With one tool its dust is the line's; of several each has its own, where it makes another than the line's."""
    several = len(rig.line.ways) > 1
    paths = _branch_paths(root, branch, joins=several)
    if not several:
        return (*paths, DUST_KIND) if rig.dust else paths
    return (*paths, f"{root}.port.dust") if branch.port is not None else paths


def _branch_paths(root: str, branch: BranchPart, *, joins: bool) -> tuple[str, ...]:
    keys: tuple[str, ...] = ()
    if branch.port is not None:
        hood = branch.port.hood
        keys = TOOL_KEYS + (tuple(f"port.hood.{key}" for key in HOOD_KEYS[hood.kind]) if hood else ())
    gate = ("gate.opening",) if branch.gate else ()
    name = ("port.name",) if branch.port else ()
    return tuple(f"{root}.{key}" for key in (*name, *keys, *gate, *((JOIN_KEY,) if joins else ())))


def _element_paths(root: str, element: Any) -> tuple[str, ...]:
    if isinstance(element, SeparatorPart):
        return tuple(f"{root}.{key}" for key in (*SEPARATOR_KEYS[element.type], *BIN_KEYS))  # type: ignore[attr-defined]
    keys = ["name", *PART_KEYS[element.kind]]
    if isinstance(element, HosePart):
        for i in range(len(element.bends)):
            keys += [f"bends[{i}].angle_deg", f"bends[{i}].radius_m"]
    if isinstance(element, PlatePart):
        for i in range(len(element.holes)):
            keys += [f"holes[{i}].diameter_m", f"holes[{i}].count"]
    return tuple(f"{root}.{key}" for key in keys)


def open_editor(rig: Rig, part: str, title: str, system: str) -> Editor | None:
    """The editor of a part as it stands; None when there is no such part."""
    found = part_paths(rig, part)
    if found is None:
        return None
    kind, paths = found
    document = rig.model_dump(mode="json")
    guessed = {guess_path(document, guess) for guess in document["guesses"]}
    fields = (_called(rig_field(rig, document, path, system), several=len(rig.line.ways) > 1) for path in paths)
    return Editor(part, title, kind, tuple(replace(field, guess=field.path in guessed) for field in fields))


def _called(field: Field, *, several: bool) -> Field:
    """The dust of a tool and that of the line are told apart where there are several tools."""
    if field.path.endswith(".port.dust"):
        return replace(field, unknown="that of the line")
    return replace(field, label="Dust of the line") if several and field.path == DUST_KIND else field
