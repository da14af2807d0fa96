"""Routes of the fault finder: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import LOOK
from fenwick.core.bench.faults.kinds import SYMPTOMS
from fenwick.core.bench.faults.since import WORK
from fenwick.core.tuning.readings import KINDS, Reading, can_be, usual_sd
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.data.readings import HUNT, readings_of, take, take_away
from fenwick.rig import build_line
from fenwick.services.faults import lately_done
from fenwick.units import BadNumberError, parse_value
from fenwick.web.faults.view import hunt_view
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.pieces import Refused
from fenwick.web.kit.units import unit_system

bp = Blueprint("faults", __name__)


@bp.get("/lines/<int:line_id>/test/fault")
def show(line_id: int) -> ResponseReturnValue:
    """What may be wrong with the line."""
    return _render(line_state(session(), line_id))


@bp.post("/lines/<int:line_id>/test/fault/readings")
def add(line_id: int) -> ResponseReturnValue:
    """Record the outcome of a check."""
    state, key = line_state(session(), line_id), request.form.get("key", "")
    line = build_line(state.rig)
    taken = [one.reading for one in readings_of(session(), line_id, HUNT)]
    reading = next((one for one in checks_of(line, taken) if f"{one.kind}~{one.station}" == key), None)
    if reading is None:
        abort(404)
    text = request.form.get("value", "").strip()
    if reading.kind == LOOK:
        value = 1.0 if text == "yes" else 0.0
    else:
        try:
            value = parse_value(text, KINDS[reading.kind], unit_system())
        except BadNumberError as error:
            return _render(state, Refused(key, text, f"{str(error)[:1].upper()}{str(error)[1:]}"), 422)
        if not can_be(reading.kind, value):
            return _render(
                state, Refused(key, text, "Below 0, or more than can be: check the figure and its unit."), 422
            )
    sd = reading.sd if reading.kind == LOOK else usual_sd(reading.kind, value)
    told = Reading(reading.kind, value, sd, reading.port, reading.station)
    take(session(), line_id, told, purpose=HUNT)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/test/fault/anew")
def anew(line_id: int) -> ResponseReturnValue:
    """The fault is mended, or it was another one: begin with an empty sheet. What was read stays on record."""
    for one in readings_of(session(), line_id, HUNT):
        take_away(session(), line_id, one.id)
    return redirect(url_for("faults.show", line_id=line_id))


@bp.post("/lines/<int:line_id>/test/fault/readings/<int:reading>/remove")
def drop(line_id: int, reading: int) -> ResponseReturnValue:
    """Take the outcome of a check back."""
    if not take_away(session(), line_id, reading):
        abort(404)
    return _after(line_id)


def _chosen() -> list[str]:
    return [key for key in request.values.getlist("s") if key in SYMPTOMS]


def _since() -> str:
    said = request.values.get("since", "")
    return said if said in WORK else ""


def _after(line_id: int) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(line_state(session(), line_id))
    return redirect(url_for("faults.show", line_id=line_id, s=_chosen(), since=_since() or None))


def _render(state: LineState, wrong: Refused | None = None, status: int = 200) -> ResponseReturnValue:
    taken, done = readings_of(session(), state.id, HUNT), lately_done(session(), state.id, shop_clock())
    view = hunt_view(state, taken, _chosen(), _since(), done, unit_system(), wrong)
    template = "faults/_faults.html" if request.headers.get("HX-Request") else "faults/page.html"
    return render_template(template, view=view, lines=line_names(session(), state.id)), status
