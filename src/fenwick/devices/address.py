"""Where a device may be: a serial port of this machine, this machine itself, or a host that its owner has named."""

from __future__ import annotations

import re
from collections.abc import Collection

#: serial ports, and the serial library's handlers that only read and write a line
PORT = re.compile(r"/dev/(?:tty|cu\.)[A-Za-z0-9_.\-]{1,60}|/dev/serial/by-id/[A-Za-z0-9_.:\-]{1,120}|COM[0-9]{1,3}")
REMOTE = re.compile(r"(?:socket|rfc2217)://([A-Za-z0-9_.\-]{1,120}):([0-9]{1,5})")
LOOP = "loop://"  #: the serial library's own echo
HERE = ("127.0.0.1", "localhost")
MOST_PORT = 65_535
HOST_NAME = re.compile(r"[A-Za-z0-9_.\-]{1,120}")

NO_PORT = "That is no port that can be read: as /dev/ttyUSB0, COM3 or socket://127.0.0.1:4001."


def why_not(address: str, hosts: Collection[str] = ()) -> str:
    """What forbids to read a device at an address; empty: it may be.

    Parameters
    ----------
    address : as it is typed
    hosts : that may be reached besides this machine
    """
    if address == LOOP or PORT.fullmatch(address):
        return ""
    found = REMOTE.fullmatch(address)
    if found is None or not 0 < int(found[2]) <= MOST_PORT:
        return NO_PORT
    host = found[1].lower()
    if host in HERE or host in hosts:
        return ""
    return f"{host} is not on this machine's list of hosts: add it there with “fenwick allow {host}”."
