"""One dust line, complete enough to be solved."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

import numpy as np

from fenwick.core.arrays import Values, variant_count
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Branch, Element, Port
from fenwick.core.components.separator import Separator
from fenwick.core.components.site import Site
from fenwick.core.components.vacuum import Vacuum
from fenwick.core.components.wet import WetStage
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class Leaf:
    """A tool port and the branches its air passes, its own first."""

    way: tuple[Branch, ...]
    port: Port

    @property
    def id(self) -> str:
        """That of its own branch."""
        return self.way[0].id

    @cached_property
    def parts(self) -> frozenset[str]:
        """Ids of the elements on its way to the trunk."""
        return frozenset(part.id for branch in self.way for part in branch.elements)

    @cached_property
    def open(self) -> bool:
        """Whether every gate on its way is at least a little open, in some variant."""
        gates = [branch.gate_opening for branch in self.way if branch.gate_opening is not None]
        return all(bool(np.any(np.asarray(opening) > 0.0)) for opening in gates)


def _leaves(branches: tuple[Branch, ...], way: tuple[Branch, ...]) -> Iterator[Leaf]:
    for branch in branches:
        passed = (branch, *way)
        if branch.port is not None:
            yield Leaf(passed, branch.port)
        yield from _leaves(branch.branches, passed)


@dataclass(frozen=True)
class Line:
    """Tool ports, the branches that join, the trunk and the vacuum.

    `trunk` runs in the direction of the air, from the junction to the vacuum.
    """

    vacuum: Vacuum
    dust: Dust | None  #: None: not known; then only the air is computed
    branches: tuple[Branch, ...]
    trunk: tuple[Element, ...]
    junction_bore: Values | None = None  #: where the branches join; None: as wide as the trunk's first part [m]
    site: Site = field(default_factory=Site)
    rules: RuleBook = field(default_factory=RuleBook)
    earthed: bool = False  #: its hoses are earthed as far as they can be
    usual_dust: Dust | None = None  #: on the filter, and at ports with none of their own; None: the same as `dust`

    @cached_property
    def variants(self) -> int:
        """How many variants this line describes [-]."""
        return variant_count(self)

    def alike(self, **changes: Any) -> Line:
        """The line with changes that leave the number of its variants as it is: then that need not be counted again."""
        changed = replace(self, **changes)
        changed.__dict__["variants"] = self.variants
        return changed

    @cached_property
    def leaves(self) -> tuple[Leaf, ...]:
        """Every tool port with the gates between it and the trunk, in the order of the file."""
        return tuple(_leaves(self.branches, ()))

    @cached_property
    def idle_parts(self) -> frozenset[str]:
        """Ids of the parts on branches that no open port uses."""
        used = {part.id for leaf in self.leaves if leaf.open for branch in leaf.way for part in branch.elements}
        every = {part.id for leaf in self.leaves for branch in leaf.way for part in branch.elements}
        return frozenset(every - used)

    @cached_property
    def separators(self) -> tuple[Separator, ...]:
        """The separators of the trunk that have a bin, in the order of the air."""
        return tuple(element for element in self.trunk if isinstance(element, Separator))

    @cached_property
    def stages(self) -> tuple[Separator | WetStage, ...]:
        """Everything in the trunk that takes dust out of the air, in the order of the air."""
        return tuple(element for element in self.trunk if isinstance(element, Separator | WetStage))
