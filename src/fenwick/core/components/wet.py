"""A wet stage after a dry one: steel, glass- or carbon-fibre dust; never wood, never light metal."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.wet import water_level

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
    outlet_height: Values | None = None  #: of its outlet over its floor [m]; None: not known

    @property
    def level(self) -> Array:
        """Of the water over the floor, at rest [m]."""
        return water_level(self.water, self.vessel_diameter)

    @property
    def lean(self) -> Array | None:
        """From upright at which the water meets the outlet [rad]; None where that stands at no known height."""
        if self.outlet_height is None:
            return None
        room = np.maximum(np.asarray(self.outlet_height) - self.level, 0.0)
        return np.asarray(np.arctan2(room, 0.5 * np.asarray(self.vessel_diameter)))
