"""Sharp-edged gaps: leaks, hole plates, relief valves."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Values

DISCHARGE = 0.61  #: of a sharp edge [-]


def orifice_flow(area: Values, pressure_difference: Values, density: Values) -> Values:
    """Volume flow through a sharp gap [m^3/s]: 0.61 A √(2Δp/ρ), `area` [m^2], Δp >= 0 [Pa], ρ upstream [kg/m^3].

    Parameters
    ----------
    area : of the gap [m^2]
    pressure_difference : Δp, 0 or more [Pa]
    density : ρ, upstream [kg/m^3]
    """
    return DISCHARGE * area * np.sqrt(2.0 * pressure_difference / density)


def orifice_resistance(area: Values, density: Values) -> Values:
    """Δp/ṁ² of a sharp gap [Pa s^2/kg^2]; `area` > 0 [m^2], upstream `density` [kg/m^3].

    Parameters
    ----------
    area : of the gap, above 0 [m^2]
    density : upstream [kg/m^3]
    """
    return 1.0 / (2.0 * density * np.square(DISCHARGE * area))
