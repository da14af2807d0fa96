"""Routes of Start: ask, and make the first line."""

from __future__ import annotations

from collections.abc import Mapping

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import all_names
from fenwick.data.shops import the_shop
from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.start import start_line
from fenwick.services import lines
from fenwick.web.kit.database import session
from fenwick.web.kit.units import unit_system
from fenwick.web.start.form import problems_by_field, questions, read_answers

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
    made = [rig for rig in (started.as_found, started.planned) if rig is not None]
    *_, line_id = lines.add(session(), the_shop(session()), *_named_apart(made))
    for sentence in started.said:
        flash(sentence)
    return redirect(url_for("line.show", line_id=line_id, panel="hookup", time=answers.time))


def _named_apart(rigs: list[Rig]) -> list[Rig]:
    """The rigs under names that no line of the shop, and none of the others, has."""
    taken = all_names(session())
    named = []
    for rig in rigs:
        name = next(n for i in range(1, 10_000) if (n := rig.name if i == 1 else f"{rig.name} {i}") not in taken)
        taken.add(name)
        named.append(edit_rig(rig, {"name": name}))
    return named


def _page(form: Mapping[str, str], errors: dict[str, str]) -> ResponseReturnValue:
    shop = the_shop(session()).name
    page = render_template(
        "start/page.html", questions=questions(form, errors, unit_system()), errors=errors, shop=shop
    )
    return page, 422 if errors else 200
