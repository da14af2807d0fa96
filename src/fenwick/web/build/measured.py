"""The route of what is measured at the first switch-on: it becomes a reading of the line."""

from __future__ import annotations

from flask import Blueprint, abort, redirect, request
from flask.typing import ResponseReturnValue

from fenwick.core.tuning.readings import BLOCKED
from fenwick.data.readings import take
from fenwick.services.builds import stage_of
from fenwick.services.first_run import NOTE, blocked_reading, fed_reading
from fenwick.web.build.hand import in_hand
from fenwick.web.build.measured_form import ASKED, read_measured
from fenwick.web.build.plan_view import RUN_STEP
from fenwick.web.build.step_page import step_page
from fenwick.web.build.view import address
from fenwick.web.kit.database import session

bp = Blueprint("measured", __name__)


@bp.post("/lines/<int:line_id>/build/measured/<kind>")
def measure(line_id: int, kind: str) -> ResponseReturnValue:
    """A measurement becomes a reading of the line."""
    hand = in_hand(line_id)
    if kind not in ASKED or stage_of(hand.state.rig, hand.what) is None:
        abort(404)
    values, form = read_measured(kind, request.form)
    if form.wrong:
        return step_page(hand, RUN_STEP, measured=form), 422
    rig = hand.state.rig
    reading = blocked_reading(rig, hand.what, *values) if kind == BLOCKED else fed_reading(rig, *values)
    take(session(), line_id, reading, NOTE)
    return redirect(address(hand, "show_step", step=RUN_STEP))
