"""One thing's past, from the log: what work used of its life, when that began anew, and what its lives came to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.logbook.lives import BEFORE, IN_TIME, PastLives
from fenwick.core.logbook.pace import MOST_WEEKS, WEEK, PastWeeks

LEAST_SEEN = 0.1  #: of a life, below which what was seen says too little of how fast it goes [-]
MOST_LIVES = 40  #: the latest ones, of which is learned


@dataclass(frozen=True)
class UsedWork:
    """Work in order of time, by what it used of a thing's modelled life; arrays of shape (k,)."""

    at: Array  #: [d]
    used: Array  #: [-]

    @staticmethod
    def of(several: Sequence[UsedWork]) -> UsedWork:
        """Several together, in order of time."""
        if not several:
            return UsedWork(np.zeros(0), np.zeros(0))
        at = np.concatenate([one.at for one in several])
        order = np.argsort(at, kind="stable")
        return UsedWork(at[order], np.concatenate([one.used for one in several])[order])

    def until(self, day: float) -> float:
        """All that was used up to a moment [-].

        Parameters
        ----------
        day : of that moment [d]
        """
        return float(self.used[: np.searchsorted(self.at, day, side="right")].sum())


@dataclass(frozen=True)
class TurningPoint:
    """A moment at which the log says something of a thing."""

    at: float  #: [d]
    share: float | None = None  #: of its real life that was over by then [-]; None: not said
    ended: int = IN_TIME  #: where it ended: when it was due, or before or after that
    fresh: bool = True  #: a life begins; False: it was only looked at
    left: float = 0.0  #: of the next life that is over as it begins, such as the cake that stays [-]
    anew: bool = False  #: what came before says nothing of what comes


@dataclass(frozen=True)
class Story:
    """What the log makes of one thing."""

    ratios: tuple[float, ...]  #: of its past lives to the modelled ones, the latest last [-]
    ended: tuple[int, ...]  #: of each
    days: tuple[float, ...]  #: on which each ended, or was looked at [d]
    used: float  #: of a modelled life, since the last turn [-]
    seen: float  #: of its real life that was over at that turn [-]
    begun: float | None  #: day on which its life began [d]; None: the log does not say, and nothing is known
    last_from: float | None = None  #: day from which the latest of its past lives was followed [d]


def story_of(work: UsedWork, turns: Sequence[TurningPoint], today: float) -> Story:
    """Follow one thing through the log.

    Parameters
    ----------
    work, turns : in order of time
    today : [d]
    """
    ratios: list[float] = []
    ended: list[int] = []
    days: list[float] = []
    begun, seen, before, since, last_from = None, 0.0, 0.0, 0.0, None
    for turn in turns:
        total = work.until(turn.at)
        if turn.anew:
            ratios, ended, days = [], [], []
        elif begun is not None and turn.share is not None:
            gained, whole = total - before, 1.0 if turn.ended == BEFORE else turn.share
            if whole - seen >= LEAST_SEEN and gained > 0.0:
                ratios.append(gained / (whole - seen))
                ended.append(turn.ended)
                days.append(turn.at)
                last_from = since
        if turn.fresh:
            begun, seen, before, since = turn.at, turn.left, total, turn.at
        elif turn.share is not None:
            begun, seen, before, since = (turn.at if begun is None else begun), turn.share, total, turn.at
    used = work.until(today) - before
    latest = slice(-MOST_LIVES, None)
    return Story(tuple(ratios[latest]), tuple(ended[latest]), tuple(days[latest]), used, seen, begun, last_from)


def past_lives(stories: Sequence[Story]) -> PastLives:
    """The past lives of several things, side by side."""
    width = max([1, *(len(one.ratios) for one in stories)])
    ratio, ended = np.full((len(stories), width), np.nan), np.zeros((len(stories), width))
    for row, one in enumerate(stories):
        ratio[row, : len(one.ratios)], ended[row, : len(one.ended)] = one.ratios, one.ended
    return PastLives(ratio, ended)


def past_weeks(
    works: Sequence[UsedWork], first: Sequence[float | None], usual: Sequence[float | None], today: float
) -> PastWeeks:
    """What several things were used in every past week since their work is logged.

    Parameters
    ----------
    works : what was logged of each
    first : day since which work was logged [d]; None: it is not
    usual : what a week of the usual jobs uses [-]; None: not known
    today : [d]
    """
    spans = [0 if one is None else min(int(max(today - one, WEEK) / WEEK), MOST_WEEKS) for one in first]
    used = np.full((len(works), max([1, *spans])), np.nan)
    for row, (work, span) in enumerate(zip(works, spans, strict=True)):
        if span:
            back = np.floor((today - work.at) / WEEK).astype(int)
            there = (back >= 0) & (back < span)
            used[row, -span:] = np.bincount(back[there], work.used[there], span)[::-1]
    return PastWeeks(used, np.array([np.nan if one is None else one for one in usual], dtype=float))


def steady(a_week: float, start: float, end: float) -> UsedWork:
    """Work of the usual jobs between two days, a piece for each day.

    Parameters
    ----------
    a_week : what they use [-]
    start, end : [d]
    """
    if end <= start or a_week <= 0.0:
        return UsedWork(np.zeros(0), np.zeros(0))
    edges = np.append(np.arange(start, end, 1.0), end)
    return UsedWork(edges[1:], a_week / WEEK * np.diff(edges))
