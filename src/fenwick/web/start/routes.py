"""Routes of Start: ask, and make the first line."""

from __future__ import annotations

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.datastructures import MultiDict

from fenwick.data.lines import all_names
from fenwick.data.shops import shop_state, the_shop
from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.start import Answers, start_line
from fenwick.rig.start.answers import HOURS
from fenwick.rig.start.limits import check_answers
from fenwick.rig.start.vacuum import guess_vacuum
from fenwick.services import lines
from fenwick.shop.from_line import filled_from
from fenwick.web.kit.database import session
from fenwick.web.kit.history import save_shop
from fenwick.web.kit.units import unit_system
from fenwick.web.start.form import problems_by_field, questions, read_answers

bp = Blueprint("start", __name__)


@bp.get("/start")
def ask() -> ResponseReturnValue:
    """The five questions."""
    return _page(MultiDict({"into_shop": "1"}), {})


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
    made = _named_apart([rig for rig in (started.as_found, started.planned) if rig is not None])
    *_, line_id = lines.add(session(), the_shop(session()), *made)
    for one in started.said:
        flash(one.sentence(system))
    if request.form.get("into_shop"):
        _fill_shop(started.as_found or started.planned)
    spend, hours = _plain(answers.spend), _plain(HOURS.get(answers.time or ""))
    return redirect(url_for("line.show", line_id=line_id, panel="hookup", time=answers.time, spend=spend, hours=hours))


@bp.post("/start/label")
def label() -> ResponseReturnValue:
    """What the label comes to, as far as it is typed: a fragment beside the question."""
    system = unit_system()
    answers, errors = read_answers(request.form, system)
    read = answers or Answers()
    told = any((read.vacuum, read.sealed_suction, read.open_flow, read.air_watts, read.electrical_power, read.current))
    try:
        check_answers(read)
        said = [one.sentence(system) for one in guess_vacuum(read).said] if told and not errors else []
    except RigError:
        said = []  # the form itself says what is wrong, at its field
    return render_template("start/_label.html", said=said)


def _fill_shop(rig: Rig) -> None:
    """What was answered is in the shop, too; a shop that holds no more stays as it is."""
    try:
        filled = filled_from(shop_state(session()).file, rig)
    except RigError:
        return
    if filled.added:
        save_shop(filled.file, f"From Start: {', '.join(filled.added)}"[:200])
        flash(f"Entered in the shop: {', '.join(filled.added)}.")


def _plain(value: float | None) -> str | None:
    """A number as it is asked for on the page of the way."""
    return None if value is None else f"{value:.3g}"


def _named_apart(rigs: list[Rig]) -> list[Rig]:
    """The rigs under names that no line of the shop, and none of the others, has."""
    taken = all_names(session())
    named = []
    for rig in rigs:
        name = next(n for i in range(1, 10_000) if (n := rig.name if i == 1 else f"{rig.name} {i}") not in taken)
        taken.add(name)
        named.append(edit_rig(rig, {"name": name}))
    return named


def _page(form: MultiDict[str, str], errors: dict[str, str]) -> ResponseReturnValue:
    shop = shop_state(session()).file
    page = render_template(
        "start/page.html",
        questions=questions(form, errors, unit_system()),
        errors=errors,
        shop=shop.name,
        into_shop=bool(form.get("into_shop")),
    )
    return page, 422 if errors else 200
