"""The command line."""

from fenwick.cli import (
    backup,
    bench,
    build,
    compare,
    device,
    door,
    explain,
    first,
    improve,
    lessons,
    make_or_buy,
    phone,
    propose,
    serve,
    whole,
)
from fenwick.cli.commands import main

__all__ = [
    "backup",
    "bench",
    "build",
    "compare",
    "device",
    "door",
    "explain",
    "first",
    "improve",
    "lessons",
    "main",
    "make_or_buy",
    "phone",
    "propose",
    "serve",
    "whole",
]
