"""The command line."""

from fenwick.cli import backup, device, door, explain, serve
from fenwick.cli.commands import main

__all__ = ["backup", "device", "door", "explain", "main", "serve"]
