"""A separator in section and plan, to scale, with its dimensions; most of them can be dragged."""

from __future__ import annotations

from dataclasses import dataclass
from math import cos, radians, sin

from markupsafe import Markup

from fenwick.drawing.canvas import Canvas
from fenwick.drawing.render import render
from fenwick.drawing.shapes import Point
from fenwick.drawing.stages import StageBody, above_rim, place_stage, size_of, top_width
from fenwick.rig.format.separator import ChamberPart, CyclonePart, ElbowLidPart, SeparatorPart, SlottedDiscPart
from fenwick.units import INCH, METRIC
from fenwick.units.convert import to_display
from fenwick.wording.say import Voice

SECTION = Canvas(852.0, 352.0, True)
MIDDLE, FLOOR = 246.0, 316.0  #: of the section [px]
PLAN_MIDDLE, PLAN_RADIUS = (690.0, 176.0), 118.0
DRAG_STEP = {METRIC: 1.0, INCH: 1.0 / 32.0}  #: sizes are dragged in such steps, in the user's unit
TALLEST, WIDEST = 244.0, 250.0  #: room of the section [px]


@dataclass(frozen=True)
class Dimension:
    """A dimension line with its figure, and what dragging its end changes."""

    key: str  #: of the separator's own value
    name: str
    text: str
    start: Point
    end: Point
    at: Point  #: of the figure
    anchor: str = "middle"
    grip: Point | None = None  #: what can be dragged; None: cannot
    axis: str = ""  #: x, y or angle
    per_px: float = 0.0  #: metres for each pixel along the axis; of an arc, the angle [degrees] it is counted from

    @property
    def bare(self) -> bool:
        """Whether there is only a figure and no line."""
        return self.start == self.end


@dataclass(frozen=True)
class SectionScene:
    """What the template of a stage asks for."""

    canvas: Canvas
    stages: tuple[StageBody, ...]


@dataclass(frozen=True)
class Frame:
    """Where section and plan stand, for whatever is drawn over them."""

    scale: float  #: of the section [px/m]
    middle: float
    roof: float
    plan_scale: float
    plan: Point


def frame_of(part: SeparatorPart) -> Frame:
    """The places that a picture of this separator uses."""
    scale = _scale(part)
    roof = FLOOR - (part.bin.profile[-1].height_m + above_rim(part)) * scale
    return Frame(scale, MIDDLE, roof, PLAN_RADIUS / (top_width(part) / 2.0), PLAN_MIDDLE)


def render_section(part: SeparatorPart, free_at_watch: float, voice: Voice, name: str) -> Markup:
    """Section and plan as SVG.

    Parameters
    ----------
    part : the separator
    free_at_watch : free height to empty its bin by [m]
    voice : whose units
    name : makes its ids unique on a page
    """
    scale = _scale(part)
    body = place_stage(part, MIDDLE, FLOOR, scale, free_at_watch)
    dims = [*_section_dims(part, body, scale, voice), *_plan_dims(part, voice)]
    said = ", ".join(f"{dim.name} {dim.text}" for dim in dims)
    return render(
        "section.svg.jinja",
        s=SectionScene(SECTION, (body,)),
        p=body,
        name=name,
        dims=dims,
        unit=to_display(1.0, "bore", voice.system),
        step=DRAG_STEP[voice.system],
        plan=_plan(part),
        description=f"Section from the side and plan from above, to scale: {said}.",
    )


def _scale(part: SeparatorPart) -> float:
    tall, wide = size_of(part)
    return min(TALLEST / tall, WIDEST / wide)


def _mm(value: float, voice: Voice) -> str:
    return voice.figure(value, "bore", unit=False)


