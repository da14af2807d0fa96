"""Tests: planned, run, judged and compared."""
