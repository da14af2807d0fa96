"""Traced grains as the canvas wants them: places on the drawing, colour and words by where each ends."""

from __future__ import annotations

from typing import Any

import numpy as np

from fenwick.core.dust.traces import AFLOAT, BACK, BIN, KEEP_EVERY, PAST, STEP, Trace
from fenwick.drawing.section import SECTION, Frame
from fenwick.wording.say import Voice

END_WORDS = {
    BIN: "falls into the bin",
    BACK: "comes back up from the bin",
    PAST: "goes on to the vacuum",
    AFLOAT: "still turning at the cut size",
}


def motion_of(followed: tuple[Trace, ...], frame: Frame, voice: Voice) -> dict[str, Any]:
    """Every way (radius, angle, depth), how section and plan show it [px], and what the canvas says beside it."""
    ways = [
        {
            "size": voice.figure(trace.size, "grain"),
            "end": trace.end,
            "places": np.round(np.stack([trace.radius, trace.angle, trace.depth], axis=1), 4).tolist(),
        }
        for trace in followed
    ]
    seconds = STEP * KEEP_EVERY
    return {
        "width": SECTION.width,
        "height": SECTION.height,
        "seconds": seconds,
        "side": {"x": frame.middle, "y": frame.roof, "scale": frame.scale},
        "plan": {"x": frame.plan[0], "y": frame.plan[1], "scale": frame.plan_scale},
        "ends": {end: words for end, words in END_WORDS.items() if any(way["end"] == end for way in ways)},
        "ways": ways,
    }
