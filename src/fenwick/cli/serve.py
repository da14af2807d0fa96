"""Serving a shop with waitress."""

from __future__ import annotations

import secrets
import socket
import sys
from pathlib import Path

import click

from fenwick.cli.stopping import until_stopped
from fenwick.data import Database, ShopDatabaseError, create_database
from fenwick.data.lines import first_line_id
from fenwick.data.shops import the_shop
from fenwick.rig import Rig
from fenwick.services.lines import add

THREADS = 16  # a page that reads devices live holds one for each
NEXT_PORTS = 20  #: tried after the wanted one when it is taken


def begin(path: Path, name: str, rig: Rig) -> Database:
    """A shop with one line; a shop that already has a line is left as it is."""
    shop = create_database(path)
    with shop.session(to_write=True) as session:
        if first_line_id(session) is None:
            the_shop(session).name = name
            add(session, the_shop(session), rig)
    return shop


def run(shop: Database, folder: Path, host: str, port: int) -> None:
    """Serve until interrupted or told to end; prints the address once it answers.

    Raises
    ------
    ShopDatabaseError
        When no port is to be had or the folder cannot be written.
    """
    from waitress.server import create_server

    from fenwick.web import create_app
    from fenwick.web.air_log.recording import end_recordings

    app = create_app(shop, _secret_key(folder / "secret.key"))
    server = create_server(app, sockets=[_listen(host, port)], threads=THREADS)
    address = f"http://{host}:{server.effective_port}/"
    with until_stopped():
        click.echo(f"Fenwick serves {shop.path} at {address} (stop with Ctrl-C)")
        sys.stdout.flush()
        try:
            server.run()  # returns on an interrupt
        finally:
            end_recordings(app)
            shop.close()
    click.echo("Stopped.")


def _listen(host: str, port: int) -> socket.socket:
    for wanted in [port] if port == 0 else range(port, min(port + NEXT_PORTS, 65536)):
        listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
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
        if not path.exists():
            path.touch(mode=0o600)
            path.write_text(secrets.token_hex(32))
        return path.read_text().strip()
    except OSError as error:
        raise ShopDatabaseError(f"The folder {path.parent} cannot be written: {error.strerror}.") from error
