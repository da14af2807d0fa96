"""Devices: added, read live, and their figures taken over."""

from fenwick.web.device.routes import bp

__all__ = ["bp"]
