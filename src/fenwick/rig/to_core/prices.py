"""What a rig says things cost."""

from __future__ import annotations

from fenwick.core.hours.lives import PriceRange, Prices
from fenwick.rig.format.elements import InlineFilterPart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.separator import SeparatorPart


def prices_of(rig: Rig) -> Prices:
    """Prices of its filters, its bag and all its separators; unknown where one of them is."""
    vacuum = rig.vacuum
    stages = [PriceRange.of(part.price, part.price_to) for part in rig.line.elements if isinstance(part, SeparatorPart)]
    known = [price for price in stages if price is not None]
    parts = [*rig.line.elements, *(part for way in rig.line.ways for branch in way for part in branch.elements)]
    inline = next((part for part in parts if isinstance(part, InlineFilterPart)), None)
    return Prices(
        filter=PriceRange.of(vacuum.filter.price, vacuum.filter.price_to) if vacuum.filter else None,
        bag=PriceRange.of(vacuum.bag.price, vacuum.bag.price_to) if vacuum.bag else None,
        separator=PriceRange.total(known) if known and len(known) == len(stages) else None,
        inline=PriceRange.of(inline.price, inline.price_to) if inline else None,
    )
