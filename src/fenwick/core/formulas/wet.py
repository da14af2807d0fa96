"""A wet stage: air forced through water after a dry one. Its cut size is a rule of thumb."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import GRAVITY

WATER_DENSITY = 998.0  #: [kg/m^3]
BUBBLES = 1e-5  #: flow from which on the water lies open down to the throat [kg/s]
THROAT_LOSS = 1.5  #: velocity heads of the throat [-]


def water_level(water: Values, vessel_diameter: Values) -> Array:
    """Of the water over the floor of an upright round vessel, at rest [m].

    Parameters
    ----------
    water : held [kg]
    vessel_diameter : [m]
    """
    return np.asarray(np.asarray(water) / (WATER_DENSITY * bore_area(vessel_diameter)))


def water_up_to(level: Values, vessel_diameter: Values) -> Array:
    """What such a vessel holds up to a level [kg].

    Parameters
    ----------
    level : over its floor [m]
    vessel_diameter : [m]
    """
    return np.asarray(WATER_DENSITY * bore_area(vessel_diameter) * np.asarray(level))


def wet_stage_drop(immersion: Values, mass_flow: Values, throat_area: Values, air_density: Values) -> Array:
    """Pressure drop of a wet stage [Pa]: ρ_w g · immersion + 1.5 · ½ρv².

    A suction that does not reach down to the throat lets no air through: the water in it is pressed down as far as the
    suction goes, and holds it. That is told by a flow far below any that is asked for.

    Parameters
    ----------
    immersion : depth of water over the throat [m]
    mass_flow : not below nothing [kg/s]
    throat_area : [m^2]
    air_density : [kg/m^3]
    """
    mass = np.asarray(mass_flow)
    head = np.square(mass / np.asarray(throat_area)) / (2.0 * np.asarray(air_density))
    pressed = np.minimum(1.0, mass / BUBBLES)
    return np.asarray(WATER_DENSITY * GRAVITY * np.asarray(immersion) * pressed + THROAT_LOSS * head)


def wet_cut_size(throat_velocity: Values, cut_at_reference: Values, reference_velocity: float = 20.0) -> Array:
    """Size kept by half [m]: 1.2 µm · (20 m/s / v) by rule.

    Parameters
    ----------
    throat_velocity : > 0 [m/s]
    cut_at_reference : 1.2 µm by rule [m]
    reference_velocity : [m/s]
    """
    return np.asarray(cut_at_reference * reference_velocity / np.asarray(throat_velocity))