def _section_dims(part: SeparatorPart, body: StageBody, scale: float, voice: Voice) -> list[Dimension]:
    """Dimensions of the section, from the roof down."""
    x, half, top = body.x, body.half, body.top
    rim = FLOOR - part.bin.profile[-1].height_m * scale
    tube, hangs = part.outlet_d_m * scale / 2, top + part.outlet_length_m * scale
    high = part.inlet[0]
    inlet_key = "inlet_height_m" if is_rectangle(part) else "inlet_bore_m"
    box = body.inlet_box
    right = x + half + 108
    found = [
        Dimension("outlet_d_m", "outlet bore", f"⌀ {_mm(part.outlet_d_m, voice)}", (x, top - 17), (x, top - 17),
                  (x + tube + 8, top - 12), "start", (x + tube, top - 9), "x", 2.0 / scale),
        Dimension("outlet_length_m", "outlet hangs", _mm(part.outlet_length_m, voice), (x, top), (x, hangs),
                  (x + tube + 8, hangs + 2), "start", (x, hangs), "y", 1.0 / scale),
        Dimension(inlet_key, "inlet", f"{'' if inlet_key == 'inlet_height_m' else '⌀ '}{_mm(high, voice)}",
                  (box[0] - 8, box[1]), (box[0] - 8, box[1] + box[3]), (box[0] - 14, box[1] + box[3] / 2 + 4), "end",
                  (box[0] - 8, box[1] + box[3]), "y", 1.0 / scale),
        Dimension("bin.fill_height_m", "dust stands", _mm(part.bin.fill_height_m, voice), (right - 44, FLOOR),
                  (right - 44, body.dust_top), (right - 52, min(body.dust_top + 5, FLOOR - 6)), "end",
                  (right - 44, body.dust_top), "y", -1.0 / scale),
        _bin_height(part, rim, right, scale, voice),
        Dimension(f"bin.profile[0].{width_key(part)}", "bin wide at the floor", _bin_width(part, 0, voice),
                  (2 * x - _foot(body), FLOOR + 12), (_foot(body), FLOOR + 12), (x, FLOOR + 28), "middle",
                  (_foot(body), FLOOR + 12), "x", 2.0 / scale),
    ]  # fmt: skip
    return [*found, *_body_dims(part, body, scale, rim, voice)]


def is_rectangle(part: SeparatorPart) -> bool:
    """Whether its inlet is a rectangle."""
    return isinstance(part, CyclonePart | ChamberPart) and part.inlet_height_m is not None


def width_key(part: SeparatorPart) -> str:
    """The key of the bin's width as it is seen from the side."""
    return "d_m" if part.bin.is_round else "width_m"


def _bin_width(part: SeparatorPart, at: int, voice: Voice) -> str:
    sign = "⌀ " if part.bin.is_round else ""
    return f"{sign}{_mm(part.bin.profile[at].seen_m, voice)}"


def _foot(body: StageBody) -> float:
    return max(px for px, py in body.wall if py >= body.floor - 0.5)


def _bin_height(part: SeparatorPart, rim: float, right: float, scale: float, voice: Voice) -> Dimension:
    last = len(part.bin.profile) - 1
    height = part.bin.profile[-1].height_m
    return Dimension(
        f"bin.profile[{last}].height_m", "bin high", _mm(height, voice), (right, FLOOR), (right, rim),
        (right + 6, (FLOOR + rim) / 2 + 4), "start", (right, rim), "y", -1.0 / scale,
    )  # fmt: skip


def _body_dims(part: SeparatorPart, body: StageBody, scale: float, rim: float, voice: Voice) -> list[Dimension]:
    x, top = body.x, body.top
    wide = top_width(part) * scale / 2
    left = x - body.half - 44
    if isinstance(part, CyclonePart):
        waist = top + part.cylinder_height_m * scale
        narrow = part.dust_outlet_d_m * scale / 2
        return [
            _across("body_d_m", "body wide", part.body_d_m, x, wide, top - 30, scale, voice),
            Dimension("cylinder_height_m", "cylinder high", _mm(part.cylinder_height_m, voice), (left, top),
                      (left, waist), (left - 6, (top + waist) / 2 + 4), "end", (left, waist), "y", 1.0 / scale),
            Dimension("total_height_m", "cyclone high", _mm(part.total_height_m, voice), (left - 52, top),
                      (left - 52, rim), (left - 58, (top + rim) / 2 + 4), "end", (left - 52, top), "y", -1.0 / scale),
            Dimension("dust_outlet_d_m", "dust outlet", f"⌀ {_mm(part.dust_outlet_d_m, voice)}", (x, rim), (x, rim),
                      (x + narrow + 10, rim - 9), "start", (x + narrow, rim - 6), "x", 2.0 / scale),
        ]  # fmt: skip
    lifted = part.inlet[0] * scale if isinstance(part, ElbowLidPart) else 0.0
    if not isinstance(part, ChamberPart):
        return [_across(f"bin.profile[{len(part.bin.profile) - 1}].{width_key(part)}", "bin wide at the top",
                        part.bin.profile[-1].seen_m, x, wide, top - 30 - lifted, scale, voice)]  # fmt: skip
    hung = isinstance(part, SlottedDiscPart) and part.hung
    disc = rim + part.chamber_height_m * scale if hung else rim
    slot = part.slots[0].width_m
    radius = part.chamber_d_m * scale / 2
    return [
        _across("chamber_d_m", "disc wide" if hung else "chamber wide", part.chamber_d_m, x, radius, top - 30, scale,
                voice),
        Dimension("chamber_height_m", "disc hangs" if hung else "chamber high", _mm(part.chamber_height_m, voice),
                  (left, top), (left, disc), (left - 6, disc + 3), "end", (left, disc), "y", 1.0 / scale),
        Dimension("slots[0].width_m", "slot wide", _mm(slot, voice), (x - radius, disc + 10),
                  (x - radius + slot * scale, disc + 10), (x - radius + slot * scale + 6, disc + 15), "start",
                  (x - radius + slot * scale, disc + 10), "x", 1.0 / scale),
    ]  # fmt: skip


