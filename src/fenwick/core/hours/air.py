"""The air one breathes: fine dust in the room during a job and after it. For comparing, never a compliance figure."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.formulas.room import air_changes, concentration, dose, falls_out
from fenwick.core.formulas.sizes import BREATHED, DEEP, SIZE_COUNT, share_below, terminal_velocity
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

A_DAY = 86400.0  #: air that takes longer does not clear by itself [s]
USUAL_JOB = 600.0  #: that is judged until another time is given [s]
POINTS = 181  #: of a curve
HALVINGS = 50  #: until the time at which the air is clear is known to a fraction of a second


@dataclass(frozen=True)
class Room:
    """A room and what renews its air; values may be arrays of shape (n,)."""

    volume: Values  #: [m^3]
    changes: Values  #: with the outside [1/s]
    cleaned: Values = 0.0  #: by a room filter [m^3/s]
    height: Values = 2.4  #: that dust falls through [m]
    by_rule: bool = False  #: whether its air changes are those of a shut shop, by rule
    height_by_rule: bool = False

    @property
    def rate(self) -> Array:
        """λ, what renewed air takes of every size [1/s]."""
        return air_changes(self.changes, self.cleaned, self.volume)

    def decay(self, falls: Array) -> Array:
        """Rate at which each class of grains leaves the air, by renewal and by falling [1/s], shape (60 k, 1 or n).

        Parameters
        ----------
        falls : terminal velocity of each class, shape (60 k, 1) [m/s]
        """
        return np.asarray(self.rate + falls_out(falls, self.height))


@dataclass(frozen=True)
class DustSource:
    """Fine dust that gets into the room while a tool works, by class of grains; arrays of shape (60 k, n)."""

    breathed: Array  #: below 10 µm [kg/s]
    deep: Array  #: below 4 µm [kg/s]
    falls: Array  #: terminal velocity [m/s], shape (60 k, 1)
    through_filter: Array  #: of `breathed`, what came through a filter of the vacuum or an extra fan [-], shape (n,)

    @property
    def breathed_rate(self) -> Array:
        """Of all that is breathed [kg/s], shape (n,)."""
        return np.asarray(np.sum(self.breathed, axis=0))

    @property
    def deep_share(self) -> float:
        """Of what is breathed, below 4 µm [-]; the first variant."""
        return float(np.sum(self.deep[:, 0]) / max(float(self.breathed_rate[0]), 1e-300))


@dataclass(frozen=True)
class Clearing:
    """What a job comes to in a room; arrays of shape (n,)."""

    peak: Array  #: of what is breathed [kg/m^3]
    clears: Array  #: after the tool stops, until the air is clear again [s]; 0: it never was not; inf: not in a day
    dose: Array  #: of what is breathed, over the job and until all of it has gone [kg s/m^3]


@dataclass(frozen=True)
class Session:
    """The air of a room over one job; the first variant."""

    time: Array  #: [s], shape (POINTS,)
    breathed: Array  #: below 10 µm [kg/m^3], shape (POINTS,)
    deep: Array  #: below 4 µm [kg/m^3], shape (POINTS,)
    peak: float  #: of `breathed` [kg/m^3]
    level: float  #: at which the air counts as clear [kg/m^3]
    clears: float  #: after the tool stops, until it is [s]; 0: it never was not; inf: not in a day
    dose: float  #: of what is breathed [kg s/m^3]


def room_of(volume: float, changes: float | None, cleaned: float, rules: RuleBook, height: float | None = None) -> Room:
    """A room; where its air changes [1/s] or its height are not known, those of a shut one by rule.

    Parameters
    ----------
    volume : of its air [m^3]
    changes : air changes with the outside [1/s]; None: not known
    cleaned : volume flow of clean air from a cleaner [m^3/s]
    height : [m]; None: not known
    """
    known = np.asarray(rules["room.shut"]) / 3600.0 if changes is None else changes * np.asarray(rules["room.reading"])
    high = rules["room.height"] if height is None else height
    return Room(volume, known, cleaned, high, changes is None, height is None)


def fine_source(line: Line, found: Assessment, rate: Values) -> DustSource | None:
    """What gets into the room at the open ports, out of the vacuum and out of extra fans; None where it is not known.

    Parameters
    ----------
    line, found : with its assessment
    rate : dust made [kg/s]
    """
    if found.fate is None or line.dust is None:
        return None
    ends = found.fate.by_grains
    here = 0.0 if _outdoors(line) else 1.0
    filtered = ends["exhaust"] * (0.0 if line.vacuum.exhaust_outdoors else 1.0) + here * ends["blown"]
    into_room = rate * (here * ends["room_air"] + filtered)
    below = [np.tile(share_below(size), (len(line.dust.sizes) // SIZE_COUNT, 1)) for size in (BREATHED, DEEP)]
    breathed = below[0] * into_room
    filtered_fine = np.sum(below[0] * rate * filtered, axis=0)
    falls = terminal_velocity(line.dust.sizes, line.dust.grain_density, line.site.density, line.site.viscosity)
    share = np.asarray(filtered_fine / np.maximum(np.sum(breathed, axis=0), 1e-300))
    return DustSource(breathed, below[1] * into_room, falls, share)


def _outdoors(line: Line) -> bool:
    working = [leaf.port for leaf in line.leaves if leaf.open]
    return bool(working) and all(port.outdoors for port in working)


def mask_level(clears: float, rules: RuleBook) -> int:
    """How bad it is to stay masked for so long [s]: OK, WATCH or ACT.

    Parameters
    ----------
    clears : time until the air is clear [s]
    """
    if clears > one_value(rules["room.mask-act"]):
        return ACT
    return WATCH if clears > one_value(rules["room.mask-watch"]) else OK


def clearing(room: Room, source: DustSource, duration: float, level: Values) -> Clearing:
    """What a job comes to, for every variant.

    Parameters
    ----------
    duration : of the job [s]
    level : at which the air counts as clear [kg/m^3]
    """
    fine = np.any(source.breathed > 0.0, axis=1)
    given, decay = source.breathed[fine], room.decay(source.falls[fine])
    at_stop = concentration(duration, given, room.volume, decay, duration)
    peak = np.sum(at_stop, axis=0)
    low, high = np.zeros_like(peak), np.full_like(peak, A_DAY)
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        above = np.sum(at_stop * np.exp(-decay * middle), axis=0) > level
        low, high = np.where(above, middle, low), np.where(above, high, middle)
    left = np.sum(at_stop * np.exp(-decay * A_DAY), axis=0) > level
    clears = np.where(peak <= level, 0.0, np.where(left, np.inf, high))
    return Clearing(peak, clears, np.sum(dose(given, room.volume, decay, duration), axis=0))


def session(room: Room, source: DustSource, duration: float, span: float, rules: RuleBook) -> Session:
    """The air over a job of `duration` [s], followed for `span` [s]; the first variant.

    Parameters
    ----------
    duration : of the job [s]
    span : followed for so long [s]
    """
    time, level = np.linspace(0.0, span, POINTS), one_value(rules["room.clear"])
    decay = room.decay(source.falls)[:, :1]

    def curve(given: Array) -> Array:
        return np.asarray(np.sum(concentration(time, given[:, :1], room.volume, decay, duration), axis=0))

    found = clearing(room, source, duration, level)
    peak, clears, breathed_in = (float(values[0]) for values in (found.peak, found.clears, found.dose))
    return Session(time, curve(source.breathed), curve(source.deep), peak, level, clears, breathed_in)
