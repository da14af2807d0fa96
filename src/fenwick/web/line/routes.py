"""Routes of the Line: parse, call, render."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.search.changes import Candidate
from fenwick.data.lines import LineState, NotFoundError, line_names, line_state, stored_document
from fenwick.rig import Rig, RigError, edit_rig, read_from_outside, write_rig
from fenwick.rig.edits.changes import candidate_of
from fenwick.rig.edits.measure import confirm_guess, path_of_guess
from fenwick.rig.edits.ports import alone, open_gates, turned
from fenwick.rig.voice import voice_for
from fenwick.services.lines import line_to_open
from fenwick.services.solving import solve
from fenwick.services.way_kept import with_steps
from fenwick.shop.into_line import apply_change
from fenwick.units import BadNumberError
from fenwick.way_kept.model import MOST_STEPS
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import field_value_at, read_editor, rig_field
from fenwick.web.kit.history import form_line, line_now, save, step
from fenwick.web.kit.imports import begins_import
from fenwick.web.kit.page import pill_follows
from fenwick.web.kit.pieces import Refused
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.voice import voice_of
from fenwick.web.line.form import open_editor
from fenwick.web.line.late import late_of
from fenwick.web.line.panels import MEASURE, PART, PanelChoice
from fenwick.web.line.view import Attempt, Tried, line_view, port_index
from fenwick.wording.whatif import action_words

MOST_SAID = 20  #: characters of a sum or of hours that were said
bp = Blueprint("line", __name__)


@bp.get("/lines")
def start() -> ResponseReturnValue:
    """The shop's line with the most tools; the five questions where there is none."""
    line_id = line_to_open(session())
    if line_id is None:
        return redirect(url_for("start.ask"))
    return redirect(url_for("line.show", line_id=line_id))


@bp.get("/lines/<int:line_id>")
def show(line_id: int) -> ResponseReturnValue:
    """A line, with one part picked, or another panel opened."""
    asked = request.args
    panel = PanelChoice(
        asked.get("panel", PART), "all" in asked, asked.get("time"),
        asked.get("spend", "")[:MOST_SAID], asked.get("hours", "")[:MOST_SAID],
    )  # fmt: skip
    part, port = request.args.get("part"), request.args.get("port")
    return render(line_state(session(), line_id), part, port, Attempt(panel=panel))


@bp.get("/lines/<int:line_id>/late")
def late(line_id: int) -> ResponseReturnValue:
    """What is slower than the eye: the band, the single changes, the checks of the header."""
    key, steps = request.args.get("try"), request.args.getlist("step")
    state = line_state(session(), line_id)
    if steps:
        state = on_trial(state, steps)
    elif key is not None:
        state = _trying(line_id, key)
    voice = voice_of(state, unit_system())
    at = port_index(solve(state.rig).line, request.args.get("port"), None)
    trying = key is not None or bool(steps)
    found = late_of(state, at, voice, trying=trying)
    return render_template(
        "line/_late.html", late=found, line_id=line_id, port=request.args.get("port"), pill=not trying
    )


def on_trial(state: LineState, steps: list[str]) -> LineState:
    """The line as it would be after some steps of a way.

    Raises
    ------
    NotFoundError
        When it does not take them as it stands.
    """
    changed = with_steps(state.rig, state.owned, steps[:MOST_STEPS])
    if changed is None:
        raise NotFoundError("There is no such step on this line as it stands: it is made already, or the part is gone.")
    return replace(state, rig=changed, previous=state.rig)


@bp.post("/lines/<int:line_id>/parts/<part>")
def change_part(line_id: int, part: str) -> ResponseReturnValue:
    """Take an editor's fields; what is wrong comes back beside what was typed, and nothing is saved."""
    state, system = form_line(line_id), unit_system()
    editor = open_editor(state.rig, part, voice_for(state.rig, system).name(part), system)
    if editor is None:
        abort(404)
    change = read_editor(state.rig, editor, request.form, system)
    bad = change.editor.error or any(field.error for field in change.editor.fields)
    if bad:
        return render(state, part, request.values.get("port"), Attempt(change.editor), 422)
    if change.rig is not None:
        save(line_id, change.rig, change.label)
    return after_change(line_id, part)


