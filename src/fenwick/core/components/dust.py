"""Kinds of dust: sizes, densities, chips and the air speed that carries them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.sizes import SIZE_COUNT, SIZES, lognormal_weights


@dataclass(frozen=True)
class Mode:
    """One log-normal mode by mass."""

    median: Values  #: [m]
    geometric_sd: float  #: [-]
    share: Values  #: of the mass [-]
    density: float | None = None  #: of its grains, in a mixture [kg/m^3]; None: that of the dust
    fine: bool = False  #: whether it is the fine end of the mode ahead of it, whose share nobody has measured


@dataclass(frozen=True)
class Dust:
    """A kind of dust. Sizes and densities are generic assumptions, meant to be replaced by the user's own."""

    kind: str
    label: str
    modes: tuple[Mode, ...]
    particle_density: float  #: of its grains, of a mixture their mean by volume [kg/m^3]
    conveying: tuple[float, float]  #: settles below the first, carries above the second [m/s]
    longest_chip: float | None = None  #: [m]; None: no chips
    bulk_density: float | None = None  #: as it lies in the bin [kg/m^3]; None: not known
    species: str | None = None  #: of wood, a key of SPECIES; None: not known, or no wood

    @property
    def harmful(self) -> bool:
        """Whether it is of those that harm most: then what escapes is told before what is kept."""
        return self.kind in HARMS_MOST or self.species in HARMFUL_SPECIES

    @cached_property
    def densities(self) -> tuple[float, ...]:
        """The different densities of its grains [kg/m^3]: one, or those of the parts of a mixture."""
        return tuple(dict.fromkeys(self._density_of(mode) for mode in self.modes))

    def _density_of(self, mode: Mode) -> float:
        return self.particle_density if mode.density is None else mode.density

    @cached_property
    def weights(self) -> Array:
        """Mass share per class of grains [-], shape (60 k, 1 or n), adding up to 1.

        A class is a size of one of the `densities`, k of them: parts of a mixture are kept apart, each with all 60
        sizes.
        """
        return np.concatenate([self._weights_of(density) for density in self.densities])

    def _weights_of(self, density: float) -> Array:
        modes = [mode for mode in self.modes if self._density_of(mode) == density]
        return np.asarray(sum(mode.share * lognormal_weights(mode.median, mode.geometric_sd) for mode in modes))

    def among(self, densities: tuple[float, ...]) -> Array | None:
        """Its mass in the classes of a mixture of those densities [-], shape (60 k, 1 or n); None where one is missing.

        Parameters
        ----------
        densities : of the mixture's grains [kg/m^3]
        """
        if densities == self.densities:
            return self.weights
        if not set(self.densities) <= set(densities):
            return None
        nothing = np.zeros((SIZE_COUNT, self.weights.shape[-1]))
        mine = [self._weights_of(one) if one in self.densities else nothing for one in densities]
        return np.concatenate(mine)

    @cached_property
    def sizes(self) -> Array:
        """Size of each class of grains [m], shape (60 k, 1)."""
        return np.tile(SIZES, (len(self.densities), 1))

    @cached_property
    def grain_density(self) -> Array:
        """Density of each class of grains [kg/m^3], shape (60 k, 1)."""
        return np.repeat(np.array(self.densities), SIZE_COUNT)[:, None]

    @property
    def median(self) -> Values:
        """Median of the main mode [m]."""
        return max(self.modes, key=lambda mode: float(np.max(mode.share))).median

    def with_fines(self, factor: Values) -> Dust:
        """The same dust with its fine modes that many times as heavy, the modes they belong to so much lighter.

        Parameters
        ----------
        factor : on the share of every fine mode [-]
        """
        modes = list(self.modes)
        for i, mode in enumerate(self.modes):
            if mode.fine:
                whole = modes[i - 1].share + mode.share
                more = np.minimum(factor * np.asarray(mode.share), whole)
                modes[i - 1], modes[i] = replace(modes[i - 1], share=whole - more), replace(mode, share=more)
        return replace(self, modes=tuple(modes))

    def heap_mass(self, volume: Values) -> Values | None:
        """Mass of a heap of that volume [m^3] as it lies in the bin [kg]; None where its bulk density is not known.

        Parameters
        ----------
        volume : of the heap [m^3]
        """
        return None if self.bulk_density is None else volume * self.bulk_density

    def scaled(self, factor: Values) -> Dust:
        """The same dust with every grain that many times as large.

        Parameters
        ----------
        factor : on every diameter [-]
        """
        return replace(self, modes=tuple(replace(mode, median=factor * mode.median) for mode in self.modes))


#: fine, with resin or fibre, or deep in the lungs
HARMS_MOST = ("mdf-routing", "mdf-sanding", "plaster", "fibre-composite", "steel-grinding")
#: kinds of wood by what their dust does
SPECIES = {
    "softwood": "Softwood",
    "hardwood": "Hardwood",
    "beech-oak": "Beech or oak",
    "tropical": "Tropical wood",
    "resinous": "Cedar or other strong woods",
}
HARMFUL_SPECIES = ("beech-oak", "tropical", "resinous")

WOOD_FLOUR, SHAVINGS, SAWDUST, HEAVY = (13.0, 15.0), (15.0, 20.0), (18.0, 20.0), (20.0, 23.0)


