"""Reading one device in a thread of its own: it may vanish, flood or send rubbish, and is read on all the same."""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from fenwick.devices.lines import LineBuffer
from fenwick.devices.protocol import COMMENT, GREETING, BadLineError, parse_line

KEPT = 12_000  #: points kept for whoever looks: twenty minutes at 10 a second
MOST_A_SECOND = 50  #: lines; more is a flood, and the rest of that second is dropped
SILENT_AFTER = 5.0  #: [s]
BATCH = 0.1  #: how long bytes are gathered [s]
RETRY = (0.5, 5.0)  #: wait before a vanished device is tried again, at first and at most [s]

OPENING, READING, SILENT, VANISHED, FLOODS, RUBBISH = "opening", "reading", "silent", "vanished", "floods", "rubbish"


@dataclass(frozen=True)
class LivePoint:
    """One figure as it came."""

    number: int  #: in the order of arrival, from 1
    time: float  #: by the device's clock where it has one, else since the reader started [s]
    value: float  #: SI
    still: bool | None


Sink = Callable[[list[LivePoint], int], None]  #: (points, lines that could not be read)


@dataclass(frozen=True)
class Health:
    """How a device does."""

    state: str
    read: int  #: figures
    bad: int  #: lines that could not be read, kept apart
    dropped: int  #: lines of a flood
    last_bad: str  #: the last one, and why
    simulated: bool


def open_port(address: str, baud: int) -> Any:
    """A port of the serial library, open; what it raises where there is none."""
    import serial  # the library of serial ports; only where a device is read

    return serial.serial_for_url(address, baudrate=baud, timeout=BATCH, write_timeout=1.0)


class Reader:
    """One device being read."""

    def __init__(
        self, kind: str, address: str, baud: int, unit: str, opened: Callable[[str, int], Any] = open_port
    ) -> None:
        self.kind, self.address, self._baud, self._unit, self._opened = kind, address, baud, unit, opened
        self._points: deque[LivePoint] = deque(maxlen=KEPT)
        self._changed = threading.Condition()
        self._sinks: list[Sink] = []
        self._port: Any = None
        self._stop = threading.Event()
        self._began = time.monotonic()
        self._heard = self._began
        self._second, self._this_second = 0, 0
        self._count = self._bad = self._dropped = self._recent_bad = 0
        self._last_bad = ""
        self._simulated = False
        self.comments = 0  #: lines that begin with the sign of a comment, greetings apart: what it has answered
        self._state = OPENING
        self.wanted = self._began  #: when somebody last asked
        self._thread = threading.Thread(target=self._run, daemon=True, name=f"device {address}")
        self._thread.start()

    @property
    def health(self) -> Health:
        """How it does now."""
        state = self._state
        if state == READING and time.monotonic() - self._heard > SILENT_AFTER:
            state = SILENT
        return Health(state, self._count, self._bad, self._dropped, self._last_bad, self._simulated)

    def since(self, number: int, wait: float = 0.0) -> list[LivePoint]:
        """Points after a number, waiting for the first of them for so long [s]."""
        self.wanted = time.monotonic()
        with self._changed:
            if wait and self._count <= number:
                self._changed.wait(wait)
            return [point for point in self._points if point.number > number]

    def add_sink(self, sink: Sink) -> None:
        """Tell somebody of everything that comes from now on."""
        self._sinks.append(sink)

    def drop_sink(self, sink: Sink) -> None:
        """Tell them no more."""
        with suppress(ValueError):
            self._sinks.remove(sink)

    @property
    def busy(self) -> bool:
        """Whether somebody records it."""
        return bool(self._sinks)

    def say(self, words: str, wait: float = 0.0) -> None:
        """Send a line to a simulated device, and wait so long [s] for its answer; a real one is never written to."""
        port, before = self._port, self.comments
        if not self._simulated or port is None:
            return
        with suppress(Exception):  # it has just vanished; the reader says so
            port.write(f"{words}\n".encode())
        until = time.monotonic() + wait
        while self.comments == before and time.monotonic() < until:
            time.sleep(0.02)

    def close(self) -> None:
        """Read no more."""
        self._stop.set()
        self._thread.join(timeout=2.0)

    def _run(self) -> None:
        wait = RETRY[0]
        while not self._stop.is_set():
            try:
                self._port = self._opened(self.address, self._baud)
                wait = RETRY[0]
                self._read_on()
            except Exception as error:  # the library raises a family of errors, and the system several
                self._state = VANISHED
                self._last_bad = f"it does not answer: {str(error)[:80]}"
            finally:
                port, self._port = self._port, None
                with suppress(Exception):
                    if port is not None:
                        port.close()
            self._stop.wait(wait)
            wait = min(2.0 * wait, RETRY[1])

    def _read_on(self) -> None:
        buffer = LineBuffer()
        self._state, self._heard = READING, time.monotonic()
        while not self._stop.is_set():
            data = self._port.read(4096)
            before = buffer.overlong
            lines = buffer.feed(data) if data else []
            self._take(lines, buffer.overlong - before)

    def _take(self, lines: list[str], overlong: int) -> None:
        now = time.monotonic()
        points: list[LivePoint] = []
        bad = overlong
        if overlong:
            self._last_bad = "a line without an end"
        for line in lines:
            if self._flooded(now):
                continue
            if line.startswith(GREETING):
                self._simulated = True
            else:
                self.comments += line.startswith(COMMENT)
            try:
                sample = parse_line(line, self.kind, self._unit)
            except BadLineError as error:
                bad += 1
                self._last_bad = f"“{line[:40]}”: {error}"
                continue
            if sample is not None:
                self._count += 1
                at = now - self._began if sample.time is None else sample.time
                points.append(LivePoint(self._count, at, sample.value, sample.still))
        self._bad += bad
        if lines or overlong:
            self._heard = now
            self._judge(len(points), bad)
        if points or bad:
            with self._changed:
                self._points.extend(points)
                self._changed.notify_all()
            for sink in list(self._sinks):
                sink(points, bad)

    def _flooded(self, now: float) -> bool:
        second = int(now)
        if second != self._second:
            self._second, self._this_second = second, 0
        self._this_second += 1
        if self._this_second > MOST_A_SECOND:
            self._dropped += 1
            return True
        return False

    def _judge(self, good: int, bad: int) -> None:
        # a line garbled now and then is usual; rubbish is when hardly anything can be read
        self._recent_bad = 0 if good else self._recent_bad + bad
        if self._this_second > MOST_A_SECOND:
            self._state = FLOODS
        else:
            self._state = RUBBISH if self._recent_bad >= 5 else READING
