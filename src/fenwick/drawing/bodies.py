"""The tool and the vacuum on the drawing of one way, as symbols."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.drawing.canvas import Canvas
from fenwick.drawing.shapes import Box, Point
from fenwick.drawing.tools import HIGH, OUTLET, STUBS, WIDE, symbol_of
from fenwick.rig.format.elements import PortPart
from fenwick.rig.format.model import VacuumPart

TALL = 0.48  #: of the picture, that a tool is high [-]


@dataclass(frozen=True)
class Tool:
    """A tool of its own kind; its port's bore is to scale."""

    x: float
    top: float
    size: float  #: of its symbol, 1 is 60 by 72 px [-]
    floor: float
    outlet: Point
    bore: float
    symbol: str

    @staticmethod
    def place(port: PortPart, canvas: Canvas, floor: float, scale: float) -> Tool:
        """At the left of the picture."""
        symbol = symbol_of(port)
        size = TALL * canvas.height / HIGH
        x, top = 0.02 * canvas.width, floor - HIGH * size
        outlet = (x + OUTLET[0] * size, top + STUBS.get(symbol, OUTLET[1]) * size)
        return Tool(x, top, size, floor, outlet, port.bore_m * scale, symbol)

    @property
    def width(self) -> float:
        """Of its symbol."""
        return WIDE * self.size

    @property
    def box(self) -> Box:
        """What labels keep clear of."""
        return Box(self.x - 4, self.top, self.width + 8, self.floor - self.top)

    @property
    def label_at(self) -> Point:
        """Middle, over the machine."""
        return (self.x + self.width / 2, self.top - 14)


@dataclass(frozen=True)
class VacuumBody:
    """A drum vacuum; its inlet's bore is to scale."""

    x: float  #: left of the drum
    top: float  #: of the dome
    width: float
    floor: float
    inlet: Point  #: for a hose from above
    side_inlet: Point  #: for a hose along the floor
    bore: float
    has_filter: bool

    @staticmethod
    def place(part: VacuumPart, canvas: Canvas, floor: float, scale: float) -> VacuumBody:
        """At the right of the picture."""
        width, height = 0.118 * canvas.width, 0.46 * canvas.height
        x = canvas.width - width - 0.028 * canvas.width
        top = floor - height
        bore = (part.inlet_bore_m or 0.05) * scale
        rim = top + 0.27 * height
        inlet = (x - 2.0, rim - 8.0)
        side = (x, rim + 0.25 * height)
        return VacuumBody(x, top, width, floor, inlet, side, bore, part.filter is not None)

    @property
    def rim(self) -> float:
        """y of the drum's rim."""
        return self.top + 0.27 * (self.floor - self.top)

    @property
    def box(self) -> Box:
        """What labels keep clear of."""
        return Box(self.x - 8, self.top, self.width + 16, self.floor - self.top)

    @property
    def label_at(self) -> Point:
        """Middle, over the dome."""
        return (self.x + self.width / 2, self.top - 14)
