"""The bin under a separator, as it really is."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field

import numpy as np

from fenwick.core.arrays import Array, Values


@dataclass(frozen=True)
class Material:
    """What a bin is made of."""

    label: str
    youngs_modulus: float  #: [Pa]
    poisson_ratio: float  #: [-]


MATERIALS: dict[str, Material] = {
    "hdpe": Material("HDPE", 0.9e9, 0.42),
    "pp": Material("Polypropylene", 1.4e9, 0.40),
    "abs": Material("ABS", 2.2e9, 0.37),
    "polycarbonate": Material("Polycarbonate", 2.35e9, 0.38),
    "acrylic": Material("Acrylic", 3.1e9, 0.37),
    "steel": Material("Steel", 200e9, 0.30),
    "plywood": Material("Plywood", 6e9, 0.3),
    "mdf": Material("MDF", 3.5e9, 0.25),
    "fibre-drum": Material("Fibre drum", 2.5e9, 0.3),
}

CLOSURES: dict[str, str] = {
    "screwed-gasket": "Screwed, with gasket",
    "clamp-ring": "Clamp ring",
    "foam-strip": "Foam strip under load",
    "snap-on": "Snap-on",
    "latch-gasket": "Latches and gasket",
    "loose": "Loose lid",
}


@dataclass(frozen=True)
class Ledge:
    """A step in the wall that dust-laden air runs over."""

    height: float  #: above the bin's floor [m]
    depth: float  #: [m]


@dataclass(frozen=True)
class Bin:
    """A round bin, straight or tapered."""

    heights: tuple[float, ...]  #: of the measured diameters, from the floor up, the first 0 [m]
    diameters: tuple[float, ...]  #: at those heights [m]
    closure: str = "clamp-ring"  #: key of the rules `closure.*`
    wall: Values | None = None  #: thickness [m]; None: not known
    material: str | None = None  #: key of MATERIALS; None: not known
    fill_height: Values = 0.0  #: of the dust [m]
    leak_area: Values | None = None  #: measured, instead of the closure's rule [m^2]
    stiffeners: tuple[float, ...] = ()  #: heights of rings [m]
    ledges: tuple[Ledge, ...] = field(default=())
    nested: bool = False  #: a second bucket inside

    @property
    def height(self) -> float:
        """Inside height [m]."""
        return self.heights[-1]

    def diameter_at(self, height: Values) -> Array:
        """Inside diameter at a height [m]."""
        return np.asarray(np.interp(height, self.heights, self.diameters))

    def volume_to(self, height: Values) -> Array:
        """Volume below a height [m^3]: frusta between the measured diameters."""
        top = np.clip(height, 0.0, self.height)
        total = np.zeros_like(np.asarray(top, dtype=float))
        for low, high in zip(self.heights[:-1], self.heights[1:], strict=True):
            end = np.clip(top, low, high)
            a, b = self.diameter_at(low), self.diameter_at(end)
            total = total + np.pi / 12.0 * (end - low) * (a * a + a * b + b * b)
        return np.asarray(total)

    @property
    def bays(self) -> tuple[tuple[float, float], ...]:
        """Clear lengths between floor, stiffeners and lid with their widest diameter: (length, diameter) [m]."""
        marks = [0.0, *sorted(h for h in self.stiffeners if 0.0 < h < self.height), self.height]
        bays = []
        for low, high in itertools.pairwise(marks):
            inside = [d for h, d in zip(self.heights, self.diameters, strict=True) if low <= h <= high]
            ends = [float(self.diameter_at(low)), float(self.diameter_at(high))]
            bays.append((high - low, max([*inside, *ends])))
        return tuple(bays)
