"""Routes of Start: ask, and make the first line."""

from __future__ import annotations

from collections.abc import Mapping

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.system.operating import operating_point
from fenwick.data.lines import add_line, all_line_ids, line_state
from fenwick.data.shops import the_shop
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.start import start_line
from fenwick.web.database import session
from fenwick.web.start.form import problems_by_field, questions, read_answers
from fenwick.web.units import unit_system

bp = Blueprint("start", __name__)


@bp.get("/start")
def ask() -> ResponseReturnValue:
    """The five questions."""
    return _page({}, {})


@bp.post("/start")
def begin() -> ResponseReturnValue:
    """Make the line that the answers describe, every gap filled by a marked guess."""
    system = unit_system()
    answers, errors = read_answers(request.form, system)
    if answers is None:
        return _page(request.form, errors)
    try:
        started = start_line(answers)
    except RigError as error:
        return _page(request.form, problems_by_field(error, request.form, system))
    operating_point(build_line(started.planned))  # a line that cannot be solved is not kept
    shop = the_shop(session())
    if started.as_found is not None:
        add_line(session(), shop, _named_apart(started.as_found))
    line_id = add_line(session(), shop, _named_apart(started.planned))
    for sentence in started.said:
        flash(sentence)
    return redirect(url_for("line.show", line_id=line_id, panel="hookup", time=answers.time))


def _named_apart(rig: Rig) -> Rig:
    """The rig under a name that no line of the shop has yet."""
    taken = {line_state(session(), line_id).rig.name for line_id in all_line_ids(session())}
    name = next(n for i in range(1, 10_000) if (n := rig.name if i == 1 else f"{rig.name} {i}") not in taken)
    return edit_rig(rig, {"name": name})


def _page(form: Mapping[str, str], errors: dict[str, str]) -> ResponseReturnValue:
    shop = the_shop(session()).name
    page = render_template(
        "start/page.html", questions=questions(form, errors, unit_system()), errors=errors, shop=shop
    )
    return page, 422 if errors else 200
