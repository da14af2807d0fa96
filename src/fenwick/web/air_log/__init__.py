"""The room's air: particle logs from a file or read live, around the cuts."""

from fenwick.web.air_log.routes import bp

__all__ = ["bp"]
