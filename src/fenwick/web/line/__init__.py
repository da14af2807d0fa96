"""The Line: drawn to scale, judged, and changed part by part."""

from fenwick.web.line import joints, parts, vacuum, variants  # their routes join the blueprint
from fenwick.web.line.routes import bp

__all__ = ["bp", "joints", "parts", "vacuum", "variants"]
