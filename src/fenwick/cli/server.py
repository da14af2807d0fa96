"""Serving a shop with waitress."""

from __future__ import annotations

import hashlib
import secrets
import socket
import sys
import threading
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from ipaddress import ip_address
from pathlib import Path
from typing import TYPE_CHECKING

import click

from fenwick.cli.bounded import bounded_server
from fenwick.cli.stopping import until_stopped
from fenwick.data import Database, ShopDatabaseError, create_database
from fenwick.data.door import Door
from fenwick.data.home import Home
from fenwick.data.lines import first_line_id
from fenwick.data.lock import alone, say_who
from fenwick.data.shops import shop_state, the_shop
from fenwick.data.whole_file import write_whole
from fenwick.rig import Rig, RigError
from fenwick.services.backups import daily
from fenwick.services.lines import add
from fenwick.services.shop_file import store_shop
from fenwick.shop import edit_shop

if TYPE_CHECKING:
    from fenwick.web.kit.door import Entrance

THREADS = 32  #: pages that read devices live hold one each, and the others go on
NEXT_PORTS = 20  #: tried after the wanted one when it is taken
LOOPBACK, EVERYWHERE = "127.0.0.1", "0.0.0.0"  # only with --lan, which asks to sign in
KEY_LENGTH = 64
AN_HOUR = 3600.0  #: between two looks whether the day's copy is there [s]


@dataclass(frozen=True)
class Serving:
    """How a shop is to be served."""

    host: str | None = None
    port: int = 0
    lan: bool = False
    names: tuple[str, ...] = ()
    behind_tls: bool = False

    @property
    def address(self) -> str:
        """The one to listen at.

        Raises
        ------
        ShopDatabaseError
            When it is one of the network and nobody has asked for that.
        """
        if self.host is None:
            return EVERYWHERE if self.lan else LOOPBACK
        if not self.lan and not _loopback(self.host):
            raise ShopDatabaseError(
                f"{self.host} is an address of the network: add --lan, and whoever comes has to sign in."
            )
        return self.host


def _loopback(host: str) -> bool:
    if host == "localhost":
        return True
    try:
        return ip_address(host).is_loopback
    except ValueError:
        return False


def begin(path: Path, rig: Rig) -> Database:
    """A shop with one line; a shop that already has a line is left as it is."""
    shop = create_database(path)
    with shop.session(to_write=True) as session:
        if first_line_id(session) is None:
            add(session, the_shop(session), rig)
    return shop


class BadNameError(ValueError):
    """A name that no shop can have; says so in a sentence."""


def named(shop: Database, name: str | None) -> Database:
    """The shop under a name, where one is asked for.

    Raises
    ------
    BadNameError
    """
    if name is None:
        return shop
    with shop.session(to_write=True) as session:
        now = shop_state(session)
        try:
            file = edit_shop(now.file, {"name": name})
        except RigError as error:
            shop.close()
            raise BadNameError(f"--name {error.problems[0].sentence()}") from error
        the_shop(session).name = file.name
        if now.revision:
            store_shop(session, file, f"Shop renamed {file.name}")
    return shop


def serve_alone(home: Home, opened: Callable[[], Database], how: Serving) -> None:
    """Open a shop and serve it, unless somebody else does.

    Raises
    ------
    ShopDatabaseError
    """
    address = how.address  # before anything is made
    with alone(home):
        shop = opened()
        for sentence in shop.healed:
            click.echo(sentence)
        run(shop, home, how, address)


def run(shop: Database, home: Home, how: Serving, address: str = LOOPBACK) -> None:
    """Serve until interrupted or told to end; prints the address once it answers.

    Raises
    ------
    ShopDatabaseError
        When no port is to be had, the folder cannot be written, or there is no passphrase to ask for.
    """
    from fenwick.web import create_app
    from fenwick.web.kit.recording import end_recordings

    door = _door(home) if how.lan else None
    listener = _listen(address, how.port)
    port = listener.getsockname()[1]
    entrance = _entrance(home, how, port, door)
    app = create_app(shop, _secret_key(home.key), entrance)
    server = bounded_server(app, listener, THREADS)
    said = f"http://{LOOPBACK if address == EVERYWHERE else address}:{port}/"
    stopped = threading.Event()
    with until_stopped():
        say_who(home, said)
        click.echo(f"Fenwick serves {shop.path} at {said} (stop with Ctrl-C)")
        if door is not None:
            _welcome(door, port)
        sys.stdout.flush()
        threading.Thread(target=_copies, args=(shop, stopped), daemon=True).start()
        try:
            server.run()  # returns on an interrupt
        finally:
            stopped.set()
            end_recordings(app)
            shop.close()
    click.echo("Stopped.")


def _door(home: Home) -> Door:
    door = Door(home.door)
    if not door.has_passphrase:
        raise ShopDatabaseError(
            f"Served to a network, a shop asks to sign in: set a passphrase first, with "
            f"“fenwick passphrase --home {home.folder}”."
        )
    return door


def _entrance(home: Home, how: Serving, port: int, door: Door | None) -> Entrance:
    from fenwick.web.kit.door import Entrance

    of_shop = hashlib.sha256(str(home.folder.absolute()).encode()).hexdigest()[:8]
    return Entrance(door, how.names, f"fenwick-{of_shop}-{port}", how.behind_tls, port)


def _welcome(door: Door, port: int) -> None:
    """How a phone comes in, and what to mind."""
    import segno

    from fenwick.web.kit.door import own_addresses

    code = door.new_code()
    click.echo(f"Whoever comes has to sign in. Pairing code, once, within ten minutes: {code[:4]}-{code[4:]}")
    click.echo("Without TLS, others in this network can read along: see docs/safety.md for a proxy in front.")
    for host in own_addresses():
        address = f"http://{f'[{host}]' if ':' in host else host}:{port}/sign-in?code={code}"
        click.echo(address)
        if ":" not in host:
            segno.make(address).terminal(out=sys.stdout, compact=True)


def _copies(shop: Database, stopped: threading.Event) -> None:
    """The copy of each day, for as long as the shop is served."""
    while True:
        try:
            daily(shop, datetime.now())
        except (ShopDatabaseError, OSError) as error:
            with suppress(OSError):
                click.echo(f"The copy of the day could not be written: {error}", err=True)
        if stopped.wait(AN_HOUR):
            return


def _listen(host: str, port: int) -> socket.socket:
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    for wanted in [port] if port == 0 else range(port, min(port + NEXT_PORTS, 65536)):
        listener = socket.socket(family, socket.SOCK_STREAM)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind((host, wanted))
        except OSError:
            listener.close()
            continue
        return listener
    raise ShopDatabaseError(f"No free port from {port} on at {host}; give another with --port.")


def _secret_key(path: Path) -> str:
    """The key that signs cookies, made once for each shop and readable by its owner alone."""
    try:
        key = path.read_text().strip() if path.exists() else ""
        if len(key) < KEY_LENGTH:  # none yet, or one that was half written
            key = secrets.token_hex(KEY_LENGTH // 2)
            write_whole(path, key)
        path.chmod(0o600)
    except OSError as error:
        raise ShopDatabaseError(f"The folder {path.parent} cannot be written: {error.strerror}.") from error
    return key
