"""Units at the edges: what a number is measured in for the user, and how it is read and written."""

from fenwick.units.convert import format_value, unit_label
from fenwick.units.quantities import INCH, METRIC, QUANTITIES, SYSTEMS, Display, Quantity
from fenwick.units.read import BadNumberError, parse_plain, parse_value

__all__ = [
    "INCH",
    "METRIC",
    "QUANTITIES",
    "SYSTEMS",
    "BadNumberError",
    "Display",
    "Quantity",
    "format_value",
    "parse_plain",
    "parse_value",
    "unit_label",
]
