"""Routes of the lessons: parse, call, render."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, Response, abort, make_response, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.errors import CoreError
from fenwick.data.lines import add_line, all_names
from fenwick.data.shops import the_shop
from fenwick.rig import edit_rig
from fenwick.services.lessons import BY_KEY, LESSONS, Lived, lived, rigs_of
from fenwick.web.kit.database import session
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.units import unit_system
from fenwick.wording.lessons import FIGURE_WORDS, LESSON_WORDS, lesson_figure
from fenwick.wording.say import Voice

bp = Blueprint("lessons", __name__)
COOKIE, YEAR = "fenwick-lessons", 365 * 86400  #: which answers were given, and how long that is known [s]
WIDTH = 300.0  #: of a bar [px]


@dataclass(frozen=True)
class LessonBar:
    """A figure before and after, drawn."""

    title: str
    before: str
    after: str
    was: float  #: length of its bar [px]
    now: float
    asked: bool


@bp.get("/lessons")
def show() -> ResponseReturnValue:
    """All lessons, and which were answered how."""
    answered = _answered()
    rows = [(one.key, LESSON_WORDS[one.key], _mark(one.key, answered)) for one in LESSONS]
    right = sum(mark == "right" for _, _, mark in rows)
    return render_template("lessons/list.html", rows=rows, right=right, done=sum(bool(mark) for *_, mark in rows))


@bp.get("/lessons/<key>")
def ask(key: str) -> ResponseReturnValue:
    """One lesson; once it is answered, with what the model says."""
    return _page(_known(key), _answered().get(key))


@bp.post("/lessons/<key>")
def answer(key: str) -> ResponseReturnValue:
    """Take an answer."""
    guess = request.form.get("answer", -1, type=whole)
    if guess not in range(len(LESSON_WORDS[_known(key)].answers)):
        return _page(key, None, "Choose an answer first: a wrong one teaches more than none."), 422
    told = {**_answered(), key: guess}
    response = redirect(url_for("lessons.ask", key=key))
    response.set_cookie(
        COOKIE, ".".join(f"{one}~{given}" for one, given in told.items()), YEAR, samesite="Lax", httponly=True
    )
    return response


@bp.post("/lessons/<key>/line")
def make_line(key: str) -> ResponseReturnValue:
    """The changed line of a lesson as a line of the shop, to go on with."""
    after = rigs_of(BY_KEY[_known(key)])[1]
    taken, title = all_names(session()), f"Lesson: {LESSON_WORDS[key].title}"
    free = next(name for name in (title, *(f"{title} {i}" for i in range(2, 10_000))) if name not in taken)
    named = edit_rig(after, {"name": free})
    return redirect(url_for("line.show", line_id=add_line(session(), the_shop(session()), named)))


@bp.post("/lessons/anew")
def anew() -> ResponseReturnValue:
    """Forget every answer."""
    response = redirect(url_for("lessons.show"))
    response.delete_cookie(COOKIE)
    return response


def _known(key: str) -> str:
    if key not in BY_KEY:
        abort(404)
    return key


def _answered() -> dict[str, int]:
    found = {}
    for part in request.cookies.get(COOKIE, "").split(".")[: len(LESSONS)]:
        key, _, given = part.partition("~")
        if key in BY_KEY and given in ("0", "1", "2"):
            found[key] = int(given)
    return found


def _mark(key: str, answered: dict[str, int]) -> str:
    if key not in answered:
        return ""
    return "right" if answered[key] == lived(key).right else "wrong"


def _page(key: str, given: int | None, error: str = "") -> Response:
    place = [one.key for one in LESSONS].index(key)
    try:
        found = None if given is None else lived(key)
    except CoreError:  # the demo's line is part of Fenwick: this is a fault of its own
        abort(500)
    return make_response(
        render_template(
            "lessons/lesson.html",
            key=key,
            words=LESSON_WORDS[key],
            number=place + 1,
            of=len(LESSONS),
            next=LESSONS[place + 1].key if place + 1 < len(LESSONS) else "",
            given=given,
            order=(0, 1, 2) if place % 2 == 0 else (2, 1, 0),  # so that it is not always the first
            found=found,
            bars=[] if found is None else _bars(key, found),
            error=error,
        )
    )


def _bars(key: str, found: Lived) -> list[LessonBar]:
    voice, asked = Voice(unit_system(), {}), BY_KEY[key].figure
    bars = []
    for one in sorted(found.figures, key=lambda figure: figure.figure != asked):
        most = max(one.before, one.after, 1e-12)
        bars.append(
            LessonBar(
                FIGURE_WORDS[one.figure][0],
                lesson_figure(one.figure, one.before, voice),
                lesson_figure(one.figure, one.after, voice),
                WIDTH * one.before / most,
                WIDTH * one.after / most,
                one.figure == asked,
            )
        )
    return bars
