"""Signing in where a shop is served to a network."""

from fenwick.web.door.routes import bp

__all__ = ["bp"]
