"""The command line."""

from fenwick.cli import device
from fenwick.cli.commands import main

__all__ = ["device", "main"]
