"""Who may ask what: this machine's names alone, no other site, and on a network nobody who has not signed in."""

from __future__ import annotations

import socket
import time
from collections import defaultdict, deque
from dataclasses import dataclass, field
from ipaddress import ip_address
from urllib.parse import urlsplit

from flask import Flask, current_app, redirect, render_template, request, url_for
from flask import session as cookie
from flask.typing import ResponseReturnValue
from werkzeug.middleware.proxy_fix import ProxyFix

from fenwick.data.door import Door, SignIn
from fenwick.web.kit.page import no_header

TOKEN = "signed_in"  #: in the session's cookie
OPEN = ("door.ask", "door.enter", "static")  #: what may be asked without having signed in
LOOPBACK_NAMES = ("localhost", "ip6-localhost")
OWN = ("same-origin", "none")  #: requests of our pages, and of the address line


@dataclass(frozen=True)
class Entrance:
    """How a shop's door stands."""

    door: Door | None = None  #: None: served to this machine alone, nobody has to sign in
    names: tuple[str, ...] = ()  #: that this machine is called by, besides its addresses
    cookie: str = "fenwick"  #: name of the session's cookie: of one shop at one port
    behind_tls: bool = False
    port: int = 0


@dataclass
class Attempts:
    """Wrong passphrases of the last minutes, by address; who has too many of them waits."""

    most: int = 5
    most_of_all: int = 40
    within: float = 300.0  #: [s]
    _of: dict[str, deque[float]] = field(default_factory=lambda: defaultdict(deque))

    def wait(self, address: str) -> float:
        """How long an address has to wait before its next attempt [s]; 0: not at all."""
        now = time.monotonic()
        for one in [key for key, times in self._of.items() if not self._fresh(times, now)]:
            del self._of[one]
        waits = [self._wait(self._of.get(address, deque()), self.most, now)]
        everybody = deque(sorted(at for times in self._of.values() for at in times))
        return max(*waits, self._wait(everybody, self.most_of_all, now))

    def wrong(self, address: str) -> None:
        """One more that was wrong."""
        self._of[address].append(time.monotonic())

    def right(self, address: str) -> None:
        """Who knows it may mistype again."""
        self._of.pop(address, None)

    def _fresh(self, times: deque[float], now: float) -> int:
        while times and now - times[0] > self.within:
            times.popleft()
        return len(times)

    def _wait(self, times: deque[float], most: int, now: float) -> float:
        return 0.0 if len(times) < most else max(0.0, times[-most] + self.within - now)


def init_app(app: Flask, entrance: Entrance) -> None:
    """Set the door before everything else."""
    app.config.update(
        SESSION_COOKIE_NAME=entrance.cookie,
        SESSION_COOKIE_SECURE=entrance.behind_tls,
        SESSION_COOKIE_SAMESITE="Lax",
    )
    app.extensions["fenwick-entrance"] = entrance
    app.extensions["fenwick-attempts"] = Attempts()
    if entrance.behind_tls:
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=1, x_proto=1)  # type: ignore[method-assign]
    app.before_request(_refuse_strangers)


def entrance() -> Entrance:
    """The door of this server."""
    found: Entrance = current_app.extensions["fenwick-entrance"]
    return found


def attempts() -> Attempts:
    """Who has tried to sign in."""
    found: Attempts = current_app.extensions["fenwick-attempts"]
    return found


def signed_in() -> SignIn | None:
    """Who asks; None: nobody who has signed in."""
    door = entrance().door
    token = cookie.get(TOKEN)
    return door.of(token) if door is not None and isinstance(token, str) else None


def _refuse_strangers() -> ResponseReturnValue | None:
    if not _is_ours(request.host):
        return _refused("This name is not one of this machine's. Start Fenwick with --name-of-host to be called by it.")
    if not _from_ours():
        return _refused("Another site has sent this request, so nothing was done.", again=True)
    if entrance().door is None or request.endpoint in OPEN or signed_in() is not None:
        return None
    no_header()
    if request.method != "GET" or request.headers.get("HX-Request"):
        return render_template("door/refused.html", sentence="Sign in first; nothing was changed."), 401
    return redirect(url_for("door.ask", next=request.full_path.rstrip("?")))


def _refused(sentence: str, *, again: bool = False) -> ResponseReturnValue:
    no_header()
    return render_template("door/refused.html", sentence=sentence, again=again), 403


def _is_ours(host: str) -> bool:
    """Whether a host is a name of this machine: its loopback names, its addresses where it serves the network."""
    name = (urlsplit(f"//{host}").hostname or "").rstrip(".")
    here = entrance()
    if name in LOOPBACK_NAMES or name in (one.lower() for one in here.names):
        return True
    try:
        address = ip_address(name)
    except ValueError:
        return False
    return address.is_loopback or (here.door is not None and str(address) in own_addresses(loopback=True))


def own_addresses(*, loopback: bool = False) -> tuple[str, ...]:
    """Addresses of this machine's interfaces, those of version 4 first."""
    import psutil

    found = []
    for addresses in psutil.net_if_addrs().values():
        for one in addresses:
            if one.family in (socket.AF_INET, socket.AF_INET6):
                address = ip_address(one.address.partition("%")[0])
                if loopback or not (address.is_loopback or address.is_link_local):
                    found.append(str(address))
    return tuple(sorted(found, key=lambda text: (":" in text, text)))


def _from_ours() -> bool:
    """Whether a request comes from one of our own pages, or from nobody's."""
    site = request.headers.get("Sec-Fetch-Site")
    if site is not None:
        return site in OWN
    origin = request.headers.get("Origin")
    return origin is None or urlsplit(origin).netloc == request.host