def _across(
    key: str, name: str, value: float, x: float, half: float, y: float, scale: float, voice: Voice
) -> Dimension:
    return Dimension(
        key, name, f"⌀ {_mm(value, voice)}", (x - half, y), (x + half, y), (x - half + 4, y - 5), "start",
        (x + half, y), "x", 2.0 / scale,
    )  # fmt: skip


@dataclass(frozen=True)
class SectionPlan:
    """The picture from above; 0° is where the inlet enters, at the top, and the swirl runs clockwise."""

    middle: Point
    radius: float
    outlet: float
    inlet: float  #: width
    from_above: bool  #: an elbow through the lid
    slots: tuple[str, ...]  #: paths
    wall: float  #: radius of the bin's wall, where that is another


def _plan(part: SeparatorPart) -> SectionPlan:
    scale = PLAN_RADIUS / (top_width(part) / 2.0)
    slots: tuple[str, ...] = ()
    wall = radius = PLAN_RADIUS
    if isinstance(part, ChamberPart):
        radius = part.chamber_d_m / 2.0 * scale
        slots = tuple(
            ring_sector(PLAN_MIDDLE, radius, radius - slot.width_m * scale, slot.start_deg, slot.arc_deg)
            for slot in part.slots
        )
    width = part.inlet[1] * scale
    return SectionPlan(
        PLAN_MIDDLE, radius, part.outlet_d_m / 2 * scale, width, isinstance(part, ElbowLidPart), slots, wall
    )


def _plan_dims(part: SeparatorPart, voice: Voice) -> list[Dimension]:
    cx, cy = PLAN_MIDDLE
    scale = PLAN_RADIUS / (top_width(part) / 2.0)
    found = []
    if is_rectangle(part):
        wide = part.inlet[1]
        left, top, width = cx - PLAN_RADIUS - 26, cy - PLAN_RADIUS, wide * scale
        found.append(
            Dimension("inlet_width_m", "inlet wide", _mm(wide, voice), (left, top), (left, top + width),
                      (left - 6, top + width / 2 + 4), "end", (left, top + width), "y", 1.0 / scale)
        )  # fmt: skip
    if not isinstance(part, ChamberPart):
        return found
    for i, slot in enumerate(part.slots):
        radius = part.chamber_d_m / 2.0 * scale
        start, end = slot.start_deg, slot.start_deg + slot.arc_deg
        grip_in, grip_out = (_on_circle((cx, cy), radius, angle) for angle in (start, end))
        words_in, words_out = (_on_circle((cx, cy), radius + 20, angle) for angle in (start, end))
        many = f"slot {i + 1} " if len(part.slots) > 1 else "slot "
        found += [
            Dimension(f"slots[{i}].start_deg", f"{many}starts", f"{start:g}°", grip_in, grip_in, words_in, "middle",
                      grip_in, "angle", 0.0),
            Dimension(f"slots[{i}].arc_deg", f"{many}arc", f"{slot.arc_deg:g}°", grip_out, grip_out, words_out,
                      "middle", grip_out, "angle", start),
        ]  # fmt: skip
    return found


def _on_circle(middle: Point, radius: float, degrees: float) -> Point:
    a = radians(degrees - 90.0)
    return (middle[0] + radius * cos(a), middle[1] + radius * sin(a))


def ring_sector(middle: Point, outer: float, inner: float, start: float, arc: float) -> str:
    """Path of a ring sector; 0° is at the top, clockwise [degrees]."""
    end = start + min(arc, 359.9)
    large = 1 if end - start > 180 else 0

    def at(r: float, angle: float) -> str:
        px, py = _on_circle(middle, r, angle)
        return f"{px:.1f} {py:.1f}"

    return (
        f"M {at(outer, start)} A {outer:.1f} {outer:.1f} 0 {large} 1 {at(outer, end)} "
        f"L {at(inner, end)} A {inner:.1f} {inner:.1f} 0 {large} 0 {at(inner, start)} Z"
    )
