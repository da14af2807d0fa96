"""The command line."""

from fenwick.cli import device, explain
from fenwick.cli.commands import main

__all__ = ["device", "explain", "main"]
