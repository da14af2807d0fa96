"""Recording a monitor: what comes from the device goes into its log on disk, twice a second, nothing held back."""

from __future__ import annotations

import threading
import time
from dataclasses import dataclass, field

from flask import Flask, current_app

from fenwick.data import Database
from fenwick.data.air_logs import add_rows
from fenwick.data.database import open_session
from fenwick.devices.reader import LivePoint, Reader

EVERY = 0.5  #: between two writes [s]


@dataclass
class Recording:
    """One log being filled."""

    shop: Database
    log_id: int
    reader: Reader
    begun: float | None = None  #: the device's time of its first row [s]
    rows: int = 0
    _waiting: list[tuple[float, float]] = field(default_factory=list)
    _bad: int = 0
    _written: float = 0.0
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def take(self, points: list[LivePoint], bad: int) -> None:
        """What the device has just sent."""
        with self._lock:
            if self.begun is None and points:
                self.begun = points[0].time
            self._waiting += [(point.time - (self.begun or 0.0), point.value) for point in points]
            self._bad += bad
            if time.monotonic() - self._written >= EVERY:
                self._write()

    def end(self) -> None:
        """Stop, and write what is left."""
        self.reader.drop_sink(self.take)
        with self._lock:
            self._write()

    @property
    def now(self) -> float:
        """Time of the last row [s]."""
        points = self.reader.since(max(self.reader.health.read - 1, 0))
        return points[-1].time - (self.begun or 0.0) if points and self.begun is not None else 0.0

    def _write(self) -> None:
        rows, self._waiting, bad, self._bad = self._waiting, [], self._bad, 0
        self._written = time.monotonic()
        self.rows += len(rows)
        if rows or bad:
            with open_session(self.shop.engine, to_write=True) as session:
                add_rows(session, self.log_id, rows, bad)


def recordings() -> dict[int, Recording]:
    """Every log being filled, by its id."""
    found: dict[int, Recording] = current_app.extensions["fenwick-recordings"]
    return found


def record(log_id: int, reader: Reader) -> Recording:
    """Begin to fill a log."""
    shop: Database = current_app.extensions["fenwick-shop"]
    recording = Recording(shop, log_id, reader)
    recordings()[log_id] = recording
    reader.add_sink(recording.take)
    return recording


def end_recordings(app: Flask) -> None:
    """Write what is left of every recording: the server stops."""
    found: dict[int, Recording] = app.extensions["fenwick-recordings"]
    for one in list(found.values()):
        one.end()
    found.clear()
