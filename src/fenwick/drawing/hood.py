"""A section through a hood: the opening, where the dust is made, and how far the air still moves fast enough."""

from __future__ import annotations

from math import sqrt

from markupsafe import Markup

from fenwick.core.arrays import one_value
from fenwick.core.components.hood import Enclosure, FloorNozzle, Hood, OpenHood, SlotHood
from fenwick.core.dust.capture import Capture
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

WIDTH, HEIGHT = 640.0, 250.0
MOUTH = 400.0  #: where the opening's face stands [px]
AXIS = 112.0  #: height of its middle [px]
FLOOR = 222.0  #: of the table or floor [px]
ROOM_LEFT, ROOM_UP = 270.0, 92.0  #: to draw distance and half a bore in [px]
MOST_SCALE = 2600.0  #: [px/m]


def render_hood(hood: Hood, port: Capture, bore: float, flow: float, flanged: bool, voice: Voice) -> Markup:
    """The section as SVG, to scale but for boxes, whose openings are.

    Parameters
    ----------
    hood, port : and what it catches; the first variant
    bore : of the port [m]
    flow : through the hood [m^3/s]
    flanged : whether the port has a flange
    voice : words and units
    """
    if isinstance(hood, Enclosure):
        return _box(port, bore, voice)
    if isinstance(hood, FloorNozzle):
        return _nozzle(hood, port, bore, voice)
    assert isinstance(hood, OpenHood | SlotHood)
    return _opening(hood, port, bore, flow, flanged, voice)


def _opening(hood: OpenHood | SlotHood, port: Capture, bore: float, flow: float, flanged: bool, voice: Voice) -> Markup:
    distance = float(hood.distance)
    wide = float(hood.width) if isinstance(hood, SlotHood) else bore
    reach = one_value(hood.reach(flow, bore, port.needed, flanged))
    scale = min(MOST_SCALE, ROOM_LEFT / max(distance, reach), ROOM_UP / max(wide / 2.0, reach))
    dust_x = MOUTH - distance * scale
    near = distance * scale
    speed, needed = voice.figure(float(port.velocity[0]), "speed"), voice.figure(port.needed, "speed")
    casing = isinstance(hood, OpenHood) and hood.built_in
    what = "slot" if isinstance(hood, SlotHood) else "port"
    size = f"{what} {voice.figure(wide, 'bore')}"
    description = (
        f"Section: the dust is made {voice.figure(distance, 'bore')} from a {size}; the air moves at {speed} there. "
        + (f"Out to {voice.figure(reach, 'bore')} it moves at {needed} or faster." if reach else "")
    )
    return render(
        "hood.svg.jinja",
        form="opening",
        width=WIDTH,
        height=HEIGHT,
        mouth=MOUTH,
        axis=AXIS,
        floor=FLOOR,
        half=max(wide * scale / 2.0, 2.0),
        pipe=max(min(bore * scale / 2.0, ROOM_UP), 2.0),
        slot=isinstance(hood, SlotHood),
        flange=flanged or (isinstance(hood, SlotHood) and hood.flanged),
        casing=casing,
        dust_x=dust_x,
        reach=reach * scale,
        caught=reach >= distance,
        plate=hood.rebound,
        fan=hood.extra_fan is not None,
        labels={
            "distance": voice.figure(distance, "bore"),
            "size": size,
            "speed": speed,
            "reach": f"{needed} out to {voice.figure(reach, 'bore')}" if reach else f"{needed} nowhere",
        },
        roomy=near > 70.0,
        description=description,
    )


def _box(port: Capture, bore: float, voice: Voice) -> Markup:
    ways = list(port.ways)
    sides = [sqrt(float(way.area[0])) for way in ways]
    scale = min(MOST_SCALE, 150.0 / max(sides), 140.0 / bore)
    rows = [
        {
            "name": way.name,
            "half": side * scale / 2.0,
            "face": voice.figure(float(way.face[0]), "speed"),
            "area": voice.figure(float(way.area[0]), "opening"),
            "ok": float(way.face[0]) >= port.needed,
        }
        for way, side in sorted(zip(ways, sides, strict=True), key=lambda pair: -pair[1])
    ]
    said = "; ".join(f"{row['name']}: {row['area']} open, air at {row['face']}" for row in rows)
    return render(
        "hood.svg.jinja",
        form="box",
        width=WIDTH,
        height=HEIGHT,
        mouth=MOUTH,
        axis=AXIS,
        floor=FLOOR,
        pipe=bore * scale / 2.0,
        rows=rows,
        plate=False,
        fan=False,
        description=f"Section of a box around the tool, its openings as squares to scale. {said}.",
    )


def _nozzle(hood: FloorNozzle, port: Capture, bore: float, voice: Voice) -> Markup:
    gap = float(hood.gap)
    scale = min(MOST_SCALE, 120.0 / bore, 40.0 / gap)
    return render(
        "hood.svg.jinja",
        form="nozzle",
        width=WIDTH,
        height=HEIGHT,
        mouth=MOUTH,
        axis=AXIS,
        floor=FLOOR,
        pipe=bore * scale / 2.0,
        gap=max(gap * scale, 2.0),
        plate=False,
        fan=False,
        labels={
            "gap": voice.figure(gap, "bore"),
            "width": voice.figure(float(hood.width), "bore"),
            "speed": voice.figure(float(port.velocity[0]), "speed"),
        },
        description=f"Section of a nozzle {voice.figure(gap, 'bore')} over the floor.",
    )
