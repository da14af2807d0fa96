"""Routes of a tool port's own page: parse, call, render."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.line.extra_fan import extra_flow
from fenwick.data.lines import LineState, line_state
from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.edits.hood_box import WAYS, changed_box
from fenwick.rig.edits.hood_options import hood_options
from fenwick.rig.edits.ports import alone
from fenwick.rig.format.elements import PortPart
from fenwick.rig.format.hood import HOOD_KINDS, EnclosurePart, ExtraFanPart, begun_hood, generic_hood
from fenwick.rig.format.places import path_of
from fenwick.rig.voice import voice_for
from fenwick.services.solving import solve
from fenwick.web.hood.view import branch_of, hood_editor, hood_view
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import Editor, read_editor
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.history import step as step_history
from fenwick.web.kit.units import unit_system
from fenwick.wording.hood import HOOD_WORDS, option_words

bp = Blueprint("hood", __name__)
FAN = {"flow_m3_s": 0.1, "medium": "paper", "area_m2": 0.5}  #: what an extra fan begins as
#: what its curve begins as: that of a small blower
FAN_CURVE = {
    "curve": {
        "kind": "nameplate",
        "sealed_suction_pa": 500.0,
        "open_flow_m3_s": 0.2,
        "air_watts": None,
        "exponent": None,
    },
    "bore_m": 0.1,
}
FAN_WORDS = {"add": "added", "remove": "removed", "curve": "by its curve", "flow": "by its flow"}
MOST_WAYS = 8


def _found(line_id: int, port: str) -> tuple[LineState, PortPart, str]:
    """The line, a tool port of it, and its path in the file; 404 where there is none."""
    state = form_line(line_id)
    branch = branch_of(state.rig, port)
    if branch is None or branch.port is None:
        abort(404)
    return state, branch.port, f"{path_of(state.rig.model_dump(mode='json'), port)}.port"


@bp.get("/lines/<int:line_id>/ports/<port>/hood")
def show(line_id: int, port: str) -> ResponseReturnValue:
    """The hood at a port, open alone."""
    state, _, _ = _found(line_id, port)
    return _render(state, port)


@bp.post("/lines/<int:line_id>/ports/<port>/hood")
def change(line_id: int, port: str) -> ResponseReturnValue:
    """Take the fields; what is wrong comes back beside what was typed."""
    state, part, _ = _found(line_id, port)
    system = unit_system()
    changed = read_editor(state.rig, hood_editor(state.rig, port, part.name, system), request.form, system)
    if changed.editor.error or any(field.error for field in changed.editor.fields):
        return _render(state, port, changed.editor, 422)
    if changed.rig is not None:
        save(line_id, changed.rig, changed.label)
    return _after(line_id, port)


@bp.post("/lines/<int:line_id>/ports/<port>/hood/kind")
def change_kind(line_id: int, port: str) -> ResponseReturnValue:
    """Another kind of hood, or that of a generic tool."""
    state, part, path = _found(line_id, port)
    kind = request.form.get("kind", "")
    tool = TOOLS.get(kind.removeprefix("tool:"))
    if tool is not None:
        words = f"{part.name}: hood of a {tool.label.lower()}"
        return _save(state, port, {f"{path}.hood": generic_hood(tool)}, words)
    if kind not in HOOD_KINDS:
        abort(400)
    words = f"{part.name}: {HOOD_WORDS[kind].lower()}"
    return _save(state, port, {f"{path}.hood": begun_hood(kind, part.hood, part.bore_m)}, words)


@bp.post("/lines/<int:line_id>/ports/<port>/hood/ways/<way>")
def change_ways(line_id: int, port: str, way: str) -> ResponseReturnValue:
    """Add a way of working to a box, or take the last one away."""
    state, part, path = _found(line_id, port)
    if not isinstance(part.hood, EnclosurePart) or part.hood.box is not None or way not in ("add", "remove"):
        abort(400)
    ways: list[dict[str, Any]] = [one.model_dump(mode="json") for one in part.hood.openings]
    if way == "add" and len(ways) < MOST_WAYS:
        ways.append({"name": "Door open", "area_m2": round(2.0 * ways[-1]["area_m2"], 5), "share": 0.25})
    elif way == "remove":
        ways.pop()
    words = f"{part.name}: a way of working {'added' if way == 'add' else 'removed'}"
    return _save(state, port, {f"{path}.hood.openings": ways}, words)


@bp.post("/lines/<int:line_id>/ports/<port>/hood/box/<way>")
def change_box(line_id: int, port: str, way: str) -> ResponseReturnValue:
    """Give a box its sizes, or take them away; a passage or a door more or less."""
    state, part, path = _found(line_id, port)
    if not isinstance(part.hood, EnclosurePart) or way not in WAYS:
        abort(400)
    try:
        keys = changed_box(part.hood, way)
    except KeyError:
        abort(400)
    hood = {**part.hood.model_dump(mode="json"), **keys}
    return _save(state, port, {f"{path}.hood": hood}, f"{part.name}: {WAYS[way]}")


@bp.post("/lines/<int:line_id>/ports/<port>/hood/fan/<way>")
def change_fan(line_id: int, port: str, way: str) -> ResponseReturnValue:
    """An extra fan at the hood, or none; told by its flow, or by its curve and its duct."""
    state, part, path = _found(line_id, port)
    fan = None if part.hood is None else part.hood.extra_fan
    if part.hood is None or way not in FAN_WORDS or (fan is None and way in ("curve", "flow")):
        abort(400)
    begun = {
        "add": FAN,
        "remove": None,
        "curve": {**_dumped(fan), "flow_m3_s": None, **FAN_CURVE},
        "flow": {**_dumped(fan), "curve": None, "bore_m": None, "flow_m3_s": _moved(state, port)},
    }
    return _save(state, port, {f"{path}.hood.extra_fan": begun[way]}, f"{part.name}: extra fan {FAN_WORDS[way]}")


def _moved(state: LineState, port: str) -> float:
    """Air that the extra fan at a port moves, so that it goes on doing so when it is told by its flow [m^3/s]."""
    line = solve(state.rig).line
    hood = next(leaf.port.hood for leaf in line.leaves if leaf.id == port)
    return round(one_value(extra_flow(hood.extra_fan if hood else None, line)), 4)


def _dumped(fan: ExtraFanPart | None) -> dict[str, Any]:
    return {} if fan is None else fan.model_dump(mode="json")


@bp.post("/lines/<int:line_id>/ports/<port>/hood/take/<option>")
def take(line_id: int, port: str, option: str) -> ResponseReturnValue:
    """Do one of the things the page offers; the gates stay as they were."""
    state, part, path = _found(line_id, port)
    rig = alone(state.rig, port) or state.rig
    chosen = next((one for one in hood_options(rig, port, solve(rig).found) if one.id == option), None)
    if chosen is None:
        abort(404)
    changed = branch_of(chosen.rig, port)
    assert changed is not None
    assert changed.port is not None
    words, _ = option_words(option, chosen.value, voice_for(rig, unit_system()))
    new = changed.port.model_dump(mode="json")
    return _save(
        state, port, {f"{path}.{key}": new[key] for key in ("hood", "entry", "outdoors")}, f"{part.name}: {words}"
    )


@bp.post("/lines/<int:line_id>/ports/<port>/hood/<any(undo, redo):way>")
def step(line_id: int, port: str, way: str) -> ResponseReturnValue:
    """Take the last change back, or bring it again."""
    step_history(line_id, way)
    if branch_of(line_state(session(), line_id).rig, port) is None:
        return redirect(url_for("line.show", line_id=line_id))
    return _after(line_id, port)


def _save(state: LineState, port: str, changes: dict[str, Any], words: str) -> ResponseReturnValue:
    try:
        rig: Rig = edit_rig(state.rig, changes)
    except RigError as error:
        sentence = error.problems[0].sentence(unit_system())
        editor = hood_editor(state.rig, port, port, unit_system())
        return _render(state, port, editor.with_error(sentence[:1].upper() + sentence[1:] + "."), 422)
    save(state.id, rig, words)
    return _after(state.id, port)


def _after(line_id: int, port: str) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(line_now(line_id), port)
    return redirect(url_for("hood.show", line_id=line_id, port=port))


def _render(state: LineState, port: str, editor: Editor | None = None, status: int = 200) -> ResponseReturnValue:
    template = "hood/_hood.html" if request.headers.get("HX-Request") else "hood/page.html"
    return render_template(template, view=hood_view(state, port, unit_system(), editor)), status
