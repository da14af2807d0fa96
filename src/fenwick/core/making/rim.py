"""What a gap that was felt at a rim lets in."""

from __future__ import annotations

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import Bin
from fenwick.core.rules import RuleBook


def rim_leak(bin_: Bin, gap: float, length: float, rules: RuleBook) -> float:
    """Open area of a lid whose rim was felt round: what its closure starts from, and the gap besides [m^2].

    Parameters
    ----------
    gap : thickness of the gauge that went in [m]
    length : along the rim over which it did [m]
    """
    return one_value(rules[f"closure.{bin_.closure}"]) + gap * length
