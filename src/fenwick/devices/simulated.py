"""A simulated device: lines of text over TCP from a process of its own, with all that real ones do wrong."""

from __future__ import annotations

import socketserver
import threading
import time
from dataclasses import dataclass
from typing import Any

import numpy as np

from fenwick.devices.protocol import GREETING, write_line
from fenwick.devices.worlds import World

#: after a connection, when it says what it is [s]: the serial library throws away what has come before it is ready
GREETS_AFTER = (0.0, 0.5, 2.0)


@dataclass(frozen=True)
class Faults:
    """What a device does wrong, by chance."""

    garbled: float = 0.01  #: share of lines with a character changed
    dropped: float = 0.01  #: share of lines that never come
    noise: float = 1.0  #: of the world's own
    drift: float = 1.0


CLEAN = Faults(0.0, 0.0, 0.0, 0.0)


class DeviceVoice:
    """Turns a world's true figures into a device's lines."""

    def __init__(self, kind: str, world: World, faults: Faults, seed: int) -> None:
        self._kind, self._world, self._faults = kind, world, faults
        self._rng = np.random.default_rng(seed + 2)
        self._zero, self._last = 0.0, 0.0

    def line(self, now: float) -> str | None:
        """The line of a time [s]; None where it is dropped."""
        true, still = self._world.value(now)
        spread = self._world.drift * self._faults.drift * float(np.sqrt(max(now - self._last, 0.0)))
        self._zero += spread * float(self._rng.standard_normal())
        self._last = now
        noise = self._world.noise * self._faults.noise * float(self._rng.standard_normal())
        shown = round((true + self._zero + noise) / self._world.step) * self._world.step
        text = write_line(self._kind, shown, time=now, still=still if self._kind == "scale" else None)
        chance = self._rng.random(2)
        if chance[0] < self._faults.dropped:
            return None
        return self._garbled(text) if chance[1] < self._faults.garbled else text

    def _garbled(self, text: str) -> str:
        at = int(self._rng.integers(len(text)))
        return text[:at] + chr(int(self._rng.integers(33, 126))) + text[at + 1 :]


class DeviceServer(socketserver.ThreadingTCPServer):
    """Serves one simulated device to whoever connects, all the same world."""

    daemon_threads = True
    allow_reuse_address = True

    def __init__(
        self, kind: str, world: World, faults: Faults, seed: int, rate: float, speed: float, port: int
    ) -> None:
        super().__init__(("127.0.0.1", port), _Handler)
        self.kind, self.world, self.rate, self.speed = kind, world, rate, speed
        self.voice = DeviceVoice(kind, world, faults, seed)
        self.lock = threading.Lock()
        self._began = time.monotonic()

    @property
    def address(self) -> str:
        """As the serial library's handlers know it."""
        return f"socket://127.0.0.1:{self.server_address[1]}"

    def now(self) -> float:
        """Time of the world [s]."""
        return (time.monotonic() - self._began) * self.speed


class _Handler(socketserver.BaseRequestHandler):
    """One connection: lines out, what happens in the shop in."""

    server: DeviceServer
    request: Any

    def handle(self) -> None:
        threading.Thread(target=self._listen, daemon=True).start()
        began = due = time.monotonic()
        greetings = list(GREETS_AFTER)
        try:
            while True:
                if greetings and time.monotonic() >= began + greetings[0]:
                    del greetings[0]
                    self._send(f"{GREETING} {self.server.kind}")
                with self.server.lock:
                    line = self.server.voice.line(self.server.now())
                if line is not None:
                    self._send(line)
                # one that was held up goes on from now: it does not send what it missed all at once
                due = max(due + 1.0 / self.server.rate, time.monotonic() - 1.0 / self.server.rate)
                time.sleep(max(due - time.monotonic(), 0.0))
        except OSError:
            return  # whoever listened has gone

    def _send(self, line: str) -> None:
        self.request.sendall(f"{line}\r\n".encode())

    def _listen(self) -> None:
        try:
            for raw in self.request.makefile("rb"):
                words = raw[:200].decode("utf-8", "replace").split()
                try:
                    with self.server.lock:
                        said = self.server.world.tell(words, self.server.now())
                except ValueError as error:
                    said = str(error)
                self._send(f"# {said}")
        except OSError:
            return
