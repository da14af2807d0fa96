"""What a device says just now, for a page: a stream of events, and one figure at rest."""

from __future__ import annotations

import json
import threading
import time
from collections.abc import Iterator

from fenwick.data.devices import DeviceState
from fenwick.devices.hub import at_rest
from fenwick.devices.protocol import PROTOCOLS
from fenwick.devices.reader import Reader
from fenwick.units import format_value, unit_label
from fenwick.units.convert import to_display
from fenwick.web.device.words import health_words
from fenwick.web.kit.devices import reader_of

LASTS = 50.0  #: after which the browser asks again where it left off, so that no thread is held by a page long gone [s]
PACE = 0.2  #: between two events [s]
MOST_STREAMS = 10  #: pages that look at devices at once: each holds a thread, and other pages need some, too
TOO_MANY = "too many pages look at devices: close one"
_PLACES = threading.BoundedSemaphore(MOST_STREAMS)


def events(reader: Reader, last: int, system: str) -> Iterator[str]:
    """Server-sent events: every figure after number `last`, and how the device does.

    Parameters
    ----------
    reader : of the device
    last : number of the last figure that the page has
    system : whose units
    """
    unit = unit_label(PROTOCOLS[reader.kind].quantity, system)
    until = time.monotonic() + LASTS
    if not _PLACES.acquire(blocking=False):
        body = {"points": [], "unit": unit, "state": TOO_MANY, "level": "watch", "shown": ""}
        yield f"retry: 5000\nid: {last}\ndata: {json.dumps(body)}\n\n"
        return
    try:
        yield "retry: 500\n\n"
        yield from _as_they_come(reader, last, system, until)
    finally:
        _PLACES.release()


def _as_they_come(reader: Reader, last: int, system: str, until: float) -> Iterator[str]:
    quantity = PROTOCOLS[reader.kind].quantity
    unit, told = unit_label(quantity, system), ""
    while time.monotonic() < until:
        points = reader.since(last, wait=1.0)
        health = reader.health
        words, level = health_words(health)
        body = {
            "points": [[round(p.time, 3), round(to_display(p.value, quantity, system), 4)] for p in points[-2000:]],
            "unit": unit,
            "state": words,
            "level": level,
            "shown": format_value(points[-1].value, quantity, system, field=True) if points else "",
        }
        text = json.dumps(body)
        if points or text != told:
            last = points[-1].number if points else last
            yield f"id: {last}\ndata: {text}\n\n"
        told = text
        time.sleep(PACE)


def figure_at_rest(device: DeviceState, place: str, system: str) -> tuple[str, str]:
    """(a figure that has come to rest as a field takes it, what is wrong where there is none)."""
    reader = reader_of(device)
    if place:
        reader.say(f"put {place}", wait=3.0)  # only a simulated scale listens: nobody else puts the bin on it
    value, wrong = at_rest(reader, PROTOCOLS[device.kind].rests)
    if value is None:
        words, level = health_words(reader.health)
        return "", wrong if level == "ok" else f"{words[:1].upper()}{words[1:]}. {wrong}"
    return format_value(value, PROTOCOLS[device.kind].quantity, system, field=True), ""
