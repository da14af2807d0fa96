"""What a rig says things cost."""

from __future__ import annotations

from fenwick.core.hours.upkeep import Prices
from fenwick.rig.format.model import Rig
from fenwick.rig.format.separator import SeparatorPart


def prices_of(rig: Rig) -> Prices:
    """Prices of its filter, its bag and all its separators; unknown where one of them is."""
    stages = [part.price for part in rig.line.elements if isinstance(part, SeparatorPart)]
    known = [price for price in stages if price is not None]
    return Prices(
        filter=rig.vacuum.filter.price if rig.vacuum.filter else None,
        bag=rig.vacuum.bag.price if rig.vacuum.bag else None,
        separator=sum(known) if known and len(known) == len(stages) else None,
    )
