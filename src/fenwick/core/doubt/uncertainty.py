"""How sure a separator's figures are: a seeded Monte Carlo over what nobody has measured, in one batched call."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.dust import Dust
from fenwick.core.doubt.assumptions import assumptions_of
from fenwick.core.doubt.together import left_of, tied
from fenwick.core.dust.cakes import settled_point
from fenwick.core.dust.capture import capture
from fenwick.core.dust.caught import arriving
from fenwick.core.dust.separation import ORBIT, OTHER_MODELS, Grades, Separation, separations
from fenwick.core.dust.stream import walk_through
from fenwick.core.line.line import Line
from fenwick.core.line.ports import with_grains
from fenwick.core.rules import RULES, Rule, rule
from fenwick.core.rules.book import Slopes

DRAWS, SEED = 1500, 20
WITHIN = 0.90  #: share of the draws inside a band [-]
ONE_SIDE = 1.6449  #: standard deviations from the middle to either end of that [-]
FARTHEST = 2.0  #: nothing is drawn farther out than this [standard deviations]
LEAST_END = 0.1  #: a range that begins at nothing is taken to begin at this share of the middle [-]
STRIPS = 10  #: equal parts that the draws of one assumption are sorted into, to see what follows it
MODEL = "model"  #: stands for the choice among the published models
Draws = npt.NDArray[np.intp]


@dataclass(frozen=True)
class Band:
    """A figure with what is believable of it."""

    low: float  #: 5 % of the draws lie below
    median: float
    high: float  #: 5 % of the draws lie above
    drivers: tuple[tuple[str, float], ...]  #: (assumption, share of the spread that follows it [-]), the most first


@dataclass(frozen=True)
class Sureness:
    """The bands of one stage."""

    kept: Band | None  #: of what enters it [-]; None where the dust is not known
    cut_size: Band | None  #: [m]
    pressure_drop: Band  #: [Pa]
    inlet_velocity: Band  #: [m/s]


def spread_values(row: Rule, normal: Array) -> Array:
    """Values of a rule for standard normal draws: log-normal, its range the middle 90 %.

    Both sides have their own width, so that the median is the rule's value.

    Parameters
    ----------
    normal : standard normal draws of any shape [-]
    """
    low = max(row.low, LEAST_END * row.value)
    up, down = np.log(row.high / row.value), np.log(row.value / low)
    reach = np.clip(normal, -FARTHEST, FARTHEST) / ONE_SIDE
    return np.asarray(row.value * np.exp(np.where(reach > 0.0, up, down) * reach))


@dataclass(frozen=True)
class LineSureness:
    """The bands of a line's stages, and of what they keep together."""

    stages: tuple[Sureness, ...] = ()
    kept: Band | None = None  #: of what enters the first stage; None where the dust is not known
    caught: Mapping[str, Band] = field(default_factory=dict)  #: by the tool of each open port with a known hood


@dataclass(frozen=True)
class Varied:
    """A line as it stands, its first variant, and drawn many times over, the others."""

    line: Line
    drawn: Mapping[str, Array]  #: values of each assumption, shape (1 + draws,)
    seed: int  #: of the chances drawn
    models: Draws  #: which published model counts, 0 the headline, likewise

    @property
    def count(self) -> int:
        """Variants, the line as it stands included."""
        return int(self.models.size)


def vary(line: Line, draws: int, seed: int, more: tuple[str, ...] = ()) -> Varied:
    """A line in many variants, the first as it stands.

    An assumption draws the same values in every line for the same seed, so that lines can be compared draw by draw.

    Parameters
    ----------
    draws : how many, besides the line as it stands [-]
    seed : of the chances drawn; the same one draws the same again [-]
    more : keys of further rules that are drawn, besides those that its air and its separators rest on
    """
    drawn = {key: drawn_values(line, key, draws, seed) for key in dict.fromkeys((*assumptions_of(line), *more))}
    random = _generator(seed, MODEL)
    models = random.integers(0, 1 + len(OTHER_MODELS), draws)
    # where readings have fixed the cut size, they have chosen between the published models, too
    models = np.where(random.random(draws) < _left(line, "swirl.cut"), models, 0)
    return Varied(with_drawn(line, drawn), drawn, seed, np.insert(models, 0, 0))


