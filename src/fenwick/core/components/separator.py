"""What every separator has in common: a swirl that throws dust to the wall, and a bin that takes it.

The kinds differ in the shape of the swirl, in the opening to the bin, and in the rules of thumb they rest on.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, Self, cast

import numpy as np

from fenwick.core.arrays import Values, one_value
from fenwick.core.components.bins import Bin
from fenwick.core.formulas.bin import heap_share
from fenwick.core.formulas.swirl import SwirlGeometry


@dataclass(frozen=True)
class Manner:
    """The rules of thumb that a kind of separator rests on, as keys of the table."""

    friction: str = "swirl.friction-shop"
    steepness: str = "swirl.steepness-shop"
    exchange: str = "bin.exchange-disc"
    exchange_fixed: bool = False  #: whether that rule is the exchange itself, rather than a factor on the opening
    exchange_more: str | None = None  #: a factor on the exchange
    swirl: str | None = None  #: a factor on the swirl
    tilt: str = "bin.tilt-flat"  #: how quickly leaning costs separation


@dataclass(frozen=True)
class Stand:
    """How the whole stands."""

    headroom: Values | None = None  #: under what is above it [m]
    space: Values | None = None  #: across the floor it has [m]
    base: Values | None = None  #: across what it stands on [m]; None: the bin's floor
    mass: Values | None = None  #: of everything but the bin, empty [kg]
    wheels: bool = False
    tied: bool = False  #: to what it is joined to, or to a wall
    on: str = "floor"  #: floor, cart (beside the vacuum), shelf (at a wall), deck (over the vacuum) or vacuum
    base_height: Values = 0.0  #: of the bin's floor over the ground [m]
    vacuum_height: Values | None = None  #: that stands under it [m]
    vacuum_mass: Values | None = None  #: of it [kg]
    head_lift: Values | None = None  #: room that its head wants to be lifted off [m]; None: by rule
    fixed: bool = False  #: to a machine, and moves along with it
    doorway: Values | None = None  #: the narrowest it is rolled through [m]
    step: Values | None = None  #: the highest it is rolled over [m]
    wheel: Values | None = None  #: diameter of its wheels [m]
    vacuum_width: Values | None = None  #: of the vacuum under or beside it [m]
    caster_bears: Values | None = None  #: what one is made for [kg]
    nozzles: int | None = None  #: that hang on it; None: as usual

    @property
    def stacked(self) -> bool:
        """Whether it stands on a deck or on the vacuum itself."""
        return self.on in ("deck", "vacuum")

    @property
    def carries_vacuum(self) -> bool:
        """Whether the vacuum tips and rolls along with it."""
        return self.stacked or self.on == "cart"

    @property
    def hangs(self) -> bool:
        """Whether it stands on a shelf at a wall."""
        return self.on == "shelf"


class Separator(ABC):
    """A separator over a bin. Implementations are frozen dataclasses."""

    id: str
    bin: Bin
    tilt: Values  #: from upright [rad]
    stand: Stand | None
    body: tuple[str, Values] | None  #: what the body is bent from: material, thickness [m]
    swapped: bool  #: whether the hoses are on the wrong ports: suction on the side, dust through the middle

    @property
    @abstractmethod
    def geometry(self) -> SwirlGeometry:
        """What the orbit model needs."""

    @property
    @abstractmethod
    def opening(self) -> Values:
        """Between the swirl and the bin, A_o [m^2]."""

    @property
    def manner(self) -> Manner:
        """Which rules of thumb it rests on."""
        return Manner()

    def changed(self, **changes: Any) -> Self:
        """The same separator with some fields replaced."""
        return cast(Self, replace(cast(Any, self), **changes))

    @property
    def rise_above_rim(self) -> Values:
        """How far the separator stands above the bin's rim [m]."""
        return 0.0

    @property
    def bent_radius(self) -> Values | None:
        """Radius to which its body's sheet is bent [m]; None where no sheet is."""
        return None

    @property
    def drop_below_rim(self) -> Values:
        """How far below the bin's rim the dust leaves the swirl [m]."""
        return 0.0

    @property
    def hose_bore(self) -> Values:
        """Of the round hose whose area the inlet has [m]."""
        g = self.geometry
        return round_bore(g.inlet_height * g.inlet_width)

    @property
    def outlet_bore(self) -> Values:
        """Of the tube that leaves it [m]."""
        return 2.0 * self.geometry.outlet_radius

    @property
    def free_height(self) -> Values:
        """From where the dust leaves the swirl to its surface in the bin; the high side when it leans [m]."""
        return self.free_above(self.bin.fill_height)

    def free_above(self, fill: Values) -> Values:
        """The same for another height of the dust [m].

        Parameters
        ----------
        fill : height of the dust over the floor [m]
        """
        outlet = self.bin.height - np.asarray(self.drop_below_rim)
        lean = 0.5 * self.bin.diameter_at(fill) * np.tan(self.tilt) / np.maximum(outlet, 1e-6)
        return outlet * heap_share(lean) - fill


