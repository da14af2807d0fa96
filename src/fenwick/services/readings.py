"""Readings of a line: the model tuned to them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from fenwick.core.dust.cakes import settled_point
from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.tuning.fit import Fit, figures_at, fit, stretched, stretched_share
from fenwick.core.tuning.readings import FLOW, KEPT, Reading
from fenwick.core.tuning.told import told_together
from fenwick.data.readings import Taken
from fenwick.rig import Rig, build_line
from fenwick.rig.format.tuning import LEAST, MOST
from fenwick.rig.to_core.line import described_line
from fenwick.services.solving import sureness_of

DIGITS = 3  #: after the point, of a factor as it is kept


def tune(rig: Rig, taken: list[Taken]) -> Fit | None:
    """The line fitted to the readings that count; None where none does, or the line cannot be solved."""
    counted = tuple(one.reading for one in taken if not one.left_out)
    return _tuned(rig, counted) if counted else None


@lru_cache(maxsize=16)
def _tuned(rig: Rig, counted: tuple[Reading, ...]) -> Fit | None:
    """The same, worked out once for each."""
    try:
        return fit(described_line(rig), counted)
    except CoreError:
        return None


@dataclass(frozen=True)
class FigureInterval:
    """A figure with its central 90 % interval, its ends as far off as they may be; in its own unit."""

    value: float
    low: float
    high: float


@dataclass(frozen=True)
class TunedFigure:
    """A figure as a line is described, and as it is tuned."""

    kind: str  #: KEPT or FLOW
    described: FigureInterval
    tuned: FigureInterval


def tuned_figures(rig: Rig, fitted: Fit, port: str) -> list[TunedFigure]:
    """What the tuning makes of what is kept and of the air.

    What is kept has the band that the line's page shows, of the line as described and of the same line tuned.

    Parameters
    ----------
    rig : tuned or not
    fitted : to its readings
    port : id of the open one
    """
    found = []
    plain = rig.model_copy(update={"tuning": None})
    for kind in (KEPT, FLOW):
        both = figures_at(fitted, Reading(kind, 0.0, 1.0, port))
        if both is None:
            continue
        interval = stretched_share if kind == KEPT else stretched
        was, now = (FigureInterval(value, *interval(value, sd)) for value, sd in both)
        if kind == KEPT:
            was, now = _kept(plain, was), _kept(tuned_rig(rig, fitted), now)
        found.append(TunedFigure(kind, was, now))
    return found


def _kept(rig: Rig, found: FigureInterval) -> FigureInterval:
    band = sureness_of(rig).kept
    if band is None:
        return found
    return FigureInterval(found.value, min(band.low, found.value), max(band.high, found.value))


def station_kinds(line: Line) -> dict[str, str]:
    """Kind of every station of a line, in the order of the air."""
    point = settled_point(line)
    return dict(zip(point.stations.ids, point.stations.kinds, strict=True))


def tuned_rig(rig: Rig, fitted: Fit) -> Rig:
    """The rig with the factors that its readings gave it, within what a rig file may hold."""
    factors = {key: min(max(round(value, DIGITS), LEAST), MOST) for key, value in fitted.factors.items()}
    unsure = {key: round(share, DIGITS) for key, share in fitted.left.items()}
    slot = 1.0 if rig.tuning is None else rig.tuning.slot
    tuning = {"on": True, **factors, "slot": slot, "unsure": unsure}
    moved = Rig.model_validate(rig.model_dump(mode="json") | {"tuning": tuning})
    rows = told_together(build_line(moved), fitted)
    told = [{"slopes": [{"of": of, "slope": slope} for of, slope in row]} for row in rows]
    return Rig.model_validate(rig.model_dump(mode="json") | {"tuning": {**tuning, "told": told}})