def with_drawn(line: Line, drawn: Mapping[str, Array]) -> Line:
    """A line in as many variants as values were drawn of its rules, the sizes of its dust among them.

    Parameters
    ----------
    drawn : by rule, those of its grains among them; shape (n,) [each in its rule's unit]
    """

    def grains(dust: Dust) -> Dust:
        return dust.scaled(drawn["dust.size"]).with_fines(drawn["dust.fines"])

    return replace(with_grains(line, grains), rules=line.rules.with_values(drawn))


def drawn_values(line: Line, key: str, draws: int, seed: int) -> Array:
    """A rule in force, then drawn round it, in its own unit, shape (1 + draws,).

    Round the value in force, which readings may have moved, and as far as they have left open.

    Parameters
    ----------
    draws : how many, besides the line as it stands [-]
    seed : of the chances drawn; the same one draws the same again [-]
    """
    left, told = 1.0 if line.rules.told else _left(line, key), line.rules.told
    return in_force(line, key, _spread(key, left, told if key in tied(told) else (), draws, seed))


def in_force(line: Line, key: str, values: Array) -> Array:
    """Values drawn round a rule of the table, moved as the rule in force is, in the rule's own unit.

    Parameters
    ----------
    values : of any shape [the rule's unit]
    """
    moved = one_value(line.rules[key]) / rule(key).value
    return values if moved == 1.0 else np.asarray(values * moved)


@lru_cache(maxsize=512)
def _spread(key: str, left: float, told: tuple[Slopes, ...], draws: int, seed: int) -> Array:
    """A rule drawn round its value in the table; every line of a shop asks for the same few."""
    normal = left * drawn_normal(key, told, draws, seed)
    values = spread_values(rule(key), np.insert(normal, 0, 0.0))
    values.setflags(write=False)
    return values


@lru_cache(maxsize=512)
def drawn_normal(key: str, told: tuple[Slopes, ...], draws: int, seed: int) -> Array:
    """Chances drawn of a rule: its own, or what readings left of it together with others; shape (draws,) [-].

    Parameters
    ----------
    key : of the rule, or of something else that moves readings
    told : what readings told together, this key's part among it; empty: nothing
    draws : how many [-]
    seed : of the chances drawn; the same one draws the same again [-]
    """
    if told:
        values = sum((weight * drawn_normal(of, (), draws, seed) for of, weight in tied(told)[key]), np.zeros(draws))
    else:
        values = _generator(seed, key).standard_normal(draws)
    values.setflags(write=False)
    return values


@lru_cache(maxsize=512)
def _order(key: str, told: tuple[Slopes, ...], draws: int, seed: int) -> Draws:
    """Draws of a rule from its lowest value to its highest: those of the chances drawn."""
    order = np.argsort(drawn_normal(key, told, draws, seed), kind="stable")
    order.setflags(write=False)
    return order


def _left(line: Line, key: str) -> float:
    """Of what the table believes possible of a rule, the share that readings left [-]."""
    return left_of(line.rules.told, key) if line.rules.told else line.rules.left.get(key, 1.0)


def _generator(seed: int, key: str) -> np.random.Generator:
    return np.random.default_rng([seed, int.from_bytes(key.encode(), "big") % 2**63])


