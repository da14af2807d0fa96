"""The finder: limits and wishes, a search that can be watched and stopped, a trade-off plot to pick from."""

from fenwick.web.separator.finder.routes import bp

__all__ = ["bp"]
