"""The sizes of the dust that lies on each filter: those that reach it on this line, with clean filters."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Branch, Element, InlineFilter
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium, Vacuum
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.caught import Arriving
from fenwick.core.dust.separation import separations
from fenwick.core.dust.stream import kept_of_sizes, walk_through
from fenwick.core.dust.vacuum_path import in_vacuum
from fenwick.core.formulas.sizes import all_densities
from fenwick.core.line.filters import BAG, OWN, clean_medium
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint, Stations, operating_point
from fenwick.core.line.rows import bin_leak_id


def with_cakes(line: Line) -> Line:
    """The line with the sizes of the dust on every filter that holds some.

    Ahead of the separator it is the dust as made, behind it what passes, in the vacuum what neither its tank nor its
    bag takes. A cake was laid down long before whatever is done to the line now, so that it must not follow from that:
    it counts as laid down at a share of the vacuum's open flow, behind separators that stood upright, tight and empty.
    Sizes that are there already stay.
    """
    media = [line.vacuum.filter, line.vacuum.bag, *(part.medium for part in _inline(line))]
    dust = line.usual_dust or line.dust
    if dust is None or not any(medium is not None and _unsized(medium) for medium in media):
        return line
    clean = line.alike(dust=dust, trunk=tuple(as_it_should_be(part) for part in line.trunk))
    as_made = Arriving(None, dust.weights, np.zeros(1, dtype=bool))
    stages = separations(clean, _while_laid_down(clean), as_made)
    walked = walk_through(clean, as_made, stages)
    assert walked is not None, "the dust is known"
    inside = in_vacuum(walked.past, dust.sizes, _clean(line.vacuum), line.rules)
    reaches = {OWN: inside.filter, BAG: inside.bag}
    reaches |= _on_trunk_filters(clean, dust, kept_of_sizes(stages))

    def sized(name: str, medium: FilterMedium) -> FilterMedium:
        mass = all_densities(reaches.get(name, dust.weights))
        none = np.sum(mass, axis=0) <= 0.0
        return replace(medium, sizes=np.where(none, all_densities(dust.weights), mass))

    return _each_medium(line, sized)


def _unsized(medium: FilterMedium) -> bool:
    return medium.sizes is None and bool(np.any(np.asarray(medium.held) > 0.0))


def without_cakes(line: Line) -> Line:
    """The line with the sizes on its filters forgotten, as where its separators are others."""
    return _each_medium(line, lambda _, medium: replace(medium, sizes=None))


def settled_point(line: Line) -> OperatingPoint:
    """The operating point of a line whose filters hold the dust that reaches them.

    Raises
    ------
    NotConvergedError
        When some variant does not settle.
    """
    return operating_point(with_cakes(line))


def as_it_should_be(part: Element) -> Element:
    """A separator upright, its hoses on their ports, its bin tight and empty; an in-line filter clean."""
    if isinstance(part, Separator):
        bin_ = replace(part.bin, fill_height=0.0, leak_area=0.0)
        return part.changed(tilt=0.0, swapped=False, bin=bin_)
    return replace(part, medium=replace(part.medium, held=0.0)) if isinstance(part, InlineFilter) else part


def _while_laid_down(line: Line) -> OperatingPoint:
    """The air at the stages while the filters took what they hold; nothing else of the line is looked at."""
    stages, n = line.stages, (line.variants,)
    flow = np.broadcast_to(line.rules["filter.laid-down"] * np.asarray(line.vacuum.curve.open_flow), n)
    density = np.broadcast_to(np.asarray(line.site.density), n)
    nothing, none = np.zeros(n), np.zeros((len(stages), *n))
    stations = Stations(
        ids=tuple(stage.id for stage in stages),
        kinds=("separator",) * len(stages),
        mass_flow=none + flow * density,
        flow=none + flow,
        velocity=none,
        loss=none,
        total_suction=none,
        static_suction=none,
        density_mean=none + density,
    )
    return OperatingPoint(
        stations=stations,
        port_flow=np.zeros((len(line.leaves), *n)),
        port_velocity=np.zeros((len(line.leaves), *n)),
        leak_ids=tuple(bin_leak_id(stage.id) for stage in line.separators),
        leak_flow=np.zeros((len(line.separators), *n)),
        mass_flow=flow * density,
        suction=nothing,
        flow=flow,
        room_density=density,
        sealed_suction=nothing,
        caught=nothing,
        residual=nothing,
        passes=0,
    )


def _clean(vacuum: Vacuum) -> Vacuum:
    own, bag = (None if one is None else replace(one, held=0.0) for one in (vacuum.filter, vacuum.bag))
    return replace(vacuum, filter=own, bag=bag)


def _inline(line: Line) -> list[InlineFilter]:
    parts = [*line.trunk, *(part for leaf in line.leaves for branch in leaf.way for part in branch.elements)]
    return [part for part in parts if isinstance(part, InlineFilter)]


def _on_trunk_filters(line: Line, dust: Dust, kept: Sequence[Array]) -> dict[str, Array]:
    """What every in-line filter of the trunk holds of the dust as made, clean, by its id.

    Parameters
    ----------
    kept : of each class, by each stage in the order of the air, each of shape (60 k, n) [-]
    """
    found, past, stages = {}, dust.weights, iter(kept)
    for part in line.trunk:
        if isinstance(part, Separator | WetStage):
            past = past * (1.0 - next(stages))
        elif isinstance(part, InlineFilter):
            through = past * clean_medium(part.medium.kind, dust.sizes, line.rules)
            found[part.id], past = past - through, through
    return found


def _each_medium(line: Line, change: Callable[[str, FilterMedium], FilterMedium]) -> Line:
    """The line with every medium that stands in the way of dust changed; `change` gets its name, too."""

    def element(part: Element) -> Element:
        return replace(part, medium=change(part.id, part.medium)) if isinstance(part, InlineFilter) else part

    def branch(part: Branch) -> Branch:
        elements, inner = tuple(element(one) for one in part.elements), tuple(branch(one) for one in part.branches)
        return replace(part, elements=elements, branches=inner)

    def vacuum(part: Vacuum) -> Vacuum:
        own = None if part.filter is None else change(OWN, part.filter)
        bag = None if part.bag is None else change(BAG, part.bag)
        return replace(part, filter=own, bag=bag)

    return line.alike(
        vacuum=vacuum(line.vacuum),
        branches=tuple(branch(one) for one in line.branches),
        trunk=tuple(element(one) for one in line.trunk),
    )
