"""What is due as a strip of the coming weeks: a dot on the likely day, a bar that holds nine in ten."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import isfinite

from markupsafe import Markup

from fenwick.drawing.axes import PlotFrame
from fenwick.drawing.render import render

WEEKS = 8  #: that the strip shows
WEEK = 7.0  #: [d]
AHEAD = WEEKS * WEEK  #: [d]
ROW = {"wide": 36.0, "narrow": 56.0}  #: for each thing [px]
HEAD, FOOT = 24.0, 8.0  #: above and below them [px]
WIDTH = {"wide": 852.0, "narrow": 360.0}
LETTER = 6.4  #: a letter of a note, about [px]
GAP = 8.0  #: between a bar and its note [px]
LEAST_BAR = 10.0  #: of which something is seen [px]


@dataclass(frozen=True)
class StripItem:
    """One thing that is due."""

    what: str
    note: str  #: when, in words
    low: float  #: days from today
    likely: float
    high: float
    level: str  #: act, watch or ok
    link: str


@dataclass(frozen=True)
class StripRow:
    """The same with its places [px]."""

    item: StripItem
    y: float  #: of its name
    bar: float  #: of its bar
    start: float
    end: float
    dot: float | None  #: None: its likely day is beyond the strip
    open_end: bool  #: its bar goes on beyond the strip
    note_at: float
    note_before: bool  #: the note ends there, rather than begins


def render_due_strip(items: Sequence[StripItem], size: str = "wide") -> Markup:
    """The strip as SVG, `wide` or `narrow`."""
    width, row = WIDTH[size], ROW[size]
    frame = PlotFrame(width, HEAD + FOOT + row * len(items), 14.0, 14.0, HEAD, FOOT)
    x = frame.across(0.0, AHEAD)
    rows = [_row(item, i, size, frame) for i, item in enumerate(items)]
    step = 1 if size == "wide" else 2
    ticks = [(x(WEEK * week), _tick(week, last=week + step >= WEEKS)) for week in range(0, WEEKS, step)]
    told = "; ".join(f"{item.what}: {item.note}" for item in items)
    return render(
        "due_strip.svg.jinja", **frame.places, rows=rows, ticks=ticks, size=size, description=told or "Nothing is due."
    )


def _tick(week: int, *, last: bool) -> str:
    if week == 0:
        return "this week"
    return f"+{week} weeks" if last else f"+{week}"


def _row(item: StripItem, place: int, size: str, frame: PlotFrame) -> StripRow:
    most = AHEAD
    x = frame.across(0.0, most)
    top = frame.top + ROW[size] * place
    low, high = (min(max(day, 0.0), most) if isfinite(day) else most for day in (item.low, item.high))
    start, end = x(low), max(x(high), x(low) + LEAST_BAR)
    inside = isfinite(item.likely) and item.likely <= most
    note = LETTER * len(item.note)
    after = end + GAP + note <= frame.right
    return StripRow(
        item,
        top + 13.0,
        top + (24.0 if size == "wide" else 28.0),
        start,
        min(end, frame.right),
        x(max(item.likely, 0.0)) if inside else None,
        not isfinite(item.high) or item.high > most,
        end + GAP if after else frame.right,
        not after,
    )
