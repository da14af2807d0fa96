"""The Separator: chosen, drawn in section and plan, judged, and changed by its dimensions."""

from fenwick.web.separator import ready_made  # its routes join the blueprint
from fenwick.web.separator.routes import bp

__all__ = ["bp", "ready_made"]
