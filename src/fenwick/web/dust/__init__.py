"""Where the dust goes: one tool or the week's work, its sizes, the jobs, and the air one breathes."""

from fenwick.web.dust.routes import bp

__all__ = ["bp"]
