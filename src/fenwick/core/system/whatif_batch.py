"""A line with every candidate made in a variant of its own: values that some change touches become arrays."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.components.elements import Branch, Element, Hose, InlineFilter, Leak, Port, Reducer
from fenwick.core.components.hood import Enclosure, OpenHood, SlotHood
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.system.line import Line
from fenwick.core.system.rows import bin_leak_area, entry_loss


class Change(Protocol):
    """A change of one kind to one part, with its new value."""

    @property
    def kind(self) -> str:
        """What is done."""

    @property
    def part(self) -> str:
        """To what."""

    @property
    def value(self) -> float:
        """The new value; SI."""


class Batch:
    """Builds the batch: every value that some change touches becomes an array over variants."""

    def __init__(self, line: Line, changes: tuple[Change, ...]) -> None:
        self.given, self.changes = line, changes

    def column(self, base: Values, kind: str, part: str, new: float | None = None) -> Values:
        """`base` in every variant but those of this kind at this part, which take `new` or their own value."""
        hits = [i for i, c in enumerate(self.changes, start=1) if (c.kind, c.part) == (kind, part)]
        if not hits:
            return base
        values = np.full(len(self.changes) + 1, float(np.max(base)))
        for i in hits:
            values[i] = self.changes[i - 1].value if new is None else new
        return values

    def line(self) -> Line:
        """The whole batch."""
        given = self.given
        return replace(
            given,
            vacuum=replace(
                given.vacuum,
                filter=self.medium(given.vacuum.filter, "clean"),
                bag=self.medium(given.vacuum.bag, "clean-bag"),
            ),
            branches=tuple(self.branch(part) for part in given.branches),
            trunk=tuple(self.element(part) for part in given.trunk),
        )

    def medium(self, part: FilterMedium | None, kind: str) -> FilterMedium | None:
        """A filter or bag, cleaned in some variant."""
        return replace(part, held=self.column(part.held, kind, "vacuum", 0.0)) if part else None

    def branch(self, part: Branch) -> Branch:
        """A branch with everything on it."""
        opening = part.gate_opening
        return replace(
            part,
            port=self.port(part.port, part.id) if part.port else None,
            elements=tuple(self.element(inner) for inner in part.elements),
            gate_opening=None if opening is None else self.column(opening, "shut", part.id, 0.0),
            branches=tuple(self.branch(inner) for inner in part.branches),
        )

    def port(self, part: Port, name: str) -> Port:
        """A port with another entry, nearer to the dust, or closed in."""
        hood = part.hood
        if isinstance(hood, OpenHood | SlotHood):
            hood = replace(hood, distance=self.column(hood.distance, "nearer", name))
        elif isinstance(hood, Enclosure):
            left = self.column(1.0, "close-in", name)
            hood = replace(hood, ways=tuple(replace(way, area=way.area * left) for way in hood.ways))
        return replace(part, hood=hood, entry_loss=self.column(entry_loss(part, self.given.rules), "entry", name))

    def element(self, part: Element) -> Element:
        """Any element; those that no change touches stay as they are."""
        match part:
            case Hose():
                return self.hose(part)
            case Leak():
                return replace(part, area=self.column(part.area, "seal", part.id, 0.0))
            case Reducer():
                return replace(part, length=self.column(part.length, "taper", part.id))
            case InlineFilter():
                held = self.column(part.medium.held, "clean-inline", part.id, 0.0)
                return replace(part, medium=replace(part.medium, held=held))
            case Separator():
                return self.separator(part)
            case _:
                return part

    def hose(self, part: Hose) -> Hose:
        """A hose in another bore, shorter, smoother or straighter."""
        rules, name = self.given.rules, part.id
        wall = part.roughness if part.roughness is not None else rules[f"wall.{part.wall}"]
        smooth = float(np.max(rules["wall.smooth"]))
        return replace(
            part,
            bore=self.column(part.bore, "bore", name),
            length=self.column(part.length, "shorter", name),
            roughness=self.column(wall, "smooth", name, smooth),
            bends=tuple(replace(b, angle=self.column(b.angle, "straight", name, 0.0)) for b in part.bends),
        )

    def separator(self, part: Separator) -> Separator:
        """A separator sealed below, emptied or set upright."""
        leak = self.column(bin_leak_area(part, self.given.rules), "seal-bin", part.id, 0.0)
        fill = self.column(part.bin.fill_height, "empty", part.id, 0.0)
        tilt = self.column(part.tilt, "upright", part.id, 0.0)
        return part.changed(bin=replace(part.bin, leak_area=leak, fill_height=fill), tilt=tilt)
