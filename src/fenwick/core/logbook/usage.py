"""What hours at tools use of the things that hold dust: their lives at a mix of work, and what is left of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.hours.wear import SHARES, Wear
from fenwick.core.logbook.entries import BAG, BIN, FILTER, TANK


@dataclass(frozen=True)
class ToolHours:
    """Hours at a tool, and what they use."""

    wear: Wear
    hours: float  #: [h]


def life_at(wear: Wear, kind: str) -> float:
    """Hours of a whole life at one tool [h]; inf where that does not use it, or it cannot be told."""
    hours = {BIN: wear.bin or np.inf, FILTER: wear.filter, BAG: wear.bag, TANK: wear.tank}[kind]
    return hours if hours > 0.0 else np.inf


def life_of_mix(mix: Sequence[ToolHours], kind: str) -> float | None:
    """Hours of a whole life at a mix of work [h]; None where no work is known, or none that uses it."""
    used = sum(one.hours / life_at(one.wear, kind) for one in mix)
    return sum(one.hours for one in mix) / used if used > 0.0 else None


def dust_held(mix: Sequence[ToolHours], used: float) -> float | None:
    """Dust on a filter, by what each tool of the mix leaves there [kg]; None where no work is known.

    Parameters
    ----------
    mix : of the work
    used : of the filter's life [-]
    """
    shares = [(one.hours / life_at(one.wear, FILTER), one.wear.held) for one in mix]
    whole = sum(share for share, _ in shares)
    if whole <= 0.0:
        return None
    return float(sum(share / whole * np.interp(used, SHARES, held) for share, held in shares))


def times_left(wear: Wear, kind: str, hours: float, used: float, typical: float) -> float:
    """How often a job can still be done [-]; inf where it uses nothing.

    Parameters
    ----------
    wear, kind : of its tool, and of what is used
    hours : each time [h]
    used : of the life by now [-]
    typical : how long lives last here over the model's [-]
    """
    life = life_at(wear, kind)
    return max(1.0 - used, 0.0) * typical * life / hours if hours > 0.0 else np.inf


@dataclass(frozen=True)
class OneOff:
    """A job that comes once."""

    emptyings: float | None  #: None: that cannot be told
    cleanings: float  #: of the filter, or new bags
    volume: float | None  #: in the bin [m^3]


def one_off(wear: Wear, hours: float, typical: dict[str, float], volume: float | None) -> OneOff:
    """What so many hours at a tool take, with lives as they are here.

    Parameters
    ----------
    wear : of the tool
    hours : at it [h]
    typical : by kind, how long lives last here over the model's [-]
    volume : of the bin up to its mark [m^3]; None: there is none
    """
    emptyings = None if wear.bin is None or volume is None else hours / wear.bin / typical.get(BIN, 1.0)
    kind = BAG if np.isfinite(wear.bag) else FILTER
    cleanings = hours / life_at(wear, kind) / typical.get(kind, 1.0)
    return OneOff(emptyings, float(cleanings), None if emptyings is None or volume is None else emptyings * volume)
