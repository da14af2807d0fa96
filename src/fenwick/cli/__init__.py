"""The command line."""

from fenwick.cli import backup, build, device, door, explain, improve, serve, ways
from fenwick.cli.commands import main

__all__ = ["backup", "build", "device", "door", "explain", "improve", "main", "serve", "ways"]
