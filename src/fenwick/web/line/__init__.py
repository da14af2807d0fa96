"""The Line: drawn to scale, judged, and changed part by part."""

from fenwick.web.line.routes import bp

__all__ = ["bp"]
