"""Which tools a build takes, and which of them are not there."""

from __future__ import annotations

from collections.abc import Iterable

from fenwick.core.making.cutters import Workshop
from fenwick.core.making.steps import WorkStep

#: what serves as a tool that a step names, in kinds of cutting tools; nothing: everybody has it
SERVES: dict[str, tuple[str, ...]] = {
    "router": ("router",),
    "trammel": ("router", "trammel", "jigsaw", "band-saw"),
    "hole-saw": ("hole-saw", "jigsaw"),
    "jigsaw": ("jigsaw", "band-saw"),
    "band-saw": ("band-saw", "jigsaw"),
    "saw": ("jigsaw", "band-saw"),
    "snips": ("shears", "jigsaw"),
    "drill": ("drill",),
    "file": (),
    "clamps": (),
    "rivets": (),
}


def tools_of(steps: Iterable[WorkStep]) -> tuple[str, ...]:
    """Every tool that the steps name, each once."""
    return tuple(dict.fromkeys(tool for step in steps for tool in step.tools))


def missing_tools(steps: Iterable[WorkStep], shop: Workshop) -> tuple[str, ...]:
    """Those that nothing at hand serves as; none where the shop has not said what it has."""
    if not shop.known:
        return ()
    have = {*shop.saws, *(("hole-saw",) if shop.hole_saws else ())}
    return tuple(tool for tool in tools_of(steps) if SERVES[tool] and not have.intersection(SERVES[tool]))
