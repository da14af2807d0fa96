"""The quantities Fenwick shows, and the unit each takes in either system.

`stored` is the unit of the rig file and, but for angles and degrees Celsius, of the core: SI.
"""

from __future__ import annotations

from dataclasses import dataclass

METRIC, INCH = "metric", "inch"
SYSTEMS = (METRIC, INCH)


@dataclass(frozen=True)
class Display:
    """How one system shows a quantity."""

    unit: str  #: pint's name
    label: str  #: as printed
    decimals: int  #: in running text
    field_decimals: int  #: in an input, finer


@dataclass(frozen=True)
class Quantity:
    """A kind of measurement."""

    name: str
    stored: str  #: pint's name of the unit in the rig file
    stored_label: str
    metric: Display
    inch: Display

    def display(self, system: str) -> Display:
        """How `system` shows it."""
        return self.inch if system == INCH else self.metric


def _same(name: str, unit: str, label: str, decimals: int) -> Quantity:
    display = Display(unit, label, decimals, decimals + 3)
    return Quantity(name, unit, label, display, display)


QUANTITIES: dict[str, Quantity] = {
    q.name: q
    for q in (
        Quantity("bore", "m", "m", Display("mm", "mm", 1, 2), Display("inch", "in", 2, 4)),
        Quantity("length", "m", "m", Display("m", "m", 2, 4), Display("foot", "ft", 1, 4)),
        Quantity("roughness", "m", "m", Display("mm", "mm", 2, 4), Display("inch", "in", 3, 6)),
        Quantity("grain", "m", "m", Display("um", "µm", 1, 2), Display("um", "µm", 1, 2)),
        Quantity("altitude", "m", "m", Display("m", "m", 0, 2), Display("foot", "ft", 0, 2)),
        Quantity("flow", "m^3/s", "m³/s", Display("L/s", "L/s", 1, 3), Display("ft^3/minute", "CFM", 0, 2)),
        Quantity("suction", "Pa", "Pa", Display("kPa", "kPa", 1, 4), Display("inH2O", "inH2O", 1, 3)),
        Quantity("speed", "m/s", "m/s", Display("m/s", "m/s", 1, 3), Display("foot/minute", "ft/min", 0, 1)),
        Quantity("mass", "kg", "kg", Display("g", "g", 0, 2), Display("ounce", "oz", 1, 3)),
        Quantity("weighed", "kg", "kg", Display("g", "g", 1, 3), Display("ounce", "oz", 2, 4)),
        Quantity("heap", "kg", "kg", Display("kg", "kg", 1, 3), Display("lb", "lb", 1, 3)),
        Quantity("mass_rate", "kg/s", "kg/s", Display("g/minute", "g/min", 1, 4), Display("oz/minute", "oz/min", 2, 5)),
        Quantity("area", "m^2", "m²", Display("m^2", "m²", 2, 4), Display("ft^2", "ft²", 1, 3)),
        Quantity("gap", "m^2", "m²", Display("mm^2", "mm²", 0, 2), Display("inch^2", "in²", 3, 5)),
        Quantity("opening", "m^2", "m²", Display("cm^2", "cm²", 0, 2), Display("inch^2", "in²", 1, 3)),
        Quantity("volume", "m^3", "m³", Display("L", "L", 1, 2), Display("gallon", "gal", 1, 2)),
        Quantity("density", "kg/m^3", "kg/m³", Display("kg/m^3", "kg/m³", 0, 2), Display("lb/ft^3", "lb/ft³", 1, 3)),
        Quantity("temperature", "degC", "°C", Display("degC", "°C", 0, 2), Display("degF", "°F", 0, 2)),
        _same("angle", "degree", "°", 0),
        _same("power", "W", "W", 0),
        _same("current", "A", "A", 1),
        _same("voltage", "V", "V", 0),
        _same("loudness", "", "dB(A)", 0),
        _same("seconds", "s", "s", 0),
        _same("number", "", "", 2),
        Quantity("force", "N", "N", Display("N", "N", 0, 1), Display("lbf", "lbf", 0, 1)),
        Quantity("stress", "Pa", "Pa", Display("MPa", "MPa", 1, 3), Display("psi", "psi", 0, 1)),
        Quantity("fog", "kg/m^3", "kg/m³", Display("mg/m^3", "mg/m³", 1, 3), Display("mg/m^3", "mg/m³", 1, 3)),
        Quantity("particles", "kg/m^3", "kg/m³", Display("ug/m^3", "µg/m³", 0, 2), Display("ug/m^3", "µg/m³", 0, 2)),
        Quantity("share", "", "", Display("percent", "%", 1, 3), Display("percent", "%", 1, 3)),
    )
}
