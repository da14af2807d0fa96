"""Lengths as they are set on a ruler: tenths of a millimetre, or inches and their sixty-fourths."""

from __future__ import annotations

from math import gcd

from fenwick.units.convert import MINUS
from fenwick.units.quantities import INCH

FINEST = 64  #: parts of an inch
METRES_IN_AN_INCH = 0.0254


def cut_length(value: float, system: str, *, unit: bool = True) -> str:
    """A length to cut by.

    Parameters
    ----------
    value : [m]
    system : metric or inch
    unit : append the unit
    """
    if system == INCH:
        return f"{inch_fraction(value)}{' in' if unit else ''}"
    text = f"{value * 1000.0:.1f}".removesuffix(".0").replace("-", MINUS)
    return f"{text}{' mm' if unit else ''}"


def inch_fraction(value: float) -> str:
    """A length in inches and the nearest sixty-fourth, shortened: 2 1/8.

    Parameters
    ----------
    value : [m]
    """
    parts = round(abs(value) / METRES_IN_AN_INCH * FINEST)
    whole, rest = divmod(parts, FINEST)
    sign = MINUS if value < 0.0 and parts else ""
    if rest == 0:
        return f"{sign}{whole}"
    by = gcd(rest, FINEST)
    fraction = f"{rest // by}/{FINEST // by}"
    return f"{sign}{whole} {fraction}" if whole else f"{sign}{fraction}"
