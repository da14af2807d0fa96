"""The Line: drawn to scale, judged, and changed part by part."""

from fenwick.web.line import drawer, joints, parts, ports, vacuum, variants, way  # their routes join the blueprint
from fenwick.web.line.routes import bp

__all__ = ["bp", "drawer", "joints", "parts", "ports", "vacuum", "variants", "way"]
