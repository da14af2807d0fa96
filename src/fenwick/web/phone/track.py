"""The pitch of a motor over a recording, drawn."""

from __future__ import annotations

from markupsafe import Markup

from fenwick.drawing.pitch_chart import render_pitch
from fenwick.phone.reading import PhoneReading


def track_drawing(found: PhoneReading) -> Markup:
    """The track of a reading as a chart."""
    return render_pitch(found.seen["track_s"], found.seen["track_hz"])
