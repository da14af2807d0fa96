"""The vacuum: its fan, its filter and its bag."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.air import REFERENCE_DENSITY
from fenwick.core.formulas.fan import (
    extend_points,
    meeting_mass_flow,
    meeting_points_flow,
    peak_air_power_share,
    suction_nameplate,
    suction_points,
)


@dataclass(frozen=True)
class Nameplate:
    """A fan curve from the label: sealed suction, open flow, and how far the line between bulges."""

    sealed_suction: Values  #: at reference density [Pa]
    open_flow: Values  #: [m^3/s]
    exponent: Values = 1.0  #: [-]

    @property
    def peak_air_power(self) -> Values:
        """Largest product of suction and flow [W]."""
        return self.sealed_suction * self.open_flow * peak_air_power_share(self.exponent)

    def at_speed(self, share: Values) -> Nameplate:
        """The same fan at a share of its speed [-]: by the fan laws, flow goes with it and suction with its square.

        Parameters
        ----------
        share : of full speed [-]
        """
        return Nameplate(self.sealed_suction * share**2, self.open_flow * share, self.exponent)

    def suction(self, room_flow: Values, room_density: Values) -> Values:
        """Suction [Pa] at a volume flow at room density [m^3/s] in air of `room_density` [kg/m^3].

        Parameters
        ----------
        room_flow : volume flow at room density [m^3/s]
        room_density : of the air in the room [kg/m^3]
        """
        at_reference = suction_nameplate(room_flow, self.sealed_suction, self.open_flow, self.exponent)
        return at_reference * room_density / REFERENCE_DENSITY

    def sealed_in_room(self, room_density: Values) -> Values:
        """Sealed suction in air of `room_density` [Pa].

        Parameters
        ----------
        room_density : of the air in the room [kg/m^3]
        """
        return self.sealed_suction * room_density / REFERENCE_DENSITY

    def meet(self, resistance: Array, room_density: Array) -> Array:
        """Mass flow where the fan's suction equals resistance·ṁ² [kg/s], shape (n,).

        Parameters
        ----------
        resistance : Δp/ṁ² of the line, shape (n,) [Pa s^2/kg^2]
        room_density : of the air in the room, shape (n,) [kg/m^3]
        """
        sealed, open_mass, exponent = (
            np.broadcast_to(np.asarray(value, dtype=float), resistance.shape)
            for value in (self.sealed_in_room(room_density), self.open_flow * room_density, self.exponent)
        )
        return meeting_mass_flow(resistance, sealed, open_mass, exponent)


@dataclass(frozen=True)
class MeasuredCurve:
    """A fan curve from measured points, its ends drawn out to no flow and to no suction."""

    flows: tuple[float, ...]  #: from 0 to the open flow, at room density [m^3/s]
    suctions: tuple[float, ...]  #: from the sealed suction to 0, at reference density [Pa]

    @staticmethod
    def through(points: Sequence[tuple[float, float]]) -> MeasuredCurve:
        """The curve through three or more (flow [m^3/s], suction [Pa]).

        Parameters
        ----------
        points : pairs of flow [m^3/s] and suction [Pa], three or more

        Raises
        ------
        OutsideDomainError
            When the points do not make a falling curve.
        """
        flows, suctions = extend_points(points)
        return MeasuredCurve(tuple(flows.tolist()), tuple(suctions.tolist()))

    @property
    def sealed_suction(self) -> float:
        """At no flow [Pa]."""
        return self.suctions[0]

    @property
    def open_flow(self) -> float:
        """At no suction [m^3/s]."""
        return self.flows[-1]

    @property
    def peak_air_power(self) -> float:
        """Largest product of suction and flow [W], to a thousandth of the open flow."""
        flow = np.linspace(0.0, self.open_flow, 1001)
        return float(np.max(flow * suction_points(flow, np.array(self.flows), np.array(self.suctions))))

    def at_speed(self, share: float) -> MeasuredCurve:
        """The curve of the same fan at a share of its speed [-], by the fan laws.

        Parameters
        ----------
        share : of full speed [-]
        """
        return MeasuredCurve(tuple(q * share for q in self.flows), tuple(p * share**2 for p in self.suctions))

    def suction(self, room_flow: Values, room_density: Values) -> Values:
        """Suction [Pa] at a volume flow at room density [m^3/s] in air of `room_density` [kg/m^3].

        Parameters
        ----------
        room_flow : volume flow at room density [m^3/s]
        room_density : of the air in the room [kg/m^3]
        """
        at_reference = suction_points(room_flow, np.array(self.flows), np.array(self.suctions))
        return at_reference * room_density / REFERENCE_DENSITY

    def sealed_in_room(self, room_density: Values) -> Values:
        """Sealed suction in air of `room_density` [Pa].

        Parameters
        ----------
        room_density : of the air in the room [kg/m^3]
        """
        return self.sealed_suction * room_density / REFERENCE_DENSITY

    def meet(self, resistance: Array, room_density: Array) -> Array:
        """Mass flow where the fan's suction equals resistance·ṁ² [kg/s], shape (n,).

        Parameters
        ----------
        resistance : Δp/ṁ² of the line, shape (n,) [Pa s^2/kg^2]
        room_density : of the air in the room, shape (n,) [kg/m^3]
        """
        ratio = np.asarray(room_density / REFERENCE_DENSITY)
        return meeting_points_flow(resistance, ratio, room_density, np.array(self.flows), np.array(self.suctions))


@dataclass(frozen=True)
class FilterMedium:
    """A filter or bag with what it holds."""

    kind: str  #: paper, hepa or bag
    area: Values  #: [m^2]
    held: Values = 0.0  #: dust on it [kg]
    cake: Values | None = None  #: resistance of that dust, K2 W [Pa s/m]; None: by rule, from what it holds
    sizes: Array | None = None  #: of that dust, mass by size, any unit, shape (60, 1 or n); None: as made
    coated: bool = False  #: with a film that a cake comes off more easily

    @property
    def load(self) -> Values:
        """Dust per area [kg/m^2]."""
        return self.held / self.area


Curve: TypeAlias = Nameplate | MeasuredCurve


def air_power_in_room(curve: Curve, room_density: Values) -> Values:
    """Largest product of suction and flow in the air of a room [W]; a label's holds for reference density.

    Parameters
    ----------
    curve : of the fan
    room_density : of the air in the room [kg/m^3]
    """
    return curve.peak_air_power * room_density / REFERENCE_DENSITY


@dataclass(frozen=True)
class Vacuum:
    """A shop vacuum. The fan curve holds the clean filter already."""

    curve: Curve
    inlet_bore: Values | None = None  #: [m]; None: as wide as the hose that meets it
    filter: FilterMedium | None = None
    bag: FilterMedium | None = None
    tank: Values | None = None  #: volume of its tank [m^3]; None: by rule
    bag_volume: Values | None = None  #: of the bag in it [m^3]; None: by rule, from the tank
    name: str = "Vacuum"
    electrical_power: float | None = None  #: [W]
    exhaust_outdoors: bool = False  #: blown out of the room
    own_cooling: bool | None = None  #: whether its motor has cooling air of its own; None: not known
    takes_water: bool | None = None  #: None: not known
    wiring: str | None = None  #: as-made, rewired, or rewired-tested; None: not known
    last_held: str | None = None  #: kind of dust; None: not known
    emptied: bool = False  #: and cleaned, since it last held that
