"""Bytes into lines: whole ones are told, rubbish is counted, and nothing grows without bound."""

from __future__ import annotations

from fenwick.devices.protocol import LONGEST


class LineBuffer:
    """What has come of a line so far."""

    def __init__(self) -> None:
        self._part = b""
        self._skipping = False
        self.overlong = 0  #: lines that ran on and were thrown away

    def feed(self, data: bytes) -> list[str]:
        """The lines that some bytes complete; bytes that are no text become signs of doubt."""
        *whole, self._part = (self._part + data).replace(b"\r", b"\n").split(b"\n")
        if len(self._part) > LONGEST:
            self._part, self._skipping = b"", True
            self.overlong += 1
        lines = []
        for one in whole:
            if self._skipping:  # the end of the line that ran on
                self._skipping = False
                continue
            if len(one) > LONGEST:
                self.overlong += 1
            elif one:
                lines.append(one.decode("utf-8", "replace"))
        return lines
