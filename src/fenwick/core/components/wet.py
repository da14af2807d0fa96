"""A wet stage after a dry one: steel, glass- or carbon-fibre dust; never wood, never light metal."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import Values

#: the only kinds of dust for it; wood swells, clogs and rots, light metal gives off hydrogen
WET_DUSTS = ("steel-grinding", "fibre-composite")


@dataclass(frozen=True)
class WetStage:
    """Air forced through a throat under water."""

    id: str
    throat_diameter: Values  #: [m]
    immersion: Values  #: of the throat below the water [m]
    vessel_diameter: Values  #: [m]
    water: Values  #: held [kg]
