"""Tests: planned, run step by step, judged and compared."""

from fenwick.web.trial import run_routes
from fenwick.web.trial.routes import bp

__all__ = ["bp", "run_routes"]
