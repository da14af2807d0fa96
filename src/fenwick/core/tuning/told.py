"""What the readings of a tuned line tell of the rules that its bands draw, taken together."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.doubt.assumptions import assumptions_of
from fenwick.core.doubt.together import few_rows, tied
from fenwick.core.doubt.uncertainty import drawn_normal, in_force, spread_values, with_drawn
from fenwick.core.line.line import Line
from fenwick.core.rules import rule
from fenwick.core.rules.book import Slopes
from fenwick.core.tuning.factors import FACTORS, spreads
from fenwick.core.tuning.fit import KEYS, Fit
from fenwick.core.tuning.readings import Reading, expected, standing

STEP = 0.25  #: standard deviations of a rule to either side, for slopes [-]
LEAST = 0.05  #: of a slope over the reading's uncertainty, below which it tells nothing [-]
NOT_DRAWN = "factor."  #: before the key of a factor of which no rule is drawn in any band


def told_together(line: Line, fitted: Fit) -> tuple[Slopes, ...]:
    """What a line's readings tell of its rules, so that its draws stay with what was read.

    Parameters
    ----------
    line : as tuned
    fitted : to its readings
    """
    readings = [fitted.readings[i] for i in fitted.used]
    lines = [line, *(standing(line, reading) for reading in readings)]
    drawn = tuple(dict.fromkeys(key for one in lines for key in assumptions_of(one)))
    by_rules = _by_rules(line, readings, drawn)
    others = tuple(key for key in KEYS if not set(FACTORS[key].rules) & set(drawn))
    by_factors = fitted.slopes[:, [KEYS.index(key) for key in others]] * spreads(others)
    keys = (*drawn, *(f"{NOT_DRAWN}{key}" for key in others))
    return few_rows(np.hstack([by_rules, by_factors]), keys, LEAST)


def drawn_factor(line: Line, key: str, draws: int, seed: int) -> Array:
    """A factor of which no rule is drawn, as the line stands and drawn, shape (1 + draws,) [-]: 1, and about it.

    Parameters
    ----------
    draws : how many [-]
    seed : of the chances drawn; the same one draws the same again [-]
    """
    told = line.rules.told
    of = f"{NOT_DRAWN}{key}"
    chances = drawn_normal(of, told if of in tied(told) else (), draws, seed)
    return np.asarray(np.exp(FACTORS[key].spread * np.insert(chances, 0, 0.0)))


def _by_rules(line: Line, readings: list[Reading], keys: tuple[str, ...]) -> Array:
    """Slopes of the readings over their uncertainty by one standard deviation of each rule, shape (m, k)."""
    normals = np.zeros((len(keys), 2 * len(keys)))
    for j in range(len(keys)):
        normals[j, 2 * j : 2 * j + 2] = STEP, -STEP
    values = {key: in_force(line, key, spread_values(rule(key), row)) for key, row in zip(keys, normals, strict=True)}
    said = expected(with_drawn(line, values), readings)
    slopes = (said[:, 0::2] - said[:, 1::2]) / (2.0 * STEP)
    sds = np.array([reading.sd for reading in readings])
    return np.asarray(np.where(np.isfinite(slopes), slopes, 0.0) / sds[:, None])
