"""When to look at what does not wear by the hour: seals, joints, cords, brushes, the whole line."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.doubt.uncertainty import SEED, WITHIN
from fenwick.core.logbook.due import DRAWS, Between
from fenwick.core.logbook.lives import PastLives, belief, usual_of
from fenwick.core.logbook.pace import WEEK
from fenwick.core.rules import RuleBook, rule

EVERY = {
    "gasket": "log.seals-every",
    "latch": "log.seals-every",
    "chamber-seal": "log.seals-every",
    "joint": "log.joints-every",
    "cord": "log.cord-every",
    "brushes": "log.brushes-every",
    "hose": "log.cord-every",
    "whole-line": "log.look-over",
    "test": "log.test-every",
}
SEALS = ("gasket", "chamber-seal")  #: lives of which are learned


@dataclass(frozen=True)
class PieceNow:
    """A piece of a line, as the log has it."""

    piece: str  #: key of `EVERY`
    since: float  #: the last look at it, or since the log begins [d]
    age: float | None  #: since it was new [d]; None: not known
    lives: tuple[float, ...] = ()  #: of those before it, each ended as one saw that it had let go [d]


@dataclass(frozen=True)
class Looks:
    """When to look at some pieces; arrays of shape (n,)."""

    days: Between  #: until the next look is due [d]; below 0 it is overdue
    lets_go: Between  #: until it lets go, as far as it has not [d]; nan where no life is followed


def looks(pieces: Sequence[PieceNow], rules: RuleBook) -> Looks:
    """The next look at every piece: by the calendar, and at a seal so often that few let go between two looks.

    Parameters
    ----------
    pieces : of any lines
    rules : how often one looks, how long a seal lasts, and how likely it may let go unseen
    """
    rows = [rule(EVERY[one.piece]) for one in pieces]
    every = np.array([float(rules[row.key]) for row in rows])
    scale = every / np.array([row.value for row in rows])  # the rule's own range goes with the value in force
    ends = [scale * np.array([getattr(row, end) for row in rows]) for end in ("low", "high")]
    since = np.array([one.since for one in pieces])
    life = _lives(pieces, rules)
    age = np.array([np.nan if one.age is None else one.age for one in pieces])
    # of those that were good at the last look, so many days until so many have let go
    unseen = float(rules["log.seal-unseen"])
    ahead = [_left(life, age - since, share) for share in (0.5 * unseen, unseen, 2.0 * unseen)]
    least = float(rules["log.look-least"]) * every
    spans = [
        np.where(np.isnan(left), whole, np.clip(left, least, whole))
        for left, whole in zip(ahead, (ends[0], every, ends[1]), strict=True)
    ]
    tail = (1.0 - WITHIN) / 2.0
    left = Between(*(_left(life, age, share) for share in (0.5, tail, 1.0 - tail)))
    return Looks(Between(spans[1] - since, spans[0] - since, spans[2] - since), left)


def _lives(pieces: Sequence[PieceNow], rules: RuleBook) -> Array:
    """Lives of each piece, drawn [d], shape (n, draws); nan for what has none that is followed."""
    usual = float(rules["log.seal-life"])
    ratio = np.full((len(pieces), max([1, *(len(one.lives) for one in pieces)])), np.nan)
    for row, one in enumerate(pieces):
        ratio[row, : len(one.lives)] = np.array(one.lives) / usual
    draws = belief(PastLives(ratio, np.zeros_like(ratio)), usual_of("seal", rules)).draws(DRAWS, SEED)
    followed = np.array([one.piece in SEALS for one in pieces])
    return np.where(followed[:, None], usual * draws, np.nan)


def _left(life: Array, age: Array, share: float) -> Array:
    """Days from an age on until a share of those that came so far has let go [d]; 0 where none comes so far."""
    left = life - age[:, None]
    found = np.full(age.shape, np.nan)
    for row, days in enumerate(left):
        if not np.isnan(days).any():
            found[row] = np.quantile(days[days > 0.0], share) if np.any(days > 0.0) else 0.0
    return found


def first_hour(worked: float, a_week: float, rules: RuleBook) -> Between | None:
    """Days until a joint made anew was under load for long enough to be looked at [d]; None where no hours are logged.

    Parameters
    ----------
    worked : since it was made [h]
    a_week : of work at the line [h]
    rules : how long under load, and how sure that is
    """
    row = rule("log.first-joint")
    at, scale = float(rules[row.key]), float(rules[row.key]) / row.value
    left = [max(hours - worked, 0.0) for hours in (at, scale * row.low, scale * row.high)]
    if left[0] > 0.0 and a_week <= 0.0:
        return None
    days = [WEEK * hours / a_week if hours > 0.0 and a_week > 0.0 else 0.0 for hours in left]
    return Between(*(np.array([value]) for value in days))


def first_look(rules: RuleBook) -> Between:
    """Days to a look at what the log never spoke of: nothing says that it is bad [d]."""
    row = rule("log.first-look")
    scale = float(rules[row.key]) / row.value
    return Between(*(np.array([scale * value]) for value in (row.value, row.low, row.high)))
