"""The vacuum: its fan, its filter and its bag."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import Values
from fenwick.core.formulas.air import REFERENCE_DENSITY
from fenwick.core.formulas.fan import peak_air_power_share, suction_nameplate


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

    def suction(self, room_flow: Values, room_density: Values) -> Values:
        """Suction [Pa] at a volume flow at room density [m^3/s] in air of `room_density` [kg/m^3]."""
        at_reference = suction_nameplate(room_flow, self.sealed_suction, self.open_flow, self.exponent)
        return at_reference * room_density / REFERENCE_DENSITY

    def sealed_in_room(self, room_density: Values) -> Values:
        """Sealed suction in air of `room_density` [Pa]."""
        return self.sealed_suction * room_density / REFERENCE_DENSITY


@dataclass(frozen=True)
class FilterMedium:
    """A filter or bag with what it holds."""

    kind: str  #: paper, hepa or bag
    area: Values  #: [m^2]
    held: Values = 0.0  #: dust on it [kg]

    @property
    def load(self) -> Values:
        """Dust per area [kg/m^2]."""
        return self.held / self.area


@dataclass(frozen=True)
class Vacuum:
    """A shop vacuum. The fan curve holds the clean filter already."""

    curve: Nameplate
    inlet_bore: Values | None = None  #: [m]; None: as wide as the hose that meets it
    filter: FilterMedium | None = None
    bag: FilterMedium | None = None
    name: str = "Vacuum"
    electrical_power: float | None = None  #: [W]
