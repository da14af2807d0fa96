"""The words of a line as its pages say them."""

from __future__ import annotations

from fenwick.data.lines import LineState
from fenwick.rig.voice import voice_for
from fenwick.wording.say import Voice


def voice_of(state: LineState, system: str) -> Voice:
    """Words and units for a line, with the names of what its shop has besides."""
    owned = {vacuum.id: vacuum.name for vacuum in state.owned.vacuums} if state.owned else {}
    return voice_for(state.rig, system, owned)
