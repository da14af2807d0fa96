"""Readings that were taken and not kept yet: a few, for an hour."""

from __future__ import annotations

import secrets
import threading
import time
from collections import OrderedDict
from dataclasses import dataclass, field

from fenwick.phone.reading import PhoneReading

MOST, FORGET_AFTER = 24, 3600.0  #: readings, and [s]


@dataclass(frozen=True)
class HeldReading:
    """One of them, with its picture."""

    line: int
    found: PhoneReading
    picture: bytes | None  #: with what was seen drawn over it
    place: str  #: what was graded
    stand_in: float | None  #: truth of a stand-in; None: it is a real one
    since: float = field(default_factory=time.monotonic)


class HeldReadings:
    """Those of one server, the oldest forgotten first."""

    def __init__(self) -> None:
        self._held: OrderedDict[str, HeldReading] = OrderedDict()
        self._lock = threading.Lock()

    def hold(self, reading: HeldReading) -> str:
        """Keep one for a while; its name."""
        name = secrets.token_urlsafe(9)
        with self._lock:
            self._held[name] = reading
            while len(self._held) > MOST:
                self._held.popitem(last=False)
        return name

    def get(self, name: str) -> HeldReading | None:
        """One by its name; None where it was forgotten."""
        with self._lock:
            found = self._held.get(name)
        return found if found is not None and time.monotonic() - found.since < FORGET_AFTER else None
