"""A line over the loads of its filters: solved once for a grid of them, to be marched over the hours by interpolation.

What the vacuum's filters cost in suction acts on the line as one coefficient, c = Δp/Q at the vacuum. So the line is
solved once for a grid of c (and of the in-line filter's cake), each averaged over a filling bin; then any number of
courses with other filters and bags is marched over the hours.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from fenwick.core.arrays import Array, Values, take_variants
from fenwick.core.components.elements import Branch, Element, InlineFilter
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.separation import fill_mark
from fenwick.core.dust.stream import stream_through
from fenwick.core.formulas.sizes import all_densities
from fenwick.core.judging.assess import assess
from fenwick.core.line.catch import dust_rate
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

#: c for which the line is solved, so far that no line with any air is beyond it [Pa s/m^3]
LOADS = np.concatenate([[0.0], np.geomspace(2e3, 4e6, 19), [2e7, 2e8, 4e9]])
INLINE = np.array([0.0, 3e3, 1e4, 3e4, 1e5, 1e6])  #: cakes of an in-line filter, likewise [Pa s/m]
FILLS, FILL_WEIGHTS = np.array([0.1127, 0.5, 0.8873]), np.array([5.0, 8.0, 5.0]) / 18.0  #: Gauss, of the bin's volume
FILL_STEPS = 200
HOUR = 3600.0  #: [s]


@dataclass(frozen=True)
class AgeingMap:
    """A line, or m drawn variants of it, over its loads; arrays of shape (inline, loads, m), by size (60, …)."""

    flow: Array  #: air at the tool whose port is followed, at room density [m^3/s]
    suction: Array  #: that the fan makes [Pa]
    speed: Array  #: of the slowest dust-laden hose [m/s]
    kept: Array  #: of what enters the separators [-]; nan without one
    binned: Array  #: of the dust made, in the bins [-]
    past: Array  #: of the dust made, arriving at the vacuum, by size [-]
    inline: Array  #: likewise, held by in-line filters, by size [-]
    rate: float  #: of the dust made [kg/s]
    half: float  #: c that halves the air of the vacuum alone, nearly: its sealed suction over its open flow [Pa s/m^3]
    bulk: float | None  #: density of the dust as it lies [kg/m^3]; None: not known
    inline_filter: FilterMedium | None  #: the in-line filter that is followed; None: there is none
    rules: RuleBook  #: values of shape (m,) or shared

    @cached_property
    def shown(self) -> Array:
        """Air, suction, speed and kept share together, shape (4, inline, loads, m)."""
        return np.stack([self.flow, self.suction, self.speed, self.kept])


def ageing_map(line: Line, port: int, *, sparse: bool = False) -> AgeingMap | None:
    """The line over its loads; None where the dust, its amount, the hood or a filter is not known.

    Parameters
    ----------
    line : one or m variants, gates as they stand while it works
    port : place among the leaves of the tool whose air is followed [-]
    sparse : with a half-full bin alone, for many variants that are only compared with each other
    """
    rate = float(np.ravel(dust_rate(line))[0])
    if line.dust is None or rate <= 0.0 or (line.vacuum.filter is None and line.vacuum.bag is None):
        return None
    first = followed_filter(line)
    fills, weights = (FILLS, FILL_WEIGHTS) if line.separators and not sparse else (FILLS[1:2], np.ones(1))
    shape = (line.variants, len(fills), len(INLINE) if first else 1, len(LOADS))
    axes = np.meshgrid(np.arange(shape[0]), fills, INLINE[: shape[2]], LOADS, indexing="ij")
    variant, fill, cake, load = (axis.reshape(-1) for axis in axes)
    each = line if shape[0] == 1 else take_variants(line, variant.astype(np.intp))
    loaded = _loaded(each, line, load, cake, fill)
    found = assess(loaded)
    stream = stream_through(found.arriving, found.walk, found.separations)
    if stream is None:
        return None

    def mean(values: Values) -> Array:
        spread = np.broadcast_to(np.asarray(values, dtype=float), (*np.shape(values)[:-1], fill.size))
        grid = spread.reshape(*spread.shape[:-1], *shape)
        return np.moveaxis(np.tensordot(grid, weights, axes=([-3], [0])), -3, -1)

    slowest = np.full(fill.size, np.nan)
    if found.carrying is not None and any(found.carrying.laden):
        slowest = np.min(found.carrying.velocity[np.array(found.carrying.laden)], axis=0)
    return AgeingMap(
        flow=mean(found.point.port_flow[port]),
        suction=mean(found.point.suction),
        speed=mean(slowest),
        kept=mean(np.full(fill.size, np.nan) if found.kept is None else found.kept),
        binned=mean(np.sum(stream.held, axis=0)),
        past=mean(all_densities(stream.past)),
        inline=mean(all_densities(stream.inline)),
        rate=rate,
        half=float(np.ravel(line.vacuum.curve.sealed_suction / np.asarray(line.vacuum.curve.open_flow))[0]),
        bulk=line.dust.bulk_density,
        inline_filter=None if first is None else first.medium,
        rules=line.rules,
    )


def without_separators(line: Line) -> Line:
    """The line with every stage taken out, its hoses as they are."""
    return replace(line, trunk=tuple(part for part in line.trunk if not isinstance(part, Separator | WetStage)))


def followed_filter(line: Line) -> InlineFilter | None:
    """The in-line filter whose cake is followed: the first; None where there is none."""
    parts = [*line.trunk, *(part for leaf in line.leaves if leaf.open for b in leaf.way for part in b.elements)]
    return next((part for part in parts if isinstance(part, InlineFilter)), None)


def _loaded(each: Line, line: Line, load: Array, cake: Array, fill: Array) -> Line:
    """`each` variant with a filter that costs c, its in-line filter and its first bin loaded, one for each of them."""
    filters = FilterMedium("paper", 1.0, 0.0, cake=load)  # over 1 m² its cake is c itself
    first = followed_filter(each)
    stage = each.separators[0] if each.separators else None
    heights = None if stage is None else _heights(line.separators[0], line.rules, fill)

    def changed(part: Element) -> Element:
        if part is first and isinstance(part, InlineFilter):
            return replace(part, medium=replace(part.medium, cake=cake))
        if part is stage and isinstance(part, Separator) and heights is not None:
            return part.changed(bin=replace(part.bin, fill_height=heights))
        return part

    def branch(part: Branch) -> Branch:
        inner, elements = tuple(branch(one) for one in part.branches), tuple(changed(one) for one in part.elements)
        return replace(part, elements=elements, branches=inner)

    return replace(
        each,
        vacuum=replace(each.vacuum, filter=filters, bag=None),
        branches=tuple(branch(part) for part in each.branches),
        trunk=tuple(changed(part) for part in each.trunk),
    )


def _heights(stage: Separator, rules: RuleBook, shares: Array) -> Array:
    """Heights of the dust at shares of the volume up to where the bin is emptied [m]."""
    mark, _ = fill_mark(stage, rules)
    heights = np.linspace(0.0, mark, FILL_STEPS)
    volumes = stage.bin.volume_to(heights)
    return np.asarray(np.interp(shares * volumes[-1], volumes, heights))


def bin_hours(mapped: AgeingMap, line: Line) -> float | None:
    """Hours of work that fill the first bin from its floor to its mark [h]; None where that cannot be told."""
    if not line.separators or not mapped.bulk:
        return None
    _, volume = fill_mark(line.separators[0], line.rules)
    a_second = mapped.rate * float(mapped.binned[0, 0, 0]) / mapped.bulk
    return volume / a_second / HOUR if a_second > 0.0 else None
