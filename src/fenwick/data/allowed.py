"""Hosts at which devices may be read, beside this machine: named by its owner, on this machine.

The list is a file beside the shop. No page writes it: what a browser can reach must not decide where Fenwick connects.
"""

from __future__ import annotations

import json

from fenwick.data.home import Home
from fenwick.data.whole_file import write_whole


def allowed_hosts(home: Home) -> tuple[str, ...]:
    """Those that were named; none where the list cannot be read."""
    try:
        found = json.loads(home.devices.read_text())
        return tuple(str(host) for host in found["hosts"])
    except (OSError, ValueError, KeyError, TypeError):
        return ()


def allow_host(home: Home, host: str) -> tuple[str, ...]:
    """Name one more host; all of them.

    Raises
    ------
    OSError, ShopDatabaseError
    """
    return _write(home, tuple(dict.fromkeys((*allowed_hosts(home), host.lower()))))


def forbid_host(home: Home, host: str) -> tuple[str, ...]:
    """Take a host off the list; those that are left.

    Raises
    ------
    OSError, ShopDatabaseError
    """
    return _write(home, tuple(one for one in allowed_hosts(home) if one != host.lower()))


def _write(home: Home, hosts: tuple[str, ...]) -> tuple[str, ...]:
    home.make()
    write_whole(home.devices, json.dumps({"hosts": hosts}))
    return hosts
