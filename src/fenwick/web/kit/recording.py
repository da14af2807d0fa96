"""Recording a monitor: what comes from the device goes into its log on disk, twice a second.

What is not on disk yet stays in memory until it is: a full disk or another who writes delays rows and loses none.
"""

from __future__ import annotations

import threading
import time
from contextlib import suppress
from dataclasses import dataclass, field

from flask import Flask, current_app

from fenwick.data import Database, ShopDatabaseError
from fenwick.data.air_logs import add_rows
from fenwick.devices.reader import LivePoint, Reader
from fenwick.web.kit.database import shop

EVERY = 0.5  #: between two writes [s]


@dataclass
class Recording:
    """One log being filled."""

    shop: Database
    log_id: int
    reader: Reader
    begun: float | None = None  #: the device's time of its first row [s]
    rows: int = 0  #: on disk
    trouble: str = ""  #: why what waits is not on disk; empty: nothing is in the way
    _waiting: list[tuple[float, float]] = field(default_factory=list)
    _bad: int = 0
    _tried: float = 0.0
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def take(self, points: list[LivePoint], bad: int) -> None:
        """What the device has just sent."""
        with self._lock:
            if self.begun is None and points:
                self.begun = points[0].time
            self._waiting += [(point.time - (self.begun or 0.0), point.value) for point in points]
            self._bad += bad
            if time.monotonic() - self._tried >= EVERY:
                self._write()

    def end(self) -> None:
        """Stop, and write what is left.

        Raises
        ------
        ShopDatabaseError
            When it cannot be; the recording goes on then.
        """
        self.reader.drop_sink(self.take)
        with self._lock:
            self._write()
            if self.trouble:
                self.reader.add_sink(self.take)
                raise ShopDatabaseError(self.trouble)

    @property
    def now(self) -> float:
        """Time of the last row [s]."""
        points = self.reader.since(max(self.reader.health.read - 1, 0))
        return points[-1].time - (self.begun or 0.0) if points and self.begun is not None else 0.0

    def _write(self) -> None:
        self._tried = time.monotonic()
        rows, bad = tuple(self._waiting), self._bad
        if not rows and not bad:
            return
        try:
            with self.shop.session(to_write=True) as session:
                add_rows(session, self.log_id, rows, bad)
        except ShopDatabaseError as error:  # the next try takes them along
            self.trouble = str(error)
        else:
            del self._waiting[: len(rows)]
            self._bad, self.trouble = 0, ""
            self.rows += len(rows)


def recordings() -> dict[int, Recording]:
    """Every log being filled, by its id."""
    found: dict[int, Recording] = current_app.extensions["fenwick-recordings"]
    return found


def record(log_id: int, reader: Reader) -> Recording:
    """Begin to fill a log."""
    recording = Recording(shop(), log_id, reader)
    recordings()[log_id] = recording
    reader.add_sink(recording.take)
    return recording


def end_recordings(app: Flask) -> None:
    """Write what is left of every recording: the server stops."""
    found: dict[int, Recording] = app.extensions["fenwick-recordings"]
    for one in list(found.values()):
        with suppress(ShopDatabaseError):  # nobody is left to hear of it
            one.end()
    found.clear()