def _mix(coarse: tuple[float, float], fine: tuple[float, float], fine_share: float) -> tuple[Mode, ...]:
    return (
        Mode(coarse[0] * 1e-6, coarse[1], 1.0 - fine_share),
        Mode(fine[0] * 1e-6, fine[1], fine_share, fine=True),
    )


def _single(median_um: float, geometric_sd: float) -> tuple[Mode, ...]:
    return (Mode(median_um * 1e-6, geometric_sd, 1.0),)


DUSTS: dict[str, Dust] = {
    dust.kind: dust
    for dust in (
        Dust("planer", "Planer shavings", _mix((3000, 2.0), (60, 2.2), 0.03), 400, SHAVINGS, 25e-3, 90),
        Dust("saw", "Sawdust", _mix((600, 2.2), (40, 2.2), 0.05), 600, SAWDUST, 4e-3, 210),
        Dust("bandsaw", "Bandsaw dust", _mix((300, 2.2), (35, 2.2), 0.05), 600, SAWDUST, 3e-3, 210),
        Dust("router", "Router chips", _mix((900, 2.2), (40, 2.2), 0.04), 550, SHAVINGS, 12e-3, 110),
        Dust("mdf-routing", "MDF routing dust", _mix((110, 2.5), (20, 2.2), 0.15), 700, WOOD_FLOUR, None, 300),
        Dust("mdf-sanding", "MDF sanding dust", _single(30, 2.3), 750, WOOD_FLOUR, None, 300),
        Dust("sanding-p80", "Sanding dust P80", _mix((90, 2.3), (6, 1.8), 0.02), 650, WOOD_FLOUR, None, 260),
        Dust("sanding-p120", "Sanding dust P120", _mix((55, 2.2), (5, 1.8), 0.03), 650, WOOD_FLOUR, None, 260),
        Dust("sanding-p240", "Sanding dust P240", _mix((25, 2.2), (4, 1.8), 0.05), 650, WOOD_FLOUR, None, 260),
        Dust("plaster", "Plaster dust", _single(12, 2.5), 1200, WOOD_FLOUR, None, 700),
        Dust("steel-grinding", "Steel grinding dust", _single(40, 2.5), 7800, HEAVY, None, 2500),
        Dust("metal-turnings", "Metal turnings", _single(2000, 2.0), 7800, HEAVY, None, 2500),
        Dust("fibre-composite", "Fibre composite dust", _single(15, 2.3), 1800, WOOD_FLOUR, None, 500),
        Dust("blasting-media", "Blasting media", _single(150, 1.5), 2500, HEAVY, None, 1500),
        Dust("ash", "Soot and cold ash", _mix((70, 2.5), (4, 2.0), 0.10), 1800, WOOD_FLOUR, None, 500),
    )
}

#: what a vacuum may have held besides
HELD_BESIDES = {"embers": "Embers or hot ash"}

#: kinds that come with sparks, hot metal or an ember, which never go with other dust
GLOWING = ("steel-grinding", "metal-turnings", "ash")


def mixed(parts: Sequence[tuple[Dust, float]]) -> Dust:
    """A mixture of kinds by mass.

    Every part keeps its sizes and the density of its grains; the heap has the volume of its parts; the dust is carried
    where the most stubborn part is, and its longest chip is the longest of all.

    Parameters
    ----------
    parts : (dust, parts by mass [-]), at least one
    """
    total = sum(share for _, share in parts)
    shares = [(dust, share / total) for dust, share in parts]
    modes = tuple(
        replace(mode, share=mode.share * share, density=dust.particle_density if mode.density is None else mode.density)
        for dust, share in shares
        for mode in dust.modes
    )
    chips = [dust.longest_chip for dust, _ in shares if dust.longest_chip is not None]
    heaps = [share / dust.bulk_density if dust.bulk_density else None for dust, share in shares]
    return Dust(
        "mixture",
        "Mixture",
        modes,
        1.0 / sum(share / dust.particle_density for dust, share in shares),
        (max(dust.conveying[0] for dust, _ in shares), max(dust.conveying[1] for dust, _ in shares)),
        max(chips) if chips else None,
        None if any(heap is None for heap in heaps) else 1.0 / sum(heap for heap in heaps if heap is not None),
    )


_LICENSED = "it takes licensed work and certified extraction"
_BURNS = "it burns and explodes, and with water it gives off hydrogen"

#: dusts no shop vacuum may be used for, (name, why); named so that they can be refused in words
REFUSED_DUSTS = {
    "embers": ("Embers or hot ash", "they glow for hours and set the line on fire"),
    "hot-ash": ("Embers or hot ash", "they glow for hours and set the line on fire"),
    "silica": ("Silica-bearing masonry dust", _LICENSED),
    "masonry": ("Silica-bearing masonry dust", _LICENSED),
    "asbestos": ("Asbestos", _LICENSED),
    "lead": ("Lead paint dust", _LICENSED),
    "lead-paint": ("Lead paint dust", _LICENSED),
    "aluminium": ("Dust of light metal", _BURNS),
    "magnesium": ("Dust of light metal", _BURNS),
    "titanium": ("Dust of light metal", _BURNS),
    "light-metal": ("Dust of light metal", _BURNS),
}
