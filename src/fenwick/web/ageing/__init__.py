"""How the line ages: its filters and its bin over working hours, what that costs, and when to clean."""

from fenwick.web.ageing.routes import bp

__all__ = ["bp"]
