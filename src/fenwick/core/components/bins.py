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
    density: float | None = None  #: usual [kg/m^3]
    holds_bent: float | None = None  #: stress that it stands for years when bent cold [Pa]; None: not known
    cracks_bent: float | None = None  #: stress above which it is likely to crack [Pa]


OTHER = "other"  #: a material of one's own, with figures of its own
MATERIALS: dict[str, Material] = {
    "hdpe": Material("HDPE", 0.9e9, 0.42, 950.0),
    "pp": Material("Polypropylene", 1.4e9, 0.40, 905.0),
    "abs": Material("ABS", 2.2e9, 0.37, 1050.0),
    "polycarbonate": Material("Polycarbonate", 2.35e9, 0.38, 1200.0, 14e6, 50e6),
    "acrylic": Material("Acrylic", 3.1e9, 0.37, 1190.0),
    "steel": Material("Steel", 200e9, 0.30, 7850.0),
    "plywood": Material("Plywood", 6e9, 0.3, 650.0),
    "mdf": Material("MDF", 3.5e9, 0.25, 750.0),
    "fibre-drum": Material("Fibre drum", 2.5e9, 0.3, 700.0),
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
class Lid:
    """A flat round lid."""

    material: str  #: key of MATERIALS
    thickness: Values  #: [m]
    rim_held: bool = False  #: all round, so that it cannot slide inwards
    stiffener: tuple[str, Values] | None = None  #: material and thickness of a disc glued on [m]


@dataclass(frozen=True)
class Relief:
    """A valve that lets air in before the bin folds."""

    opens_at: Values  #: suction [Pa]
    area: Values  #: of its opening [m^2]


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
    own_material: Material | None = None  #: instead of a key of MATERIALS
    ring_stiffness: tuple[float | None, ...] = ()  #: EI of each stiffener, in their order [N m^2]; None: not known
    lid: Lid | None = None
    relief: Relief | None = None
    mass: Values | None = None  #: empty [kg]; None: by its wall

    @property
    def made_of(self) -> Material | None:
        """What it is made of; None where that is not known."""
        return self.own_material or (MATERIALS[self.material] if self.material else None)

    @property
    def shell_mass(self) -> Values | None:
        """Weighed, or wall, floor and lid by their thickness [kg]; None where that is not known."""
        if self.mass is not None:
            return self.mass
        made_of = self.made_of
        if self.wall is None or made_of is None or made_of.density is None:
            return None
        wide, narrow = np.asarray(self.diameters[-1]), np.asarray(self.diameters[0])
        area = np.pi * 0.5 * (wide + narrow) * self.height + 0.25 * np.pi * (wide**2 + narrow**2)
        return np.asarray(area * self.wall * made_of.density)

    @property
    def height(self) -> float:
        """Inside height [m]."""
        return self.heights[-1]

    def diameter_at(self, height: Values) -> Array:
        """Inside diameter at a height [m].

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        return np.asarray(np.interp(height, self.heights, self.diameters))

    def area_at(self, height: Values) -> Array:
        """Inside area at a height [m^2].

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        return np.asarray(0.25 * np.pi * np.square(self.diameter_at(height)))

    def volume_to(self, height: Values) -> Array:
        """Volume below a height [m^3]: frusta between the measured diameters.

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
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
