"""The dust on its way through the line, size by size: what each stage holds, and what arrives at the vacuum."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.system.capture import Capture
from fenwick.core.system.caught import Caught, caught_together
from fenwick.core.system.line import Line
from fenwick.core.system.separation import Separation
from fenwick.core.system.vacuum_path import passes_before_stages


@dataclass(frozen=True)
class Stream:
    """Shares of all dust made, size by size [-], each of shape (60, n)."""

    together: Caught  #: at the ports, of each size
    held: Array  #: in the bins of the separators
    wetted: Array  #: under water
    inline: Array  #: by in-line filters
    past: Array  #: all of them: what the vacuum gets


def stream_through(line: Line, captures: tuple[Capture, ...], separations: tuple[Separation, ...]) -> Stream | None:
    """Follow the dust from the open ports to the vacuum; None when the capture there is not known."""
    together = caught_together(line, captures)
    if line.dust is None or together is None:
        return None
    return through_stages(line, separations, line.dust.weights, together)


def through_stages(line: Line, separations: tuple[Separation, ...], made: Array, together: Caught) -> Stream:
    """The same for dust of which the ports catch what is given."""
    past = made * together.caught
    nothing = np.zeros_like(past)
    held, wetted, inline = nothing, nothing, made * together.inline
    *before, last = passes_before_stages(line)
    for stage, passes in zip(separations, before, strict=True):
        inline, past = inline + past * (1.0 - passes), past * passes
        if stage.grades is not None:
            kept = past * stage.grades.kept
            past = past - kept
            held, wetted = (held, wetted + kept) if stage.wet else (held + kept, wetted)
    return Stream(together, held, wetted, inline + past * (1.0 - last), past * last)
