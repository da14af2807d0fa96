"""One change at a time: every sensible single change of a line, tried in one batch and ranked for one tool port.

Variant 0 is the line as it stands; variant i is it with candidate i − 1 made and nothing else. What changes more than
numbers is solved beside the batch.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TypeAlias

from fenwick.core.arrays import one_value
from fenwick.core.judging.assess import assess
from fenwick.core.line.filters import tank_volume
from fenwick.core.line.line import Line
from fenwick.core.search.batch import VariantBatch, with_rings
from fenwick.core.search.changes import EXCHANGE, KINDS, STIFFEN, Candidate
from fenwick.core.search.figures import JUDGED, Figures, figures_at, figures_of_each

TOLD_SPEED, TOLD_KEPT, TOLD_AIR = 0.05, 0.002, 0.005  #: gains too small to tell: of the speed, points, of the air [-]
LOST_KEPT, LOST_AIR = 0.01, 0.02  #: losses too small to tell: points, of the air [-]
AT_THE_HOOD = ("entry", "nearer", "close-in", "step-down")  #: changes that show in what ends in the bin
LEAST_AIR_GAIN = 0.01  #: share of the flow from which a gain in air alone is worth a line [-]
LEAST_STRENGTH_GAIN = 1.2  #: ratio from which a bin that still folds is worth stiffening [-]
LEAST_HELP = {"flow": 1.05, "speed": 1.05, "folding": LEAST_STRENGTH_GAIN}  #: times a figure, that one would notice
LEAST_HARM = 0.95  #: times a figure to act on, that one would notice as worse [-]
AS_WELL, MUCH_SMALLER = 0.95, 0.8  #: of its air, what another vacuum must bring; of its tank, to be called smaller [-]
LEAST_KEPT_GAIN = 0.005  #: share of the dust made from which a gain is worth a line [-]
MUCH_LOST = 0.1  #: share of the dust made that, lost from the bin, puts a change behind those that keep it [-]

#: before and after
Pair: TypeAlias = tuple[float, float]


@dataclass(frozen=True)
class FigureMove:
    """One figure before and after a change."""

    figure: str  #: folding, speed, kept, in_bin or flow
    before: float
    after: float

    @property
    def gains(self) -> bool:
        """Whether it is better than before: all of them are better where there is more."""
        return self.after > self.before

    @property
    def change(self) -> float:
        """Of what it was, what it gained [-]."""
        return self.after / self.before - 1.0 if self.before > 0.0 else 0.0


@dataclass(frozen=True)
class ChangeOutcome:
    """What a candidate comes to at the port, beside the line as it stands: each figure before and after."""

    candidate: Candidate
    flow: Pair  #: air at the tool [m^3/s]
    speed: Pair | None  #: slowest dust-laden hose [m/s]
    kept: Pair | None  #: of what enters the separator [-]
    in_bin: Pair | None  #: of the dust made [-]
    folding: Pair | None  #: folding over blocked suction [-]
    acts: tuple[int, int]  #: figures to act on
    caught: Pair | None = None  #: of the dust made at the tool [-]
    acting: frozenset[str] = frozenset()  #: figures that are to act on as the line stands
    spares_room: bool = False  #: another vacuum with a smaller tank that does as well

    def helps(self, figure: str) -> bool:
        """Whether it makes a figure better by something one would notice.

        Parameters
        ----------
        figure : one of `JUDGED`
        """
        pair: Pair | None = getattr(self, figure)
        if pair is None or pair[0] == pair[1]:
            return False
        if figure in ("caught", "kept"):
            return _gain(pair) > LEAST_KEPT_GAIN
        return pair[1] > LEAST_HELP[figure] * pair[0]

    @property
    def mends(self) -> bool:
        """Whether a figure stops being to act on."""
        return self.acts[1] < self.acts[0]

    @property
    def harms(self) -> bool:
        """Whether a figure that is to act on gets noticeably worse for it."""
        pairs = (getattr(self, figure) for figure in self.acting)
        return any(pair is not None and pair[1] < LEAST_HARM * pair[0] for pair in pairs)

    @property
    def costs_dust(self) -> bool:
        """Whether much of what ends in the bin no longer does: no good bargain, whatever else it mends."""
        return _gain(self.in_bin) < -MUCH_LOST

    @property
    def moves(self) -> tuple[FigureMove, ...]:
        """What of it is worth telling, gains before losses."""
        found = [FigureMove("folding", *self.folding)] if self.folding and self.folding[0] != self.folding[1] else []
        if self.speed and abs(self.speed[1] - self.speed[0]) > TOLD_SPEED * self.speed[0]:
            found.append(FigureMove("speed", *self.speed))
        if self.kept and not -LOST_KEPT < _gain(self.kept) < TOLD_KEPT:
            found.append(FigureMove("kept", *self.kept))
        if self.in_bin and (self.candidate.kind in AT_THE_HOOD or self.costs_dust):
            found.append(FigureMove("in_bin", *self.in_bin))
        if self.caught and "caught" in self.acting and abs(_gain(self.caught)) > LEAST_KEPT_GAIN:
            found.append(FigureMove("caught", *self.caught))
        air = FigureMove("flow", *self.flow)
        if not -LOST_AIR < air.change < TOLD_AIR:
            found.append(air)
        return tuple(sorted(found, key=lambda move: not move.gains))


def try_all(
    line: Line,
    port: int,
    changes: tuple[Candidate, ...],
    now: Figures | None = None,
    others: Mapping[str, Line] | None = None,
) -> tuple[ChangeOutcome, ...]:
    """What each change alone comes to, the most useful first; those that gain nothing are left out.

    Ranked by how many figures stop being to act on, then by whether another gets worse for it, then by the gain in dust
    that ends in the bin, then by the gain in air at the tool; what costs much of the dust in the bin comes last.

    Parameters
    ----------
    line : a single variant
    port : place among the leaves [-]
    changes : from `candidates`
    now : figures of the line as it stands, where they are known already
    others : the line with other vacuums in the place of its own, by the name that their candidates bear
    """
    others = others or {}
    if not changes and not others:
        return ()
    alone = {change: made for change in changes if (made := KINDS[change.kind].apart(line, change)) is not None}
    together = tuple(change for change in changes if change not in alone)
    variants = [(), *((change,) for change in together)]
    batch = VariantBatch(line, variants).line()
    found = figures_at(batch, with_rings(batch, assess(batch), variants), port)
    now = now or found.variant(0)
    after = [(change, found.variant(i)) for i, change in enumerate(together, start=1)]
    anew = alone | {Candidate(EXCHANGE, name): exchanged for name, exchanged in others.items()}
    after += zip(anew, figures_of_each(list(anew.values()), port), strict=True)
    outcomes = [_outcome(change, now, new) for change, new in after]
    return ranked(_told_if_smaller(outcome, line, others) for outcome in outcomes)


def _told_if_smaller(outcome: ChangeOutcome, line: Line, others: Mapping[str, Line]) -> ChangeOutcome:
    """A vacuum with a smaller tank that does as well as the line's own is marked as such."""
    other = others.get(outcome.candidate.part) if outcome.candidate.kind == EXCHANGE else None
    if other is None:
        return outcome
    own, its = (one_value(tank_volume(one.vacuum, one.rules)) for one in (line, other))
    as_well = outcome.flow[1] >= AS_WELL * outcome.flow[0] and outcome.acts[1] <= outcome.acts[0]
    kept = outcome.kept is None or outcome.kept[1] > outcome.kept[0] - LEAST_KEPT_GAIN
    return replace(outcome, spares_room=its < MUCH_SMALLER * own and as_well and kept)


