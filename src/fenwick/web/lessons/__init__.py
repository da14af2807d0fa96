"""Lessons: predict, try, see, why."""

from fenwick.web.lessons.routes import bp

__all__ = ["bp"]
