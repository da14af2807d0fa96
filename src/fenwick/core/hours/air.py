"""The air one breathes: fine dust in the room during a job and after it. For comparing, never a compliance figure."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.formulas.room import air_changes, concentration, time_to_share
from fenwick.core.formulas.sizes import BREATHED, DEEP, SIZES
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

MASK_OFF = 0.1  #: share of its peak at which the air counts as clear again [-]
A_DAY = 86400.0  #: air that takes longer does not clear by itself [s]
POINTS = 181  #: of a curve


@dataclass(frozen=True)
class Room:
    """A room and what renews its air."""

    volume: Values  #: [m^3]
    changes: Values  #: with the outside [1/s]
    cleaned: Values = 0.0  #: by a room filter [m^3/s]

    @property
    def rate(self) -> Array:
        """λ [1/s]."""
        return air_changes(self.changes, self.cleaned, self.volume)

    @property
    def clears(self) -> Array:
        """After a cut, until the air counts as clear again [s]; inf where nothing renews it."""
        return time_to_share(MASK_OFF, self.rate)


@dataclass(frozen=True)
class DustSource:
    """Fine dust that gets into the room while a tool works; arrays of shape (n,)."""

    breathed: Array  #: below 10 µm [kg/s]
    deep: Array  #: below 4 µm [kg/s]
    through_filter: Array  #: of `breathed`, what came through the vacuum's filter [-]


@dataclass(frozen=True)
class Session:
    """The air of a room over one job."""

    time: Array  #: [s], shape (POINTS,)
    breathed: Array  #: below 10 µm [kg/m^3], shape (POINTS,)
    deep: Array  #: below 4 µm [kg/m^3], shape (POINTS,)
    peak: float  #: of `breathed` [kg/m^3]
    clears: float  #: after the tool stops, until a tenth of the peak [s]; inf where nothing renews the air


def room_of(volume: float, changes: float | None, cleaned: float, rules: RuleBook) -> Room:
    """A room; where its air changes [1/s] are not known, those of a shut one by rule.

    Parameters
    ----------
    volume : of its air [m^3]
    changes : air changes with the outside [1/s]; None: not known
    cleaned : volume flow of clean air from a cleaner [m^3/s]
    """
    known = one_value(rules["room.shut"]) / 3600.0 if changes is None else changes
    return Room(volume, known, cleaned)


def fine_source(line: Line, found: Assessment, rate: Values) -> DustSource | None:
    """What gets into the room at the open ports and out of the vacuum; None where the fate is not known.

    Parameters
    ----------
    line, found : with its assessment
    rate : dust made [kg/s]
    """
    if found.fate is None:
        return None
    escaped = 0.0 * found.fate.by_size["room_air"] if _outdoors(line) else found.fate.by_size["room_air"]
    blown = 0.0 * found.fate.by_size["exhaust"] if line.vacuum.exhaust_outdoors else found.fate.by_size["exhaust"]

    def below(size: float) -> Array:
        return np.asarray(rate * np.sum(np.where(size >= SIZES, escaped + blown, 0.0), axis=0))

    breathed = below(BREATHED)
    filtered = rate * np.sum(np.where(SIZES <= BREATHED, blown, 0.0), axis=0)
    return DustSource(breathed, below(DEEP), np.asarray(filtered / np.maximum(breathed, 1e-300)))


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


def session(room: Room, source: DustSource, duration: float, span: float) -> Session:
    """The air over a job of `duration` [s], followed for `span` [s]; the first variant.

    Parameters
    ----------
    duration : of the job [s]
    span : followed for so long [s]
    """
    time = np.linspace(0.0, span, POINTS)
    rate = one_value(room.rate)
    breathed = concentration(time, float(source.breathed[0]), room.volume, rate, duration)
    deep = concentration(time, float(source.deep[0]), room.volume, rate, duration)
    peak = float(concentration(duration, float(source.breathed[0]), room.volume, rate, duration))
    return Session(time, breathed, deep, peak, one_value(room.clears))
