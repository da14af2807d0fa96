"""The Line: drawn to scale, judged, and changed part by part."""

from fenwick.web.line import (  # their routes join the blueprint
    compare,
    drawer,
    joints,
    parts,
    ports,
    vacuum,
    variants,
    way,
)
from fenwick.web.line.routes import bp

__all__ = ["bp", "compare", "drawer", "joints", "parts", "ports", "vacuum", "variants", "way"]
