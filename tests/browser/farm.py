"""Serves a fresh demo shop for each test from one process that has seen every page: a fork instead of a start.

Reads a folder a line; forks a child that serves a copy of the demo shop there and says its address, as `fenwick demo`
does. An empty line ends that child.
"""

from __future__ import annotations

import os
import shutil
import signal
import sys
import tempfile
from pathlib import Path

from fenwick.cli.server import Serving, run
from fenwick.data.demo import seed_demo
from fenwick.data.home import Home
from fenwick.data.opening import open_database
from fenwick.web import create_app


def seed(folder: Path) -> Path:
    """The demo shop, its first page looked at: what is imported, compiled and solved then no child has to."""
    path = folder / "shop.db"
    shop = seed_demo(path)
    create_app(shop, "for tests only").test_client().get("/", follow_redirects=True)
    shop.close()
    return path


def serve(seeded: Path, folder: Path) -> None:
    """Serve a copy, until the parent ends it."""
    shutil.copytree(seeded.parent, folder)
    run(open_database(folder / seeded.name), Home(folder), Serving())


def main() -> None:
    """One child at a time."""
    with tempfile.TemporaryDirectory() as kept:
        answer(seed(Path(kept)))


def answer(seeded: Path) -> None:
    """Each line that is read, until there are no more."""
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
            serve(seeded, Path(line.strip()))
            os._exit(0)
    if child:
        os.kill(child, signal.SIGKILL)


if __name__ == "__main__":
    main()
