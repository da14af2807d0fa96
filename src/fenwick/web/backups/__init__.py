"""Copies of the shop: made, looked at, put back."""

from fenwick.web.backups.routes import bp

__all__ = ["bp"]
