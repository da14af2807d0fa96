"""Work that takes longer than a page should: done in a thread, watched, stopped, and forgotten after a while."""

from __future__ import annotations

import secrets
import threading
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any

MOST_JOBS = 12
#: from a function that says when to stop, to what the work yields as it goes
Work = Callable[[Callable[[], bool]], Iterator[Any]]
FORGET_AFTER = 3600.0  #: [s]


@dataclass
class BackgroundJob:
    """One piece of work; `state` is what it yielded last."""

    id: str
    owner: Any  #: what the page needs to show its outcome
    state: Any = None
    error: str = ""
    over: bool = False
    stopping: threading.Event = field(default_factory=threading.Event)
    since: float = field(default_factory=time.monotonic)

    def run(self, work: Work) -> None:
        """Do the work; it is told when to stop."""
        try:
            for state in work(self.stopping.is_set):
                self.state = state
        except Exception as error:  # the page says it; a thread has nobody else to tell
            self.error = str(error) or type(error).__name__
        finally:
            self.over = True


class Jobs:
    """The jobs of one server, the oldest forgotten first."""

    def __init__(self) -> None:
        self._jobs: dict[str, BackgroundJob] = {}
        self._lock = threading.Lock()

    def start(self, owner: Any, work: Work) -> BackgroundJob:
        """Begin some work."""
        job = BackgroundJob(secrets.token_urlsafe(9), owner)
        with self._lock:
            now = time.monotonic()
            old = [key for key, one in self._jobs.items() if now - one.since > FORGET_AFTER]
            for key in [*old, *list(self._jobs)[: max(0, len(self._jobs) - len(old) - MOST_JOBS + 1)]]:
                gone = self._jobs.pop(key, None)
                if gone is not None:
                    gone.stopping.set()
            self._jobs[job.id] = job
        threading.Thread(target=job.run, args=(work,), daemon=True).start()
        return job

    def get(self, name: str) -> BackgroundJob | None:
        """A job by its id; None when it was forgotten."""
        with self._lock:
            return self._jobs.get(name)
