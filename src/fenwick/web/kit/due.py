"""What is due, as rows of a page: on Home, in the log and on its own page the same."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from flask import url_for
from markupsafe import Markup

from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.logbook.entries import BAG, BIN, FILTER, TANK
from fenwick.drawing.due_strip import AHEAD, WIDTH, StripItem, render_due_strip
from fenwick.services.logbook.due import DueItem
from fenwick.services.logbook.work import julian
from fenwick.wording.logbook import (
    LOOK,
    between_days,
    day_name,
    forecast_steps,
    in_days,
    life_words,
    pieces_words,
    span,
    times_left,
    what_is_due,
)

DONE_BY = {BIN: "emptied", FILTER: "tapped", BAG: "bag", TANK: "tank", "test": "kept"}
MOST_JOBS = 2


@dataclass(frozen=True)
class DueRow:
    """One thing that is due."""

    item: DueItem
    what: str
    when: str  #: Saturday, in 3 weeks
    band: str  #: in 2 to 5 weeks
    why: str
    level: str  #: act, watch or ok
    kind: str  #: of the entry that says it is done
    link: str  #: address of the form of such an entry
    steps: tuple[str, ...]  #: how it comes about; empty for what is looked at by the calendar


def due_rows(items: Sequence[DueItem], now: datetime) -> list[DueRow]:
    """Rows of some of what is due."""
    return [_due_row(item, now) for item in items]


def _due_row(item: DueItem, now: datetime) -> DueRow:
    kind = DONE_BY.get(item.what, "renewed" if item.let_go else "inspected")
    thing = (item.pieces or (item.what,))[0] if kind in ("inspected", "renewed") else None
    return DueRow(
        item,
        what_is_due(item.what, item.name) if not item.let_go else f"{item.name}: mend what has let go",
        _when(item, now),
        "" if item.let_go or item.overdue or item.pieces else between_days(item.days.low, item.days.high),
        _why(item),
        LEVEL_WORDS[item.level],
        kind,
        url_for("log.ask", kind=kind, line=item.line, thing=thing),
        _steps(item, now),
    )


def _steps(item: DueItem, now: datetime) -> tuple[str, ...]:
    one = item.holder
    if one is None or one.story.begun is None:
        return ()
    told = forecast_steps(
        modelled=one.hours if one.hours is not None and math.isfinite(one.hours) else None,
        lives=len(one.story.ratios),
        typical=one.typical,
        begun=max(julian(now) - one.story.begun, 0.0),
        seen=one.story.seen,
        work=one.story.used,
        used=one.used.likely,
        low=one.used.low,
        high=one.used.high,
    )
    return tuple(filter(None, told))


def _when(item: DueItem, now: datetime) -> str:
    days = item.days.likely
    if item.pieces:
        return "when there is time"
    if item.let_go or days <= -1.0:
        return "overdue" if item.let_go else f"overdue by {span(-days)}"
    if days <= 0.5:
        return "due now"
    if days < 7.0:
        return day_name(days, now)
    return in_days(days)


def _why(item: DueItem) -> str:
    holder = item.holder
    if holder is None:
        return _why_looked(item)
    found = [_full(item.what, holder.used.likely)]
    if item.what == BIN and math.isfinite(holder.days.likely):
        likely = sorted(holder.jobs, key=lambda job: job.times)[:MOST_JOBS]
        if likely and holder.used.likely < 1.0:
            found.append("room for " + " or ".join(times_left(job.name, job.times, job.unit) for job in likely))
    lasted = life_words(holder.last_hours, holder.last_modelled)
    if lasted and item.what != BIN:
        found.append(lasted)
    return "; ".join(found)


def _full(what: str, used: float) -> str:
    if what in (BIN, TANK, BAG):
        room = "the room up to its mark" if what == BIN else "its room"
        return f"about {100 * used:.0f} % of {room} is used" if used < 1.0 else "full by the log's count"
    return f"about {100 * used:.0f} % of its life is used" if used < 1.0 else "its life is over by the log's count"


def _why_looked(item: DueItem) -> str:
    if item.pieces:
        return f"{pieces_words(item.pieces)}: this log never spoke of it. {LOOK[item.pieces[0]]}"
    if item.first_hour:
        return "made anew: by hand and by ear once it was under load for an hour"
    last = "never looked at in this log" if item.last is None else f"last {in_days(-item.last)}"
    lived = "" if item.lived is None else f"; the last one let go after {span(item.lived)}"
    holds = "" if not item.lets_go else f"; it is likely to hold another {span(item.lets_go)}"
    return f"{last}{lived}{holds}. {LOOK.get(item.what, '')}".strip()


def on_strip(rows: Sequence[DueRow]) -> list[DueRow]:
    """Those that the strip of the coming weeks has room for."""
    return [row for row in rows if row.item.days.likely <= AHEAD]


def strip_of(rows: Sequence[DueRow]) -> dict[str, Markup]:
    """Some of what is due as a strip of the coming weeks, for a wide and for a narrow page."""
    items = [
        StripItem(
            row.what,
            f"{row.when}{f': {row.band}' if row.band and row.band != row.when else ''}",
            row.item.days.low if not row.item.let_go else 0.0,
            row.item.days.likely if not row.item.let_go else 0.0,
            row.item.days.high if not row.item.let_go else 0.0,
            row.level,
            row.link,
        )
        for row in rows
    ]
    return {size: render_due_strip(items, size) for size in WIDTH}