def _outcome(change: Candidate, before: Figures, after: Figures) -> ChangeOutcome:
    def pair(name: str) -> Pair | None:
        old, new = getattr(before, name), getattr(after, name)
        return None if old is None or new is None else (float(old[0]), float(new[0]))

    flow = pair("flow")
    assert flow is not None
    speed, kept, in_bin, folding = (pair(name) for name in ("speed", "kept", "in_bin", "folding"))
    acts = int(before.acts[0]), int(after.acts[0])
    return ChangeOutcome(change, flow, speed, kept, in_bin, folding, acts, pair("caught"), before.to_act_on())


def ranked(outcomes: Iterable[ChangeOutcome]) -> tuple[ChangeOutcome, ...]:
    """Those that gain something, the most useful first."""
    return tuple(sorted((outcome for outcome in outcomes if _worth(outcome)), key=_rank))


@dataclass(frozen=True)
class Picked:
    """The single changes to show, those behind them, and the figures to act on that none of all those tried helps."""

    outcomes: tuple[ChangeOutcome, ...]
    others: tuple[ChangeOutcome, ...]
    unhelped: tuple[str, ...]  #: of `JUDGED`


def pick(outcomes: Sequence[ChangeOutcome], acting: frozenset[str], most: int) -> Picked:
    """The best of some outcomes, and for every figure to act on at least one that helps it.

    Parameters
    ----------
    outcomes : the most useful first
    acting : figures to act on
    most : that are shown for being the best [-]
    """
    shown = list(outcomes[:most])
    unhelped = []
    for figure in (one for one in JUDGED if one in acting):
        if any(one.helps(figure) for one in shown):
            continue
        helper = next((one for one in outcomes if one.helps(figure)), None)
        if helper is None:
            unhelped.append(figure)
        else:
            shown.append(helper)
    return Picked(tuple(shown), tuple(one for one in outcomes if one not in shown), tuple(unhelped))


def _gain(pair: Pair | None) -> float:
    return pair[1] - pair[0] if pair else 0.0


def _worth(outcome: ChangeOutcome) -> bool:
    if outcome.acts[1] != outcome.acts[0]:
        return outcome.acts[1] < outcome.acts[0]
    if outcome.spares_room:
        return True
    if any(outcome.helps(figure) for figure in outcome.acting - {"folding"}):
        return True
    folding = outcome.folding if outcome.candidate.kind == STIFFEN else None
    if folding is not None and folding[0] < 1.0 and folding[1] > LEAST_STRENGTH_GAIN * folding[0]:
        return True  # a first step, where one is not enough; that a weaker vacuum pulls less is none
    if outcome.in_bin is not None:
        return _gain(outcome.in_bin) > LEAST_KEPT_GAIN
    return _gain(outcome.flow) > LEAST_AIR_GAIN * outcome.flow[0]


def _rank(outcome: ChangeOutcome) -> tuple[bool, int, bool, float, float]:
    fewer = outcome.acts[1] - outcome.acts[0]
    return outcome.costs_dust, fewer, outcome.harms, -_gain(outcome.in_bin), -_gain(outcome.flow)
