"""Which unit system this browser uses."""

from __future__ import annotations

from flask import request

from fenwick.units import METRIC, SYSTEMS

COOKIE = "units"


def unit_system() -> str:
    """The system in force for this request."""
    chosen = request.cookies.get(COOKIE, METRIC)
    return chosen if chosen in SYSTEMS else METRIC
