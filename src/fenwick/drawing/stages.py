"""The bodies of separators and wet stages, to scale: a chamber or cone over its bin, or a vessel of water."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwick.core.components.bins import Bin
from fenwick.core.formulas.wet import water_level
from fenwick.drawing.shapes import Box, Point
from fenwick.rig.format.separator import (
    ChamberPart,
    CyclonePart,
    ElbowLidPart,
    SeparatorPart,
    SlottedDiscPart,
    WetStagePart,
)
from fenwick.rig.to_core.bin import build_bin

STUB = 12.0  #: of the outlet tube above the roof [px]
REACH = 10.0  #: of the inlet beyond the wall [px]
Rect = tuple[float, float, float, float]  #: x, y, width, height [px]


@dataclass(frozen=True)
class StageBody:
    """A stage on the drawing, leaning by its tilt over the right edge of its foot."""

    id: str
    kind: str  #: swirl or wet
    x: float  #: middle
    floor: float
    top: float  #: y of the roof
    half: float  #: of its widest part
    body: tuple[Point, ...]  #: outline of what stands on the bin; empty where the bin is the chamber
    plates: tuple[tuple[float, float], ...]  #: roof, lid and disc: (y, half width)
    slots: tuple[Rect, ...]
    wall: tuple[Point, ...]  #: outline of the bin, from the rim's left round the floor to the rim's right
    dust: tuple[Point, ...]  #: outline of the dust, or of the water; empty when there is none
    dust_top: float
    empty_by: float | None  #: y from which the air stirs the dust up
    inlet_box: Rect
    outlet_box: Rect
    swirl: tuple[float, float]  #: y of its middle, half its width
    stiffeners: tuple[tuple[float, float], ...]  #: (y, half width)
    tilt: float  #: [degrees]
    fill_share: float  #: of the bin's volume [-]

    @property
    def inlet(self) -> Point:
        """Where the hose meets it."""
        x, y, width, height = self.inlet_box
        if self.kind == "wet":  # from above
            return (x + width / 2, y)
        return self._lean((x, y + height / 2))

    @property
    def outlet(self) -> Point:
        """Where the hose behind it leaves."""
        x, y, width, _ = self.outlet_box
        return self._lean((x + width / 2, y))

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
        lean = abs(math.sin(math.radians(self.tilt))) * (self.floor - self.top)
        top = self.top - STUB
        half = self.half + 12
        return Box(self.x - half - lean, top, 2 * (half + lean), self.floor - top)

    @property
    def label_at(self) -> Point:
        """Left of its top."""
        return (self.x - self.half - 16, self.top - 20)


def size_of(part: SeparatorPart | WetStagePart) -> tuple[float, float]:
    """Whole height and widest width [m]."""
    if isinstance(part, WetStagePart):
        return 2.5 * part.vessel_d_m, part.vessel_d_m
    high = part.bin.profile[-1].height_m + above_rim(part)
    return high, max(top_width(part), *(point.seen_m for point in part.bin.profile))


def above_rim(part: SeparatorPart) -> float:
    """Height of what stands on the bin's rim [m]."""
    match part:
        case CyclonePart():
            return part.total_height_m
        case SlottedDiscPart() if part.hung:
            return 0.0
        case ChamberPart():
            return part.chamber_height_m
        case _:
            return 0.0


def top_width(part: SeparatorPart) -> float:
    """Width of the body at its roof [m]."""
    match part:
        case CyclonePart():
            return part.body_d_m
        case SlottedDiscPart() if part.hung:
            return part.bin.profile[-1].seen_m
        case ChamberPart():
            return part.chamber_d_m
        case _:
            return part.bin.profile[-1].seen_m


def place_stage(
    part: SeparatorPart | WetStagePart, x: float, floor: float, scale: float, least_free: float
) -> StageBody:
    """A stage standing on the floor; `least_free` is the free height to empty its bin by [m]."""
    if isinstance(part, WetStagePart):
        return _place_wet(part, x, floor, scale)
    bin_ = build_bin(part.bin)
    rim = floor - bin_.height * scale
    top = rim - above_rim(part) * scale
    half_top = top_width(part) * scale / 2
    fill = part.bin.fill_height_m
    hangs, outlet = part.outlet_length_m, part.outlet_d_m
    disc_y, plates, slots = _disc(part, x, rim, scale)
    leaves = rim if disc_y is None else disc_y
    if disc_y is None and not isinstance(part, CyclonePart):
        leaves = rim + hangs * scale  # an open bin counts from the mouth of its outlet tube
    deepest = max([half_top, *(point.seen_m * scale / 2 for point in part.bin.profile)])
    room = (rim if disc_y is None else disc_y) - top if above_rim(part) or disc_y is not None else hangs * scale
    return StageBody(
        id=part.id,
        kind="swirl",
        x=x,
        floor=floor,
        top=top,
        half=deepest,
        body=_body(part, x, rim, scale),
        plates=((top - 2, half_top + 5), *plates),
        slots=slots,
        wall=outline(bin_, x, floor, scale, bin_.height),
        dust=outline(bin_, x, floor, scale, fill) if fill > 0 else (),
        dust_top=floor - fill * scale,
        empty_by=min(leaves + least_free * scale, floor),
        inlet_box=_inlet_box(part, x, top, half_top, scale),
        outlet_box=(x - outlet * scale / 2, top - STUB, outlet * scale, hangs * scale + STUB),
        swirl=(top + 0.68 * min(room, 2.2 * half_top), half_top * 0.86),
        stiffeners=tuple((floor - h * scale, float(bin_.sides_at(h).width) * scale / 2) for h in bin_.stiffeners),
        tilt=part.tilt_deg,
        fill_share=float(bin_.volume_to(fill) / bin_.volume_to(bin_.height)),
    )


