"""The shop: what is owned, and where it stands."""

from fenwick.web.shop.routes import bp

__all__ = ["bp"]
