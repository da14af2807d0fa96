"""One dust line, complete enough to be solved."""

from __future__ import annotations

from dataclasses import dataclass, field

from fenwick.core.arrays import variant_count
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Branch, Element
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.components.site import Site
from fenwick.core.components.vacuum import Vacuum
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class Line:
    """Tool ports, the branches that join, the trunk and the vacuum.

    `trunk` runs in the direction of the air, from the junction to the vacuum.
    """

    vacuum: Vacuum
    dust: Dust | None  #: None: not known; then only the air is computed
    branches: tuple[Branch, ...]
    trunk: tuple[Element, ...]
    site: Site = field(default_factory=Site)
    rules: RuleBook = field(default_factory=RuleBook)

    @property
    def variants(self) -> int:
        """How many variants this line describes [-]."""
        return variant_count(self)

    @property
    def separators(self) -> tuple[SlottedDisc, ...]:
        """The separators of the trunk, in the order of the air."""
        return tuple(element for element in self.trunk if isinstance(element, SlottedDisc))
