"""Reading and writing numbers in the user's units.

pint knows the units; each pair is reduced to a factor and an offset once, and plain floats do the rest.
"""

from __future__ import annotations

import math
import re
from functools import cache

from fenwick.units.quantities import METRIC, QUANTITIES

MINUS = "−"
_NUMBER = re.compile(r"[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?")
_FRACTION = re.compile(r"(?:(\d+)[ -])?(\d+)/(\d+)")


class BadNumberError(ValueError):
    """Text that is not a number in a unit of the wanted quantity; says so in a sentence."""

    def __init__(self, text: str, hint: str) -> None:
        super().__init__(text, hint)
        self.text, self.hint = text, hint

    def __str__(self) -> str:
        return self.hint


@cache
def _registry() -> object:
    import pint  # half a second; only where units are read or written

    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


@cache
def _line(source: str, target: str) -> tuple[float, float]:
    """(factor, offset) of target = factor·source + offset."""
    if source == target:
        return 1.0, 0.0
    registry = _registry()
    at = [registry.Quantity(x, source).to(target).magnitude for x in (0.0, 1.0)]  # type: ignore[attr-defined]
    return float(at[1] - at[0]), float(at[0])


def to_display(value: float, quantity: str, system: str) -> float:
    """A stored value in the unit that `system` shows."""
    q = QUANTITIES[quantity]
    factor, offset = _line(q.stored, q.display(system).unit)
    return factor * value + offset


def from_display(value: float, quantity: str, system: str) -> float:
    """A shown value in the unit it is stored in."""
    q = QUANTITIES[quantity]
    factor, offset = _line(q.stored, q.display(system).unit)
    return _tidy((value - offset) / factor)


def _tidy(value: float) -> float:
    """Without the last bits that a conversion leaves behind: 1.5 in is 0.0381 m, not 0.038099999999999995."""
    return float(f"{value:.12g}")


def water_column(suction_pa: float, system: str) -> str:
    """The height of water a suction holds up in a tube, as text with its unit."""
    factor, _ = _line("Pa", "mmH2O" if system == METRIC else "inH2O")
    return f"{factor * suction_pa:.0f} {'mm' if system == METRIC else 'inches'} of water"


def unit_label(quantity: str, system: str) -> str:
    """The printed unit; empty for a plain number."""
    return QUANTITIES[quantity].display(system).label


def format_value(value: float, quantity: str, system: str, *, field: bool = False, unit: bool = False) -> str:
    """A stored value as text.

    Parameters
    ----------
    value : stored
    quantity : key of QUANTITIES
    system : metric or inch
    field : for an input: finer, without trailing zeros, and a plain hyphen as minus
    unit : append the unit
    """
    display = QUANTITIES[quantity].display(system)
    shown = to_display(value, quantity, system)
    if field:
        text = f"{shown:.{display.field_decimals}f}"
        text = text.rstrip("0").rstrip(".") if "." in text else text
        if float(text) == 0.0 and shown != 0.0:
            text = f"{shown:.3g}"
    else:
        text = _running(shown, display.decimals).replace("-", MINUS)
    return f"{text} {display.label}".strip() if unit else text


def _running(shown: float, decimals: int) -> str:
    """A figure as a sentence wants it: no decimals from 100 on, no bare .0 on a round one."""
    text = f"{shown:.{0 if abs(shown) >= 100 else decimals}f}"
    whole = text.rstrip("0").rstrip(".") if "." in text else text
    return whole if float(f"{shown:.9g}") == float(whole) else text


def parse_value(text: str, quantity: str, system: str) -> float:
    """Text from a field as a stored value.

    Accepts a decimal point or comma, an inch fraction (1 1/2), and any unit of the right kind after the number;
    without a unit it is the one the field shows.

    Raises
    ------
    BadNumberError
        When the text is no finite number, or its unit measures something else.
    """
    display = QUANTITIES[quantity].display(system)
    cleaned = " ".join(text.replace(MINUS, "-").split())
    number, rest = _leading_number(cleaned)
    if number is None:
        wanted = f"a number in {display.label}" if display.label else "a number"
        raise BadNumberError(text, f"Enter {wanted}." if not cleaned else f"“{_short(text)}” is not {wanted}.")
    if not math.isfinite(number):
        raise BadNumberError(text, f"“{_short(text)}” is not a usable number.")
    if not rest or rest == display.label:
        return from_display(number, quantity, system)
    return _with_unit(number, rest, quantity, text)


def _leading_number(text: str) -> tuple[float | None, str]:
    fraction = _FRACTION.match(text)
    if fraction and int(fraction[3]):
        whole = int(fraction[1] or 0)
        return whole + int(fraction[2]) / int(fraction[3]), text[fraction.end() :].strip()
    number = _NUMBER.match(text)
    if not number:
        return None, text
    return float(number[0].replace(",", ".")), text[number.end() :].strip()


def _with_unit(number: float, unit: str, quantity: str, text: str) -> float:
    q = QUANTITIES[quantity]
    names = {
        "in": "inch",
        '"': "inch",
        "″": "inch",
        "'": "foot",
        "µm": "um",
        "CFM": "ft^3/minute",
        "cfm": "ft^3/minute",
        "°C": "degC",
        "°F": "degF",
    }
    name = names.get(unit, unit.replace("²", "^2").replace("³", "^3").replace("%", "percent"))
    try:
        factor, offset = _line(name, q.stored)
        value = _tidy(factor * number + offset)
    except Exception as error:  # pint raises a family of errors, and its parser several built-in ones
        wanted = f"{q.metric.label} or {q.inch.label}" if q.metric.label != q.inch.label else q.metric.label
        raise BadNumberError(text, f"“{_short(unit)}” is not a unit of this field; use {wanted}.") from error
    return value


def _short(text: str) -> str:
    return text if len(text) <= 30 else text[:30] + "…"
