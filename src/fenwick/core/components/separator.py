"""Separators. For now the slotted-disc chamber over a bin."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.components.bins import Bin
from fenwick.core.formulas.swirl import SwirlGeometry


@dataclass(frozen=True)
class Slot:
    """A perimeter slot in the disc."""

    width: Values  #: radial [m]
    arc: Values  #: [rad]
    start: Values = 0.0  #: from the inlet, in the direction of the swirl [rad]


@dataclass(frozen=True)
class SlottedDisc:
    """A flat round chamber with a tangential inlet over a disc with a perimeter slot, over a bin."""

    id: str
    chamber_diameter: Values  #: D [m]
    chamber_height: Values  #: Hc [m]
    inlet_bore: Values  #: [m]
    outlet_diameter: Values  #: De, through the roof's centre [m]
    outlet_length: Values  #: S, below the roof [m]
    slots: tuple[Slot, ...]
    bin: Bin
    tilt: Values = 0.0  #: from upright [rad]

    @property
    def geometry(self) -> SwirlGeometry:
        """What the orbit model needs; the round inlet counts as the square of equal area."""
        side = np.sqrt(np.pi) / 2.0 * self.inlet_bore
        d, de, hc = self.chamber_diameter, self.outlet_diameter, self.chamber_height
        ends = 2.0 * np.pi * (np.square(d / 2.0) - np.square(de / 2.0))
        return SwirlGeometry(
            body_radius=d / 2.0,
            outlet_radius=de / 2.0,
            inlet_height=side,
            inlet_width=side,
            orbit_height=np.maximum(hc - self.outlet_length, de / 4.0),
            wall_area=np.pi * d * hc + ends + np.pi * de * self.outlet_length,
        )

    @property
    def opening(self) -> Values:
        """Area of the slots, A_o [m^2]: width · arc · radius of the slot's middle."""
        radius = self.chamber_diameter / 2.0
        total: Values = 0.0
        for slot in self.slots:
            total = total + slot.width * slot.arc * (radius - slot.width / 2.0)
        return total

    @property
    def free_height(self) -> Values:
        """From the disc to the dust's surface; the high side counts when the separator leans [m]."""
        slope = 0.5 * self.bin.diameter_at(self.bin.fill_height) * np.tan(self.tilt)
        return self.bin.height - self.bin.fill_height - slope