@bp.post("/lines/<int:line_id>/measured/<part>/<key>")
def measured(line_id: int, part: str, key: str) -> ResponseReturnValue:
    """Put a measurement in the place of a guess; the same figure again means that it was right."""
    state, system = form_line(line_id), unit_system()
    path = path_of_guess(state.rig, part, key)
    if path is None:
        abort(404)
    panel = PanelChoice(request.form.get("panel", MEASURE), "all" in request.form)
    field = rig_field(state.rig, state.rig.model_dump(mode="json"), path, system)
    text = request.form.get("value", "").strip()
    name = f"{voice_for(state.rig, system).name(part)}: {field.label.lower()}"
    try:
        rig = confirm_guess(state.rig, part, key) if text == field.text else _with_measurement(state.rig, path, text)
    except (BadNumberError, RigError) as error:
        sentence = error.problems[0].sentence(system) if isinstance(error, RigError) else str(error)
        panel = replace(panel, refused=Refused(f"{part}.{key}", text, sentence))
        return render(state, None, request.form.get("port"), Attempt(panel=panel), 422)
    save(line_id, rig, f"{name} measured")
    return after_change(line_id, None, panel)


def _with_measurement(rig: Rig, path: str, text: str) -> Rig:
    return edit_rig(rig, {path: field_value_at(rig, path, text, unit_system())})


@bp.post("/lines/<int:line_id>/ports/<port>/alone")
def open_alone(line_id: int, port: str) -> ResponseReturnValue:
    """Open one tool port and shut the others, as far as they have gates."""
    state = line_state(session(), line_id)
    rig = alone(state.rig, port)
    if rig is None:
        abort(404)
    if rig != state.rig:
        save(line_id, rig, f"{voice_for(rig, unit_system()).name(port)} opened alone")
    return after_change(line_id, request.form.get("part"))


@bp.post("/lines/<int:line_id>/gates/<branch>")
def turn_gate(line_id: int, branch: str) -> ResponseReturnValue:
    """Shut a gate that stands open, open one that is shut."""
    state = line_state(session(), line_id)
    rig = turned(state.rig, branch)
    if rig is None:
        abort(404)
    state_words = "opened" if branch in open_gates(rig) else "shut"
    save(line_id, rig, f"Gate at {voice_for(rig, unit_system()).name(branch)} {state_words}")
    return after_change(line_id, request.form.get("part"))


@bp.get("/lines/<int:line_id>/try/<key>")
def try_change(line_id: int, key: str) -> ResponseReturnValue:
    """The page as it would be after one change; nothing is saved."""
    state, _, candidate = _tried(line_id, key)
    port, tried = request.args.get("port"), dict[str, Any](**{"try": key})
    trial = Tried(
        action_words(candidate, voice_of(state, unit_system())),
        url_for("line.keep_change", line_id=line_id, key=key),
        url_for("line.late", line_id=line_id, port=port, **tried),
        part=_touched(candidate),
    )
    return render(_trying(line_id, key), _touched(candidate), port, Attempt(trial=trial))


def _trying(line_id: int, key: str) -> LineState:
    """The line as it would be after one change; 404 for one that it does not know."""
    state, changed, _ = _tried(line_id, key)
    return replace(state, rig=changed, previous=state.rig)


@bp.post("/lines/<int:line_id>/keep/<key>")
def keep_change(line_id: int, key: str) -> ResponseReturnValue:
    """Make the change that was tried."""
    state, changed, candidate = _tried(line_id, key)
    save(line_id, changed, action_words(candidate, voice_of(state, unit_system())))
    return after_change(line_id, _touched(candidate))


def _touched(candidate: Candidate) -> str:
    """Id of the part that a change was made to."""
    return "vacuum" if candidate.kind == "vacuum" else candidate.part


