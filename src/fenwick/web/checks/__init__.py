"""The Checks: every reason not to switch on yet, as a page and as a panel over any place."""

from fenwick.web.checks.routes import bp

__all__ = ["bp"]
