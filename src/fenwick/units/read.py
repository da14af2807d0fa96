"""Reading a number as a person types it: digits, a comma or a point, perhaps a fraction, and one unit of its field."""

from __future__ import annotations

import math
import re

from fenwick.units.convert import MINUS, from_display, line_between, tidy, unit_label
from fenwick.units.names import unit_named
from fenwick.units.quantities import QUANTITIES, Quantity

LONGEST = 40  #: characters of a number with its unit
_NUMBER = re.compile(r"[+-]?(?:[0-9]+(?:[.,][0-9]*)?|[.,][0-9]+)(?:[eE][+-]?[0-9]{1,3})?")
_FRACTION = re.compile(r"([+-]?)(?:([0-9]+)[ -])?([0-9]+)/([0-9]+)")


class BadNumberError(ValueError):
    """Text that is not a number in a unit of the wanted quantity; says so in a sentence."""

    def __init__(self, text: str, hint: str) -> None:
        super().__init__(text, hint)
        self.text, self.hint = text, hint

    def __str__(self) -> str:
        return self.hint


def parse_value(text: str, quantity: str, system: str) -> float:
    """Text from a field as a stored value.

    Accepts a decimal point or comma, an inch fraction (1 1/2), and after the number one unit of the field's list;
    without a unit it is the one the field shows.

    Raises
    ------
    BadNumberError
        When the text is too long or no finite number, or its unit is none of this field.
    """
    q = QUANTITIES[quantity]
    label = unit_label(quantity, system)
    if len(text) > LONGEST:
        raise BadNumberError(text, f"“{_short(text)}” is too long: a number takes {LONGEST} characters at most.")
    cleaned = " ".join(text.replace(MINUS, "-").split())
    number, rest = _leading_number(cleaned)
    if number is None:
        wanted = f"a number in {label}" if label else "a number"
        raise BadNumberError(text, f"Enter {wanted}." if not cleaned else f"“{_short(text)}” is not {wanted}.")
    shown = q.display(system)
    unit = shown.unit if not rest or rest == label else unit_named(rest, quantity)
    if unit is None:
        raise BadNumberError(text, f"“{_short(rest)}” {_no_unit(q)}.")
    value = from_display(number, quantity, system) if unit == shown.unit else in_stored_units(number, unit, quantity)
    if not math.isfinite(value):
        raise BadNumberError(text, f"“{_short(text)}” is not a usable number.")
    return value


def parse_plain(text: str) -> float:
    """A bare number, without a unit.

    Raises
    ------
    BadNumberError
    """
    return parse_value(text, "number", "metric")


def in_stored_units(number: float, unit: str, quantity: str) -> float:
    """A number in a unit of a quantity's list, in the unit it is stored in.

    Parameters
    ----------
    number : in `unit`
    unit : as `unit_named` gives it
    quantity : key of QUANTITIES
    """
    factor, offset = line_between(unit, QUANTITIES[quantity].stored)
    return tidy(factor * number + offset)


def _leading_number(text: str) -> tuple[float | None, str]:
    fraction = _FRACTION.match(text)
    if fraction and int(fraction[4]):
        sign = -1.0 if fraction[1] == "-" else 1.0
        value = sign * (int(fraction[2] or 0) + int(fraction[3]) / int(fraction[4]))
        return value, text[fraction.end() :].strip()
    number = _NUMBER.match(text)
    if not number:
        return None, text
    return float(number[0].replace(",", ".")), text[number.end() :].strip()


def _no_unit(quantity: Quantity) -> str:
    metric, inch = quantity.metric.label, quantity.inch.label
    if not metric:
        return "is too much: this field takes a number without a unit"
    return f"is not a unit of this field; use {f'{metric} or {inch}' if metric != inch else metric}"


def _short(text: str) -> str:
    return text if len(text) <= 30 else text[:30] + "…"
