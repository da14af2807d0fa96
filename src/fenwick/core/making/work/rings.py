"""Rings in segments: sawn, lapped, glued up flat, before anything is done with the ring."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadePart
from fenwick.core.making.segments import SEGMENT
from fenwick.core.making.steps import WorkStep, cure_time
from fenwick.core.making.work.common import WOOD

SAW, GLUE = "saw-segments-", "glue-segments-"  #: how the ids of their steps begin


def with_joined_rings(steps: Sequence[WorkStep], parts: Sequence[MadePart], making: Making) -> tuple[WorkStep, ...]:
    """The steps, and before those of each ring in segments the two that make it one."""
    found = tuple(steps)
    first = {"check-print": "scale"} if any(step.id == "check-print" for step in steps) else {}
    for ring in (part for part in parts if "segments" in part.dims):
        pieces = (f"{ring.id}{SEGMENT}",)
        saw = WorkStep(f"{SAW}{ring.id}", pieces, share=0.8, cautions=WOOD, tools=("band-saw",), after=first)
        glue = WorkStep(
            f"{GLUE}{ring.id}", (*pieces, ring.id), share=0.6, cure=cure_time("pva-clamp", making), glue="pva",
            hold="ring-flat", tools=("clamps",), after={saw.id: "segments-first"},
        )  # fmt: skip
        found = (saw, glue, *(_behind(step, glue.id, ring.id) for step in found))
    return found


def _behind(step: WorkStep, glued: str, ring: str) -> WorkStep:
    return replace(step, after={**step.after, glued: "segments-first"}) if ring in step.parts else step
