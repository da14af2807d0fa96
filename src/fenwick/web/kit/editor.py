"""The editor of a thing: its fields as text in the user's units, and reading them back.

A field whose text is what was shown keeps its stored value to the last bit: switching units and saving changes nothing.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.format.dust import begun
from fenwick.rig.format.problems import split_path
from fenwick.web.kit.document_fields import document_field, facts_at, read_changes, sentences_by_path, typed_value
from fenwick.web.kit.fields import Field

DUST_KIND = "dust.kind"  #: another kind of dust is described otherwise, as a whole


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