def round_bore(area: Values) -> Values:
    """Bore of the round opening that has an area [m].

    Parameters
    ----------
    area : [m^2]
    """
    return np.asarray(np.sqrt(4.0 / np.pi * np.asarray(area)))


def square_side(bore: Values) -> Values:
    """Side of the square that has the area of a round inlet [m].

    Parameters
    ----------
    bore : of the round inlet [m]
    """
    return np.asarray(np.sqrt(np.pi) / 2.0 * np.asarray(bore))


@dataclass(frozen=True)
class FlatChamber:
    """A flat round chamber with a tangential inlet and an outlet tube through the middle of its roof; [m]."""

    diameter: Values  #: D [m]
    height: Values  #: Hc [m]
    inlet_height: Values  #: a [m]
    inlet_width: Values  #: b [m]
    outlet_diameter: Values  #: De [m]
    outlet_length: Values  #: S, below the roof [m]

    def geometry(self, most_orbit: Values | None = None) -> SwirlGeometry:
        """What the orbit model needs; `most_orbit` bounds the orbit's height [m].

        Parameters
        ----------
        most_orbit : the greatest height of the orbit [m]; None: the chamber's own
        """
        d, de, hc = self.diameter, self.outlet_diameter, self.height
        orbit = np.maximum(hc - self.outlet_length, de / 4.0)
        ends = 2.0 * np.pi * (np.square(d / 2.0) - np.square(de / 2.0))
        return SwirlGeometry(
            body_radius=d / 2.0,
            outlet_radius=de / 2.0,
            inlet_height=self.inlet_height,
            inlet_width=self.inlet_width,
            orbit_height=orbit if most_orbit is None else np.minimum(orbit, most_orbit),
            wall_area=np.pi * d * hc + ends + np.pi * de * self.outlet_length,
        )


@dataclass(frozen=True)
class Slot:
    """A perimeter slot in the disc."""

    width: Values  #: radial [m]
    arc: Values  #: [rad]
    start: Values = 0.0  #: from the inlet, in the direction of the swirl [rad]


def slot_land(slots: Sequence[Slot], radius: float) -> float:
    """Least disc left between slots, along their inner edges; below 0 where they overlap [m]. One variant.

    Parameters
    ----------
    slots : in any order
    radius : of their outer edges [m]
    """
    least = float("inf")
    for i, slot in enumerate(slots):
        width, arc = one_value(slot.width), one_value(slot.arc)
        least = min(least, (2.0 * np.pi - arc) * (radius - width))
        for other in slots[i + 1 :]:
            inner = radius - max(width, one_value(other.width))
            ahead = (one_value(other.start) - one_value(slot.start)) % (2.0 * np.pi)
            between = min(ahead - arc, 2.0 * np.pi - ahead - one_value(other.arc))
            least = min(least, between * inner)
    return float(least)


