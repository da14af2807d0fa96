"""Lessons: a change to a line of the demo, and what the model makes of it; what is right is worked out, not written."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from fenwick.core.search.figures import Figures, figures_at
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, edit_rig
from fenwick.services.solving import solve

KEPT, PAST, CAUGHT, FLOW, SPEED = "kept", "past", "caught", "flow", "speed"
SHARES = (KEPT, CAUGHT)  #: whose changes are told in points, all others in shares of what they were
BRANCH, STAGE = "line.branches[0].", "line.elements[0]."
#: a sound line to begin with: one bore, clean, tight, nearly empty
SOUND = {
    f"{STAGE}bin.fill_height_m": 0.05,
    f"{STAGE}bin.leak_area_m2": 3e-6,
    "vacuum.filter.held_kg": 0.0,
    f"{BRANCH}elements[1].bore_out_m": 0.05,
    f"{BRANCH}elements[2].bore_m": 0.05,
}
WIDER = {
    f"{BRANCH}elements[0].bore_m": 0.063,
    f"{BRANCH}elements[1].bore_in_m": 0.063,
    f"{BRANCH}elements[1].bore_out_m": 0.0631,
    f"{BRANCH}elements[2].bore_m": 0.063,
}
CYCLONE = {f"{STAGE}bin.fill_height_m": 0.05, f"{STAGE}bin.leak_area_m2": 3e-6, "vacuum.filter.held_kg": 0.0}


@dataclass(frozen=True)
class Lesson:
    """One judgement."""

    key: str
    figure: str  #: that is asked for
    edges: tuple[float, float]  #: of its change, that part the three answers, the lower first [-]
    change: Mapping[str, Any]  #: by path of the rig file
    also: Mapping[str, Any] = field(default_factory=dict)  #: what is otherwise from the beginning
    instead: str = ""  #: the demo's rig that takes the place of the line; empty: it is changed


LESSONS = (
    Lesson("wide-hose", SPEED, (-0.03, 0.03), WIDER),
    Lesson("leak-below", KEPT, (-0.10, -0.01), {f"{STAGE}bin.leak_area_m2": 2.2e-5}),
    Lesson("leaning", KEPT, (-0.20, -0.01), {f"{STAGE}tilt_deg": 20.0}),
    Lesson("full-bin", KEPT, (-0.05, -0.01), {f"{STAGE}bin.fill_height_m": 0.36}),
    Lesson("dirty-filter", FLOW, (-0.40, -0.05), {"vacuum.filter.held_kg": 0.15}),
    Lesson("few-points", PAST, (-0.25, -0.10), CYCLONE, instead="demo_cyclone"),
    Lesson("hoses-swapped", KEPT, (-0.10, -0.01), {f"{STAGE}hoses_swapped": True}),
    Lesson("wide-port", CAUGHT, (-0.01, 0.01), {f"{BRANCH}port.bore_m": 0.1}),
    Lesson("tape", KEPT, (0.01, 0.10), {f"{STAGE}bin.leak_area_m2": 3e-6}, also={f"{STAGE}bin.leak_area_m2": 2.2e-5}),
    Lesson(
        "starved-fan",
        FLOW,
        (-0.03, 0.03),
        {f"{BRANCH}elements[0].bore_m": 0.025, f"{BRANCH}elements[1].bore_in_m": 0.025},
    ),
)
BY_KEY = {one.key: one for one in LESSONS}


@dataclass(frozen=True)
class LessonFigure:
    """A figure of the line before and after."""

    figure: str  #: KEPT and so on
    before: float  #: stored unit
    after: float


@dataclass(frozen=True)
class Lived:
    """What the model makes of a lesson."""

    figures: tuple[LessonFigure, ...]
    change: float  #: of the figure that is asked for, in points or in shares of what it was [-]
    right: int  #: which answer that is: 0 the lowest, 1, 2


@lru_cache(maxsize=len(LESSONS))
def lived(key: str) -> Lived:
    """Work a lesson out.

    Raises
    ------
    KeyError
        When there is no such lesson.
    """
    lesson = BY_KEY[key]
    before, after = (_figures(rig) for rig in rigs_of(lesson))
    told = tuple(
        LessonFigure(name, was, now)
        for name in (KEPT, PAST, CAUGHT, FLOW, SPEED)
        if (was := _value(before, name)) is not None and (now := _value(after, name)) is not None
    )
    asked = next(one for one in told if one.figure == lesson.figure)
    change = asked.after - asked.before if lesson.figure in SHARES else asked.after / asked.before - 1.0
    low, high = lesson.edges
    return Lived(told, change, 0 if change < low else 1 if change < high else 2)


def rigs_of(lesson: Lesson) -> tuple[Rig, Rig]:
    """The line before and after."""
    before = edit_rig(demo_rig("demo_line"), {**SOUND, **lesson.also})
    return before, edit_rig(demo_rig(lesson.instead) if lesson.instead else before, dict(lesson.change))


def _figures(rig: Rig) -> Figures:
    solved = solve(rig)
    return figures_at(solved.line, solved.found, solved.first_open)


def _value(found: Figures, name: str) -> float | None:
    if name == PAST:
        return None if found.kept is None else 1.0 - float(found.kept[0])
    values = getattr(found, name)
    return None if values is None or math.isnan(float(values[0])) else float(values[0])


def lesson_document(key: str) -> dict[str, Any]:
    """A lesson with its outcome, as JSON.

    Raises
    ------
    KeyError
    """
    lesson, found = BY_KEY[key], lived(key)
    return {
        "format": "fenwick-lesson",
        "version": 1,
        "key": key,
        "figure": lesson.figure,
        "changed": dict(lesson.change),
        "figures": {one.figure: {"before": one.before, "after": one.after} for one in found.figures},
        "change": found.change,
        "right": found.right,
    }
