"""What stands around the place where dust is made, and how fast the air moves there."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.vacuum import Curve, FilterMedium
from fenwick.core.formulas.capture import (
    face_velocity,
    reach_of_opening,
    reach_of_slot,
    slot_velocity,
    velocity_at_distance,
)
from fenwick.core.formulas.fittings import bore_area


@dataclass(frozen=True)
class Opening:
    """What a hood's air comes in through, in one way of working."""

    name: str  #: straight cut, tilted cut, door open; empty for a hood with one way only
    area: Values  #: [m^2]
    share: float = 1.0  #: how often, against the others [-]


@dataclass(frozen=True)
class ExtraFan:
    """A fan of its own at the hood, which blows through its own filter back into the room."""

    flow: Values | None  #: [m^3/s]; None: by its curve
    medium: FilterMedium | None = None  #: None: no filter
    curve: Curve | None = None  #: at reference density; None: its flow is given
    bore: Values | None = None  #: of its duct [m]; None: it costs nothing
    current: float | None = None  #: [A]; None: not known
    motor_in_air: bool | None = None  #: whether its motor stands in the air it moves; None: not known
    wiring: str | None = None  #: as-made, rewired, or rewired-tested; None: not known


@dataclass(frozen=True, kw_only=True)
class Hood(ABC):
    """A hood, box, slot or nozzle at a tool port."""

    release: str  #: still, slow, active or fast
    thrown_share: Values  #: of the flying dust that the tool aims at a mouth of `thrown_bore` [-]
    thrown_bore: Values | None = None  #: of the mouth that this share belongs to; None: of the port as it is [m]
    rebound: bool = False  #: a plate behind the tool turns back what would fly past
    extra_fan: ExtraFan | None = None

    @property
    def encloses(self) -> bool:
        """Whether it holds back dust that its hose does not take away."""
        return False

    @abstractmethod
    def openings(self, bore: Values) -> tuple[Opening, ...]:
        """Its ways of working over a port of `bore` [m], at least one.

        Parameters
        ----------
        bore : of the port [m]
        """

    def mouth(self, bore: Values) -> Values:
        """Area of the mouth that chips are thrown at: the port's own [m^2].

        Parameters
        ----------
        bore : of the port [m]
        """
        return bore_area(bore)

    @abstractmethod
    def speed(self, flow: Values, opening: Opening, flanged: bool) -> Array:
        """Air speed where the dust is made [m/s].

        Parameters
        ----------
        flow : through the opening [m^3/s]
        opening : one of `openings`
        flanged : whether the port has a flange
        """


@dataclass(frozen=True, kw_only=True)
class OpenHood(Hood):
    """A round opening that faces the dust; built into the machine, its casing is the flange."""

    distance: Values  #: from the opening to where the dust is made [m]
    built_in: bool = False

    def openings(self, bore: Values) -> tuple[Opening, ...]:
        """The port itself.

        Parameters
        ----------
        bore : of the port [m]
        """
        return (Opening("", bore_area(bore)),)

    def speed(self, flow: Values, opening: Opening, flanged: bool) -> Array:
        """On the axis, at the distance of the dust [m/s].

        Parameters
        ----------
        flow : volume flow at room density [m^3/s]
        """
        return velocity_at_distance(flow, opening.area, self.distance, flanged or self.built_in)

    def reach(self, flow: Values, bore: Values, velocity: Values, flanged: bool) -> Array:
        """Distance up to which the air moves as fast as that [m].

        Parameters
        ----------
        flow : volume flow at room density [m^3/s]
        bore : of the port [m]
        velocity : wanted there [m/s]
        """
        return reach_of_opening(flow, bore_area(bore), velocity, flanged or self.built_in)


@dataclass(frozen=True, kw_only=True)
class SlotHood(Hood):
    """A long narrow slot beside the dust, such as behind a bench."""

    distance: Values  #: from the slot to where the dust is made [m]
    length: Values  #: [m]
    width: Values  #: [m]
    flanged: bool = False

    def openings(self, bore: Values) -> tuple[Opening, ...]:
        """The slot.

        Parameters
        ----------
        bore : of the port [m]
        """
        return (Opening("", self.mouth(bore)),)

    def mouth(self, bore: Values) -> Values:
        """The slot itself [m^2].

        Parameters
        ----------
        bore : of the port [m]
        """
        return np.asarray(self.length * self.width)

    def speed(self, flow: Values, opening: Opening, flanged: bool) -> Array:
        """Before the slot's middle, at the distance of the dust [m/s].

        Parameters
        ----------
        flow : volume flow at room density [m^3/s]
        """
        return slot_velocity(flow, self.length, self.width, self.distance, self.flanged)

    def reach(self, flow: Values, bore: Values, velocity: Values, flanged: bool) -> Array:
        """Distance up to which the air moves as fast as that [m].

        Parameters
        ----------
        flow : volume flow at room density [m^3/s]
        bore : of the port [m]
        velocity : wanted there [m/s]
        """
        return reach_of_slot(flow, self.length, self.width, velocity, self.flanged)


@dataclass(frozen=True, kw_only=True)
class Enclosure(Hood):
    """A box around the tool, open where the work goes through."""

    ways: tuple[Opening, ...]  #: at least one

    @property
    def encloses(self) -> bool:
        """A box holds what its hose does not take."""
        return True

    def openings(self, bore: Values) -> tuple[Opening, ...]:
        """Its doors, gaps and cut-outs, by how it is used.

        Parameters
        ----------
        bore : of the port [m]
        """
        return self.ways

    def speed(self, flow: Values, opening: Opening, flanged: bool) -> Array:
        """In the opening [m/s].

        Parameters
        ----------
        flow : volume flow at room density [m^3/s]
        """
        return face_velocity(flow, opening.area)


@dataclass(frozen=True, kw_only=True)
class FloorNozzle(Hood):
    """A nozzle pushed over the floor; the air comes in under its front and back lip."""

    width: Values  #: [m]
    gap: Values  #: of its lips over the floor [m]

    def openings(self, bore: Values) -> tuple[Opening, ...]:
        """The gap under both lips.

        Parameters
        ----------
        bore : of the port [m]
        """
        return (Opening("", self.mouth(bore)),)

    def mouth(self, bore: Values) -> Values:
        """The gap under both lips [m^2].

        Parameters
        ----------
        bore : of the port [m]
        """
        return np.asarray(2.0 * self.width * self.gap)

    def speed(self, flow: Values, opening: Opening, flanged: bool) -> Array:
        """Under the lips [m/s].

        Parameters
        ----------
        flow : volume flow at room density [m^3/s]
        """
        return face_velocity(flow, opening.area)
