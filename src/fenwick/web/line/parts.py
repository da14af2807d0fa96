"""Routes that change what the line is made of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flask import abort, request
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_state
from fenwick.data.shops import shop_state
from fenwick.rig import Rig, RigError
from fenwick.rig.edits.branches import add_tool, gate_branch, join_behind, remove_tool, split_behind
from fenwick.rig.edits.structure import (
    ADDABLE,
    add_part,
    duplicate_part,
    move_part,
    move_part_behind,
    remove_part,
)
from fenwick.rig.voice import voice_for
from fenwick.shop.into_line import swap
from fenwick.web.kit.database import session
from fenwick.web.kit.history import save
from fenwick.web.kit.units import unit_system
from fenwick.web.line.form import open_editor
from fenwick.web.line.routes import after_change, bp, render
from fenwick.web.line.view import Attempt

TOOL, GATE_HERE = "tool", "gate-here"  #: what can be added besides parts


@dataclass(frozen=True)
class Restructured:
    """A rig with other parts, or in another order."""

    rig: Rig
    pick: str | None  #: the part to look at then
    label: str  #: what was done


def _add(rig: Rig, part: str, name: str) -> Restructured:
    kind = request.form.get("kind", "")
    if kind == TOOL:
        return _tool(rig, part, name)
    if kind == GATE_HERE:
        return Restructured(gate_branch(rig, part), part, f"Gate put where {name} joins")
    changed, new = add_part(rig, part, kind)
    return Restructured(changed, new, f"{ADDABLE[kind]} added behind {name}")


def _duplicate(rig: Rig, part: str, name: str) -> Restructured:
    changed, new = duplicate_part(rig, part)
    return Restructured(changed, new, f"{name} duplicated")


def _tool(rig: Rig, part: str, name: str) -> Restructured:
    if _is_tool(rig, part):
        changed, new = add_tool(rig, part)
        return Restructured(changed, new, f"A tool added beside {name}")
    changed, new = split_behind(rig, part)
    return Restructured(changed, new, f"A tool joins behind {name}")


def _is_tool(rig: Rig, part: str) -> bool:
    return any(branch.id == part for _, branch in rig.line.walk())


def _remove(rig: Rig, part: str, name: str) -> Restructured:
    changed = remove_tool(rig, part) if _is_tool(rig, part) else remove_part(rig, part)
    return Restructured(changed, None, f"{name} removed")


def _behind(rig: Rig, part: str, name: str) -> Restructured:
    after = request.form.get("after", "")
    there = voice_for(rig, unit_system()).name(after)
    if _is_tool(rig, part):
        return Restructured(join_behind(rig, part, after), part, f"{name} joins behind {there}")
    return Restructured(move_part_behind(rig, part, after), part, f"{name} moved behind {there}")


def _forward(rig: Rig, part: str, name: str) -> Restructured:
    return Restructured(move_part(rig, part, +1), part, f"{name} moved towards the vacuum")


def _back(rig: Rig, part: str, name: str) -> Restructured:
    return Restructured(move_part(rig, part, -1), part, f"{name} moved towards the tool")


def _swap(rig: Rig, part: str, name: str) -> Restructured:
    changed = swap(rig, part, request.form.get("with", ""), shop_state(session()).file)
    gone = part not in {branch.id for _, branch in changed.line.walk()} and _is_tool(rig, part)
    return Restructured(
        changed, None if gone else part, f"{name} exchanged for {voice_for(changed, unit_system()).name(part)}"
    )


ACTIONS: dict[str, Callable[[Rig, str, str], Restructured]] = {
    "add": _add,
    "tool": _tool,
    "behind": _behind,
    "swap": _swap,
    "duplicate": _duplicate,
    "remove": _remove,
    "forward": _forward,
    "back": _back,
}


@bp.post("/lines/<int:line_id>/parts/<part>/<action>")
def restructure(line_id: int, part: str, action: str) -> ResponseReturnValue:
    """Add, duplicate, remove or move a part; what cannot be done is said in the editor."""
    state, system = line_state(session(), line_id), unit_system()
    name = voice_for(state.rig, system).name(part)
    editor = open_editor(state.rig, part, name, system)
    if action not in ACTIONS or editor is None:
        abort(404)
    try:
        done = ACTIONS[action](state.rig, part, name)
    except RigError as error:
        sentence = error.problems[0].sentence(system)
        refused = editor.with_error(f"{sentence[:1].upper()}{sentence[1:]}.")
        return render(state, part, request.form.get("port"), Attempt(refused), 422)
    save(line_id, done.rig, done.label)
    return after_change(line_id, done.pick)
