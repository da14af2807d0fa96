"""The devices of this server, as a request reaches them."""

from __future__ import annotations

from flask import current_app

from fenwick.data.devices import DeviceState
from fenwick.devices.hub import Hub
from fenwick.devices.reader import Reader


def hub() -> Hub:
    """The devices of this server."""
    found: Hub = current_app.extensions["fenwick-devices"]
    return found


def reader_of(device: DeviceState) -> Reader:
    """The reader of a device, started where it is not."""
    return hub().reader(device.id, device.kind, device.address, device.baud, device.unit)


def tell_simulated(words: str) -> None:
    """What happens in the shop, told to every simulated device being read."""
    for reader in hub().open_readers():
        reader.say(words)
