"""The units a person may type behind a number: a closed list for each kind of measurement, and nothing else.

What is typed is looked up here and goes no further: the library of units sees its own names alone, never a user's text.
"""

from __future__ import annotations

from functools import cache

from fenwick.units.quantities import QUANTITIES, Quantity

#: for each unit that something is stored in: (pint's name, how people write it)
_SPELLINGS: dict[str, tuple[tuple[str, tuple[str, ...]], ...]] = {
    "m": (
        ("um", ("µm", "um", "micron", "microns")),
        ("mm", ("mm",)),
        ("cm", ("cm",)),
        ("m", ("m",)),
        ("inch", ("in", '"', "″", "inch", "inches")),
        ("foot", ("ft", "'", "′", "foot", "feet")),
    ),
    "m^2": (
        ("mm^2", ("mm2", "sq mm")),
        ("cm^2", ("cm2", "sq cm")),
        ("m^2", ("m2", "sq m")),
        ("inch^2", ("in2", "inch2", "sq in")),
        ("ft^2", ("ft2", "sq ft")),
    ),
    "m^3": (
        ("mL", ("ml",)),
        ("L", ("l", "litre", "litres", "liter", "liters", "dm3")),
        ("cm^3", ("cm3",)),
        ("m^3", ("m3",)),
        ("gallon", ("gal", "gallon", "gallons")),
        ("inch^3", ("in3", "inch3")),
        ("ft^3", ("ft3",)),
    ),
    "m^3/s": (
        ("L/s", ("l/s", "lps")),
        ("L/minute", ("l/min", "lpm")),
        ("m^3/hour", ("m3/h", "m3/hr", "m3/hour")),
        ("m^3/minute", ("m3/min",)),
        ("m^3/s", ("m3/s",)),
        ("ft^3/minute", ("cfm", "ft3/min", "ft3/minute")),
    ),
    "Pa": (
        ("Pa", ("pa",)),
        ("hPa", ("hpa",)),
        ("kPa", ("kpa",)),
        ("MPa", ("MPa",)),
        ("mbar", ("mbar",)),
        ("bar", ("bar",)),
        ("mmH2O", ("mmh2o", "mm h2o", "mm of water", "mm water", "mmwc", "mm")),
        ("cmH2O", ("cmh2o", "cm h2o", "cm of water")),
        (
            "inH2O",
            ("inh2o", "in h2o", "inches of water", "in of water", "in water", "inwc", "inwg", "in", "inch", "inches"),
        ),
        ("mmHg", ("mmhg", "mm hg")),
        ("inHg", ("inhg", "in hg")),
        ("psi", ("psi",)),
    ),
    "m/s": (
        ("m/s", ("m/s",)),
        ("km/hour", ("km/h",)),
        ("foot/minute", ("ft/min", "fpm", "foot/minute")),
        ("foot/s", ("ft/s", "fps")),
    ),
    "kg": (
        ("mg", ("mg",)),
        ("g", ("g", "gram", "grams")),
        ("kg", ("kg",)),
        ("ounce", ("oz", "ounce", "ounces")),
        ("lb", ("lb", "lbs", "pound", "pounds")),
    ),
    "kg/s": (
        ("g/s", ("g/s",)),
        ("g/minute", ("g/min", "g/minute")),
        ("kg/s", ("kg/s",)),
        ("kg/minute", ("kg/min",)),
        ("kg/hour", ("kg/h",)),
        ("oz/minute", ("oz/min", "oz/minute")),
        ("lb/hour", ("lb/h", "lb/hr")),
    ),
    "kg/m^3": (
        ("ug/m^3", ("µg/m3", "ug/m3")),
        ("mg/m^3", ("mg/m3",)),
        ("g/m^3", ("g/m3",)),
        ("kg/m^3", ("kg/m3",)),
        ("g/cm^3", ("g/cm3",)),
        ("kg/L", ("kg/l",)),
        ("lb/ft^3", ("lb/ft3",)),
    ),
    "degC": (("degC", ("°c", "c", "degc")), ("degF", ("°f", "f", "degf")), ("kelvin", ("k",))),
    "degree": (("degree", ("°", "deg", "degree", "degrees")), ("radian", ("rad",))),
    "W": (("W", ("w", "watt", "watts")), ("kW", ("kw",)), ("horsepower", ("hp",))),
    "A": (("mA", ("ma",)), ("A", ("a", "amp", "amps"))),
    "V": (("V", ("v", "volt", "volts")), ("kV", ("kv",))),
    "s": (("s", ("s", "sec", "seconds")), ("minute", ("min", "minutes")), ("hour", ("h", "hr", "hours"))),
    "N": (("N", ("n",)), ("kN", ("kn",)), ("lbf", ("lbf",)), ("kgf", ("kgf",))),
}
_SHARES = (("percent", ("%", "percent")),)  #: of a share alone: a plain number takes no unit
_OWN = {"share": _SHARES, "loudness": (("", ("db(a)", "dba", "db")),)}  #: of these alone
_ALIKE = str.maketrans({"²": "2", "³": "3", "^": None, "μ": "µ", "’": "'", "”": '"'})
#: nobody means them here, and without regard to capitals they read as a milliard times more
_TOO_SMALL = ("mPa", "mW")


def unit_named(text: str, quantity: str) -> str | None:
    """The unit that a text names among those of a quantity, by the name pint gives it; None for any other text."""
    return None if text in _TOO_SMALL else _known(quantity).get(_plain(text))


def units_of(quantity: str) -> tuple[str, ...]:
    """The units that may be typed for a quantity, each in the spelling to teach."""
    return tuple(names[0] for _, names in _rows(QUANTITIES[quantity]))


def _plain(text: str) -> str:
    return " ".join(text.translate(_ALIKE).casefold().split())


def _rows(quantity: Quantity) -> tuple[tuple[str, tuple[str, ...]], ...]:
    return _OWN[quantity.name] if quantity.name in _OWN else _SPELLINGS.get(quantity.stored, ())


@cache
def _known(quantity: str) -> dict[str, str]:
    """Pint's name of each unit of a quantity, by every way to write it."""
    q = QUANTITIES[quantity]
    shown = {_plain(display.label): display.unit for display in (q.metric, q.inch) if display.label}
    return {_plain(name): unit for unit, names in _rows(q) for name in names} | shown
