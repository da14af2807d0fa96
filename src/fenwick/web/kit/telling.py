"""Work that tells how far it is, as a job that a page can watch."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from queue import SimpleQueue
from typing import Any

from fenwick.web.kit.jobs import Work


class StoppedError(Exception):
    """Nobody looks at the work any more."""


@dataclass(frozen=True)
class HowFar:
    """Where such work stands."""

    share: float = 0.0  #: that is done [-]
    outcome: Any = None  #: once it is over
    error: Exception | None = None


def telling(does: Callable[[Callable[[float], None]], Any]) -> Work:
    """Work for a job, from a function that is given one to tell the share that is done.

    Parameters
    ----------
    does : the work; what it gives back is the outcome of the job's last state
    """

    def work(stops: Callable[[], bool]) -> Iterator[HowFar]:
        told: SimpleQueue[HowFar] = SimpleQueue()

        def tell(share: float) -> None:
            if stops():
                raise StoppedError
            told.put(HowFar(share))

        def run() -> None:
            try:
                told.put(HowFar(1.0, outcome=does(tell)))
            except Exception as error:  # the page says it; a thread has nobody else to tell
                told.put(HowFar(error=error))

        threading.Thread(target=run, daemon=True).start()
        while True:
            far = told.get()
            yield far
            if far.outcome is not None or far.error is not None:
                return

    return work
