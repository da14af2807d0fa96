"""Where the dust made at the open ports ends up."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.caught import Arriving
from fenwick.core.dust.separation import Separation
from fenwick.core.dust.stream import Walk, stream_through
from fenwick.core.dust.vacuum_path import in_vacuum
from fenwick.core.formulas.sizes import all_densities
from fenwick.core.line.line import Line

#: every end of the dust, each only once
ENDS = ("bin", "wet", "inline", "tank", "bag", "paper", "exhaust", "room_air", "floor", "hood", "extra", "blown")


@dataclass(frozen=True)
class Fate:
    """Shares of the dust made; `ENDS` add up to 1 by mass, and `by_size` to the size's own share."""

    by_grains: dict[str, Array]  #: end to share of all dust made, by class of grains [-], each of shape (60 k, n)

    @cached_property
    def by_size(self) -> dict[str, Array]:
        """The same size by size, whatever the density of the grains [-], each of shape (60, n)."""
        return {end: all_densities(share) for end, share in self.by_grains.items()}

    def share(self, end: str) -> Array:
        """What ends in one of `ENDS`, by mass [-], shape (n,)."""
        return np.asarray(np.sum(self.by_grains[end], axis=0))

    @property
    def bin(self) -> Array:
        """In the bins of the separators [-]."""
        return self.share("bin")

    @property
    def wet(self) -> Array:
        """Held under water by a wet stage [-]."""
        return self.share("wet")

    @property
    def tank(self) -> Array:
        """In the vacuum's own tank [-]."""
        return self.share("tank")

    @property
    def filter(self) -> Array:
        """Past the separators and held in the vacuum: tank, bag and filter [-]."""
        return np.asarray(self.share("tank") + self.share("bag") + self.share("paper"))

    @property
    def exhaust(self) -> Array:
        """Through the vacuum's filter, back out [-]."""
        return self.share("exhaust")

    @property
    def blown(self) -> Array:
        """Through an extra fan and its filter, where it has one, back into the room [-]."""
        return self.share("blown")

    @property
    def room_air(self) -> Array:
        """Floating, not caught [-]."""
        return self.share("room_air")

    @property
    def escapes(self) -> Array:
        """Into the air one breathes: floating, not caught, or back out of the vacuum or an extra fan [-]."""
        return np.asarray(self.room_air + self.exhaust + self.blown)

    @property
    def floor(self) -> Array:
        """Thrown, not caught [-]."""
        return self.share("floor")

    @property
    def hood(self) -> Array:
        """Kept in by a box, not taken away [-]; an open hood keeps none."""
        return self.share("hood")

    @property
    def extra(self) -> Array:
        """Held by the filters of extra fans [-]."""
        return self.share("extra")

    @property
    def caught(self) -> Array:
        """What goes into a hose or an extra fan [-]."""
        return np.asarray(1.0 - self.room_air - self.floor - self.hood)

    @property
    def inline(self) -> Array:
        """Held by in-line filters [-]."""
        return self.share("inline")


def fate(
    line: Line, arriving: Arriving | None, walked: Walk | None, separations: tuple[Separation, ...]
) -> Fate | None:
    """Follow the dust made at the open ports.

    Returns
    -------
    None when the capture there is not known.
    """
    stream = stream_through(arriving, walked, separations)
    if line.dust is None or stream is None:
        return None
    together, past = stream.together, stream.past
    inside = in_vacuum(past, line.dust.sizes, line.vacuum, line.rules)
    ends = {
        "bin": stream.held,
        "wet": stream.wetted,
        "inline": stream.inline,
        "tank": inside.tank,
        "bag": inside.bag,
        "paper": inside.filter,
        "exhaust": inside.exhaust,
        "room_air": together.missed_floating,
        "floor": together.on_floor,
        "hood": together.in_hood,
        "extra": together.extra_held,
        "blown": together.extra_passed,
    }
    return Fate({end: np.broadcast_to(ends[end], past.shape) for end in ENDS})
