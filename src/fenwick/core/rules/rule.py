"""What a rule of thumb is."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Rule:
    """One assumption: what it means, its value and believable range, where it comes from."""

    key: str
    value: float
    low: float
    high: float
    quantity: str  #: key of the units' quantities, or "number"
    unit: str  #: printed after a plain number
    meaning: str
    source: str = "shop practice"


ESTIMATE = "our estimate"
