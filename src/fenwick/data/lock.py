"""One server for each shop: who serves it says so beside it."""

from __future__ import annotations

import json
import os
from collections.abc import Iterator
from contextlib import contextmanager, suppress

from filelock import FileLock, Timeout

from fenwick.data.database import ShopDatabaseError
from fenwick.data.home import OWNERS_FILE, Home
from fenwick.data.whole_file import write_whole


class ServedError(ShopDatabaseError):
    """Somebody else serves the shop."""


@contextmanager
def alone(home: Home) -> Iterator[None]:
    """The folder of a shop, with nobody else serving it meanwhile.

    Raises
    ------
    ServedError
        Says who does.
    ShopDatabaseError
        When the folder cannot be written.
    """
    lock = FileLock(home.lock, timeout=0, mode=OWNERS_FILE)
    try:
        home.make()
        lock.acquire()
    except Timeout as error:
        raise ServedError(f"Fenwick serves this shop already{_who(home)}. Use that one, or stop it first.") from error
    except OSError as error:
        raise ShopDatabaseError(f"The folder {home.folder} cannot be written: {error.strerror}.") from error
    try:
        yield
    finally:
        with suppress(OSError):
            home.card.unlink(missing_ok=True)
        lock.release()


def say_who(home: Home, address: str) -> None:
    """Tell whoever comes next where the shop is served, and by which process."""
    with suppress(OSError):  # the lock holds without it
        write_whole(home.card, json.dumps({"address": address, "process": os.getpid()}))


def _who(home: Home) -> str:
    try:
        told = json.loads(home.card.read_text())
        return f" at {told['address']} (process {told['process']})"
    except (OSError, ValueError, KeyError, TypeError):
        return ""
