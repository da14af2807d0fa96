"""All devices of a server: each is opened when somebody wants it, and closed when nobody does any more."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Collection
from typing import Any

import numpy as np

from fenwick.devices.address import why_not
from fenwick.devices.reader import LivePoint, Reader, open_port

IDLE = 90.0  #: after which a device that nobody asks for is closed [s]
REST_FOR = 0.6  #: how long a figure must stand still [s]
REST_POINTS = 3


class Hub:
    """The devices being read."""

    def __init__(self, hosts: Callable[[], Collection[str]] = tuple) -> None:
        self._hosts = hosts  # that may be reached besides this machine, as they are named by now
        self._readers: dict[int, Reader] = {}
        self._lock = threading.Lock()

    def reader(self, device: int, kind: str, address: str, baud: int, unit: str) -> Reader:
        """The reader of a device, started where there is none, or where its address has changed."""
        with self._lock:
            self._close_idle()
            there = self._readers.get(device)
            if there is not None and (there.kind, there.address) != (kind, address):
                there.close()
                there = None
            if there is None:
                there = self._readers[device] = Reader(kind, address, baud, unit, self._open)
            there.wanted = time.monotonic()
            return there

    def _open(self, address: str, baud: int) -> Any:
        refused = why_not(address, self._hosts())
        if refused:
            raise PermissionError(refused)
        return open_port(address, baud)

    def open_readers(self) -> list[Reader]:
        """Every device being read."""
        with self._lock:
            return list(self._readers.values())

    def close(self, device: int) -> None:
        """Read a device no more."""
        with self._lock:
            there = self._readers.pop(device, None)
        if there is not None:
            there.close()

    def _close_idle(self) -> None:
        now = time.monotonic()
        for key, one in list(self._readers.items()):
            if not one.busy and now - one.wanted > IDLE:
                del self._readers[key]
                threading.Thread(target=one.close, daemon=True).start()


def at_rest(reader: Reader, tolerance: float, patience: float = 4.0) -> tuple[float | None, str]:
    """(a figure that has come to rest, what is wrong where there is none).

    Parameters
    ----------
    reader : of the device
    tolerance : by which figures at rest may differ; SI
    patience : how long to wait [s]
    """
    points = reader.since(0)
    begun = points[-1].number if points else 0
    until = time.monotonic() + patience
    came: list[tuple[float, LivePoint]] = []
    while time.monotonic() < until:
        for point in reader.since(begun, wait=0.3):
            begun = point.number
            came.append((time.monotonic(), point))
        recent = [point for at, point in came if at >= time.monotonic() - 1.2]
        spread = np.ptp([point.value for point in recent]) if recent else np.inf
        steady = len(recent) >= REST_POINTS and not any(point.still is False for point in recent[-REST_POINTS:])
        if steady and spread <= tolerance and came[-1][0] - came[0][0] >= REST_FOR:
            return float(np.median([point.value for point in recent])), ""
    if not came:
        return None, "It sends nothing: check its plug, its power and its address."
    return None, "It does not come to rest: wait, or type what you read."
