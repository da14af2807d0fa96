"""Routes of practice: parse, call, render."""

from __future__ import annotations

import secrets
from dataclasses import replace

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.bench.faults.practice import LEVELS, USUAL
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.data.practice import HuntRecord, ended_hunts, hunt_record, keep_hunt, open_hunt
from fenwick.rig.voice import voice_for
from fenwick.services.faults import case_of
from fenwick.services.practice import play, with_name, with_reading
from fenwick.web.kit.database import session
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.units import unit_system
from fenwick.web.practice.view import practice_view

bp = Blueprint("practice", __name__)
SEEDS = 100_000
SHOWN = 10  #: hunts of the record


@bp.get("/lines/<int:line_id>/practice")
def show(line_id: int) -> ResponseReturnValue:
    """A hidden fault; without a seed the hunt that was begun, or a new one."""
    seed, level = request.args.get("seed", type=whole), _level()
    state = line_state(session(), line_id)
    if seed is None:
        begun = None if "level" in request.args else open_hunt(session(), line_id)
        where = (begun.seed, begun.level) if begun else (secrets.randbelow(SEEDS), level)
        return redirect(url_for("practice.show", line_id=line_id, seed=where[0], level=where[1]))
    record = hunt_record(session(), line_id, abs(seed) % SEEDS, level)
    told = tuple(f"0:{key}" for key in request.args.getlist("r"))
    named = request.args.get("named", "")
    record = replace(record, read=(*record.read, *told), named=(*record.named, *((named,) if named else ())))
    return _render(state, record)


@bp.post("/lines/<int:line_id>/practice")
def go_on(line_id: int) -> ResponseReturnValue:
    """Take a reading, or name a fault; both are kept."""
    state = line_state(session(), line_id)
    seed = request.form.get("seed", 0, type=whole)
    record = hunt_record(session(), line_id, abs(seed) % SEEDS, _level())
    case = case_of(state.rig)
    before = record
    if "r" in request.form:
        record = with_reading(record, play(case, record), request.form["r"])
    elif "named" in request.form:
        record = with_name(record, case, request.form["named"])
    if record != before:
        keep_hunt(session(), line_id, record)
    if request.headers.get("HX-Request"):
        return _render(state, record)
    return redirect(url_for("practice.show", line_id=line_id, seed=record.seed, level=record.level))


def _level() -> str:
    said = request.values.get("level", USUAL)
    return said if said in LEVELS else USUAL


def _render(state: LineState, record: HuntRecord) -> ResponseReturnValue:
    past = ended_hunts(session(), state.id, SHOWN)
    view = practice_view(case_of(state.rig), record, past, voice_for(state.rig, unit_system()))
    template = "practice/_practice.html" if request.headers.get("HX-Request") else "practice/page.html"
    return render_template(template, view=view, state=state, lines=line_names(session(), state.id))