def outline(bin_: Bin, x: float, floor: float, scale: float, top: float) -> tuple[Point, ...]:
    """The bin's wall up to a height [m], from the left top round the floor to the right top."""
    heights = sorted({0.0, top, *(h for h in bin_.heights if h < top)}, reverse=True)
    left = [(x - float(bin_.sides_at(h).width) * scale / 2, floor - h * scale) for h in heights]
    return (*left, *[(2 * x - px, py) for px, py in reversed(left)])


def _body(part: SeparatorPart, x: float, rim: float, scale: float) -> tuple[Point, ...]:
    match part:
        case CyclonePart():
            top, waist = rim - part.total_height_m * scale, rim - (part.total_height_m - part.cylinder_height_m) * scale
            wide, narrow = part.body_d_m * scale / 2, part.dust_outlet_d_m * scale / 2
            left = [(x - wide, top), (x - wide, waist), (x - narrow, rim)]
            return (*left, *[(2 * x - px, py) for px, py in reversed(left)])
        case ChamberPart() if above_rim(part):
            half, top = part.chamber_d_m * scale / 2, rim - part.chamber_height_m * scale
            return ((x - half, top), (x - half, rim), (x + half, rim), (x + half, top))
        case _:
            return ()


def _disc(
    part: SeparatorPart, x: float, rim: float, scale: float
) -> tuple[float | None, tuple[tuple[float, float], ...], tuple[Rect, ...]]:
    """(y of the disc, plates, slots cut open on the left and right)."""
    if isinstance(part, CyclonePart):
        return None, ((rim - 2, part.bin.profile[-1].seen_m * scale / 2 + 5),), ()
    if not isinstance(part, ChamberPart):
        return None, (), ()
    half = part.chamber_d_m * scale / 2
    hung = isinstance(part, SlottedDiscPart) and part.hung
    y = rim + part.chamber_height_m * scale if hung else rim
    width = max(slot.width_m for slot in part.slots) * scale
    slots = ((x - half, y - 2.2, width, 4.4), (x + half - width, y - 2.2, width, 4.4))
    return y, ((y, half if hung else half + 5),), slots


def _inlet_box(part: SeparatorPart, x: float, top: float, half: float, scale: float) -> Rect:
    high = part.inlet[0] * scale
    if isinstance(part, ElbowLidPart):  # down through the lid
        return (x - half + 2, top - high - 6, high + 4, high)
    return (x - half - REACH, top + 3, REACH + 10, high)


def _place_wet(part: WetStagePart, x: float, floor: float, scale: float) -> StageBody:
    half, high = part.vessel_d_m * scale / 2, 2.5 * part.vessel_d_m * scale
    throat = max(part.throat_d_m * scale, 3.0)
    water = min(float(water_level(part.water_kg, part.vessel_d_m)) * scale, 0.9 * high)
    dips = floor - water + part.immersion_m * scale
    top = floor - high
    return StageBody(
        id=part.id,
        kind="wet",
        x=x,
        floor=floor,
        top=top,
        half=half,
        body=(),
        plates=((top - 2, half + 3),),
        slots=(),
        wall=((x - half, top), (x - half, floor), (x + half, floor), (x + half, top)),
        dust=((x - half, floor - water), (x - half, floor), (x + half, floor), (x + half, floor - water)),
        dust_top=floor - water,
        empty_by=None,
        inlet_box=(x - half * 0.45 - throat / 2, top - STUB, throat, max(dips - top + STUB, STUB)),
        outlet_box=(x + half * 0.45 - throat / 2, top - STUB, throat, STUB + 4),
        swirl=(top, 0.0),
        stiffeners=(),
        tilt=0.0,
        fill_share=0.0,
    )
