"""The lines that devices send, one small protocol each; `docs/devices.md` says it in full.

[@SECONDS] [NAME] NUMBER [UNIT] [still|moving] [~HH]
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

from fenwick.units.names import unit_named
from fenwick.units.read import in_stored_units

LONGEST = 120  #: bytes of a line; what runs on beyond it is no line
COMMENT = "#"
GREETING = "# simulated"


@dataclass(frozen=True)
class Protocol:
    """What one kind of device says."""

    name: str  #: of its figure, which a line may leave out
    quantity: str
    unit: str  #: of lines that name none
    most: float  #: that it can show; SI
    rests: float  #: by which figures at rest may differ; SI
    units: tuple[str, ...]  #: that a line may name


PROTOCOLS: dict[str, Protocol] = {
    "scale": Protocol("mass", "weighed", "g", 300.0, 2.5e-3, ("g", "kg", "oz", "lb")),
    "monitor": Protocol("dust", "particles", "ug/m3", 0.1, 3e-9, ("ug/m3", "µg/m³", "mg/m3")),
    "manometer": Protocol(
        "suction",
        "suction",
        "kPa",
        100e3,
        80.0,
        ("kPa", "Pa", "hPa", "mbar", "mmH2O", "inH2O"),
    ),
}
_LINE = re.compile(
    r"(?:@(?P<time>\d+(?:\.\d+)?)\s+)?(?:(?P<name>[a-z]+)\s+)?(?P<number>[+-]?\d+(?:\.\d+)?)"
    r"(?:\s*(?P<unit>[A-Za-zµ³/0-9^]+))??(?:\s+(?P<rest>still|moving))?\s*"
)


class BadLineError(ValueError):
    """A line that says nothing that can be trusted; the message says why."""


@dataclass(frozen=True)
class Sample:
    """One figure of a device."""

    value: float  #: SI
    time: float | None = None  #: by the device's own clock [s]
    still: bool | None = None  #: whether it has come to rest; None: it does not say


def check_sum(body: str) -> str:
    """Two hexadecimal digits over a line's bytes, which show a garbled one."""
    return f"{sum(body.encode()) % 256:02x}"


def write_line(kind: str, value: float, *, time: float | None = None, still: bool | None = None) -> str:
    """A line as a device of that kind sends it, in its usual unit [SI value in]."""
    protocol = PROTOCOLS[kind]
    factor = _factor(protocol, protocol.unit)
    parts = [f"@{time:.2f}"] if time is not None else []
    parts += [protocol.name, f"{value / factor:.4f}".rstrip("0").rstrip("."), protocol.unit]
    parts += [] if still is None else ["still" if still else "moving"]
    body = " ".join(parts)
    return f"{body} ~{check_sum(body)}"


def parse_line(line: str, kind: str, unit: str = "") -> Sample | None:
    """What a line says; None for an empty line or a comment.

    Parameters
    ----------
    line : without its end
    kind : of the device, a key of PROTOCOLS
    unit : of lines that name none; empty: the kind's usual one

    Raises
    ------
    BadLineError
    """
    text = line.strip()
    if not text or text.startswith(COMMENT):
        return None
    if "~" in text:
        body, _, given = text.rpartition("~")
        text = body.rstrip()
        if given.strip().lower() != check_sum(text):
            raise BadLineError("its check sum does not fit")
    protocol = PROTOCOLS[kind]
    found = _LINE.fullmatch(text)
    if found is None:
        raise BadLineError("it is no figure")
    if found["name"] not in (None, protocol.name):
        raise BadLineError(f"it speaks of {found['name']}, not of {protocol.name}")
    value = float(found["number"]) * _factor(protocol, found["unit"] or unit or protocol.unit)
    if not math.isfinite(value) or abs(value) > protocol.most:
        raise BadLineError("its figure is more than the device can show")
    time = None if found["time"] is None else float(found["time"])
    return Sample(value, time, None if found["rest"] is None else found["rest"] == "still")


def known_units(kind: str) -> tuple[str, ...]:
    """Units that a kind of device may send."""
    return PROTOCOLS[kind].units


def _factor(protocol: Protocol, unit: str) -> float:
    """SI units in one of a line's units."""
    named = unit_named(unit, protocol.quantity) if unit in protocol.units else None
    if named is None:
        raise BadLineError(f"“{unit[:12]}” is no unit of a {protocol.name}")
    return in_stored_units(1.0, named, protocol.quantity)
