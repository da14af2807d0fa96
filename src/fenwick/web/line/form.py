"""The editor of one part: its fields as text in the user's units, and reading them back.

A field whose text is what was shown keeps its stored value to the last bit: switching units and saving changes nothing.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.dust import begun
from fenwick.rig.elements import BranchPart, HosePart, PlatePart
from fenwick.rig.guesses import guess_path
from fenwick.rig.problems import split_path
from fenwick.rig.separator import SeparatorPart
from fenwick.web.document_fields import document_field, facts_at, read_changes, sentences_by_path, typed_value
from fenwick.web.fields import Field

PART_KEYS: dict[str, tuple[str, ...]] = {
    "hose": ("bore_m", "length_m", "wall", "rise_m", "roughness_m"),
    "reducer": ("bore_in_m", "bore_out_m", "length_m"),
    "loss": ("bore_m", "k"),
    "leak": ("area_m2",),
    "gate": ("bore_m", "opening"),
    "elbow": ("bore_m", "angle_deg", "style", "radius_m"),
    "plate": ("bore_m",),
    "filter": ("bore_m", "medium", "area_m2", "held_kg"),
    "wet-stage": ("throat_d_m", "immersion_m", "vessel_d_m", "water_kg"),
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
DUST_KIND = "dust.kind"  #: another kind of dust is described otherwise, as a whole
JOIN_KEY = "join_angle_deg"
SITE_KEYS = ("site.temperature_c", "site.altitude_m")


@dataclass(frozen=True)
class Editor:
    """The fields of one part."""

    part: str
    title: str
    kind: str
    fields: tuple[Field, ...]
    error: str = ""  #: about no single field

    @property
    def movable(self) -> bool:
        """Whether it is a part between tool and vacuum."""
        return self.kind not in ("tool", "vacuum")

    def with_error(self, error: str) -> Editor:
        """The same editor with a sentence about the part as a whole."""
        return replace(self, error=error)


def part_paths(rig: Rig, part: str) -> tuple[str, tuple[str, ...]] | None:
    """(kind, paths of the fields) of a part; None when the line has none of that id."""
    if part == LABEL:
        return "label", _label_paths(rig)
    if part == "vacuum":
        curve = CURVE_KEYS if rig.vacuum.curve.kind == "nameplate" else ()
        return "vacuum", curve + VACUUM_KEYS + (FILTER_KEYS if rig.vacuum.filter else ()) + SITE_KEYS
    groups = [("line", rig.line.elements)]
    for way, branch in rig.line.walk():
        root = f"line.{way}"
        groups.append((root, branch.elements))
        if branch.id == part:
            return "tool", _branch_paths(root, branch, joins=len(rig.line.ways) > 1) + (
                (DUST_KIND,) if rig.dust else ()
            )
    for root, elements in groups:
        for e, element in enumerate(elements):
            if element.id == part:
                return element.kind, _element_paths(f"{root}.elements[{e}]", element)
    return None


def _label_paths(rig: Rig) -> tuple[str, ...]:
    """All there is to say about a vacuum, but for a measured curve, which is a table of its own."""
    keys = [*CURVE_KEYS, "vacuum.curve.exponent"] if rig.vacuum.curve.kind == "nameplate" else []
    keys += ["vacuum.name", *VACUUM_KEYS, "vacuum.current_a", "vacuum.motor_speed"]
    for name, medium in (("filter", rig.vacuum.filter), ("bag", rig.vacuum.bag)):
        if medium is not None:
            kind = [f"vacuum.{name}.kind"] if name == "filter" else []
            keys += [*kind, *(f"vacuum.{name}.{key}" for key in ("area_m2", "held_kg", "price"))]
    return (*keys, *SITE_KEYS)


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
    fields = (rig_field(rig, document, path, system) for path in paths)
    return Editor(part, title, kind, tuple(replace(field, guess=field.path in guessed) for field in fields))


def rig_field(rig: Rig, document: Any, path: str, system: str) -> Field:
    """The field of one value of a rig, as it stands."""
    field = document_field(Rig, document, path, system)
    if "bends[" in path:
        word = "Radius" if path.endswith("radius_m") else "Bend"
        return replace(field, label=f"{word} {_row_number(path)}")
    if ".bin.profile[" in path:
        low = "profile[0]" in path
        word = "Bin height" if path.endswith("height_m") else f"Bin wide {'at the floor' if low else 'at the top'}"
        return replace(field, label=word)
    if ".holes[" in path:
        return replace(field, label=f"{_row_number(path)}. {field.label.lower()}")
    return field


def _row_number(path: str) -> int:
    """Which row of a list a path points into, from 1."""
    return [item for item in split_path(path) if isinstance(item, int)][-1] + 1


@dataclass(frozen=True)
class Change:
    """What an editor's submission comes to: a new rig and its label, or the editor with its errors."""

    rig: Rig | None
    label: str
    editor: Editor


def read_editor(rig: Rig, editor: Editor, form: Mapping[str, str], system: str) -> Change:
    """Read a submitted editor.

    Returns
    -------
    A change with rig None and an empty label when nothing differs; with errors on the fields when something is wrong.
    """
    values, errors = read_changes(Rig, rig.model_dump(mode="json"), list(editor.fields), form, system)
    changed = None
    if values and not errors:
        made = {key: value for key, value in values.items() if key != DUST_KIND}
        if DUST_KIND in values:
            made |= {"dust": begun(str(values[DUST_KIND]), rig.dust), DUST_KIND: values[DUST_KIND]}
        try:
            changed = edit_rig(rig, made)
        except RigError as error:
            errors |= sentences_by_path(error.problems, {field.path for field in editor.fields}, system)
    typed = _typed(editor, form, errors)
    if changed is None or errors:
        return Change(None, "", typed)
    return Change(changed, _label(rig, changed, editor, tuple(values), system), typed)


def field_value_at(rig: Rig, path: str, text: str, system: str) -> float | str | None:
    """What was typed for the value at a path.

    Raises
    ------
    BadNumberError
    """
    document = rig.model_dump(mode="json")
    return typed_value(rig_field(rig, document, path, system), text, facts_at(Rig, path, document), system)


def _typed(editor: Editor, form: Mapping[str, str], errors: dict[str, str]) -> Editor:
    """The editor with what was typed still in it, and the errors beside their fields."""
    fields = tuple(replace(f, text=form.get(f.path, f.text), error=errors.get(f.path, "")) for f in editor.fields)
    return Editor(editor.part, editor.title, editor.kind, fields, errors.get("", ""))


def _label(before: Rig, after: Rig, editor: Editor, paths: tuple[str, ...], system: str) -> str:
    """What was changed, from what to what."""
    document = after.model_dump(mode="json")
    said = []
    for field in editor.fields:
        if field.path in paths:
            now = rig_field(after, document, field.path, system)
            said.append(f"{field.label.lower()} {_shown(field)} → {_shown(now)}")
    return f"{editor.title}: {', '.join(said)}"


def _shown(field: Field) -> str:
    if field.choices:
        return dict(field.choices).get(field.text, "not known").lower() if field.text else "not known"
    return f"{field.text} {field.unit}".strip() if field.text else "not known"
