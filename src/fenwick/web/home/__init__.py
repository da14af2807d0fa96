"""Home: the shop at a glance."""

from fenwick.web.home.routes import bp

__all__ = ["bp"]
