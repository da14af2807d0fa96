"""The editor of one part: its fields as text in the user's units, and reading them back.

A field whose text is what was shown keeps its stored value to the last bit: switching units and saving changes nothing.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from fenwick.rig import Problem, Rig, RigError, edit_rig
from fenwick.rig.describe import FieldFacts, describe
from fenwick.rig.edit import value_at
from fenwick.rig.elements import HosePart
from fenwick.rig.separator import SlottedDiscPart
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.line.words import choice_word

PART_KEYS: dict[str, tuple[str, ...]] = {
    "hose": ("bore_m", "length_m", "wall", "roughness_m"),
    "reducer": ("bore_in_m", "bore_out_m", "length_m"),
    "loss": ("bore_m", "k"),
    "leak": ("area_m2",),
    "gate": ("bore_m", "opening"),
    "separator": (
        "slots[0].width_m",
        "slots[0].arc_deg",
        "slots[0].start_deg",
        "chamber_d_m",
        "chamber_height_m",
        "inlet_bore_m",
        "outlet_d_m",
        "outlet_length_m",
        "bin.fill_height_m",
        "bin.closure",
        "bin.leak_area_m2",
        "bin.wall_m",
        "bin.material",
        "tilt_deg",
    ),
}
TOOL_KEYS = ("port.bore_m", "port.entry", "port.machine", "port.dust_rate_kg_s")
HOOD_KEYS = ("port.hood.distance_m", "port.hood.release", "port.hood.thrown_share")
VACUUM_KEYS = (
    "vacuum.curve.sealed_suction_pa",
    "vacuum.curve.open_flow_m3_s",
    "vacuum.curve.air_watts",
    "vacuum.electrical_power_w",
    "vacuum.inlet_bore_m",
)
FILTER_KEYS = ("vacuum.filter.kind", "vacuum.filter.area_m2", "vacuum.filter.held_kg")
SITE_KEYS = ("site.temperature_c", "site.altitude_m")


@dataclass(frozen=True)
class Field:
    """One field of the editor."""

    path: str
    label: str
    text: str
    unit: str = ""
    choices: tuple[tuple[str, str], ...] = ()  #: (value, word); empty for a number
    optional: bool = False
    error: str = ""

    @property
    def id(self) -> str:
        """Its id on the page."""
        return "f-" + "".join(c if c.isalnum() else "-" for c in self.path)

    @property
    def wide(self) -> bool:
        """Whether its choices need the room of two fields."""
        return max((len(word) for _, word in self.choices), default=0) > 16


@dataclass(frozen=True)
class Editor:
    """The fields of one part."""

    part: str
    title: str
    kind: str
    fields: tuple[Field, ...]
    error: str = ""  #: about no single field


def part_paths(rig: Rig, part: str) -> tuple[str, tuple[str, ...]] | None:
    """(kind, paths of the fields) of a part; None when the line has none of that id."""
    if part == "vacuum":
        return "vacuum", VACUUM_KEYS + (FILTER_KEYS if rig.vacuum.filter else ()) + SITE_KEYS
    for b, branch in enumerate(rig.line.branches):
        root = f"line.branches[{b}]"
        if branch.id == part:
            keys = TOOL_KEYS + (HOOD_KEYS if branch.port.hood else ()) + (("gate.opening",) if branch.gate else ())
            return "tool", tuple(f"{root}.{key}" for key in keys) + (("dust.kind",) if rig.dust else ())
        for e, element in enumerate(branch.elements):
            if element.id == part:
                return element.kind, _element_paths(f"{root}.elements[{e}]", element)
    for e, element in enumerate(rig.line.elements):
        if element.id == part:
            return element.kind, _element_paths(f"line.elements[{e}]", element)
    return None


def _element_paths(root: str, element: Any) -> tuple[str, ...]:
    keys = list(PART_KEYS[element.kind])
    if isinstance(element, HosePart):
        for i in range(len(element.bends)):
            keys += [f"bends[{i}].angle_deg", f"bends[{i}].radius_m"]
    if isinstance(element, SlottedDiscPart):
        for i in range(1, len(element.slots)):
            keys += [f"slots[{i}].width_m", f"slots[{i}].arc_deg", f"slots[{i}].start_deg"]
    return tuple(f"{root}.{key}" for key in keys)


def open_editor(rig: Rig, part: str, title: str, system: str) -> Editor | None:
    """The editor of a part as it stands; None when there is no such part."""
    found = part_paths(rig, part)
    if found is None:
        return None
    kind, paths = found
    document = rig.model_dump(mode="json")
    return Editor(part, title, kind, tuple(_field(rig, document, path, system) for path in paths))


def _facts(path: str, document: Any) -> FieldFacts:
    facts = describe(Rig, path, document)
    assert facts is not None, path
    return facts


def _field(rig: Rig, document: Any, path: str, system: str) -> Field:
    facts, value = _facts(path, document), value_at(rig, path)
    label = facts.title
    if "bends[" in path:
        label = f"Bend {int(path.split('bends[')[1][0]) + 1} {label.lower().removesuffix(' of the centre line')}"
    if facts.choices:
        choices = tuple((choice, choice_word(path, choice)) for choice in facts.choices)
        return Field(path, label, value or "", choices=choices, optional=facts.optional)
    quantity = facts.quantity or "number"
    text = "" if value is None else format_value(value, quantity, system, field=True)
    return Field(path, label, text, unit_label(quantity, system), optional=facts.optional)


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
    document = rig.model_dump(mode="json")
    values: dict[str, Any] = {}
    errors: dict[str, str] = {}
    for field in editor.fields:
        text = form.get(field.path, field.text).strip()
        if text == field.text:
            continue
        try:
            values[field.path] = _value(field, text, _facts(field.path, document), system)
        except BadNumberError as error:
            errors[field.path] = str(error)
    changed = None
    if values and not errors:
        try:
            changed = edit_rig(rig, values)
        except RigError as error:
            errors |= _sentences(error.problems, editor, system)
    typed = _typed(editor, form, errors)
    if changed is None or errors:
        return Change(None, "", typed)
    return Change(changed, _label(rig, changed, editor, tuple(values), system), typed)


def _value(field: Field, text: str, facts: FieldFacts, system: str) -> float | str | None:
    if not text and field.optional:
        return None
    if field.choices:
        return text
    return parse_value(text, facts.quantity or "number", system)


def _sentences(problems: tuple[Problem, ...], editor: Editor, system: str) -> dict[str, str]:
    known = {field.path for field in editor.fields}
    said: dict[str, str] = {}
    for problem in problems:
        sentence = problem.sentence(system)
        said[problem.path if problem.path in known else ""] = sentence[:1].upper() + sentence[1:] + "."
    return said


def _typed(editor: Editor, form: Mapping[str, str], errors: dict[str, str]) -> Editor:
    """The editor with what was typed still in it, and the errors beside their fields."""
    fields = tuple(
        Field(f.path, f.label, form.get(f.path, f.text), f.unit, f.choices, f.optional, errors.get(f.path, ""))
        for f in editor.fields
    )
    return Editor(editor.part, editor.title, editor.kind, fields, errors.get("", ""))


def _label(before: Rig, after: Rig, editor: Editor, paths: tuple[str, ...], system: str) -> str:
    """What was changed, from what to what."""
    new = open_editor(after, editor.part, editor.title, system)
    assert new is not None
    old_fields = {field.path: field for field in editor.fields}
    said = []
    for field in new.fields:
        if field.path in paths:
            said.append(f"{field.label.lower()} {_shown(old_fields[field.path])} → {_shown(field)}")
    return f"{editor.title}: {', '.join(said)}"


def _shown(field: Field) -> str:
    if field.choices:
        return dict(field.choices).get(field.text, "not known").lower() if field.text else "not known"
    return f"{field.text} {field.unit}".strip() if field.text else "not known"
