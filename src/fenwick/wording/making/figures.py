"""The figures that a step of the work is done by."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fenwick.core.making.cutters import CutSetting
from fenwick.core.making.parts import MadePart
from fenwick.core.making.steps import WorkStep
from fenwick.wording.making.facts import cut_words
from fenwick.wording.making.names import part_name
from fenwick.wording.making.progress import dim_name
from fenwick.wording.say import Voice

#: edges that a step cuts, by how its name begins; the first that fits
EDGES_OF: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("groove-", ("groove-out", "groove-in")),
    ("edge-", ("edge",)),
    ("hole-", ("centre_hole",)),
    ("bore-deck", ("pipe_hole",)),
    ("bore-lid", ("centre_hole", "rim_hole", "outlet_hole")),
    ("cut-slot", ("slot-out", "slot-in")),
    ("cut-cone", ()),
    ("cut-r", ("edge", "mouth")),
    ("cut-st", ("edge", "centre_hole", "rim_hole")),
    ("cut-sp", ("edge", "mouth")),
)
#: measures that a step is done by
DIMS_OF: dict[str, tuple[str, ...]] = {
    "cut-wall": ("length_m", "height_m"),
    "cut-barrel": ("length_m", "height_m"),
    "cut-cone": ("outer_radius_m", "inner_radius_m", "overlap_m"),
    "wrap-dry": ("wrap_m", "inner_d_m"),
    "shape-block": ("saddle_radius_m", "length_m", "height_m"),
    "bore-block": ("hole_d_m", "hole_axis_m"),
    "mark-cut-out": ("cut_out_m", "cut_out_height_m"),
    "bore-slot-ends": ("slot_width_m", "slot_radius_m"),
    "measure-bin": ("rim_d_m",),
    "hang-disc": ("depth_m", "gap_m"),
    "cut-window": ("window_width_m", "window_height_m"),
    "drill-seat": ("hole_d_m",),
    "cut-panels": ("width_m", "height_m"),
    "dry-assembly": (),
}


def step_figures(
    step: WorkStep, parts: Sequence[MadePart], cuts: Mapping[str, Sequence[CutSetting]], voice: Voice
) -> list[str]:
    """Settings and measures of a step, a line for each edge or part."""
    name = step.id.removeprefix("stand-")
    edges = next((found for begins, found in EDGES_OF if name.startswith(begins)), ())
    lines = []
    for part in (one for one in parts if one.id in step.parts):
        for cut in (one for one in cuts.get(part.id, ()) if one.edge in edges):
            row = cut_words(cut, voice)
            said = ", ".join(one for one in (row.tool, row.setting, row.remark) if one)
            lines.append(f"{part_name(part.id)}, {row.edge}: {said}.")
        dims = [dim for dim in DIMS_OF.get(name, ()) if dim in part.dims]
        if dims:
            said = ", ".join(f"{dim_name(dim)} {voice.cut(part.dims[dim])}" for dim in dims)
            lines.append(f"{part_name(part.id)}: {said}.")
    return lines
