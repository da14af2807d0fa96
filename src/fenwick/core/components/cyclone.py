"""A conical cyclone on the lid of a bin."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.components.bins import Bin
from fenwick.core.components.separator import Manner, Separator, Stand
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.formulas.swirl import SwirlGeometry

MANNERS = {
    finish: Manner(f"swirl.friction-{key}", f"swirl.steepness-{key}", "bin.exchange-cyclone", tilt="bin.tilt-cyclone")
    for finish, key in (("smooth", "smooth"), ("shop-built", "shop"))
}


@dataclass(frozen=True)
class Cyclone(Separator):
    """Inlet, cylinder, cone, dust outlet over the bin's lid."""

    id: str
    shape: CycloneGeometry
    finish: str  #: smooth or shop-built
    bin: Bin
    tilt: Values = 0.0  #: from upright [rad]
    swapped: bool = False
    stand: Stand | None = None
    body: tuple[str, Values] | None = None

    @property
    def geometry(self) -> SwirlGeometry:
        """What the orbit model needs."""
        return self.shape.orbit

    @property
    def manner(self) -> Manner:
        """Smooth mouldings rub less and cut sharper."""
        return MANNERS[self.finish]

    @property
    def rise_above_rim(self) -> Values:
        """All of it stands on the lid [m]."""
        return self.shape.height

    @property
    def bent_radius(self) -> Values | None:
        """The narrow end of the cone [m]."""
        return 0.5 * np.asarray(self.shape.dust_outlet)

    @property
    def opening(self) -> Values:
        """The dust outlet [m^2]."""
        return np.pi / 4.0 * np.square(self.shape.dust_outlet)
