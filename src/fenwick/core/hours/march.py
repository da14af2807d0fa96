"""Courses of an ageing line, marched over its working hours: Heun's method on steps that grow with time."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.dust.vacuum_path import clean_medium
from fenwick.core.formulas.filtering import caked_penetration
from fenwick.core.hours.ageing import HOUR, INLINE, LOADS, AgeingMap, Course, Filters, cake_of_sizes, tank_passes

STEPS = 72
FIRST = 1e-4  #: of all the hours, the first step
PLACES = np.arange(LOADS.size)


@dataclass(frozen=True)
class _State:
    """Cakes and loads of every course, shape (s,) [Pa s/m] and [kg/m^2]."""

    cake: Array
    load: Array
    bag_cake: Array
    bag_load: Array
    inline_cake: Array

    def moved(self, rates: _State, seconds: float, full: float) -> _State:
        """After a while at those rates; full pleats take no more."""
        own = np.clip((full - self.load) / np.maximum(rates.load * seconds, 1e-300), 0.0, 1.0) * seconds
        bag = np.clip((full - self.bag_load) / np.maximum(rates.bag_load * seconds, 1e-300), 0.0, 1.0) * seconds
        return _State(
            self.cake + own * rates.cake,
            self.load + own * rates.load,
            self.bag_cake + bag * rates.bag_cake,
            self.bag_load + bag * rates.bag_load,
            self.inline_cake + seconds * rates.inline_cake,
        )


@dataclass(frozen=True)
class _Reaches:
    """Of the dust made, by size [-], each of shape (60, s)."""

    in_bag: Array
    on_filter: Array
    past_all: Array


@dataclass(frozen=True)
class _Laws:
    """What does not change from step to step."""

    mapped: AgeingMap
    filters: Filters
    k2: Array  #: of each size, shape (60, 1) [1/s]
    tank_passes: Array  #: likewise [-]
    clean_bag: Array
    clean_filter: Array
    cake: float  #: that lets 37 % of the fine dust past [kg/m^2]

    @staticmethod
    def of(mapped: AgeingMap, filters: Filters) -> _Laws:
        """Those of a line and its filters."""
        rules = mapped.rules
        return _Laws(
            mapped,
            filters,
            cake_of_sizes(rules),
            tank_passes(rules),
            clean_medium("bag", rules),
            clean_medium(filters.kind, rules),
            one_value(rules["filter.cake"]),
        )

    def coefficient(self, state: _State) -> Array:
        """c of every course [Pa s/m^3]; the fan curve holds the clean filter, not the clean bag."""
        area, bag_area = self.filters.area, self.filters.bag_area
        bag = (self.mapped.rules["filter.k1-bag"] + state.bag_cake) / np.maximum(bag_area, 1e-9)
        own = state.cake / np.maximum(area, 1e-9)
        return np.asarray(np.where(area > 0.0, own, 0.0) + np.where(bag_area > 0.0, bag, 0.0))

    def reaches(self, load: Array, state: _State) -> _Reaches:
        """Where the dust of each course ends behind the separator."""
        past = _at(self.mapped, self.mapped.past, load, state.inline_cake)
        bagged, filtered = self.filters.bag_area > 0.0, self.filters.area > 0.0
        through_bag = caked_penetration(self.clean_bag, state.bag_load, self.cake)
        in_bag = np.where(bagged, past * (1.0 - through_bag), 0.0)
        rest = past * np.where(bagged, through_bag, self.tank_passes)
        through = np.where(filtered, caked_penetration(self.clean_filter, state.load, self.cake), 1.0)
        return _Reaches(in_bag, rest * (1.0 - through), rest * through)

    def rates(self, load: Array, state: _State, reaches: _Reaches) -> _State:
        """How fast cakes and loads grow."""
        cake, mass = self._growth(reaches.on_filter, self.filters.area)
        bag_cake, bag_mass = self._growth(reaches.in_bag, self.filters.bag_area)
        inline = np.zeros_like(cake)
        if self.mapped.inline_area is not None:
            held = _at(self.mapped, self.mapped.inline, load, state.inline_cake)
            inline, _ = self._growth(held, np.full_like(cake, self.mapped.inline_area))
        return _State(cake, mass, bag_cake, bag_mass, inline)

    def _growth(self, share: Array, area: Array) -> tuple[Array, Array]:
        a_second = self.mapped.rate * share / np.maximum(area, 1e-9)
        return np.sum(self.k2 * a_second, axis=0), np.sum(a_second, axis=0)

    def look(self, load: Array, state: _State, reaches: _Reaches) -> tuple[Array, ...]:
        """What a course shows at this moment, in the order of `Course`."""
        shown = np.stack([self.mapped.flow, self.mapped.suction, self.mapped.speed, self.mapped.kept])
        return (*_at(self.mapped, shown, load, state.inline_cake), state.load, np.sum(reaches.past_all, axis=0))


def march(mapped: AgeingMap, filters: Filters, hours: float) -> Course:
    """Courses with the filters given, over some hours of work [h].

    Parameters
    ----------
    mapped : the line over its loads
    filters : of every course
    hours : above 0 [h]
    """
    time = np.concatenate([[0.0], np.geomspace(FIRST * hours, hours, STEPS - 1)])
    laws, none = _Laws.of(mapped, filters), np.zeros_like(filters.area)
    state = _State(filters.cake + none, filters.held + none, none, none, none)
    full = one_value(mapped.rules["filter.full"])
    seen = []
    for before, after in pairwise(time):
        step = (after - before) * HOUR
        load = laws.coefficient(state)
        reaches = laws.reaches(load, state)
        seen.append(laws.look(load, state, reaches))
        slope = laws.rates(load, state, reaches)
        guess = state.moved(slope, step, full)
        load = laws.coefficient(guess)
        again = laws.rates(load, guess, laws.reaches(load, guess))
        mean = _State(**{k: 0.5 * (v + getattr(again, k)) for k, v in slope.__dict__.items()})
        state = state.moved(mean, step, full)
    load = laws.coefficient(state)
    seen.append(laws.look(load, state, laws.reaches(load, state)))
    columns = (np.stack(values) for values in zip(*seen, strict=True))
    return Course(time, *columns)


def _at(mapped: AgeingMap, values: Array, load: Array, inline: Array) -> Array:
    """Values of the map, shape (…, inline, loads), at a load and an in-line cake of each course: (…, s)."""
    x = np.interp(load, LOADS, PLACES)
    j = np.minimum(x.astype(int), LOADS.size - 2)
    u = x - j
    if mapped.inline_area is None:
        return np.asarray(values[..., 0, j] * (1.0 - u) + values[..., 0, j + 1] * u)
    y = np.interp(inline, INLINE, np.arange(INLINE.size))
    i = np.minimum(y.astype(int), INLINE.size - 2)
    v = y - i
    low = values[..., i, j] * (1.0 - u) + values[..., i, j + 1] * u
    high = values[..., i + 1, j] * (1.0 - u) + values[..., i + 1, j + 1] * u
    return np.asarray(low * (1.0 - v) + high * v)
