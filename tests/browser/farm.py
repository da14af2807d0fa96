"""Serves a fresh demo shop for each test from one process that has everything imported: a fork instead of a start.

Reads a folder a line; forks a child that seeds and serves a shop there and says its address, as `fenwick demo` does.
An empty line ends that child.
"""

from __future__ import annotations

import os
import signal
import sys
from pathlib import Path

from fenwick.cli.serve import run
from fenwick.data.demo import seed_demo
from fenwick.web import create_app


def serve(folder: Path) -> None:
    """Seed and serve, until the parent ends it."""
    folder.mkdir(parents=True, exist_ok=True)
    run(seed_demo(folder / "shop.db"), folder, "127.0.0.1", 0)


def main() -> None:
    """One child at a time."""
    assert create_app is not None  # imported here, so that no child has to
    child = 0
    for line in sys.stdin:
        if child:
            os.kill(child, signal.SIGKILL)
            os.waitpid(child, 0)
            child = 0
        if not line.strip():
            continue
        child = os.fork()
        if child == 0:
            serve(Path(line.strip()))
            os._exit(0)
    if child:
        os.kill(child, signal.SIGKILL)


if __name__ == "__main__":
    main()
