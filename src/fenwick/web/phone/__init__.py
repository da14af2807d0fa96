"""Measuring with a telephone."""

from fenwick.web.phone import inside
from fenwick.web.phone.routes import bp

bp.register_blueprint(inside.bp)

__all__ = ["bp"]
