"""The page of an emptying: its steps for the closure and stand of a line's bin, and what it takes."""

from __future__ import annotations

from dataclasses import dataclass

from flask import render_template, request

from fenwick.core.logbook.handling import handling_of, hours_a_year
from fenwick.data.lines import LineState, all_line_ids, line_names, line_state
from fenwick.data.shops import the_shop
from fenwick.rig.voice import voice_for
from fenwick.services.logbook.today import shop_today
from fenwick.services.solving import solve
from fenwick.units.sentence import inside
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.units import unit_system
from fenwick.wording.handling import (
    STORED,
    minutes_words,
    room_words,
    sight_words,
    step_words,
    undone_words,
    weight_words,
)


@dataclass(frozen=True)
class EmptyingView:
    """The page."""

    shop: str
    line: int
    name: str
    lines: tuple[tuple[int, str], ...]
    steps: tuple[tuple[str, str], ...]  #: (words, minutes)
    facts: tuple[tuple[str, str], ...]
    heavy: bool
    a_year: str  #: what it comes to in a year; empty: not known
    stored: tuple[str, ...]


def emptying_page() -> str:
    """Prepare the page and render it."""
    asked, there = request.args.get("line", type=whole), all_line_ids(session())
    line_id = asked if asked in there else line_in_hand()
    view = None if line_id is None else _view(line_state(session(), line_id))
    return render_template("log/emptying.html", view=view, shop=the_shop(session()).name)


def _view(state: LineState) -> EmptyingView:
    solved, voice = solve(state.rig), voice_for(state.rig, unit_system())
    names = tuple(line_names(session(), state.id))
    if not solved.line.separators:
        return EmptyingView(state.shop, state.id, inside(state.rig.name), names, (), (), False, "", STORED)
    found = handling_of(solved.line.separators[0], solved.line)
    steps = tuple(
        (step_words(step.key, found), f"{step.minutes:.1f} min".replace(".0", "") if step.minutes else "")
        for step in found.steps
    )
    facts = (
        ("It takes", minutes_words(found)),
        ("To lift", weight_words(found, voice)),
        ("To undo", undone_words(found)),
        ("Room", room_words(found, voice)),
        ("When it is time", sight_words(found.sight)),
    )
    name = inside(state.rig.name)
    return EmptyingView(
        state.shop, state.id, name, names, steps, facts, found.heavy, _a_year(state.id, found.minutes), STORED
    )


def _a_year(line_id: int, minutes: float) -> str:
    """What that comes to, by how often it was logged."""
    read = shop_today(session(), shop_clock()).read
    if line_id not in read.spans:
        return ""
    times = sum(event.kind == "emptied" and event.line == line_id for event in read.events)
    hours = hours_a_year(times, read.today - read.spans[line_id][0], minutes)
    return f"Emptied {times} times in this log: about {hours:.0f} hours a year." if hours and hours >= 1.0 else ""
