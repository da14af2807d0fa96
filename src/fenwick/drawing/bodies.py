"""The bodies on the drawing: the tool and the vacuum as symbols, the separator with its bin to scale."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwick.drawing.canvas import Canvas
from fenwick.drawing.shapes import Box, Point
from fenwick.rig.build import build_bin
from fenwick.rig.elements import PortPart
from fenwick.rig.model import VacuumPart
from fenwick.rig.separator import SlottedDiscPart


@dataclass(frozen=True)
class Tool:
    """A bench with a machine on it; its port's bore is to scale."""

    x: float
    top: float
    width: float
    height: float
    bench: float  #: y of the bench top
    floor: float
    outlet: Point
    bore: float

    @staticmethod
    def place(port: PortPart, canvas: Canvas, floor: float, scale: float) -> Tool:
        """At the left of the picture."""
        width = 0.095 * canvas.width
        height = 0.115 * canvas.height + 12.0
        x, bench = 0.03 * canvas.width, floor - 0.34 * canvas.height
        bore = port.bore_m * scale
        outlet = (x + width + 0.022 * canvas.width, bench - 0.55 * height)
        return Tool(x, bench - height, width, height, bench, floor, outlet, bore)

    @property
    def box(self) -> Box:
        """What labels keep clear of."""
        return Box(self.x - 10, self.top, self.width + 24, self.floor - self.top)

    @property
    def label_at(self) -> Point:
        """Middle, over the machine."""
        return (self.x + self.width / 2, self.top - 14)


@dataclass(frozen=True)
class Vacuum:
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
    def place(part: VacuumPart, canvas: Canvas, floor: float, scale: float) -> Vacuum:
        """At the right of the picture."""
        width, height = 0.118 * canvas.width, 0.46 * canvas.height
        x = canvas.width - width - 0.028 * canvas.width
        top = floor - height
        bore = (part.inlet_bore_m or 0.05) * scale
        rim = top + 0.27 * height
        inlet = (x - 2.0, rim - 8.0)
        side = (x, rim + 0.25 * height)
        return Vacuum(x, top, width, floor, inlet, side, bore, part.filter is not None)

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


@dataclass(frozen=True)
class Separator:
    """Chamber over bin, to scale, leaning by its tilt over the right edge of its foot."""

    id: str
    x: float  #: middle
    floor: float
    chamber_width: float
    chamber_top: float
    disc: float  #: y of the disc, the bin's rim
    wall: tuple[Point, ...]  #: outline of the bin, from the rim's left round the floor to the rim's right
    dust: tuple[Point, ...]  #: outline of the dust; empty when there is none
    dust_top: float
    empty_by: float  #: y from which the air stirs the dust up
    inlet_bore: float
    outlet_bore: float
    outlet_hangs: float  #: y of the outlet tube's lower end
    slots: tuple[tuple[float, float], ...]  #: cut open on the left and right: (x, width)
    stiffeners: tuple[tuple[float, float], ...]  #: (y, half width)
    tilt: float  #: [degrees]
    fill_share: float  #: of the bin's volume [-]

    @property
    def inlet(self) -> Point:
        """Where the hose meets the chamber."""
        return self._lean((self.x - self.chamber_width / 2 - 10, self.chamber_top + self.inlet_bore / 2 + 3))

    @property
    def outlet(self) -> Point:
        """Where the link hose leaves."""
        return self._lean((self.x, self.chamber_top - 12))

    def _lean(self, point: Point) -> Point:
        a = math.radians(self.tilt)
        dx, dy = point[0] - self.pivot, point[1] - self.floor
        return (self.pivot + dx * math.cos(a) - dy * math.sin(a), self.floor + dx * math.sin(a) + dy * math.cos(a))

    @property
    def pivot(self) -> float:
        """x of the foot it leans on."""
        return max(x for x, y in self.wall if y >= self.floor - 0.5)

    @property
    def box(self) -> Box:
        """What labels keep clear of."""
        half = max(self.chamber_width / 2 + 12, max(abs(x - self.x) for x, _ in self.wall))
        lean = abs(math.sin(math.radians(self.tilt))) * (self.floor - self.chamber_top)
        top = self.chamber_top - 12
        return Box(self.x - half - lean, top, 2 * (half + lean), self.floor - top)

    @property
    def label_at(self) -> Point:
        """Left of the chamber's top."""
        return (self.x - self.chamber_width / 2 - 16, self.chamber_top - 20)


def place_separator(part: SlottedDiscPart, x: float, floor: float, scale: float, least_free: float) -> Separator:
    """A slotted disc over its bin, standing on the floor; `least_free` is the free height to empty by [m]."""
    box = build_bin(part.bin)
    disc = floor - box.height * scale

    def outline(top: float) -> tuple[Point, ...]:
        heights = sorted({0.0, top, *(h for h in box.heights if h < top)}, reverse=True)
        left = [(x - float(box.diameter_at(h)) * scale / 2, floor - h * scale) for h in heights]
        return (*left, *[(2 * x - px, py) for px, py in reversed(left)])

    fill = part.bin.fill_height_m
    radius = part.chamber_d_m * scale / 2
    width = max(slot.width_m for slot in part.slots) * scale
    return Separator(
        id=part.id,
        x=x,
        floor=floor,
        chamber_width=2 * radius,
        chamber_top=disc - part.chamber_height_m * scale,
        disc=disc,
        wall=outline(box.height),
        dust=outline(fill) if fill > 0 else (),
        dust_top=floor - fill * scale,
        empty_by=min(disc + least_free * scale, floor),
        inlet_bore=part.inlet_bore_m * scale,
        outlet_bore=part.outlet_d_m * scale,
        outlet_hangs=disc - (part.chamber_height_m - part.outlet_length_m) * scale,
        slots=((x - radius, width), (x + radius - width, width)),
        stiffeners=tuple((floor - h * scale, float(box.diameter_at(h)) * scale / 2) for h in box.stiffeners),
        tilt=part.tilt_deg,
        fill_share=float(box.volume_to(fill) / box.volume_to(box.height)),
    )
