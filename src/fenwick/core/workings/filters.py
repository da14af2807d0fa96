"""Filters and bags: what they let past, and what the dust on them costs."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.arrays import one_value
from fenwick.core.components.elements import Element, InlineFilter
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.line.filters import BAG, OWN, sizes_reaching
from fenwick.core.line.line import Line
from fenwick.core.workings.dusts import CLASSES, Grains
from fenwick.core.workings.sheet import RULE, Input, Sheet, WorkedStep

LOAD = "Dust on it for its area"


def load_of(sheet: Sheet, name: str, medium: FilterMedium) -> WorkedStep:
    """Dust per area of a medium.

    Parameters
    ----------
    name : of the medium in the rig
    """
    held = sheet.given(f"{name}.held_kg", "m_held", "Dust that it holds", medium.held, "kg")
    return sheet.step(f"{name}.load", "W", LOAD, "m / A", "kg/m²", m=held, A=area_of(sheet, name, medium))


def area_of(sheet: Sheet, name: str, medium: FilterMedium) -> WorkedStep:
    """Of a medium.

    Parameters
    ----------
    name : of the medium in the rig
    """
    return sheet.given(f"{name}.area_m2", "A_f", "Area of the filter", medium.area, "m²")


def clean_passes(sheet: Sheet, kind: str, sizes: WorkedStep, name: str) -> WorkedStep:
    """Of each class, past a clean medium.

    Parameters
    ----------
    kind : paper, hepa or bag
    name : id of the step
    """
    told = "Of each class, past a clean filter"
    if kind == "hepa":
        return sheet.step(name, "P_0", told, "p", "-", "shop practice", RULE, p=sheet.rule("hepa.passes", "p"))
    parts = {
        "b": sheet.rule(f"{kind}.base", "b"),
        "s": sheet.rule(f"{kind}.size", "s"),
        "k": sheet.rule(f"{kind}.power", "k"),
    }
    return sheet.step(name, "P_0", told, "b ** ((d / s) ** k)", "-", "shop practice", RULE, d=sizes, **parts)


def passes(sheet: Sheet, name: str, medium: FilterMedium, grains: Grains) -> WorkedStep:
    """Of each class, past a medium as it is loaded.

    Parameters
    ----------
    name : of the medium in the rig
    """
    clean = clean_passes(sheet, medium.kind, grains.sizes, f"{name}.clean-passes")
    law, told = "P * exp(-W / c)", "Of each class, past it, its cake counted"
    return sheet.step(
        f"{name}.passes", "P", told, law, "-", "our estimate", RULE, P=clean, W=load_of(sheet, name, medium),
        c=sheet.rule("filter.cake", "W_c")
    )  # fmt: skip


def passes_through(sheet: Sheet, line: Line, parts: Sequence[Element], grains: Grains) -> WorkedStep | None:
    """Of each class, past all the in-line filters among some parts; None where there are none."""
    found = [part for part in parts if isinstance(part, InlineFilter)]
    if not found:
        return None
    past = {f"P{i}": passes(sheet, part.id, part.medium, grains) for i, part in enumerate(found)}
    if len(past) == 1:
        return past["P0"]
    name = "+".join(part.id for part in found)
    return sheet.step(f"{name}.passes", "P", "Of each class, past all of them", " * ".join(past), "-", **past)


def drops(sheet: Sheet, sizes: WorkedStep) -> WorkedStep:
    """Of each size, what drops in the vacuum's own tank."""
    told, law = "Of each size, what drops in the vacuum's own tank", "1 / (1 + s / d)"
    return sheet.step(
        f"{sizes.id}.tank", "t", told, law, "-", "shop practice", RULE, s=sheet.rule("filter.tank-drop", "d_t"), d=sizes
    )


def grid(sheet: Sheet) -> WorkedStep:
    """The 60 sizes that a cake is told in."""
    return sheet.published("cake.sizes", "d", "Size of each class of grains", SIZES, "m", CLASSES)


