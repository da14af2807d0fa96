"""Glue in the cold."""

from __future__ import annotations

from fenwick.core.arrays import one_value
from fenwick.core.components.site import Site
from fenwick.core.formulas.air import ZERO_CELSIUS
from fenwick.core.making.parts import Trouble
from fenwick.core.rules import RuleBook


def cold_troubles(site: Site, rules: RuleBook) -> list[Trouble]:
    """A shop in which sealants and glues hardly cure; figures in degrees Celsius."""
    here, least = one_value(site.temperature) - ZERO_CELSIUS, one_value(rules["cure.cold"])
    return [Trouble("cold", None, here, least)] if here < least else []
