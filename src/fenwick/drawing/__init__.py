"""Pictures of a line as SVG: pure functions from a rig and its assessment to a scene, and templates that draw it."""

from fenwick.drawing.curve import render_curve
from fenwick.drawing.fan_chart import FanChart, RunningPoint, render_fan_chart
from fenwick.drawing.fate import render_fate
from fenwick.drawing.ladder import render_ladder
from fenwick.drawing.plan import render_plan
from fenwick.drawing.render import render_line, render_tree
from fenwick.drawing.scene import NARROW, WIDE, Scene, lay_out_scene
from fenwick.drawing.tree import lay_out_tree
from fenwick.drawing.tree_scene import TreeScene

__all__ = [
    "NARROW",
    "WIDE",
    "FanChart",
    "RunningPoint",
    "Scene",
    "TreeScene",
    "lay_out_scene",
    "lay_out_tree",
    "render_curve",
    "render_fan_chart",
    "render_fate",
    "render_ladder",
    "render_line",
    "render_plan",
    "render_tree",
]