def sureness(line: Line, draws: int = DRAWS, seed: int = SEED) -> LineSureness:
    """The bands of a line's stages; repeatable by seed.

    Parameters
    ----------
    line : a single variant
    draws : how many [-]
    seed : of the draws [-]
    """
    varied = vary(line, draws, seed)
    point = settled_point(varied.line)
    captures = capture(varied.line, point)
    arrives = arriving(varied.line, captures)
    stages = by_models(separations(varied.line, point, arrives), varied.models)
    walked = walk_through(varied.line, arrives, stages)
    causes = _causes(varied, any(stage.others for stage in stages))
    kept = [None] * len(stages) if walked is None else [_band(share, causes) for share in walked.by_stage]
    found = tuple(
        Sureness(
            kept=share,
            cut_size=None if stage.grades is None else _band(stage.grades.cut_size, causes),
            pressure_drop=_band(stage.pressure_drop, causes),
            inlet_velocity=_band(stage.inlet_velocity, causes),
        )
        for stage, share in zip(stages, kept, strict=True)
    )
    whole = None if walked is None else walked.in_all
    caught = {one.id: _band(one.tool_total, causes) for one in captures}
    return LineSureness(found, None if whole is None else _band(whole, causes), caught)


def by_models(stages: tuple[Separation, ...], models: Draws) -> tuple[Separation, ...]:
    """Stages in which every variant goes by the published model that counts there."""
    return tuple(
        replace(stage, grades=_by_models(stage, stage.grades, models)) if stage.grades and stage.others else stage
        for stage in stages
    )


def _by_models(stage: Separation, headline: Grades, models: Draws) -> Grades:
    every = [stage.models[name] for name in (ORBIT, *OTHER_MODELS)]
    cut = np.choose(models, [np.broadcast_to(grades.cut_size, models.shape) for grades in every])
    reaches = np.empty((headline.reaches_wall.shape[0], models.size))
    for i, grades in enumerate(every):
        mine = models == i
        reaches[:, mine] = np.broadcast_to(grades.reaches_wall, reaches.shape)[:, mine]
    return Grades(cut, reaches, headline.stays_in_bin)  # the bin gives back the same in all of them


@dataclass(frozen=True)
class Causes:
    """What was drawn, each with the order of its draws; made once, used for every figure."""

    orders: Mapping[str, Draws]  #: draws from the lowest value of the assumption to the highest


def _causes(varied: Varied, several_models: bool) -> Causes:
    told = varied.line.rules.told
    ties = tied(told)
    orders = {k: _order(k, told if k in ties else (), varied.count - 1, varied.seed) for k in varied.drawn}
    if several_models:
        orders[MODEL] = np.argsort(varied.models[1:], kind="stable")
    return Causes(orders)


def _band(values: Array, causes: Causes) -> Band:
    """The band of a figure, its first value left out: that is the line as it stands."""
    values = values[1:] if values.size > 1 else values
    tail = (1.0 - WITHIN) / 2.0
    low, median, high = np.quantile(values, [tail, 0.5, 1.0 - tail])
    return Band(float(low), float(median), float(high), _drivers(values, causes))


def _drivers(values: Array, causes: Causes) -> tuple[tuple[str, float], ...]:
    """Share of the variance that lies between the strips of each cause (its correlation ratio)."""
    count = len(next(iter(causes.orders.values())))
    values = np.broadcast_to(values, (count,))
    whole, middle = float(np.var(values)), float(np.mean(values))
    if whole <= (1e-9 * max(abs(middle), 1e-30)) ** 2:
        return ()
    starts = np.arange(STRIPS) * count // STRIPS
    sizes = np.diff(np.append(starts, count))
    chance = (STRIPS - 1) / count  # what strips of mere noise would show
    shares = {}
    for name, order in causes.orders.items():
        means = np.add.reduceat(values[order], starts) / sizes
        between = float(np.sum(sizes * np.square(means - middle))) / count
        shares[name] = max(0.0, between / whole - chance)
    return tuple(sorted(((k, v) for k, v in shares.items() if v > 0.01), key=lambda item: -item[1]))


def rule_words(key: str) -> str:
    """What a driver is, in words."""
    if key == MODEL:
        return "which published model is right"
    return {row.key: row.meaning for row in RULES}[key]