def cake_of_sizes(sheet: Sheet, place: str) -> WorkedStep:
    """K2 of each size on a medium.

    Parameters
    ----------
    place : where it stands
    """
    sizes = grid(sheet)
    parts = {
        "k": sheet.rule("filter.k2", "K_2"),
        "lo": sheet.rule("filter.k2-least", "K_least"),
        "hi": sheet.rule("filter.k2-most", "K_most"),
    }
    told = "Resistance of a cake of each size"
    own = sheet.step(
        "cake.k2", "K_2i", told, "clip(k * 50e-6 / d, lo, hi)", "1/s", "shop practice", RULE, d=sizes, **parts
    )
    if place != BAG:
        return own
    told = "Likewise on a bag's wall, where what would drop in a tank does not count"
    return sheet.step(
        "cake.k2-bag", "K_bag", told, "b * (1 - t) * k", "1/s", "our estimate", RULE,
        b=sheet.rule("bag.cake", "c_bag"), t=drops(sheet, sizes), k=own
    )  # fmt: skip


def held_resistance(
    sheet: Sheet, line: Line, name: str, medium: FilterMedium, place: str, sizes: WorkedStep | None
) -> WorkedStep:
    """What the dust on a medium adds to it.

    Parameters
    ----------
    name : of the medium in the rig
    place : where it stands
    sizes : of that dust, a step; None where they are not known
    """
    load = load_of(sheet, name, medium)
    cake = _cake(sheet, line, name, medium, place, load, sizes)
    if place == BAG or medium.cake is not None:
        return cake
    clean, full = sheet.rule(f"filter.k1-{medium.kind}", "K_1"), sheet.rule("filter.full", "W_full")
    told = "What the dust on it adds: its cake, and beyond full pleats the area that it takes"
    return sheet.step(
        f"{name}.adds", "K", told, "c + K * maximum(W / F - 1, 0)", "Pa s/m", "our estimate", RULE, c=cake, K=clean,
        W=load, F=full
    )  # fmt: skip


def _cake(
    sheet: Sheet, line: Line, name: str, medium: FilterMedium, place: str, load: WorkedStep, sizes: WorkedStep | None
) -> WorkedStep:
    if medium.cake is not None:
        return sheet.given(f"{name}.cake", "K_2W", "Resistance of its cake", medium.cake, "Pa s/m")
    told = "Resistance of its cake"
    if sizes is None:
        dust = line.usual_dust or line.dust
        if dust is None:
            return sheet.step(
                f"{name}.cake", "K_2W", told, "k * W", "Pa s/m", "shop practice", RULE,
                k=sheet.rule("filter.k2", "K_2"), W=load
            )  # fmt: skip
        sizes = sheet.given(
            f"{name}.sizes", "m_i", "Dust as made, by size", sizes_reaching(dust, place, line.rules), "-"
        )
    return sheet.step(
        f"{name}.cake", "K_2W", told, "sum(k * m) / sum(m) * W", "Pa s/m", "shop practice", RULE,
        k=cake_of_sizes(sheet, place), m=sizes, W=load
    )  # fmt: skip


def medium_loss(
    sheet: Sheet, line: Line, name: str, medium: FilterMedium, place: str, flow: Input, sizes: WorkedStep | None
) -> WorkedStep:
    """Suction that a medium costs; of the vacuum's own filter only what its dust adds.

    Parameters
    ----------
    name : of the medium in the rig
    place : where it stands
    flow : at its own density, a step [m^3/s]
    sizes : of its dust, a step; None where they are not known
    """
    adds = held_resistance(sheet, line, name, medium, place, sizes)
    inputs: dict[str, Input] = {"K": adds, "Q": flow, "A": area_of(sheet, name, medium)}
    law = "K * Q / A"
    if place != OWN:
        law, inputs = "(c + K) * Q / A", {**inputs, "c": sheet.rule(f"filter.k1-{medium.kind}", "K_1")}
    return sheet.step(f"{name}.loss", "Δp", "Suction that it costs", law, "Pa", "Darcy", **inputs)


def is_loaded(medium: FilterMedium | None) -> bool:
    """Whether a medium holds dust."""
    return medium is not None and one_value(medium.held) > 0.0