@dataclass(frozen=True)
class SlottedDisc(Separator):
    """A flat round chamber over a disc with a perimeter slot: on top of a bin, or hung inside it."""

    id: str
    chamber_diameter: Values  #: D [m]
    chamber_height: Values  #: Hc [m]
    inlet_bore: Values  #: [m]
    outlet_diameter: Values  #: De, through the roof's centre [m]
    outlet_length: Values  #: S, below the roof [m]
    slots: tuple[Slot, ...]
    bin: Bin
    tilt: Values = 0.0  #: from upright [rad]
    swapped: bool = False
    stand: Stand | None = None
    body: tuple[str, Values] | None = None
    hung: bool = False  #: whether the disc hangs in the bin, as deep as the chamber is high
    elbow: bool = False  #: whether the air comes in through an elbow along the wall rather than tangentially
    opposed: bool = False  #: whether the outlet's elbow aims away from the inlet's rather than to the centre
    elbow_reach: Values | None = None  #: of the lower elbow below the roof [m]; None: by rule, from its bore
    inlet_rectangle: tuple[Values, Values] | None = None  #: height and width of an inlet that is not round [m]

    @property
    def chamber(self) -> FlatChamber:
        """The chamber; a round inlet counts as the square of equal area."""
        side = square_side(self.inlet_bore)
        a, b = self.inlet_rectangle or (side, side)
        return FlatChamber(self.chamber_diameter, self.chamber_height, a, b, self.outlet_diameter, self.outlet_length)

    @property
    def geometry(self) -> SwirlGeometry:
        """What the orbit model needs."""
        return self.chamber.geometry()

    @property
    def manner(self) -> Manner:
        """An elbow makes a poorer swirl than a tangential inlet; aimed away, its outlet lets more into the bin."""
        if not self.elbow:
            return Manner()
        return Manner(exchange_more="bin.exchange-opposed" if self.opposed else None, swirl="swirl.elbow")

    def clearance(self, reach_over_bore: Values) -> Values | None:
        """Between the lower elbow and the disc [m]; None for a tangential inlet.

        Parameters
        ----------
        reach_over_bore : of an elbow whose reach is not given [-]
        """
        if not self.elbow:
            return None
        reach = reach_over_bore * np.asarray(self.inlet_bore) if self.elbow_reach is None else self.elbow_reach
        return self.chamber_height - np.asarray(reach)

    @property
    def opening(self) -> Values:
        """Slots, and the gap round a disc that is smaller than the bin it hangs in [m^2]."""
        return self.gap_area + sum((self.slot_area(slot) for slot in self.slots), start=np.asarray(0.0))

    def slot_area(self, slot: Slot) -> Values:
        """Of one of its slots [m^2]."""
        return slot.width * slot.arc * (self.chamber_diameter / 2.0 - slot.width / 2.0)

    @property
    def gap_area(self) -> Values:
        """Of the gap all round a hung disc [m^2]."""
        return np.pi * self.chamber_diameter * self.gap

    @property
    def gap(self) -> Values:
        """All round a hung disc, between it and the bin's wall [m]."""
        if not self.hung:
            return 0.0
        there = self.bin.narrow_at(self.bin.height - self.chamber_height)
        return np.maximum(0.5 * (there - self.chamber_diameter), 0.0)

    @property
    def rise_above_rim(self) -> Values:
        """The chamber, where it does not hang in the bin [m]."""
        return 0.0 if self.hung else self.chamber_height

    @property
    def bent_radius(self) -> Values | None:
        """That of the chamber [m]; None where the bin is the chamber's wall."""
        return None if self.hung else 0.5 * np.asarray(self.chamber_diameter)

    @property
    def drop_below_rim(self) -> Values:
        """As deep as the disc hangs [m]."""
        return self.chamber_height if self.hung else 0.0
