"""Where the dust made at the open ports ends up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.formulas.filtering import penetration_filter, tank_drop_share
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.rules import RuleBook
from fenwick.core.system.capture import Capture, caught_together
from fenwick.core.system.line import Line
from fenwick.core.system.separation import Separation


@dataclass(frozen=True)
class Fate:
    """Shares of the dust made, by mass; they add up to 1. Arrays of shape (n,)."""

    bin: Array
    filter: Array  #: past the separator and held in the vacuum: tank, bag and filter [-]
    exhaust: Array  #: through the filter, back into the room [-]
    room_air: Array  #: floating, not caught [-]
    floor: Array  #: thrown, not caught [-]
    hood: Array  #: held by an enclosure; an open hood holds none [-]
    tank: Array  #: of `filter`, what drops in the vacuum's own tank [-]
    wet: Array  #: held under water by a wet stage [-]


def fate(line: Line, captures: tuple[Capture, ...], separations: tuple[Separation, ...]) -> Fate | None:
    """Follow the dust made at the open ports.

    Returns
    -------
    None when the capture there is not known.
    """
    together = caught_together(line, captures)
    if line.dust is None or together is None:
        return None
    made = line.dust.weights
    caught = made * together.caught
    past, wetted = caught, np.zeros_like(caught)
    for stage in separations:
        if stage.grades is not None:
            kept = past * stage.grades.kept
            past, wetted = past - kept, wetted + kept if stage.wet else wetted
    tank, held, exhaust = _in_vacuum(past, line)
    missed_floating = made * together.missed_floating
    missed = made - caught

    def total(shares: Array) -> Array:
        return np.asarray(np.sum(shares, axis=0))

    nothing = np.zeros_like(total(caught))
    return Fate(
        bin=total(caught - past - wetted),
        filter=total(tank + held),
        exhaust=total(exhaust),
        room_air=total(missed_floating),
        floor=total(missed - missed_floating),
        hood=nothing,
        tank=total(tank),
        wet=total(wetted),
    )


def _in_vacuum(entering: Array, line: Line) -> tuple[Array, Array, Array]:
    """Split what enters the vacuum into tank, bag with filter, and exhaust, size by size."""
    vacuum, rules = line.vacuum, line.rules
    rest, held, tank = entering, np.zeros_like(entering), np.zeros_like(entering)
    if vacuum.bag is not None:
        passes = _penetration(vacuum.bag, rules)
        held, rest = held + rest * (1.0 - passes), rest * passes
    else:
        tank = rest * tank_drop_share(SIZES, rules["filter.tank-drop"])
        rest = rest - tank
    if vacuum.filter is not None:
        passes = _penetration(vacuum.filter, rules)
        held, rest = held + rest * (1.0 - passes), rest * passes
    return tank, held, rest


def _penetration(medium: FilterMedium, rules: RuleBook) -> Array:
    if medium.kind == "hepa":
        clean = np.full_like(SIZES, 1.0) * rules["hepa.passes"]
        return np.asarray(clean * np.exp(-np.asarray(medium.load) / rules["filter.cake"]))
    kind = medium.kind
    return penetration_filter(
        SIZES, rules[f"{kind}.base"], rules[f"{kind}.size"], rules[f"{kind}.power"], medium.load, rules["filter.cake"]
    )
