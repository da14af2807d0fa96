"""The finder: thousands of designs of every allowed kind on the line, each with its own operating point."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.separator import Separator
from fenwick.core.doubt.doubts import doubted
from fenwick.core.formulas.choice import undominated, weighted_score
from fenwick.core.line.line import Line
from fenwick.core.search.designs import (
    BOUGHT,
    MADE,
    RANGES,
    Effort,
    HoseEnds,
    build,
    effort,
    hose_ends,
    near,
    one_of,
    sample,
)
from fenwick.core.search.on_the_line import OnTheLine, evaluate
from fenwick.core.search.work import PortWork

ROUNDS = (0.55, 0.25, 0.2)  #: shares of the designs drawn anywhere, near good ones, and nearer still [-]
SPREAD = (0.0, 0.12, 0.05)  #: of the rounds near good ones
GOOD = 40  #: designs of a kind that the next round starts from
WISHES = ("kept", "air", "height", "cost", "hours")
_MORE_IS_BETTER = {"air"}
LEAST_PAST = 1e-4  #: that designs are told apart by [-]
AS_TODAY = 0.9  #: of what today's separator comes to, that is enough where next to nothing carries [-]
DEFAULT_WISHES = {"kept": 3.0, "air": 2.0, "height": 1.0, "cost": 0.0, "hours": 0.0}


@dataclass(frozen=True)
class Limits:
    """What a design must keep to; None: no limit."""

    kinds: tuple[str, ...] = tuple(RANGES)
    how: str = MADE
    height: float | None = None  #: of the whole, bin included [m]
    suction: float | None = None  #: that it may cost [Pa]
    largest_hole: float | None = None  #: that the saws and cutters at hand make [m]
    cutter_reach: float | None = None  #: how deep they cut [m]
    sheet: tuple[float, float] | None = None  #: at hand [m]
    cost: float | None = None  #: in the shop's money
    hours: float | None = None  #: [h]


@dataclass(frozen=True)
class Scores(OnTheLine):
    """The same for designs, with what each takes to make."""

    effort: Effort
    sound: npt.NDArray[np.bool_]  #: nothing about it would be doubted elsewhere

    def of(self, wish: str) -> Array:
        """The figure that a wish is about, larger is better; of what is kept the logarithm of what gets past."""
        if wish == "kept":  # from 98 to 99 % is as much as from 80 to 90: half as much gets past
            return -np.log10(np.maximum(1.0 - self.kept, LEAST_PAST))
        value = getattr(self, wish) if hasattr(self, wish) else getattr(self.effort, wish)
        return np.asarray(value if wish in _MORE_IS_BETTER else -value)


@dataclass(frozen=True)
class Design:
    """One design that was tried."""

    kind: str
    separator: Separator
    kept: float
    air: float
    suction: float
    cut_size: float
    height: float
    cost: float
    hours: float
    dominated: bool  #: whether another is at least as good in every wish
    score: float  #: by the wishes, 0 … 1
    bought: float | None = None  #: what one like it costs to buy, in the shop's money; None: it is bought
    worst: float = 0.0  #: kept of the dust of which it keeps least [-]
    worst_port: int = 0  #: place among the leaves of the tool that makes it


@dataclass(frozen=True)
class InTheWay:
    """A limit that no design keeps to while it keeps to the others."""

    limit: str
    allowed: float
    least: float  #: what the nearest design takes
    alone: bool  #: whether giving way here is enough


@dataclass(frozen=True)
class Search:
    """Where a search stands."""

    tried: int
    of: int
    feasible: int
    designs: tuple[Design, ...] = field(default=())  #: the best first, once it is over
    in_the_way: tuple[InTheWay, ...] = ()
    over: bool = False


@dataclass(frozen=True)
class _Batch:
    kind: str
    numbers: Array
    designs: Separator
    scores: Scores


def search(
    line: Line,
    stage: Separator,
    port: int,
    limits: Limits,
    wishes: dict[str, float] | None = None,
    count: int = 6000,
    seed: int = 1,
    stop: Callable[[], bool] = lambda: False,
    works: Sequence[PortWork] = (),
) -> Iterator[Search]:
    """Look for designs in the place of a separator; yields where it stands, at last what was found.

    Parameters
    ----------
    line : a single variant, its dust known
    stage : the separator to be replaced; its bin is the bin at hand
    port : place of the tool among the leaves [-]
    limits : that a design must keep to
    wishes : weight of each of WISHES [-]; designs are compared by those above nothing
    count : designs in all [-]
    seed : the same gives the same designs [-]
    stop : asked between batches; when it says so, what was found so far is handed over
    works : of the tools that designs are judged for; empty: the line as it stands, at that port
    """
    weights = DEFAULT_WISHES if wishes is None else wishes
    bore = one_value(stage.hose_bore)
    finish = "shop-built" if limits.how == MADE else "smooth"
    hoses = hose_ends(stage)
    today = one_value(evaluate(line, stage, port, works).carries)
    carried = to_carry(today)
    batches: list[_Batch] = []
    tried, per_kind = 0, count / max(len(limits.kinds), 1)
    for turn, (share, spread) in enumerate(zip(ROUNDS, SPREAD, strict=True)):
        for k, kind in enumerate(limits.kinds):
            if stop() and batches:
                break
            size, salt = max(int(per_kind * share), 8), seed * 1000 + turn * 100 + k
            if turn == 0:
                numbers = sample(kind, size, salt)
            else:
                numbers = near(_good_ones(batches, kind, limits, weights), size, spread, salt)
            designs = build(kind, numbers, stage.id, stage.bin, bore, finish)
            taken = effort(kind, designs, limits.how, limits.sheet or (1e9, 1e9), line.rules, hoses)
            on_line = evaluate(line, designs, port, works)
            sound = ~doubted(designs, line.rules) & (on_line.carries >= carried)
            sound = np.broadcast_to(sound, on_line.kept.shape)
            scores = Scores(**vars(on_line), effort=taken, sound=sound)
            batches.append(_Batch(kind, numbers, designs, scores))
            tried += size
            yield Search(tried, count, sum(int(_feasible(b.scores, limits, line).sum()) for b in batches))
    yield _finished(batches, line, limits, weights, tried, hoses)


def _good_ones(batches: list[_Batch], kind: str, limits: Limits, weights: dict[str, float]) -> Array:
    """Numbers of the best of a kind so far: feasible ones by their score, else those nearest to feasible."""
    mine = [b for b in batches if b.kind == kind]
    numbers = np.concatenate([b.numbers for b in mine], axis=1)
    score = np.concatenate([_score(b.scores, weights) - 10.0 * _faults(b.scores, limits) for b in mine])
    best = np.argsort(-score, kind="stable")[:GOOD]
    return np.asarray(numbers[:, best])


def _faults(scores: Scores, limits: Limits) -> Array:
    """By how much a design falls short of what is asked, and of what is sound [-]."""
    return np.asarray(_excess(scores, limits).sum(axis=0) + ~scores.sound)


_FIGURES: dict[str, Callable[[Scores], Array]] = {
    "height": lambda s: s.effort.height,
    "suction": lambda s: s.suction,
    "largest_hole": lambda s: s.effort.largest_hole,
    "sheet": lambda s: s.effort.sheet,
    "cost": lambda s: s.effort.cost,
    "hours": lambda s: s.effort.hours,
}


def _allowed(limits: Limits, name: str) -> float | None:
    if name == "sheet":
        return None if limits.sheet is None else 1.0
    value: float | None = getattr(limits, name)
    return value


def _excess(scores: Scores, limits: Limits) -> Array:
    """By how much each limit is passed, relative to it [-], shape (limits, n); 0 where it is kept to."""
    rows = []
    for name, figure in _FIGURES.items():
        allowed = _allowed(limits, name)
        values = figure(scores)
        rows.append(np.zeros_like(values) if allowed is None else np.maximum(values / max(allowed, 1e-12) - 1.0, 0.0))
    return np.stack(rows)


def _feasible(scores: Scores, limits: Limits, line: Line) -> npt.NDArray[np.bool_]:
    reaches = limits.cutter_reach is None or limits.how != MADE
    deep_enough = reaches or float(limits.cutter_reach or 0.0) >= one_value(line.rules["make.thickness"])
    return np.asarray((_excess(scores, limits).sum(axis=0) <= 0.0) & deep_enough & scores.sound)


def _score(scores: Scores, weights: dict[str, float]) -> Array:
    """Weighted mean of the wishes [-]."""
    return weighted_score(np.array([scores.of(wish) for wish in WISHES]), [weights.get(wish, 0.0) for wish in WISHES])


MOST_DOMINATED = 400  #: that are handed on, evenly picked


def to_carry(today: float) -> float:
    """What a design has to come to, of the speed at which the dust settles: a weak line is not left without any.

    Parameters
    ----------
    today : what the separator that stands there comes to [-]
    """
    reached = min(today, 1.0)
    return reached * (AS_TODAY + (1.0 - AS_TODAY) * reached)


def _finished(
    batches: list[_Batch], line: Line, limits: Limits, weights: dict[str, float], tried: int, hoses: HoseEnds
) -> Search:
    feasible = [np.flatnonzero(_feasible(b.scores, limits, line)) for b in batches]
    count = sum(len(at) for at in feasible)
    if not count:
        return Search(tried, tried, 0, in_the_way=_in_the_way(batches, line, limits), over=True)
    rows = [(b, int(i)) for b, at in zip(batches, feasible, strict=True) for i in at]
    wished = [wish for wish in WISHES if weights.get(wish, 0.0) > 0.0] or ["kept"]
    pairs = list(zip(batches, feasible, strict=True))
    values = np.array([np.concatenate([b.scores.of(wish)[at] for b, at in pairs]) for wish in wished])
    best = undominated(values)
    scores = weighted_score(values, [weights.get(w, 0.0) for w in wished])
    order = np.argsort(-scores, kind="stable")
    behind = [i for i in order if not best[i]]
    shown = [i for i in order if best[i]] + behind[:: max(1, len(behind) // MOST_DOMINATED)]
    found = [_design(*rows[i], dominated=not bool(best[i]), score=float(scores[i])) for i in shown]
    if limits.how == MADE:
        found = [replace(one, bought=_bought(one, line, hoses)) for one in found]
    return Search(tried, tried, count, designs=tuple(sorted(found, key=lambda d: -d.score)), over=True)


def _bought(design: Design, line: Line, hoses: HoseEnds) -> float:
    """What a design costs that is bought [in the shop's money]."""
    return one_value(effort(design.kind, design.separator, BOUGHT, (1e9, 1e9), line.rules, hoses).cost)


def _design(batch: _Batch, i: int, *, dominated: bool, score: float) -> Design:
    s, e = batch.scores, batch.scores.effort
    return Design(
        kind=batch.kind,
        separator=one_of(batch.designs, i),
        kept=float(s.kept[i]),
        air=float(s.air[i]),
        suction=float(s.suction[i]),
        cut_size=float(s.cut_size[i]),
        worst=float(s.worst[i]),
        worst_port=int(s.worst_port[i]),
        height=float(e.height[i]),
        cost=float(e.cost[i]),
        hours=float(e.hours[i]),
        dominated=dominated,
        score=score,
    )


def _in_the_way(batches: list[_Batch], line: Line, limits: Limits) -> tuple[InTheWay, ...]:
    """The limits that nothing keeps to, those first that alone stand in the way."""
    thick = one_value(line.rules["make.thickness"])
    if limits.how == MADE and limits.cutter_reach is not None and limits.cutter_reach < thick:
        return (InTheWay("cutter_reach", limits.cutter_reach, thick, True),)
    excess = np.concatenate([_excess(b.scores, limits) for b in batches], axis=1)
    found = []
    for i, (name, figure) in enumerate(_FIGURES.items()):
        allowed = _allowed(limits, name)
        if allowed is None:
            continue
        figures = np.concatenate([figure(b.scores) for b in batches])
        others = np.delete(excess, i, axis=0).sum(axis=0) <= 0.0
        over = excess[i] > 0.0
        if others.any():
            found.append(InTheWay(name, allowed, float(figures[others].min()), True))
        elif over.all():
            found.append(InTheWay(name, allowed, float(figures.min()), False))
    return tuple(sorted(found, key=lambda way: (not way.alone, way.least / max(way.allowed, 1e-12))))
