"""How a line goes over hours of work: what stands at its vacuum, and what its figures do until a filter is full."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array


@dataclass(frozen=True)
class Filters:
    """What stands at the vacuum in some courses; arrays of shape (s,). An area of 0: there is none."""

    kind: str  #: of the filter: paper or hepa
    area: Array  #: [m^2]
    bag_area: Array  #: [m^2]
    held: Array  #: on the filter to begin with [kg/m^2]
    cake: Array  #: its resistance [Pa s/m]
    bag_held: Array | None = None  #: in the bag to begin with [kg/m^2]; None: it is new
    bag_cake: Array | None = None  #: its resistance [Pa s/m]

    @staticmethod
    def together(several: Sequence[Filters]) -> Filters:
        """Several sets of filters of one kind as one, so that they are marched at once."""

        def joined(name: str) -> Array:
            values = (getattr(one, name) for one in several)
            pairs = zip(values, several, strict=True)
            return np.concatenate([np.zeros_like(one.area) if value is None else value for value, one in pairs])

        return Filters(several[0].kind, *(joined(f.name) for f in fields(Filters)[1:]))


@dataclass(frozen=True)
class Course:
    """How some courses go; arrays of shape (steps, s)."""

    hours: Array  #: of work, shape (steps,) [h]
    flow: Array  #: [m^3/s]
    suction: Array  #: of the fan [Pa]
    speed: Array  #: [m/s]
    kept: Array  #: [-]
    load: Array  #: on the filter [kg/m^2]
    exhaust: Array  #: of the dust made, past the filter [-]
    cake: Array  #: resistance of what the filter holds, buried pleats aside [Pa s/m]
    dropped: Array  #: into the vacuum's own tank since the beginning [kg]
    bagged: Array  #: into its bag [kg]

    def column(self, at: int) -> Course:
        """One of the courses by itself.

        Parameters
        ----------
        at : its place [-]
        """
        return Course(self.hours, *(getattr(self, f.name)[:, at : at + 1] for f in fields(Course)[1:]))

    def life(self, share: float | Array) -> Array:
        """Hours until the flow is down to a share of its first value [h], shape (s,); inf where it stays above.

        Parameters
        ----------
        share : of the first flow, shape (s,) or shared [-]
        """
        limit = np.broadcast_to(np.asarray(share) * self.flow[0], self.flow[0].shape)
        return self.until(-self.flow, -limit)

    def until(self, figures: Array, limit: Array) -> Array:
        """Hours until a figure that grows reaches a limit [h], shape (s,); inf where it does not, 0 where it is there.

        Parameters
        ----------
        figures : shape (steps, s), any unit
        limit : shape (s,), the same unit
        """
        over: npt.NDArray[np.bool_] = figures >= limit
        at = np.argmax(over, axis=0)
        column = np.arange(figures.shape[1])
        before = np.maximum(at - 1, 0)
        a, b = figures[before, column], figures[at, column]
        part = np.clip((limit - a) / np.where(b > a, b - a, 1.0), 0.0, 1.0)
        hours = self.hours[before] + part * (self.hours[at] - self.hours[before])
        return np.where(over.any(axis=0), np.where(at == 0, 0.0, hours), np.inf)

    def at(self, figures: Array, hours: Array) -> Array:
        """A figure of each course at an hour of its own, shape (s,); its last value beyond the end.

        Parameters
        ----------
        figures : shape (steps, s), any unit
        hours : shape (s,) [h]
        """
        return np.array([np.interp(hour, self.hours, row) for hour, row in zip(hours, figures.T, strict=True)])
