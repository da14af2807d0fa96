"""Writing numbers in the user's units, and back.

pint knows the units; each pair is reduced to a factor and an offset once, and plain floats do the rest. It is handed
the names of `quantities` and `names` alone.
"""

from __future__ import annotations

from functools import cache

from fenwick.units.quantities import METRIC, QUANTITIES

MINUS = "−"
TOO_MANY_DIGITS = 1e15  #: from where on a field shows a number by its power of ten


@cache
def _registry() -> object:
    import pint  # half a second; only where units are read or written

    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


@cache
def line_between(source: str, target: str) -> tuple[float, float]:
    """(factor, offset) of target = factor·source + offset."""
    if source == target:
        return 1.0, 0.0
    registry = _registry()
    at = [registry.Quantity(x, source).to(target).magnitude for x in (0.0, 1.0)]  # type: ignore[attr-defined]
    return float(at[1] - at[0]), float(at[0])


def to_display(value: float, quantity: str, system: str) -> float:
    """A stored value in the unit that `system` shows."""
    q = QUANTITIES[quantity]
    factor, offset = line_between(q.stored, q.display(system).unit)
    return factor * value + offset


def from_display(value: float, quantity: str, system: str) -> float:
    """A shown value in the unit it is stored in."""
    q = QUANTITIES[quantity]
    factor, offset = line_between(q.stored, q.display(system).unit)
    return tidy((value - offset) / factor)


def tidy(value: float) -> float:
    """Without the last bits that a conversion leaves behind: 1.5 in is 0.0381 m, not 0.038099999999999995."""
    return float(f"{value:.12g}")


def water_column(suction_pa: float, system: str) -> str:
    """The height of water a suction holds up in a tube, as text with its unit."""
    factor, _ = line_between("Pa", "mmH2O" if system == METRIC else "inH2O")
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
        if (float(text) == 0.0 and shown != 0.0) or abs(shown) >= TOO_MANY_DIGITS:
            text = f"{shown:.3g}" if abs(shown) < 1.0 else f"{shown:.12g}"
    else:
        text = _running(shown, display.decimals).replace("-", MINUS)
    return f"{text} {display.label}".strip() if unit else text


def _running(shown: float, decimals: int) -> str:
    """A figure as a sentence wants it: no decimals from 100 on, no bare .0 on a round one."""
    text = f"{shown:.{0 if abs(shown) >= 100 else decimals}f}"
    whole = text.rstrip("0").rstrip(".") if "." in text else text
    return whole if float(f"{shown:.9g}") == float(whole) else text
