"""Filters and bags on a line: what they let past, and what the dust on them costs in suction."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Element, InlineFilter
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium, Vacuum
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.filtering import (
    buried_loss,
    cake_coefficient,
    cake_loss,
    caked_penetration,
    clean_penetration,
    tank_drop_share,
)
from fenwick.core.formulas.sizes import SIZES, all_densities
from fenwick.core.line.line import Line
from fenwick.core.line.network import SpecialLaw
from fenwick.core.rules import RuleBook

OWN, BAG, INLINE = "filter", "bag", "inline"  #: where a medium stands: the vacuum's filter, its bag, in the run


def medium_penetration(medium: FilterMedium, sizes: Array, rules: RuleBook) -> Array:
    """Share of each class of grains that passes a filter or bag as it is loaded [-], shape (60 k, 1 or n).

    Parameters
    ----------
    sizes : of the classes, shape (60 k, 1) [m]
    """
    return caked_penetration(clean_medium(medium.kind, sizes, rules), medium.load, rules["filter.cake"])


def clean_medium(kind: str, sizes: Array, rules: RuleBook) -> Array:
    """Share of each class of grains that passes a clean medium: paper, hepa or bag [-], shape (60 k, 1).

    Parameters
    ----------
    sizes : of the classes, shape (60 k, 1) [m]
    """
    if kind == "hepa":
        return np.asarray(np.ones_like(sizes) * rules["hepa.passes"])
    return clean_penetration(sizes, rules[f"{kind}.base"], rules[f"{kind}.size"], rules[f"{kind}.power"])


def passes_filters(parts: Sequence[Element], sizes: Array, rules: RuleBook) -> Array:
    """Share of each class of grains that passes the in-line filters among some parts [-]; 1 where there are none.

    Parameters
    ----------
    sizes : of the classes, shape (60 k, 1) [m]
    """
    passes = np.asarray(1.0)
    for part in parts:
        if isinstance(part, InlineFilter):
            passes = passes * medium_penetration(part.medium, sizes, rules)
    return passes


def passes_before_stages(line: Line, sizes: Array) -> list[Array]:
    """Share of each class that passes the in-line filters of the trunk ahead of each stage, and behind the last [-].

    Parameters
    ----------
    sizes : of the classes, shape (60 k, 1) [m]
    """
    runs: list[list[Element]] = [[]]
    for part in line.trunk:
        if isinstance(part, Separator | WetStage):
            runs.append([])
        else:
            runs[-1].append(part)
    return [passes_filters(run, sizes, line.rules) for run in runs]


def tank_volume(vacuum: Vacuum, rules: RuleBook) -> Values:
    """Of a vacuum's tank, given or by rule [m^3]."""
    return rules["tank.volume"] if vacuum.tank is None else vacuum.tank


def bag_volume(vacuum: Vacuum, rules: RuleBook) -> Values:
    """Of the bag in a vacuum, given or by rule from its tank [m^3]."""
    return rules["bag.share"] * tank_volume(vacuum, rules) if vacuum.bag_volume is None else vacuum.bag_volume


def bag_area(volume: Values, rules: RuleBook) -> Array:
    """Surface of a bag, where it is not given [m^2]: 5 V^(2/3).

    Parameters
    ----------
    volume : V, of the bag [m^3]
    """
    return np.asarray(rules["bag.surface"] * np.power(np.asarray(volume), 2.0 / 3.0))


def cake_of_sizes(rules: RuleBook) -> Array:
    """K2 of each size [1/s], shape (60, 1 or n)."""
    return cake_coefficient(SIZES, *(rules[f"filter.{key}"] for key in ("k2", "k2-least", "k2-most")))


def cakes_wall(place: str, rules: RuleBook) -> Values:
    """How much of each size's K2 counts where a medium stands [-], shape (60, 1 or n) or shared.

    What would drop in a tank lies in a bag, and only the rest cakes its wall, less tightly than paper.

    Parameters
    ----------
    place : OWN, BAG or INLINE
    """
    if place != BAG:
        return 1.0
    return np.asarray(rules["bag.cake"] * (1.0 - tank_drop_share(SIZES, rules["filter.tank-drop"])))


def sizes_reaching(dust: Dust, place: str, rules: RuleBook) -> Array:
    """Dust as made, less what drops in the vacuum's own tank, by size, shape (60, 1): where nothing better is known.

    Parameters
    ----------
    dust : made
    place : OWN, BAG or INLINE
    """
    made = all_densities(dust.weights)
    return made * (1.0 - tank_drop_share(SIZES, rules["filter.tank-drop"])) if place == OWN else made


def _cake_per_load(medium: FilterMedium, line: Line, place: str) -> Values:
    """K2 of the dust that a medium holds [1/s]; that of 50 µm where its dust is not known."""
    dust = line.usual_dust or line.dust
    if medium.sizes is not None:
        held = medium.sizes
    elif dust is not None:
        held = sizes_reaching(dust, place, line.rules)
    else:
        return line.rules["filter.k2"]
    cake = np.sum(cake_of_sizes(line.rules) * cakes_wall(place, line.rules) * held, axis=0)
    return np.asarray(cake / np.sum(held, axis=0))


def cake_on(medium: FilterMedium, line: Line, place: str) -> Values:
    """Resistance of the cake on a medium [Pa s/m].

    Parameters
    ----------
    place : OWN, BAG or INLINE
    """
    return medium.cake if medium.cake is not None else _cake_per_load(medium, line, place) * medium.load


def held_resistance(medium: FilterMedium, line: Line, place: str) -> Values:
    """What the dust on a medium adds to it [Pa s/m]: its cake, and beyond full pleats the area that it takes.

    Parameters
    ----------
    place : OWN, BAG or INLINE
    """
    cake = cake_on(medium, line, place)
    if place == BAG or medium.cake is not None:
        return np.asarray(cake)
    clean, full = line.rules[f"filter.k1-{medium.kind}"], line.rules["filter.full"]
    return np.asarray(cake + buried_loss(clean, medium.load, full))


def medium_resistance(medium: FilterMedium, line: Line, place: str = INLINE) -> Values:
    """All of a medium's resistance, the clean one's included [Pa s/m].

    Parameters
    ----------
    place : OWN, BAG or INLINE
    """
    return line.rules[f"filter.k1-{medium.kind}"] + held_resistance(medium, line, place)


def filter_law(medium: FilterMedium, line: Line, place: str) -> SpecialLaw:
    """The medium's resistance in its place; of the vacuum's own filter only what its dust adds to the clean one.

    The fan curve holds the clean filter already.

    Parameters
    ----------
    place : OWN, BAG or INLINE
    """
    resistance = held_resistance(medium, line, place) if place == OWN else medium_resistance(medium, line, place)

    def law(mass_flow: Array, density: Array, _: Array) -> Array:
        flow = np.maximum(mass_flow, 1e-9) / density
        return np.asarray(cake_loss(resistance, flow / medium.area)) / np.square(np.maximum(mass_flow, 1e-9))

    return law
