"""How a line ages: filter, bag and in-line filter load up over working hours while the bin is emptied by its line.

What the vacuum's filters cost in suction acts on the line as one coefficient, c = Δp/Q at the vacuum. So the line is
solved once for a grid of c (and of the in-line filter's cake), each averaged over a filling bin; then any number of
courses with other filters and bags is marched over the hours by interpolation.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.components.elements import Branch, Element, InlineFilter
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.separation import fill_mark
from fenwick.core.dust.stream import stream_through
from fenwick.core.formulas.filtering import cake_coefficient, tank_drop_share
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.rows import dust_rate
from fenwick.core.rules import RuleBook

LOADS = np.concatenate([[0.0], np.geomspace(2e3, 4e6, 19)])  #: c for which the line is solved [Pa s/m^3]
INLINE = np.array([0.0, 3e3, 1e4, 3e4, 1e5, 1e6])  #: cakes of an in-line filter, likewise [Pa s/m]
FILLS, FILL_WEIGHTS = np.array([0.1127, 0.5, 0.8873]), np.array([5.0, 8.0, 5.0]) / 18.0  #: Gauss, of the bin's volume
FILL_STEPS = 200
HOUR = 3600.0  #: [s]


@dataclass(frozen=True)
class AgeingMap:
    """A line solved over its loads; arrays of shape (inline, loads), by size (60, inline, loads)."""

    flow: Array  #: air at the tool whose port is followed, at room density [m^3/s]
    suction: Array  #: that the fan makes [Pa]
    speed: Array  #: of the slowest dust-laden hose [m/s]
    kept: Array  #: of what enters the separators [-]; nan without one
    binned: Array  #: of the dust made, in the bins [-]
    past: Array  #: of the dust made, arriving at the vacuum, by size [-]
    inline: Array  #: likewise, held by in-line filters, by size [-]
    rate: float  #: of the dust made [kg/s]
    inline_area: float | None  #: of the in-line filter [m^2]; None: there is none
    rules: RuleBook


@dataclass(frozen=True)
class Filters:
    """What stands at the vacuum in some courses; arrays of shape (s,). An area of 0: there is none."""

    kind: str  #: of the filter: paper or hepa
    area: Array  #: [m^2]
    bag_area: Array  #: [m^2]
    held: Array  #: on the filter to begin with [kg/m^2]
    cake: Array  #: its resistance [Pa s/m]


@dataclass(frozen=True)
class Course:
    """How some courses go; arrays of shape (steps, s)."""

    hours: Array  #: of work, shape (steps,) [h]
    flow: Array  #: [m^3/s]
    suction: Array  #: of the fan [Pa]
    speed: Array  #: [m/s]
    kept: Array  #: [-]
    load: Array  #: on the filter [kg/m^2]
    exhaust: Array  #: of the dust made, past the filter [-]

    def life(self, share: float) -> Array:
        """Hours until the flow is down to a share of its first value [h], shape (s,); inf where it stays above.

        Parameters
        ----------
        share : of the first flow [-]
        """
        limit = share * self.flow[0]
        below = self.flow <= limit
        first = np.argmax(below, axis=0)
        lives = np.full(self.flow.shape[1], np.inf)
        for i in np.flatnonzero(below.any(axis=0)):
            k = int(first[i])
            if k == 0:
                lives[i] = 0.0
                continue
            a, b = self.flow[k - 1, i], self.flow[k, i]
            part = (a - limit[i]) / (a - b)
            lives[i] = self.hours[k - 1] + part * (self.hours[k] - self.hours[k - 1])
        return lives


def ageing_map(line: Line, port: int) -> AgeingMap | None:
    """The line over its loads; None where the dust, its amount, the hood or a filter is not known.

    Parameters
    ----------
    line : a single variant, gates as they stand while it works
    port : place among the leaves of the tool whose air is followed [-]
    """
    rate = one_value(dust_rate(line))
    if line.dust is None or rate <= 0.0 or (line.vacuum.filter is None and line.vacuum.bag is None):
        return None
    first = _inline_filter(line)
    cakes = INLINE if first is not None else INLINE[:1]
    fills = FILLS if line.separators else FILLS[:1]
    grid = np.meshgrid(fills, cakes, LOADS, indexing="ij")
    fill, cake, load = (axis.reshape(-1) for axis in grid)
    loaded = _loaded(line, load, cake, fill)
    found = assess(loaded)
    stream = stream_through(loaded, found.captures, found.separations)
    if stream is None:
        return None
    shape = (len(fills), len(cakes), len(LOADS))
    weights = FILL_WEIGHTS if line.separators else np.ones(1)

    def mean(values: Values) -> Array:
        spread = np.broadcast_to(np.asarray(values, dtype=float), (*np.shape(values)[:-1], fill.size))
        return np.tensordot(weights, spread.reshape(*spread.shape[:-1], *shape), axes=([0], [spread.ndim - 1]))

    slowest = np.full(fill.size, np.nan)
    if found.carrying is not None and any(found.carrying.laden):
        slowest = np.min(found.carrying.velocity[np.array(found.carrying.laden)], axis=0)
    return AgeingMap(
        flow=mean(found.point.port_flow[port]),
        suction=mean(found.point.suction),
        speed=mean(slowest),
        kept=mean(np.full(fill.size, np.nan) if found.kept is None else found.kept),
        binned=mean(np.sum(stream.held, axis=0)),
        past=mean(stream.past),
        inline=mean(stream.inline),
        rate=rate,
        inline_area=None if first is None else one_value(first.medium.area),
        rules=line.rules,
    )


def without_separators(line: Line) -> Line:
    """The line with every stage taken out, its hoses as they are."""
    return replace(line, trunk=tuple(part for part in line.trunk if not isinstance(part, Separator | WetStage)))


def _inline_filter(line: Line) -> InlineFilter | None:
    parts = [*line.trunk, *(part for leaf in line.leaves if leaf.open for b in leaf.way for part in b.elements)]
    return next((part for part in parts if isinstance(part, InlineFilter)), None)


def _loaded(line: Line, load: Array, cake: Array, fill: Array) -> Line:
    """The line with a filter that costs c, its in-line filter and its first bin loaded, one variant for each."""
    filters = FilterMedium("paper", 1.0, 0.0, cake=load)  # over 1 m² its cake is c itself
    first = _inline_filter(line)
    stage = line.separators[0] if line.separators else None

    def changed(part: Element) -> Element:
        if part is first and isinstance(part, InlineFilter):
            return replace(part, medium=replace(part.medium, cake=cake))
        if part is stage and isinstance(part, Separator):
            return part.changed(bin=replace(part.bin, fill_height=_heights(part, line.rules, fill)))
        return part

    def branch(part: Branch) -> Branch:
        inner, elements = tuple(branch(one) for one in part.branches), tuple(changed(one) for one in part.elements)
        return replace(part, elements=elements, branches=inner)

    return replace(
        line,
        vacuum=replace(line.vacuum, filter=filters, bag=None),
        branches=tuple(branch(part) for part in line.branches),
        trunk=tuple(changed(part) for part in line.trunk),
    )


def _heights(stage: Separator, rules: RuleBook, shares: Array) -> Array:
    """Heights of the dust at shares of the volume up to where the bin is emptied [m]."""
    mark, _ = fill_mark(stage, rules)
    heights = np.linspace(0.0, mark, FILL_STEPS)
    volumes = stage.bin.volume_to(heights)
    return np.asarray(np.interp(shares * volumes[-1], volumes, heights))


def bin_hours(mapped: AgeingMap, line: Line) -> float | None:
    """Hours of work that fill the first bin from its floor to its mark [h]; None where that cannot be told."""
    if not line.separators or line.dust is None or not line.dust.bulk_density:
        return None
    _, volume = fill_mark(line.separators[0], line.rules)
    a_second = mapped.rate * float(mapped.binned[0, 0]) / line.dust.bulk_density
    return volume / a_second / HOUR if a_second > 0.0 else None


def cake_of_sizes(rules: RuleBook) -> Array:
    """K2 of each size [1/s], shape (60, 1)."""
    return cake_coefficient(SIZES, *(rules[f"filter.{key}"] for key in ("k2", "k2-least", "k2-most")))


def tank_passes(rules: RuleBook) -> Array:
    """Share of each size that the vacuum's own tank does not drop [-], shape (60, 1)."""
    return np.asarray(1.0 - tank_drop_share(SIZES, rules["filter.tank-drop"]))
