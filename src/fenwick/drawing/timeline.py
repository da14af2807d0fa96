"""The work that is left on the days one has: what is at the bench, what cures meanwhile, when it runs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.making.schedule import TimeSlot
from fenwick.drawing.render import render

WIDTH, LEFT, RIGHT = 852.0, 112.0, 720.0
TOP, ROW, BAR = 30.0, 22.0, 11.0
DAY = 86400.0
MOST_DAYS = 9  #: that are drawn; longer plans are drawn by weeks
LEAST = 3.0  #: a bar no narrower than that [px]


@dataclass(frozen=True)
class Bar:
    """Some work, or a cure."""

    x: float
    y: float
    width: float
    cure: bool
    words: str


@dataclass(frozen=True)
class DayMark:
    """A day or a week."""

    x: float
    width: float
    name: str
    shaded: bool


@dataclass(frozen=True)
class EndMark:
    """What is said where the plan ends."""

    x: float
    y: float
    words: str


@dataclass(frozen=True)
class TimelineScene:
    """What the template asks for."""

    width: float
    height: float
    days: tuple[DayMark, ...]
    rows: tuple[tuple[str, float], ...]
    bars: tuple[Bar, ...]
    now: float | None
    end: EndMark | None
    left: float = LEFT
    right: float = RIGHT
    top: float = TOP


def render_timeline(
    slots: Sequence[TimeSlot],
    phase: Mapping[str, str],
    phases: Sequence[str],
    names: Mapping[str, str],
    day_names: Sequence[str],
    now: float,
    ends: str,
    name: str,
) -> Markup:
    """The plan as SVG.

    Parameters
    ----------
    phase : title of the row that a step is drawn in, by the step's id
    phases : titles of all rows, from the top down
    names : of the steps
    day_names : from the first day on
    now : from the midnight before it [s]
    ends : what is said where it ends
    name : makes its ids unique on a page
    """
    scene = timeline_scene(slots, phase, phases, names, day_names, now, ends)
    said = "; ".join(f"{names[slot.step]}" for slot in slots)
    return render("timeline.svg.jinja", s=scene, name=name, description=f"In this order: {said}. {ends}")


def timeline_scene(
    slots: Sequence[TimeSlot],
    phase: Mapping[str, str],
    phases: Sequence[str],
    names: Mapping[str, str],
    day_names: Sequence[str],
    now: float,
    ends: str,
) -> TimelineScene:
    """Where each bar is drawn.

    Parameters
    ----------
    phase, names : by the step's id
    phases : titles of all rows, from the top down
    day_names : from the first day on
    now : from the midnight before it [s]
    ends : what is said where it ends
    """
    rows = [title for title in phases if any(phase[slot.step] == title for slot in slots)]
    last = max((slot.end for slot in slots), default=now)
    first = min((slot.start for slot in slots), default=now) // DAY
    first = min(first, now // DAY) if first - now // DAY < 2 else first
    days = max(int(last // DAY - first) + 1, 1)
    scale = (RIGHT - LEFT) / (days * DAY)

    def x(at: float) -> float:
        return LEFT + (at - first * DAY) * scale

    every = 1 if days <= MOST_DAYS else 7
    marks = [
        DayMark(x((first + d) * DAY), every * DAY * scale, day_names[int(first) + d], (d // every) % 2 == 0)
        for d in range(0, days, every)
        if int(first) + d < len(day_names)
    ]
    places = {title: TOP + 14.0 + i * ROW for i, title in enumerate(rows)}
    bars = []
    for slot in slots:
        y = places[phase[slot.step]]
        if slot.cured > slot.end:
            wide = min(x(slot.cured), RIGHT) - x(slot.end)
            bars.append(Bar(x(slot.end), y, max(wide, 0.0), True, f"{names[slot.step]}: curing"))
    for slot in slots:
        y = places[phase[slot.step]]
        bars.append(Bar(x(slot.start), y, max(x(slot.end) - x(slot.start), LEAST), False, names[slot.step]))
    height = TOP + 14.0 + len(rows) * ROW + 12.0
    end = None
    if slots:
        final = max(slots, key=lambda one: one.end)
        end = EndMark(x(final.end) + 8.0, places[phase[final.step]] + BAR - 1.0, ends)
    shown_now = x(now) if LEFT <= x(now) <= RIGHT else None
    labels = tuple((title, places[title] + BAR - 1.0) for title in rows)
    return TimelineScene(WIDTH, height, tuple(marks), labels, tuple(bars), shown_now, end)
