"""Small helpers that the sentences share."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.units import format_value
from fenwick.units.workshop import cut_length

MACHINES = {
    "bandsaw": "a bandsaw",
    "table-saw": "a table saw",
    "planer": "a planer",
    "router-table": "a router table",
    "drum-sander": "a drum sander",
    "mitre-saw": "a mitre saw",
    "lathe": "a lathe",
    "hand-held-sander": "a hand-held sander",
    "floor-pick-up": "a floor pick-up",
}


@dataclass(frozen=True)
class Voice:
    """Whose words: the unit system and what the user calls each part."""

    system: str
    names: Mapping[str, str]
    dust: str | None = None  #: what the dust is called
    machines: Mapping[str, str] | None = None  #: machine of each port
    owned: Mapping[str, str] | None = None  #: what the shop's vacuums are called

    def figure(self, value: float, quantity: str, *, unit: bool = True) -> str:
        """A stored value as text."""
        return format_value(float(value), quantity, self.system, unit=unit)

    def cut(self, value: float, *, unit: bool = True) -> str:
        """A length to cut by [m], as it is set on a ruler."""
        return cut_length(float(value), self.system, unit=unit)

    def name(self, part: str | None) -> str:
        """What the user calls a part."""
        return self.names.get(part or "", part or "the line")

    def machine(self, port: str | None) -> str:
        """The machine at a port."""
        return MACHINES.get((self.machines or {}).get(port or "", ""), "this machine")
