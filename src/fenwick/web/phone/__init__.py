"""Measuring with a telephone."""

from fenwick.web.phone.routes import bp

__all__ = ["bp"]
