"""Workings: how a figure comes about, as a sheet to read and to print."""

from fenwick.web.workings.routes import bp

__all__ = ["bp"]
