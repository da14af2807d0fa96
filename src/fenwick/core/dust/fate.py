"""Where the dust made at the open ports ends up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.capture import Capture
from fenwick.core.dust.separation import Separation
from fenwick.core.dust.stream import stream_through
from fenwick.core.dust.vacuum_path import in_vacuum
from fenwick.core.line.line import Line

#: every end of the dust, each only once
ENDS = ("bin", "wet", "inline", "tank", "bag", "paper", "exhaust", "room_air", "floor", "hood", "extra")


@dataclass(frozen=True)
class Fate:
    """Shares of the dust made; `ENDS` add up to 1 by mass, and `by_size` to the size's own share."""

    by_size: dict[str, Array]  #: end to share of all dust made, size by size [-], each of shape (60, n)

    def share(self, end: str) -> Array:
        """What ends in one of `ENDS`, by mass [-], shape (n,)."""
        return np.asarray(np.sum(self.by_size[end], axis=0))

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
        """Through the vacuum's filter, or that of an extra fan, back out [-]."""
        return self.share("exhaust")

    @property
    def room_air(self) -> Array:
        """Floating, not caught [-]."""
        return self.share("room_air")

    @property
    def escapes(self) -> Array:
        """Into the air one breathes: floating, not caught, or back out of a filter [-]."""
        return np.asarray(self.room_air + self.exhaust)

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


def fate(line: Line, captures: tuple[Capture, ...], separations: tuple[Separation, ...]) -> Fate | None:
    """Follow the dust made at the open ports.

    Returns
    -------
    None when the capture there is not known.
    """
    stream = stream_through(line, captures, separations)
    if line.dust is None or stream is None:
        return None
    made, together, past = line.dust.weights, stream.together, stream.past
    inside = in_vacuum(past, line.vacuum, line.rules)
    ends = {
        "bin": stream.held,
        "wet": stream.wetted,
        "inline": stream.inline,
        "tank": inside.tank,
        "bag": inside.bag,
        "paper": inside.filter,
        "exhaust": inside.exhaust + made * together.extra_passed,
        "room_air": made * together.missed_floating,
        "floor": made * together.on_floor,
        "hood": made * together.in_hood,
        "extra": made * together.extra_held,
    }
    return Fate({end: np.broadcast_to(ends[end], past.shape) for end in ENDS})
