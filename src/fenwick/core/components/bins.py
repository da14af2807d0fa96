"""The bin under a separator, as it really is."""

from __future__ import annotations

from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

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
    "cam-tray": "Lifted by cams",
    "loose": "Loose lid",
}


#: how the fill of a bin is read
SIGHTS = {"clear": "Clear wall", "window": "Window", "lamp": "A lamp behind it", "opaque": "Not at all"}


@dataclass(frozen=True)
class Sides:
    """Of a rectangle; floats, or arrays over heights."""

    width: Any  #: [m]
    depth: Any  #: [m]


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
    """A round or rectangular bin, straight or tapered."""

    heights: tuple[float, ...]  #: of the measured widths, from the floor up, the first 0 [m]
    diameters: tuple[float, ...]  #: at those heights; of a rectangular bin its narrow sides [m]
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
    sides: tuple[Sides, ...] = ()  #: of a rectangular bin, at its heights; empty: it is round
    ribs: str = "none"  #: none, rings (rolled beads), or upright
    sight: str | None = None  #: how its fill is seen, a key of SIGHTS; None: not said

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
        walls = 0.0
        for (low, high), (under, over) in zip(pairwise(self.heights), pairwise(self.girths), strict=True):
            walls += 0.5 * (under + over) * (high - low)
        plates = float(self.area_at(0.0)) + (0.0 if self.lid is not None else float(self.area_at(self.height)))
        shell = (walls + plates) * np.asarray(self.wall) * made_of.density
        return np.asarray(shell + (0.0 if self.lid is None else self._lid_mass(self.lid)))

    @property
    def girths(self) -> list[float]:
        """Round the wall at every measured height [m]."""
        if self.sides:
            return [2.0 * (one.width + one.depth) for one in self.sides]
        return [float(np.pi * d) for d in self.diameters]

    def _lid_mass(self, lid: Lid) -> Values:
        """Of a lid by its thickness, a disc glued on it included [kg]; what its material weighs is known."""
        area = float(self.area_at(self.height))
        mass = area * np.asarray(lid.thickness) * (MATERIALS[lid.material].density or 0.0)
        if lid.stiffener is not None:
            mass = mass + area * np.asarray(lid.stiffener[1]) * (MATERIALS[lid.stiffener[0]].density or 0.0)
        return mass

    @property
    def height(self) -> float:
        """Inside height [m]."""
        return self.heights[-1]

    @property
    def is_round(self) -> bool:
        """Whether its walls are round; flat ones fold otherwise."""
        return not self.sides

    def sides_at(self, height: Values) -> Sides:
        """Inside width and depth at a height; of a round bin both its diameter [m].

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        if not self.sides:
            across = np.interp(height, self.heights, self.diameters)
            return Sides(across, across)
        widths, depths = ([getattr(one, name) for one in self.sides] for name in ("width", "depth"))
        return Sides(np.interp(height, self.heights, widths), np.interp(height, self.heights, depths))

    def diameter_at(self, height: Values) -> Array:
        """Inside diameter at a height, of a rectangular bin its hydraulic one, 4 A/P [m].

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        there = self.sides_at(height)
        if not self.sides:
            return np.asarray(there.width)
        return np.asarray(2.0 * there.width * np.asarray(there.depth) / (there.width + np.asarray(there.depth)))

    def narrow_at(self, height: Values) -> Array:
        """The narrower side at a height, or the diameter: what a round disc has to fit [m].

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        there = self.sides_at(height)
        return np.asarray(np.minimum(there.width, there.depth))

    @property
    def widest(self) -> float:
        """The widest it is anywhere [m]."""
        return max((max(one.width, one.depth) for one in self.sides), default=max(self.diameters))

    def area_at(self, height: Values) -> Array:
        """Inside area at a height [m^2].

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        there = self.sides_at(height)
        return np.asarray((1.0 if self.sides else 0.25 * np.pi) * there.width * np.asarray(there.depth))

    def volume_to(self, height: Values) -> Array:
        """Volume below a height [m^3]: between two measured heights the area is a square law, Simpson's rule exact.

        Parameters
        ----------
        height : above the floor of the bin [m]
        """
        top = np.clip(height, 0.0, self.height)
        total = np.zeros_like(np.asarray(top, dtype=float))
        for low, high in pairwise(self.heights):
            end = np.clip(top, low, high)
            middle = self.area_at(0.5 * (low + end))
            total = total + (end - low) / 6.0 * (self.area_at(low) + 4.0 * middle + self.area_at(end))
        return np.asarray(total)

    @property
    def bays(self) -> tuple[tuple[float, float], ...]:
        """Clear lengths between floor, stiffeners and lid with their widest diameter: (length, diameter) [m]."""
        marks = [0.0, *sorted(h for h in self.stiffeners if 0.0 < h < self.height), self.height]
        bays = []
        for low, high in pairwise(marks):
            inside = [d for h, d in zip(self.heights, self.diameters, strict=True) if low <= h <= high]
            ends = [float(self.diameter_at(low)), float(self.diameter_at(high))]
            bays.append((high - low, max([*inside, *ends])))
        return tuple(bays)
