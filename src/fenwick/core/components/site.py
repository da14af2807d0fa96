"""The air a line breathes."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import Values
from fenwick.core.formulas import air


@dataclass(frozen=True)
class Site:
    """Where the line stands."""

    temperature: Values = 293.15  #: of the room [K]
    altitude: Values = 0.0  #: above sea level [m]
    outdoors: bool = False  #: in the rain

    @property
    def pressure(self) -> Values:
        """Air pressure in the room [Pa]."""
        return air.pressure_isa1976(self.altitude)

    @property
    def density(self) -> Values:
        """Air density in the room [kg/m^3]."""
        return air.density_ideal_gas(self.pressure, self.temperature)

    @property
    def viscosity(self) -> Values:
        """Dynamic viscosity of the air [Pa s]."""
        return air.viscosity_sutherland(self.temperature)
