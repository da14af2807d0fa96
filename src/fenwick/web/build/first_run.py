"""Routes of what is felt and seen when it is put together: the rim, the first switch-on."""

from __future__ import annotations

from datetime import UTC, datetime

from flask import Blueprint, abort, redirect, request
from flask.typing import ResponseReturnValue

from fenwick.builds.edit import see
from fenwick.data.builds import change_build
from fenwick.rig import RigError, edit_rig
from fenwick.services.builds import felt_leak
from fenwick.units import BadNumberError, format_value, parse_value
from fenwick.web.build.hand import in_hand
from fenwick.web.build.plan_view import RUN_STEP
from fenwick.web.build.step_page import RIM_STEP, rim_fields, step_page
from fenwick.web.build.view import address
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.history import form_line, save
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.work import FIRST_RUN

bp = Blueprint("first_run", __name__)
LONGEST_NOTE = 500


@bp.post("/lines/<int:line_id>/build/rim")
def felt_rim(line_id: int) -> ResponseReturnValue:
    """A gap at the rim becomes the leak of the line's bin."""
    hand, state, system = in_hand(line_id), form_line(line_id), unit_system()
    values, fields = {}, []
    for field in rim_fields(hand):
        text = request.form.get(field.path, "").strip()
        error = ""
        try:
            values[field.path] = parse_value(text, "bore", system)
            if not 0.0 <= values[field.path] <= (0.01 if field.path == "gap_m" else 10.0):
                error = "Give a gap of at most 10 mm." if field.path == "gap_m" else "Give a length of at most 10 m."
        except BadNumberError as bad:
            error = str(bad)
        fields.append(Field(field.path, field.label, text, field.unit, error=error))
    if any(field.error for field in fields):
        return step_page(hand, RIM_STEP, rim=tuple(fields)), 422
    leak = felt_leak(state.rig, hand.what, values["gap_m"], values["length_m"])
    if leak is None:
        abort(404)
    at = next(i for i, e in enumerate(state.rig.line.elements) if e.id == hand.what)
    try:
        rig = edit_rig(state.rig, {f"line.elements[{at}].bin.leak_area_m2": round(leak, 9)})
    except RigError as error:
        fields[0] = Field(fields[0].path, fields[0].label, fields[0].text, fields[0].unit,
                          error=f"{error.problems[0].sentence(system)}.")  # fmt: skip
        return step_page(hand, RIM_STEP, rim=tuple(fields)), 422
    save(line_id, rig, f"{hand.title}: leak at the rim as felt, {format_value(leak, 'gap', system, unit=True)}")
    return redirect(address(hand, "show_step", step=RIM_STEP))


@bp.post("/lines/<int:line_id>/build/seen/<check>")
def seen_at_start(line_id: int, check: str) -> ResponseReturnValue:
    """What was seen at the first switch-on."""
    hand = in_hand(line_id)
    answer = request.form.get("fine", "")
    if check not in FIRST_RUN or answer not in ("yes", "no"):
        abort(404)
    note = " ".join(request.form.get("note", "").split())[:LONGEST_NOTE]
    at = datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
    file = see(hand.build.file, check, at, fine=answer == "yes", note=note)
    if file != hand.build.file:
        words = "as it should be" if answer == "yes" else "not yet"
        change_build(session(), line_id, hand.what, file, f"First switch-on, {check.replace('-', ' ')}: {words}")
    return redirect(address(hand, "show_step", step=RUN_STEP))
