"""The vacuum's curve: suction and air power against flow, with the point the line runs at."""

from __future__ import annotations

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import one_value
from fenwick.core.components.vacuum import air_power_in_room
from fenwick.core.judging.assess import Assessment
from fenwick.core.line.line import Line
from fenwick.drawing.axes import PlotFrame
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

EDGE = 6.0  #: round the plot [px]
FRAME = PlotFrame(150.0, 92.0, EDGE, EDGE, EDGE, EDGE)
STEPS = 41


def render_curve(line: Line, found: Assessment, voice: Voice, name: str) -> Markup:
    """Suction (drawn), air power (dashed, to its own height) and the operating point, in the room's air."""
    curve, density = line.vacuum.curve, float(found.point.room_density[0])
    most_flow, sealed = one_value(curve.open_flow), float(found.point.sealed_suction[0])
    flow = np.linspace(0.0, most_flow, STEPS)
    suction = np.asarray(curve.suction(flow, density))
    power = flow * suction
    at_flow = float(found.point.mass_flow[0]) / density
    at_suction = float(found.point.suction[0])
    x, y = FRAME.across(0.0, most_flow), FRAME.up(0.0, 1.0)
    figures = f"{voice.figure(at_flow, 'flow')} at {voice.figure(at_suction, 'suction')}"
    return render(
        "curve.svg.jinja",
        name=name,
        width=FRAME.width,
        height=FRAME.height,
        edge=EDGE,
        suction=[(x(q), y(p / sealed)) for q, p in zip(flow.tolist(), suction.tolist(), strict=True)],
        power=[(x(q), y(w / power.max())) for q, w in zip(flow.tolist(), power.tolist(), strict=True)],
        point=(x(at_flow), y(at_suction / sealed)),
        figures=figures,
        description=(
            f"Fan curve from {voice.figure(sealed, 'suction')} with everything shut to "
            f"{voice.figure(most_flow, 'flow')} with nothing in the way; this line runs at {figures}. "
            f"Air power peaks at {voice.figure(one_value(air_power_in_room(curve, density)), 'power')}."
        ),
    )
