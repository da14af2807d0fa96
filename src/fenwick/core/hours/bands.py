"""What is believable of the figures over hours and in the room: the same marches and the same air, drawn many times."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.vacuum import Vacuum
from fenwick.core.doubt.assumptions import AGEING, PASSING
from fenwick.core.doubt.uncertainty import SEED, WITHIN, vary
from fenwick.core.dust.cakes import settled_point
from fenwick.core.dust.capture import capture
from fenwick.core.hours.ageing import AgeingMap, ageing_map, without_separators
from fenwick.core.hours.air import Room, clearing, fine_source
from fenwick.core.hours.lives import LONG, Lives, Prices, Reckoned, cost_per_hour, lives, payback_hours
from fenwick.core.hours.march import march
from fenwick.core.hours.upkeep import clean_filters, coated, own_bag, room_in
from fenwick.core.judging.assess import assess
from fenwick.core.line.catch import dust_rate
from fenwick.core.line.line import Line

AGEING_DRAWS, AIR_DRAWS = 200, 1000
PRICES = 4  #: of which each may be a range
ROOM = ("room.shut", "room.reading", "room.height")
CUT = ("swirl.cut",)  #: stands for the choice among the published models, too


@dataclass(frozen=True)
class Believed:
    """Between what a figure is believed to lie."""

    low: float  #: 5 % of the draws lie below
    high: float  #: 5 % of the draws lie above; inf where that many never come to it


@dataclass(frozen=True)
class UpkeepBands:
    """Of what a line asks for; None where the figure is not known."""

    life: Believed  #: until the air is down by a quarter, or the bag full [h]
    lasts: Believed  #: a filter, cleaned again and again [h]
    cost: Believed | None  #: of an hour of work [the shop's money]
    payback: Believed | None  #: of the separator [h]


@dataclass(frozen=True)
class AirBands:
    """Of the room's air over a job."""

    peak: Believed  #: of what is breathed [kg/m^3]
    clears: Believed  #: after the tool stops [s]
    dose: Believed  #: [kg s/m^3]


def _range(values: Array) -> Believed:
    """The middle of the draws; the line as it stands comes first and is left out."""
    tail = (1.0 - WITHIN) / 2.0
    low, high = np.quantile(values[1:], [tail, 1.0 - tail], method="inverted_cdf")
    return Believed(float(low), float(high))


def upkeep_bands(
    line: Line, port: int, prices: Prices | None = None, draws: int = AGEING_DRAWS, seed: int = SEED
) -> UpkeepBands | None:
    """How sure the lives and costs of a line with clean filters are; None where they are not known.

    Parameters
    ----------
    line : a single variant
    port : place among the leaves of the tool whose air is followed [-]
    prices : as far as they are known
    draws : how many [-]
    seed : of the draws [-]
    """
    varied = vary(line, draws, seed, (*AGEING, *PASSING, *CUT)).line
    mapped = ageing_map(varied, port, sparse=True)
    if mapped is None:
        return None
    shares = np.random.default_rng(seed).random((PRICES, 1 + draws))
    shares[:, 0] = 0.5
    reckoned = (prices or Prices()).drawn(shares)
    found, cost = _lives(mapped, line.vacuum, reckoned)
    pays = None
    if line.stages and reckoned.separator is not None:
        bare = ageing_map(without_separators(varied), port, sparse=True)
        assert bare is not None
        pays = payback_hours(cost, _lives(bare, line.vacuum, reckoned)[1], reckoned.separator)
    return UpkeepBands(
        life=_range(found.first),
        lasts=_range(found.total),
        cost=None if cost is None else _range(cost),
        payback=None if pays is None else _range(pays),
    )


def _lives(mapped: AgeingMap, vacuum: Vacuum, prices: Reckoned) -> tuple[Lives, Array | None]:
    """(lives of every variant, what an hour of each costs)."""
    bag, count = own_bag(vacuum), mapped.flow.shape[-1]
    filters = clean_filters(vacuum, bag, count)
    course = march(mapped, filters, LONG)
    found = lives(mapped, course, filters, room_in(vacuum, bag, mapped.rules), coated(vacuum))
    return found, cost_per_hour(found, bag > 0.0, prices)


def caught_band(line: Line, port: int, draws: int = AIR_DRAWS, seed: int = SEED) -> Believed | None:
    """Of what all ports of a tool catch [-]; None where that is not known.

    Parameters
    ----------
    line : a single variant
    port : place of one of its ports among the leaves [-]
    draws : how many [-]
    seed : of the draws [-]
    """
    varied = vary(line, draws, seed).line
    own = [one for one in capture(varied, settled_point(varied)) if one.id == line.leaves[port].id]
    return _range(np.broadcast_to(own[0].tool_total, (1 + draws,))) if own else None


def air_bands(
    line: Line, room: Room, duration: float, rate: float | None = None, draws: int = AIR_DRAWS, seed: int = SEED
) -> AirBands | None:
    """How sure the room's air over a job is; None where it is not known what gets into it.

    Parameters
    ----------
    line : a single variant, its gates as the tool works
    room : of volume, air changes and height as they are given or by rule
    duration : of the job [s]
    rate : of the dust made [kg/s]; None: that of all open ports
    draws : how many [-]
    seed : of the draws [-]
    """
    varied = vary(line, draws, seed, (*PASSING, *ROOM, *CUT))
    source = fine_source(varied.line, assess(varied.line), dust_rate(line) if rate is None else rate)
    if source is None:
        return None
    drawn = {key: varied.drawn[key] / varied.drawn[key][0] for key in ROOM}
    changes = np.asarray(room.changes) * drawn["room.shut" if room.by_rule else "room.reading"]
    height = np.asarray(room.height) * (drawn["room.height"] if room.height_by_rule else 1.0)
    around = Room(room.volume, changes, room.cleaned, height)
    found = clearing(around, source, duration, line.rules["room.clear"])
    return AirBands(_range(found.peak), _range(found.clears), _range(found.dose))
