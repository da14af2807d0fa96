"""Two lines side by side: the same figures of both, each where the description allows it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS, OK
from fenwick.core.judging.checks import carrying_check, caught_level, kept_level
from fenwick.core.judging.strength import collapse_level
from fenwick.core.line.line import Line
from fenwick.core.search.figures import Figures
from fenwick.wording.rows import times
from fenwick.wording.say import Voice
from fenwick.wording.verdict import TITLES


@dataclass(frozen=True)
class _Compared:
    """One figure."""

    name: str  #: among `Figures`
    title: str
    tell: Callable[[float, Voice], str]


#: "in-bin" stands in no verdict
ROWS = {
    "air": _Compared("flow", TITLES["air"], lambda value, voice: voice.figure(value, "flow")),
    "caught": _Compared("caught", TITLES["caught"], lambda value, voice: voice.figure(value, "share")),
    "escapes": _Compared("escapes", TITLES["escapes"], lambda value, _: f"{100.0 * value:.1f} g of 100"),
    "settling": _Compared("speed", TITLES["settling"], lambda value, voice: voice.figure(value, "speed")),
    "kept": _Compared("kept", TITLES["kept"], lambda value, voice: voice.figure(value, "share")),
    "in-bin": _Compared("in_bin", "In the bin", lambda value, _: f"{100.0 * value:.1f} g of 100"),
    "collapse": _Compared("folding", TITLES["collapse"], lambda value, _: times(value)),
}


@dataclass(frozen=True)
class Told:
    """One figure of a line."""

    text: str
    level: str  #: ok, watch, act; empty where there is nothing to judge by


@dataclass(frozen=True)
class Side:
    """One of the lines, solved."""

    line: Line
    found: Assessment
    figures: Figures
    port: int  #: place among the leaves
    voice: Voice


@dataclass(frozen=True)
class FigureRow:
    """One figure of both lines; None where it is not known."""

    title: str
    left: Told | None
    right: Told | None


def figure_rows(left: Side, right: Side) -> list[FigureRow]:
    """Every figure that one of them has."""
    rows = [FigureRow(one.title, _told(key, left), _told(key, right)) for key, one in ROWS.items()]
    return [row for row in rows if row.left is not None or row.right is not None]


def _told(key: str, side: Side) -> Told | None:
    row = ROWS[key]
    values: Array | None = getattr(side.figures, row.name)
    if values is None:
        return None
    level = _level(key, side)
    return Told(row.tell(float(values[0]), side.voice), "" if level is None else LEVEL_WORDS[int(level[0])])


def _level(key: str, side: Side) -> npt.NDArray[np.intp] | None:
    line, found, leaf = side.line, side.found, side.line.leaves[side.port]
    if key == "air":
        checks = {check.id: check for check in found.checks if check.part == leaf.id}
        blocked = checks.get("air-at-tool")
        if "containment" in checks and (blocked is None or blocked.level[0] == OK):
            return checks["containment"].level
        return None if blocked is None or blocked.level[0] == OK else blocked.level
    if key == "settling":
        way = leaf.parts | {part.id for part in line.trunk}
        slow = carrying_check(found.carrying, way) if found.carrying else []
        return slow[0].level if slow else None
    if key == "kept":
        return None if found.kept is None else kept_level(found.kept, line)
    if key == "collapse":
        return None if found.collapse is None else collapse_level(found.collapse, line)
    if key == "caught":
        return next((caught_level(one, line) for one in found.captures if one.id == leaf.id), None)
    return None
