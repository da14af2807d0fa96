"""Courses of an ageing line, marched over its working hours: Heun's method on steps that grow with time."""

from __future__ import annotations

from dataclasses import dataclass, fields
from itertools import pairwise

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.filtering import buried_loss, caked_penetration, tank_drop_share
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.hours.ageing import HOUR, INLINE, LOADS, AgeingMap
from fenwick.core.hours.course import Course, Filters
from fenwick.core.line.filters import BAG, cake_of_sizes, cakes_wall, clean_medium

STEPS = 96
FIRST = 1e-5  #: of all the hours, the first step


@dataclass(frozen=True)
class _State:
    """Cakes, loads and masses of every course, shape (s,) [Pa s/m], [kg/m^2] and [kg]."""

    cake: Array
    load: Array
    bag_cake: Array
    bag_load: Array
    inline_cake: Array
    inline_load: Array
    dropped: Array
    bagged: Array

    def moved(self, rates: _State, seconds: float) -> _State:
        """After a while at those rates."""
        return _State(*(getattr(self, f.name) + seconds * getattr(rates, f.name) for f in fields(self)))


@dataclass(frozen=True)
class _Reaches:
    """Of the dust made, by size [-], each of shape (60, s)."""

    in_tank: Array
    in_bag: Array
    on_filter: Array
    past_all: Array


@dataclass(frozen=True)
class _Laws:
    """What does not change from step to step."""

    mapped: AgeingMap
    filters: Filters
    k2: Array  #: of each size, shape (60, 1 or s) [1/s]
    bag_k2: Array  #: likewise, on a bag's wall
    tank_passes: Array  #: likewise [-]
    clean_bag: Array
    clean_filter: Array
    cake: Values  #: that lets 37 % of the fine dust past [kg/m^2]
    full: Values  #: load that fills pleats [kg/m^2]

    @staticmethod
    def of(mapped: AgeingMap, filters: Filters) -> _Laws:
        """Those of a line and its filters."""
        rules = mapped.rules
        return _Laws(
            mapped,
            filters,
            cake_of_sizes(rules),
            np.asarray(cake_of_sizes(rules) * cakes_wall(BAG, rules)),
            np.asarray(1.0 - tank_drop_share(SIZES, rules["filter.tank-drop"])),
            clean_medium("bag", SIZES, rules),
            clean_medium(filters.kind, SIZES, rules),
            rules["filter.cake"],
            rules["filter.full"],
        )

    def coefficient(self, state: _State) -> Array:
        """c of every course [Pa s/m^3]; the fan curve holds the clean filter, not the clean bag."""
        area, bag_area, rules = self.filters.area, self.filters.bag_area, self.mapped.rules
        bag = (rules["filter.k1-bag"] + state.bag_cake) / np.maximum(bag_area, 1e-9)
        clean = rules[f"filter.k1-{self.filters.kind}"]
        own = (state.cake + buried_loss(clean, state.load, self.full)) / np.maximum(area, 1e-9)
        return np.asarray(np.where(area > 0.0, own, 0.0) + np.where(bag_area > 0.0, bag, 0.0))

    def inline(self, state: _State) -> Array:
        """What the dust on the in-line filter costs [Pa s/m]."""
        medium = self.mapped.inline_filter
        if medium is None:
            return state.inline_cake
        clean = self.mapped.rules[f"filter.k1-{medium.kind}"]
        return np.asarray(state.inline_cake + buried_loss(clean, state.inline_load, self.full))

    def reaches(self, load: Array, state: _State) -> _Reaches:
        """Where the dust of each course ends behind the separator."""
        past = _at(self.mapped, self.mapped.past, load, self.inline(state))
        bagged, filtered = self.filters.bag_area > 0.0, self.filters.area > 0.0
        through_bag = caked_penetration(self.clean_bag, state.bag_load, self.cake)
        in_bag = np.where(bagged, past * (1.0 - through_bag), 0.0)
        in_tank = np.where(bagged, 0.0, past * (1.0 - self.tank_passes))
        rest = past - in_bag - in_tank
        through = np.where(filtered, caked_penetration(self.clean_filter, state.load, self.cake), 1.0)
        return _Reaches(in_tank, in_bag, rest * (1.0 - through), rest * through)

    def rates(self, load: Array, state: _State, reaches: _Reaches) -> _State:
        """How fast cakes and loads grow."""
        rate, nothing = self.mapped.rate, np.zeros_like(load)
        cake, mass = self._growth(reaches.on_filter, self.k2, self.filters.area)
        bag_cake, bag_mass = self._growth(reaches.in_bag, self.bag_k2, self.filters.bag_area)
        inline, inline_mass = nothing, nothing
        if self.mapped.inline_filter is not None:
            held = _at(self.mapped, self.mapped.inline, load, self.inline(state))
            inline, inline_mass = self._growth(held, self.k2, self.mapped.inline_filter.area)
        dropped, bagged = (rate * np.sum(part, axis=0) for part in (reaches.in_tank, reaches.in_bag))
        return _State(cake, mass, bag_cake, bag_mass, inline, inline_mass, dropped + nothing, bagged + nothing)

    def _growth(self, share: Array, k2: Array, area: Values) -> tuple[Array, Array]:
        a_second = self.mapped.rate * share / np.maximum(area, 1e-9)
        return np.sum(k2 * a_second, axis=0), np.sum(a_second, axis=0)

    def look(self, load: Array, state: _State, reaches: _Reaches) -> tuple[Array, ...]:
        """What a course shows at this moment, in the order of `Course`."""
        shown = np.stack([self.mapped.flow, self.mapped.suction, self.mapped.speed, self.mapped.kept])
        past = np.sum(reaches.past_all, axis=0)
        told = _at(self.mapped, shown, load, self.inline(state))
        return (*told, state.load, past, state.cake, state.dropped, state.bagged)


