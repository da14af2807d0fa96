"""The command line."""

from fenwick.cli import backup, build, compare, device, door, explain, first, improve, make_or_buy, serve, whole
from fenwick.cli.commands import main

__all__ = [
    "backup",
    "build",
    "compare",
    "device",
    "door",
    "explain",
    "first",
    "improve",
    "main",
    "make_or_buy",
    "serve",
    "whole",
]
