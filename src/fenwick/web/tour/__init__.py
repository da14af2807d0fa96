"""The tour of the live pages."""

from fenwick.web.tour.routes import bp

__all__ = ["bp"]
