"""Routes of readings and tuning: parse, call, render."""

from __future__ import annotations

from collections.abc import Mapping

from flask import Blueprint, Response, abort, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import LineState, line_names, line_state
from fenwick.data.readings import leave_out, readings_of, take, take_away
from fenwick.rig import edit_rig
from fenwick.rig.format.readings_csv import readings_table, write_readings
from fenwick.rig.to_core.line import described_line
from fenwick.rig.voice import voice_for
from fenwick.services.readings import station_kinds, tune, tuned_rig
from fenwick.web.kit.database import session
from fenwick.web.kit.history import save
from fenwick.web.kit.history import step as step_history
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.paging import paged
from fenwick.web.kit.units import unit_system
from fenwick.web.readings.form import ReadingForm, read_form, reading_form
from fenwick.web.readings.view import ON_A_PAGE, readings_view

bp = Blueprint("readings", __name__)


@bp.get("/test")
def start() -> ResponseReturnValue:
    """The readings of the line in hand; the five questions where there is none."""
    line_id = line_in_hand()
    return redirect(url_for("readings.show", line_id=line_id) if line_id else url_for("start.ask"))


@bp.get("/lines/<int:line_id>/test")
def show(line_id: int) -> ResponseReturnValue:
    """Readings of a line, and what they say of it."""
    return _render(line_state(session(), line_id), request.args)


@bp.get("/lines/<int:line_id>/test/readings.<any(csv, json):form>")
def table(line_id: int, form: str) -> ResponseReturnValue:
    """The readings that count, as a table of text, or as JSON."""
    line_state(session(), line_id)
    taken = [one.reading for one in readings_of(session(), line_id) if not one.left_out]
    if form == "json":
        return jsonify(readings_table(taken))
    headers = {"Content-Disposition": f'attachment; filename="readings-{line_id}.csv"'}
    return Response(write_readings(taken), mimetype="text/csv", headers=headers)


@bp.post("/lines/<int:line_id>/test/readings")
def add(line_id: int) -> ResponseReturnValue:
    """Record a reading; what is wrong comes back beside what was typed."""
    state, system = line_state(session(), line_id), unit_system()
    form = _form(state, request.form)
    reading, form = read_form(form, system)
    if reading is None:
        return _render(state, request.form, 422, form)
    take(session(), line_id, reading, request.form.get("note", "").strip())
    return _after(line_id)


@bp.post("/lines/<int:line_id>/test/readings/<int:reading>/<any(out, count, remove, back):what>")
def rearrange(line_id: int, reading: int, what: str) -> ResponseReturnValue:
    """Keep a reading apart, let it count again, take it away, or bring it back."""
    if what in ("out", "count"):
        why = request.form.get("why", "").strip() or "doubted"
        found = leave_out(session(), line_id, reading, why if what == "out" else "")
    else:
        found = take_away(session(), line_id, reading, back=what == "back")
    if not found:
        abort(404)
    return _after(line_id, removed=reading if what == "remove" else None)


@bp.post("/lines/<int:line_id>/test/tune")
def take_tuning(line_id: int) -> ResponseReturnValue:
    """Let the line predict by its readings from now on; one undo takes it back."""
    state = line_state(session(), line_id)
    fitted = tune(state.rig, readings_of(session(), line_id))
    if fitted is None:
        abort(404)
    save(line_id, tuned_rig(state.rig, fitted), f"Tuned to {len(fitted.used)} readings")
    return _after(line_id)


@bp.post("/lines/<int:line_id>/test/<any(described, tuned):way>")
def switch(line_id: int, way: str) -> ResponseReturnValue:
    """Predict by the description alone, or by the readings again."""
    state = line_state(session(), line_id)
    if state.rig.tuning is None:
        abort(404)
    words = "Tuned again" if way == "tuned" else "Back to the description"
    save(line_id, edit_rig(state.rig, {"tuning.on": way == "tuned"}), words)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/test/<any(undo, redo):way>")
def step(line_id: int, way: str) -> ResponseReturnValue:
    """Take the last change of the line back, or bring it again."""
    step_history(line_id, way)
    return _after(line_id)


def _form(state: LineState, typed: Mapping[str, str]) -> ReadingForm:
    line = described_line(state.rig)
    return reading_form(line, voice_for(state.rig, unit_system()), station_kinds(line), typed)


def _after(line_id: int, removed: int | None = None) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(line_state(session(), line_id), {}, removed=removed)
    return redirect(url_for("readings.show", line_id=line_id))


def _render(
    state: LineState,
    typed: Mapping[str, str],
    status: int = 200,
    form: ReadingForm | None = None,
    removed: int | None = None,
) -> ResponseReturnValue:
    taken, asked = readings_of(session(), state.id), request.values.get("figure", "")
    pages = paged(len(taken), ON_A_PAGE, "readings.show", line_id=state.id)
    view = readings_view(state, taken, unit_system(), typed, asked, pages)
    template = "readings/_readings.html" if request.headers.get("HX-Request") else "readings/page.html"
    lines = line_names(session(), state.id)
    return render_template(template, view=view, form=form or view.form, lines=lines, removed=removed), status
