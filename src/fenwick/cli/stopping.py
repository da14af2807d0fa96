"""Ending politely, whoever asks: Ctrl-C, a service manager, a script that was started in the background."""

from __future__ import annotations

import signal
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from types import FrameType

STOPPING = (signal.SIGINT, signal.SIGTERM)


@contextmanager
def until_stopped() -> Iterator[None]:
    """What is done in here ends at either signal, without a word of complaint.

    A shell starts what it puts in the background with SIGINT ignored, and Python then installs no handler for it: both
    are installed here, whatever was handed down.
    """
    before = {wanted: signal.signal(wanted, _interrupt) for wanted in STOPPING}
    try:
        with suppress(KeyboardInterrupt):
            yield
    finally:
        for wanted, handler in before.items():
            signal.signal(wanted, handler)


def _interrupt(number: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt
