"""The command line."""

from fenwick.cli.commands import main

__all__ = ["main"]