@dataclass(frozen=True)
class Trace:
    """What a march of one course was reckoned from: per dust made, the mean over each step; shape (steps − 1,)."""

    cake: Array  #: what stays on the filter, each size by its K2 [1/s]
    load: Array  #: likewise, by mass [-]
    bag_cake: Array  #: on a bag's wall, each size by its K2 there [1/s]
    bagged: Array  #: in the bag, by mass [-]


def march(mapped: AgeingMap, filters: Filters, hours: float) -> Course:
    """Courses with the filters given, over some hours of work [h].

    Parameters
    ----------
    mapped : the line over its loads; of m variants, with one course for each
    filters : of every course
    hours : above 0 [h]
    """
    return _march(mapped, filters, hours)[0]


def traced(mapped: AgeingMap, filters: Filters, hours: float) -> tuple[Course, Trace]:
    """The same with what it was reckoned from; the first course.

    Parameters
    ----------
    hours : above 0 [h]
    """
    course, means = _march(mapped, filters, hours)
    area, bag_area = (max(float(one[0]), 1e-9) for one in (filters.area, filters.bag_area))

    def per_dust(name: str, over: float) -> Array:
        return np.array([float(np.ravel(getattr(mean, name))[0]) for mean in means]) * over / mapped.rate

    return course, Trace(
        per_dust("cake", area), per_dust("load", area), per_dust("bag_cake", bag_area), per_dust("bagged", 1.0)
    )


def _march(mapped: AgeingMap, filters: Filters, hours: float) -> tuple[Course, list[_State]]:
    """(courses, mean rates over every step)."""
    time = np.concatenate([[0.0], np.geomspace(FIRST * hours, hours, STEPS - 1)])
    laws, none = _Laws.of(mapped, filters), np.zeros(np.broadcast_shapes(filters.area.shape, mapped.flow.shape[-1:]))
    bag_cake = none if filters.bag_cake is None else filters.bag_cake + none
    bag_load = none if filters.bag_held is None else filters.bag_held + none
    state = _State(filters.cake + none, filters.held + none, bag_cake, bag_load, none, none, none, none)
    seen, means = [], []
    for before, after in pairwise(time):
        step = (after - before) * HOUR
        load = laws.coefficient(state)
        reaches = laws.reaches(load, state)
        seen.append(laws.look(load, state, reaches))
        slope = laws.rates(load, state, reaches)
        guess = state.moved(slope, step)
        load = laws.coefficient(guess)
        again = laws.rates(load, guess, laws.reaches(load, guess))
        mean = _State(*(0.5 * (getattr(slope, f.name) + getattr(again, f.name)) for f in fields(slope)))
        means.append(mean)
        state = state.moved(mean, step)
    load = laws.coefficient(state)
    seen.append(laws.look(load, state, laws.reaches(load, state)))
    columns = (np.stack(values) for values in zip(*seen, strict=True))
    return Course(time, *columns), means


def _at(mapped: AgeingMap, values: Array, load: Array, inline: Array) -> Array:
    """Values of the map, shape (…, inline, loads, m), at a load and an in-line cake of each course: (…, s)."""
    column = np.arange(load.size) if values.shape[-1] > 1 else np.zeros(load.size, dtype=int)
    j = np.clip(np.searchsorted(LOADS, load, side="right") - 1, 0, LOADS.size - 2)
    # air goes with about 1/(c + c_half): drawn straight over that, the grid is close enough to it
    ends = [1.0 / (np.minimum(c, LOADS[-1]) + mapped.half) for c in (LOADS[j], load, LOADS[j + 1])]
    u = (ends[0] - ends[1]) / (ends[0] - ends[2])
    if mapped.inline_filter is None:
        return np.asarray(values[..., 0, j, column] * (1.0 - u) + values[..., 0, j + 1, column] * u)
    y = np.interp(inline, INLINE, np.arange(INLINE.size))
    i = np.minimum(y.astype(int), INLINE.size - 2)
    v = y - i
    low = values[..., i, j, column] * (1.0 - u) + values[..., i, j + 1, column] * u
    high = values[..., i + 1, j, column] * (1.0 - u) + values[..., i + 1, j + 1, column] * u
    return np.asarray(low * (1.0 - v) + high * v)
