"""Courses of an ageing line, marched over its working hours: Heun's method on steps that grow with time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.formulas.filtering import buried_loss, caked_penetration, tank_drop_share
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.hours.ageing import HOUR, INLINE, LOADS, AgeingMap
from fenwick.core.hours.course import Course, Filters
from fenwick.core.line.filters import BAG, cake_of_sizes, cakes_wall, clean_medium

STEPS = 96
FIRST = 1e-5  #: of all the hours, the first step


#: rows of the state of every course: cakes [Pa s/m], loads [kg/m^2] and masses [kg]
CAKE, LOAD, BAG_CAKE, BAG_LOAD, INLINE_CAKE, INLINE_LOAD, DROPPED, BAGGED = range(8)


@dataclass(frozen=True)
class _Reaches:
    """Of the dust made, by size [-], each of shape (60, s)."""

    in_tank: Array
    in_bag: Array
    on_filter: Array
    past_all: Array


class _Laws:
    """What does not change from step to step; a state has shape (8, s)."""

    def __init__(self, mapped: AgeingMap, filters: Filters) -> None:
        rules = mapped.rules
        self.mapped, self.filters = mapped, filters
        self.k2 = cake_of_sizes(rules)
        self.bag_k2 = np.asarray(self.k2 * cakes_wall(BAG, rules))
        self.clean_bag, self.clean_filter = (clean_medium(kind, SIZES, rules) for kind in ("bag", filters.kind))
        self.cake: Values = rules["filter.cake"]  #: that lets 37 % of the fine dust past [kg/m^2]
        self.full: Values = rules["filter.full"]  #: load that fills pleats [kg/m^2]
        self.bagged, self.filtered = ((area > 0.0).astype(float) for area in (filters.bag_area, filters.area))
        self.drops = tank_drop_share(SIZES, rules["filter.tank-drop"]) * (1.0 - self.bagged)
        self.per_area, self.per_bag = (
            there / np.maximum(area, 1e-9)
            for there, area in ((self.filtered, filters.area), (self.bagged, filters.bag_area))
        )
        self.k1_bag: Values = rules["filter.k1-bag"]
        self.k1: Values = rules[f"filter.k1-{filters.kind}"]

    def coefficient(self, state: Array) -> Array:
        """c of every course [Pa s/m^3]; the fan curve holds the clean filter, not the clean bag."""
        own = (state[CAKE] + buried_loss(self.k1, state[LOAD], self.full)) * self.per_area
        return np.asarray(own + (self.k1_bag + state[BAG_CAKE]) * self.per_bag)

    def inline(self, state: Array) -> Array:
        """What the dust on the in-line filter costs [Pa s/m]."""
        medium = self.mapped.inline_filter
        if medium is None:
            return np.asarray(state[INLINE_CAKE])
        clean = self.mapped.rules[f"filter.k1-{medium.kind}"]
        return np.asarray(state[INLINE_CAKE] + buried_loss(clean, state[INLINE_LOAD], self.full))

    def reaches(self, load: Array, state: Array) -> _Reaches:
        """Where the dust of each course ends behind the separator."""
        past = _at(self.mapped, self.mapped.past, load, self.inline(state))
        in_bag = past * ((1.0 - caked_penetration(self.clean_bag, state[BAG_LOAD], self.cake)) * self.bagged)
        in_tank = past * self.drops
        rest = past - in_bag - in_tank
        held = (1.0 - caked_penetration(self.clean_filter, state[LOAD], self.cake)) * self.filtered
        on_filter = rest * held
        return _Reaches(in_tank, in_bag, on_filter, rest - on_filter)

    def rates(self, load: Array, state: Array, reaches: _Reaches) -> Array:
        """How fast each row of the state grows, in the order of its rows."""
        rate, found = self.mapped.rate, np.zeros_like(state)
        found[CAKE], found[LOAD] = self._growth(reaches.on_filter, self.k2, self.per_area)
        found[BAG_CAKE], found[BAG_LOAD] = self._growth(reaches.in_bag, self.bag_k2, self.per_bag)
        if self.mapped.inline_filter is not None:
            held = _at(self.mapped, self.mapped.inline, load, self.inline(state))
            per_area = 1.0 / np.asarray(self.mapped.inline_filter.area)
            found[INLINE_CAKE], found[INLINE_LOAD] = self._growth(held, self.k2, per_area)
        found[DROPPED], found[BAGGED] = rate * reaches.in_tank.sum(axis=0), rate * reaches.in_bag.sum(axis=0)
        return found

    def _growth(self, share: Array, k2: Array, per_area: Values) -> tuple[Array, Array]:
        a_second = self.mapped.rate * np.asarray(per_area)
        cake = k2[:, 0] @ share if k2.shape[1] == 1 else np.einsum("ij,ij->j", k2, share)
        return np.asarray(a_second * cake), np.asarray(a_second * share.sum(axis=0))

    def look(self, load: Array, state: Array, reaches: _Reaches) -> tuple[Array, ...]:
        """What a course shows at this moment, in the order of `Course`."""
        told = _at(self.mapped, self.mapped.shown, load, self.inline(state))
        past = reaches.past_all.sum(axis=0)
        return (*told, state[LOAD], past, state[CAKE], state[DROPPED], state[BAGGED])


@dataclass(frozen=True)
class MarchTrace:
    """What a march of one course was reckoned from: per dust made, the mean over each step; shape (steps − 1,)."""

    cake: Array  #: what stays on the filter, each size by its K2 [1/s]
    load: Array  #: likewise, by mass [-]
    bag_cake: Array  #: on a bag's wall, each size by its K2 there [1/s]
    bagged: Array  #: in the bag, by mass [-]
    inline_cake: Array  #: on the in-line filter that is followed, each size by its K2 [1/s]; 0 without one
    inline_load: Array  #: likewise, by mass [-]


def march(mapped: AgeingMap, filters: Filters, hours: float) -> Course:
    """Courses with the filters given, over some hours of work [h].

    Parameters
    ----------
    mapped : the line over its loads; of m variants, with one course for each
    filters : of every course
    hours : above 0 [h]
    """
    return _march(mapped, filters, hours)[0]


def traced(mapped: AgeingMap, filters: Filters, hours: float) -> tuple[Course, MarchTrace]:
    """The same with what it was reckoned from; the first course.

    Parameters
    ----------
    hours : above 0 [h]
    """
    course, means = _march(mapped, filters, hours)
    area, bag_area = (max(float(one[0]), 1e-9) for one in (filters.area, filters.bag_area))

    def per_dust(row: int, over: float) -> Array:
        return means[:, row, 0] * over / mapped.rate

    inline = 1.0 if mapped.inline_filter is None else one_value(mapped.inline_filter.area)
    return course, MarchTrace(
        per_dust(CAKE, area),
        per_dust(LOAD, area),
        per_dust(BAG_CAKE, bag_area),
        per_dust(BAGGED, 1.0),
        per_dust(INLINE_CAKE, inline),
        per_dust(INLINE_LOAD, inline),
    )


def _march(mapped: AgeingMap, filters: Filters, hours: float) -> tuple[Course, Array]:
    """(courses, mean rates over every step, shape (steps − 1, 8, s))."""
    time = np.concatenate([[0.0], np.geomspace(FIRST * hours, hours, STEPS - 1)])
    laws, state = _Laws(mapped, filters), _begin(filters, mapped.flow.shape[-1:])
    seen, means = [], []
    for step in np.diff(time) * HOUR:
        load = laws.coefficient(state)
        reaches = laws.reaches(load, state)
        seen.append(laws.look(load, state, reaches))
        slope = laws.rates(load, state, reaches)
        guess = state + step * slope
        load = laws.coefficient(guess)
        mean = 0.5 * (slope + laws.rates(load, guess, laws.reaches(load, guess)))
        means.append(mean)
        state = state + step * mean
    load = laws.coefficient(state)
    seen.append(laws.look(load, state, laws.reaches(load, state)))
    columns = (np.stack(values) for values in zip(*seen, strict=True))
    return Course(time, *columns), np.stack(means)


def _begin(filters: Filters, variants: tuple[int, ...]) -> Array:
    """The state of every course to begin with, shape (8, s)."""
    state = np.zeros((8, *np.broadcast_shapes(filters.area.shape, variants)))
    state[CAKE], state[LOAD] = filters.cake, filters.held
    if filters.bag_cake is not None:
        state[BAG_CAKE] = filters.bag_cake
    if filters.bag_held is not None:
        state[BAG_LOAD] = filters.bag_held
    return state


def _at(mapped: AgeingMap, values: Array, load: Array, inline: Array) -> Array:
    """Values of the map, shape (…, inline, loads, m), at a load and an in-line cake of each course: (…, s)."""
    column = np.arange(load.size) if values.shape[-1] > 1 else 0
    j = np.minimum(np.maximum(LOADS.searchsorted(load, side="right") - 1, 0), LOADS.size - 2)
    # air goes with about 1/(c + c_half): drawn straight over that, the grid is close enough to it
    at, before, after = (1.0 / (c + mapped.half) for c in (np.minimum(load, LOADS[-1]), LOADS[j], LOADS[j + 1]))
    u = (before - at) / (before - after)
    if mapped.inline_filter is None:
        low = values[..., 0, j, column]
        return np.asarray(low + (values[..., 0, j + 1, column] - low) * u)
    y = np.interp(inline, INLINE, np.arange(INLINE.size))
    i = np.minimum(y.astype(int), INLINE.size - 2)
    v = y - i
    low = values[..., i, j, column] * (1.0 - u) + values[..., i, j + 1, column] * u
    high = values[..., i + 1, j, column] * (1.0 - u) + values[..., i + 1, j + 1, column] * u
    return np.asarray(low * (1.0 - v) + high * v)
