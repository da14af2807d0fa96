"""The lid under a bought separator: the hole for the dust, the bolts, the gasket; to scale."""

from __future__ import annotations

from math import cos, pi, sin

from markupsafe import Markup

from fenwick.drawing.render import render
from fenwick.wording.say import Voice

SIZE, EDGE = 180.0, 14.0
GASKET_EDGE = 0.012  #: of the gasket beyond the bolt holes [m]


def render_lid(hole: float, circle: float, bolts: int, bolt: float, voice: Voice) -> tuple[Markup, str]:
    """Hole, bolt circle and gasket as SVG, and the same in words; sizes in [m]."""
    outside = circle + bolt + 2.0 * GASKET_EDGE
    scale = (SIZE - 2.0 * EDGE) / outside
    middle = SIZE / 2.0
    angles = [2 * pi * i / bolts - pi / 2 for i in range(bolts)]
    places = [(middle + circle / 2 * scale * cos(a), middle + circle / 2 * scale * sin(a)) for a in angles]
    inside = voice.figure(hole, "bore")
    words = (
        f"Hole {inside}; {bolts} holes of {voice.figure(bolt, 'bore')} on a circle of {voice.figure(circle, 'bore')}; "
        f"gasket {inside} inside, {voice.figure(outside, 'bore')} outside."
    )
    picture = render(
        "lid.svg.jinja", size=SIZE, middle=middle, outer=outside / 2 * scale, hole=hole / 2 * scale,
        circle=circle / 2 * scale, bolt=max(bolt / 2 * scale, 1.5), places=places, description=words,
    )  # fmt: skip
    return picture, words
