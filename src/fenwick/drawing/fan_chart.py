"""The vacuum's curve as a chart: suction and air power against flow, what was measured, and where each tool runs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.vacuum import Curve, air_power_in_room
from fenwick.core.formulas.fan import asked_suction
from fenwick.drawing.axes import PlotFrame, ToPage, axis_ticks
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(800.0, 330.0, 54.0, 24.0, 26.0, 40.0)
STEPS = 121
PEAK_AT = 0.86  #: of the plot's height, where the fan's best power stands [-]
APART = 19.0  #: markers nearer than this step aside [px]


@dataclass(frozen=True)
class RunningPoint:
    """Where the line runs with one tool open."""

    name: str
    flow: float  #: at the vacuum, room density [m^3/s]
    suction: float  #: [Pa]
    here: bool  #: the tool looked at


@dataclass(frozen=True)
class Mark:
    """A numbered marker."""

    number: int
    x: float
    y: float
    lift: float  #: how far it steps off the curve [px]
    here: bool
    title: str


@dataclass(frozen=True)
class FanChart:
    """What the chart shows, in SI."""

    curve: Curve
    density: float  #: of the room's air [kg/m^3]
    points: Sequence[tuple[float, float]]  #: measured (flow [m^3/s], suction in this room [Pa])
    running: Sequence[RunningPoint]
    as_new: Curve | None = None  #: the curve before the motor wore, where that differs


def render_fan_chart(chart: FanChart, voice: Voice, name: str) -> Markup:
    """The chart as SVG."""
    ahead = chart.as_new or chart.curve
    most_flow, sealed = one_value(ahead.open_flow), one_value(ahead.sealed_in_room(chart.density))
    most_flow = max([most_flow, *(flow for flow, _ in chart.points)])
    sealed = max([sealed, *(suction for _, suction in chart.points)])
    flow_ticks = axis_ticks(most_flow, "flow", voice.system, 7)
    suction_ticks = axis_ticks(sealed, "suction", voice.system, 5)
    flow = np.linspace(0.0, one_value(chart.curve.open_flow), STEPS)
    suction = np.asarray(chart.curve.suction(flow, chart.density))
    power = flow * suction
    peak = int(np.argmax(power))
    best = voice.figure(one_value(air_power_in_room(chart.curve, chart.density)), "power")

    x, y = FRAME.across(0.0, flow_ticks[-1]), FRAME.up(0.0, suction_ticks[-1])
    w = FRAME.up(0.0, float(power[peak]) / PEAK_AT)

    asks = next((point for point in chart.running if point.here), None)
    return render(
        "fan_chart.svg.jinja",
        name=name,
        **FRAME.places,
        flow_ticks=[(x(tick), voice.figure(tick, "flow", unit=False)) for tick in flow_ticks],
        suction_ticks=[(y(tick), voice.figure(tick, "suction", unit=False)) for tick in suction_ticks],
        flow_unit=voice.figure(0.0, "flow").split(" ", 1)[1],
        suction_unit=voice.figure(0.0, "suction").split(" ", 1)[1],
        fan=_line(flow, suction, x, y),
        power=_line(flow, power, x, w),
        peak=(x(float(flow[peak])), w(float(power[peak])), best),
        as_new=_as_new(chart, x, y),
        asks=_asks(asks, flow_ticks[-1], suction_ticks[-1], x, y),
        points=[(x(q), y(p), f"{voice.figure(q, 'flow')} at {voice.figure(p, 'suction')}") for q, p in chart.points],
        marks=_marks(chart.running, x, y, voice),
        description=_description(chart, sealed, best, voice),
    )


def _line(flow: Array, values: Array, x: ToPage, y: ToPage) -> list[tuple[float, float]]:
    return [(x(q), y(v)) for q, v in zip(flow.tolist(), values.tolist(), strict=True)]


def _as_new(chart: FanChart, x: ToPage, y: ToPage) -> list[tuple[float, float]]:
    if chart.as_new is None:
        return []
    flow = np.linspace(0.0, one_value(chart.as_new.open_flow), STEPS)
    return _line(flow, np.asarray(chart.as_new.suction(flow, chart.density)), x, y)


def _asks(
    point: RunningPoint | None, most_flow: float, most_suction: float, x: ToPage, y: ToPage
) -> list[tuple[float, float]]:
    """What the line asks of the fan at other flows."""
    if point is None or point.flow <= 0.0:
        return []
    flow = np.linspace(0.0, most_flow, STEPS)
    suction = asked_suction(flow, point.flow, point.suction)
    inside = suction <= most_suction
    return _line(flow[inside], suction[inside], x, y)


def _marks(running: Sequence[RunningPoint], x: ToPage, y: ToPage, voice: Voice) -> list[Mark]:
    marks: list[Mark] = []
    last, lift = -1e9, 0.0
    for number, point in sorted(enumerate(running, start=1), key=lambda item: item[1].flow):
        at = x(point.flow)
        lift = lift + APART + 2.0 if at - last < APART else 0.0
        last = at
        title = f"{point.name}: {voice.figure(point.flow, 'flow')} at {voice.figure(point.suction, 'suction')}"
        marks.append(Mark(number, at, y(point.suction), lift, point.here, title))
    return marks


def _description(chart: FanChart, sealed: float, best: str, voice: Voice) -> str:
    runs = "; ".join(f"{point.name} {voice.figure(point.flow, 'flow')}" for point in chart.running)
    most = voice.figure(one_value(chart.curve.open_flow), "flow")
    return (
        f"Fan curve from {voice.figure(sealed, 'suction')} sealed to {most} open; air power peaks at "
        f"{best}. Alone at the vacuum: {runs}."
    )
