"""Start: five questions to a first verdict."""

from fenwick.web.start.routes import bp

__all__ = ["bp"]
