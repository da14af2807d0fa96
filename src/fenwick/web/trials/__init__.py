"""Tests: planned, run step by step, judged and compared."""

from fenwick.web.trials import run_routes
from fenwick.web.trials.routes import bp

__all__ = ["bp", "run_routes"]
