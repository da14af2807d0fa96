"""Work that takes longer than a page should: done in a thread, watched, stopped, and forgotten after a while.

Two pieces of work go on at once and the others wait; each browser has one; one that no page asks for is stopped.
"""

from __future__ import annotations

import secrets
import threading
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any

MOST_JOBS = 12
AT_ONCE = 2
#: from a function that says when to stop, to what the work yields as it goes
Work = Callable[[Callable[[], bool]], Iterator[Any]]
FORGET_AFTER = 3600.0  #: [s]
GONE_AFTER = 20.0  #: without a page that asks how far it is [s]
LOOK_AGAIN = 0.1  #: while it waits for its turn [s]


@dataclass
class BackgroundJob:
    """One piece of work; `state` is what it yielded last."""

    id: str
    owner: Any  #: what the page needs to show its outcome
    browser: str = ""  #: that asked for it
    state: Any = None
    error: str = ""
    waiting: bool = True  #: for its turn
    over: bool = False
    stopping: threading.Event = field(default_factory=threading.Event)
    since: float = field(default_factory=time.monotonic)
    asked: float = field(default_factory=time.monotonic)  #: when a page last asked how far it is

    def run(self, work: Work, turns: threading.Semaphore) -> None:
        """Do the work when its turn has come; it is told when to stop."""
        try:
            while not turns.acquire(timeout=LOOK_AGAIN):
                if self.stops():
                    return
            self.waiting = False
            try:
                for state in work(self.stops):
                    self.state = state
            finally:
                turns.release()
        except Exception as error:  # the page says it; a thread has nobody else to tell
            self.error = str(error) or type(error).__name__
        finally:
            self.over = True

    def stops(self) -> bool:
        """Whether it is to stop: it was told to, or nobody looks at it any more."""
        return self.stopping.is_set() or time.monotonic() - self.asked > GONE_AFTER


class Jobs:
    """The jobs of one server, the oldest forgotten first."""

    def __init__(self) -> None:
        self._jobs: dict[str, BackgroundJob] = {}
        self._lock = threading.Lock()
        self._turns = threading.Semaphore(AT_ONCE)

    def start(self, owner: Any, work: Work, browser: str = "") -> BackgroundJob:
        """Begin some work; what the same browser had begun before is stopped."""
        job = BackgroundJob(secrets.token_urlsafe(9), owner, browser)
        with self._lock:
            now = time.monotonic()
            old = [key for key, one in self._jobs.items() if now - one.since > FORGET_AFTER]
            for key in [*old, *list(self._jobs)[: max(0, len(self._jobs) - len(old) - MOST_JOBS + 1)]]:
                gone = self._jobs.pop(key, None)
                if gone is not None:
                    gone.stopping.set()
            for one in self._jobs.values():
                if browser and one.browser == browser:
                    one.stopping.set()
            self._jobs[job.id] = job
        threading.Thread(target=job.run, args=(work, self._turns), daemon=True).start()
        return job

    def get(self, name: str) -> BackgroundJob | None:
        """A job by its id, for a page that asks for it; None when it was forgotten."""
        with self._lock:
            found = self._jobs.get(name)
            if found is not None:
                found.asked = time.monotonic()
            return found
