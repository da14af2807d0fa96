"""Routes of the Checks: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.judging.check import LEVEL_WORDS, OK
from fenwick.data.acknowledgements import acknowledge, withdraw
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.edits.changes import apply_candidate, candidate_of
from fenwick.rig.voice import voice_for
from fenwick.services.checks import checked
from fenwick.web.checks.view import SETTLES, begun, checks_view, editors_of, row_key
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import Editor, read_editor
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.history import step as step_history
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.pieces import Refused
from fenwick.web.kit.units import unit_system
from fenwick.wording.checks import CHECKS, check_sentence
from fenwick.wording.whatif import action_words

bp = Blueprint("checks", __name__)
LONGEST = 500  #: characters of a reason


@bp.get("/checks")
def start() -> ResponseReturnValue:
    """The checks of the line in hand; the five questions where there is none."""
    line_id = line_in_hand()
    return redirect(url_for("checks.show", line_id=line_id) if line_id else url_for("start.ask"))


@bp.get("/lines/<int:line_id>/checks")
def show(line_id: int) -> ResponseReturnValue:
    """Every check of a line."""
    return _render(line_state(session(), line_id))


@bp.get("/lines/<int:line_id>/checks/panel")
def panel(line_id: int) -> ResponseReturnValue:
    """What asks for something, to lay over any place."""
    state = line_state(session(), line_id)
    view = checks_view(state, checked(session(), state), unit_system())
    return render_template("checks/_panel.html", view=view)


@bp.post("/lines/<int:line_id>/checks/<key>/seen")
def see(line_id: int, key: str) -> ResponseReturnValue:
    """Acknowledge a check, with the reason."""
    state = line_state(session(), line_id)
    one = next((one for one in checked(session(), state) if row_key(one.check) == key and one.level > OK), None)
    if one is None:
        abort(404)
    reason = request.form.get("reason", "").strip()
    if not reason or len(reason) > LONGEST:
        wrong = "Say why it may stay so." if not reason else f"At most {LONGEST} characters."
        return _render(state, 422, refused=Refused(key, reason, wrong))
    sentence = check_sentence(one.check, voice_for(state.rig, unit_system()))
    acknowledge(session(), line_id, one.check.id, one.check.part or "", one.level, sentence, reason)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/checks/seen/<int:ack>/withdraw")
def take_back(line_id: int, ack: int) -> ResponseReturnValue:
    """Take an acknowledgement back; the check is open again."""
    if not withdraw(session(), line_id, ack):
        abort(404)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/checks/settle/<check>")
def settle(line_id: int, check: str) -> ResponseReturnValue:
    """Say that what a check asks for has been done."""
    if check not in SETTLES:
        abort(404)
    said = SETTLES[check]
    state = line_state(session(), line_id)
    return _save(state, {said.path: said.value}, f"{CHECKS[check].title}: {said.words.lower()}")


@bp.post("/lines/<int:line_id>/checks/mend/<key>")
def mend(line_id: int, key: str) -> ResponseReturnValue:
    """Make the single change that mends a check."""
    state, candidate = line_state(session(), line_id), candidate_of(key)
    if candidate is None:
        abort(404)
    try:
        rig = apply_candidate(state.rig, candidate)
    except (KeyError, RigError, StopIteration):
        abort(404)
    save(line_id, rig, action_words(candidate, voice_for(state.rig, unit_system())))
    return _after(line_id)


@bp.post("/lines/<int:line_id>/checks/fields/<part>")
def change(line_id: int, part: str) -> ResponseReturnValue:
    """Take the fields of what the checks hang on."""
    state, system = form_line(line_id), unit_system()
    other = any(key.endswith("bin.material") and value == "other" for key, value in request.form.items())
    editor = next((one for one in editors_of(state.rig, system, other=other) if one.part == part), None)
    if editor is None:
        abort(404)
    changed = read_editor(state.rig, editor, request.form, system)
    if changed.editor.error or any(field.error for field in changed.editor.fields):
        return _render(state, 422, editor=changed.editor)
    if changed.rig is not None:
        save(line_id, changed.rig, changed.label)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/checks/begin/<what>")
def begin(line_id: int, what: str) -> ResponseReturnValue:
    """Describe a lid or a relief valve, or no longer."""
    state = line_state(session(), line_id)
    found = begun(state.rig, what)
    if found is None:
        abort(404)
    return _save(state, {found.path: found.value}, found.words)


@bp.post("/lines/<int:line_id>/checks/<any(undo, redo):way>")
def step(line_id: int, way: str) -> ResponseReturnValue:
    """Take the last change of the line back, or bring it again."""
    step_history(line_id, way)
    return _after(line_id)


def _save(state: LineState, changes: dict[str, object], words: str) -> ResponseReturnValue:
    try:
        rig: Rig = edit_rig(state.rig, changes)
    except RigError:
        abort(400)
    save(state.id, rig, words)
    return _after(state.id)


def _after(line_id: int) -> ResponseReturnValue:
    if "panel" in request.form:
        return panel(line_id)
    if request.headers.get("HX-Request"):
        return _render(line_now(line_id))
    return redirect(url_for("checks.show", line_id=line_id))


def _render(
    state: LineState,
    status: int = 200,
    refused: Refused | None = None,
    editor: Editor | None = None,
) -> ResponseReturnValue:
    view = checks_view(state, checked(session(), state), unit_system(), refused, editor)
    template = "checks/_checks.html" if request.headers.get("HX-Request") else "checks/page.html"
    if "panel" in request.form:
        template = "checks/_panel.html"
    lines = line_names(session(), state.id)
    return render_template(template, view=view, lines=lines, level_order=LEVEL_WORDS), status
