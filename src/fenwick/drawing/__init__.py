"""Pictures of a line as SVG: pure functions from a rig and its assessment to a scene, and templates that draw it."""

from fenwick.drawing.curve import render_curve
from fenwick.drawing.fan_chart import FanChart, RunningPoint, render_fan_chart
from fenwick.drawing.fate import render_fate
from fenwick.drawing.ladder import render_ladder
from fenwick.drawing.plan import render_plan
from fenwick.drawing.render import render_line
from fenwick.drawing.scene import NARROW, WIDE, Scene, lay_out_scene

__all__ = [
    "NARROW",
    "WIDE",
    "FanChart",
    "RunningPoint",
    "Scene",
    "lay_out_scene",
    "render_curve",
    "render_fan_chart",
    "render_fate",
    "render_ladder",
    "render_line",
    "render_plan",
]
