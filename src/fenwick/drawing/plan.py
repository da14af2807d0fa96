"""The separator from above: the swirl, and where the slot starts from the inlet."""

from __future__ import annotations

from math import cos, radians, sin

from markupsafe import Markup

from fenwick.drawing.render import render
from fenwick.rig.format.separator import ChamberPart

SIZE = 96.0


def render_plan(chamber: ChamberPart, name: str) -> Markup:
    """A plan of chamber, slots, inlet and outlet, to scale within itself."""
    scale = 0.40 * SIZE / (chamber.chamber_d_m / 2)
    middle, radius = SIZE / 2, chamber.chamber_d_m / 2 * scale
    slots = [
        _sector(middle, radius, radius - slot.width_m * scale, slot.start_deg, slot.start_deg + slot.arc_deg)
        for slot in chamber.slots
    ]
    starts = ", ".join(f"{slot.arc_deg:g}° from {slot.start_deg:g}°" for slot in chamber.slots)
    return render(
        "plan.svg.jinja",
        name=name,
        size=SIZE,
        middle=middle,
        radius=radius,
        outlet=chamber.outlet_d_m / 2 * scale,
        inlet=chamber.inlet_bore_m * scale,
        slots=slots,
        description=f"From above: slot of {starts}, counted from the inlet with the swirl.",
    )


def _sector(middle: float, outer: float, inner: float, start: float, end: float) -> str:
    """A ring sector; 0° is where the inlet enters, at the top, and the swirl runs clockwise on the page."""
    end = min(end, start + 359.9)
    large = 1 if end - start > 180 else 0

    def at(r: float, angle: float) -> str:
        a = radians(angle - 90.0)
        return f"{middle + r * cos(a):.1f} {middle + r * sin(a):.1f}"

    return (
        f"M {at(outer, start)} A {outer:.1f} {outer:.1f} 0 {large} 1 {at(outer, end)} "
        f"L {at(inner, end)} A {inner:.1f} {inner:.1f} 0 {large} 0 {at(inner, start)} Z"
    )