def _tried(line_id: int, key: str) -> tuple[LineState, Rig, Candidate]:
    """The stored line, the rig after a change, and the change; 404 for one that the line does not know."""
    state, candidate = line_state(session(), line_id), candidate_of(key)
    if candidate is None:
        abort(404)
    try:
        return state, apply_change(state.rig, candidate, state.owned), candidate
    except (KeyError, RigError, StopIteration):
        abort(404)


@bp.post("/lines/<int:line_id>/undo")
def undo(line_id: int) -> ResponseReturnValue:
    """Take the last change back."""
    step(line_id, "undo")
    return _back_to_vacuum(line_id) or after_change(line_id, request.form.get("part"))


@bp.post("/lines/<int:line_id>/redo")
def redo(line_id: int) -> ResponseReturnValue:
    """Bring back what was undone last."""
    step(line_id, "redo")
    return _back_to_vacuum(line_id) or after_change(line_id, request.form.get("part"))


def _back_to_vacuum(line_id: int) -> ResponseReturnValue | None:
    """The vacuum's page again, where that is where the button stands."""
    return redirect(url_for("line.vacuum", line_id=line_id)) if "vacuum" in request.form else None


@bp.get("/lines/<int:line_id>/rig.json")
def save_rig(line_id: int) -> ResponseReturnValue:
    """The line as a rig file."""
    rig = line_state(session(), line_id).rig
    stem = "".join(c if c.isalnum() else "-" for c in rig.name.lower()).strip("-") or "line"
    response = Response(write_rig(rig), mimetype="application/json")
    response.headers.set("Content-Disposition", "attachment", filename=f"{stem}.json")
    return response


@bp.get("/lines/<int:line_id>/stored.json")
def stored(line_id: int) -> ResponseReturnValue:
    """What is stored of the line, readable or not."""
    response = Response(stored_document(session(), line_id), mimetype="application/json")
    response.headers.set("Content-Disposition", "attachment", filename=f"line-{line_id}-stored.json")
    return response


@bp.post("/lines/<int:line_id>/rig")
def open_rig(line_id: int) -> ResponseReturnValue:
    """Put an uploaded rig file in the line's place; one undo brings the old line back."""
    state = line_state(session(), line_id)
    upload = request.files.get("rig")
    if upload is None or not upload.filename:
        return render(state, None, None, Attempt(upload_error="Choose a rig file first."), 422)
    try:
        rig = read_from_outside(upload.stream.read())
    except RigError as error:
        name = upload.filename[:60]
        return render(state, None, None, Attempt(upload_error=f"{name} was not opened. {error}"), 422)
    begins_import()
    save(line_id, rig, f"Opened {upload.filename[:80]}")
    return after_change(line_id, None)


def after_change(line_id: int, part: str | None, panel: PanelChoice | None = None) -> ResponseReturnValue:
    """After a change: the fragment for htmx, a fresh page otherwise."""
    port = request.values.get("port")
    if request.headers.get("HX-Request"):
        return render(line_now(line_id), part, port, Attempt(panel=panel))
    key, everything = (panel.key, "1" if panel.everything else None) if panel else (None, None)
    return redirect(url_for("line.show", line_id=line_id, part=part, port=port, panel=key, all=everything))


def render(
    state: LineState, part: str | None, port: str | None, attempt: Attempt | None = None, status: int = 200
) -> ResponseReturnValue:
    """The fragment for htmx, what is slower than the eye following by itself; the whole page at once otherwise."""
    fragment = bool(request.headers.get("HX-Request"))
    view = line_view(state, unit_system(), part, port, attempt, whole=not fragment)
    if fragment:
        pill_follows()
    template = "line/_bench.html" if fragment else "line/page.html"
    names = line_names(session(), state.id)
    return render_template(template, view=view, lines=names, near=_near(names, state.id)), status


def _near(lines: list[tuple[int, str]], line_id: int) -> set[int]:
    """The line in hand and the one that was made next to it: what the header has room for."""
    ids = [i for i, _ in lines]
    at = ids.index(line_id) if line_id in ids else 0
    return {line_id, *sorted(ids, key=lambda i: (abs(ids.index(i) - at), -i))[:2]}
