"""Air in the room and in the line."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Values

GAS_CONSTANT = 287.05  #: specific gas constant of dry air [J/(kg K)]
STANDARD_PRESSURE = 101325.0  #: sea level, ISA 1976 [Pa]
REFERENCE_DENSITY = 1.2  #: the density fan figures are stated at [kg/m^3]
ZERO_CELSIUS = 273.15  #: [K]


def pressure_isa1976(altitude: Values) -> Values:
    """Air pressure of the standard atmosphere [Pa].

    Parameters
    ----------
    altitude : above sea level, troposphere only [m]

    Notes
    -----
    p = 101325 (1 − 2.25577e-5 h)^5.25588, U.S. Standard Atmosphere 1976.
    """
    return STANDARD_PRESSURE * (1.0 - 2.25577e-5 * altitude) ** 5.25588


def density_ideal_gas(pressure: Values, temperature: Values) -> Values:
    """Density of dry air [kg/m^3] at absolute `pressure` [Pa] and `temperature` [K].

    Parameters
    ----------
    pressure : absolute [Pa]
    temperature : [K]
    """
    return pressure / (GAS_CONSTANT * temperature)


def viscosity_sutherland(temperature: Values) -> Values:
    """Dynamic viscosity of air [Pa s] at `temperature` [K] (Sutherland, constants of ISA 1976).

    Parameters
    ----------
    temperature : [K]
    """
    return 1.458e-6 * np.power(temperature, 1.5) / (temperature + 110.4)
