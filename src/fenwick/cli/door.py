"""`fenwick passphrase`, `allow` and `forbid`: who and what a served shop has to do with; said on this machine alone."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click

from fenwick.cli.backup import HOME
from fenwick.cli.commands import fail, home_of, main


@main.command()
@HOME
def passphrase(home: Path | None) -> None:
    """Set the passphrase that a shop served with --lan asks for; everybody has to sign in again."""
    from fenwick.data import ShopDatabaseError
    from fenwick.data.door import Door

    here = home_of(home)
    text = click.prompt("Passphrase", hide_input=True, confirmation_prompt=True) if sys.stdin.isatty() else _piped()
    try:
        here.make()
        Door(here.door).set_passphrase(text)
    except (ValueError, ShopDatabaseError) as error:
        fail(str(error))
    click.echo("The passphrase is set.")


def _piped() -> str:
    return sys.stdin.readline().rstrip("\r\n")


@main.command()
@click.argument("host")
@HOME
def allow(host: str, home: Path | None) -> None:
    """Let devices of a shop be read at HOST; prints the list as JSON."""
    from fenwick.data import ShopDatabaseError
    from fenwick.data.allowed import allow_host
    from fenwick.devices.address import HOST_NAME

    if HOST_NAME.fullmatch(host) is None:
        fail(f"“{host[:40]}” is no name or address of a host")
    try:
        hosts = allow_host(home_of(home), host)
    except (OSError, ShopDatabaseError) as error:
        fail(str(error))
    click.echo(json.dumps({"hosts": hosts}))


@main.command()
@click.argument("host")
@HOME
def forbid(host: str, home: Path | None) -> None:
    """Let devices at HOST be read no longer; prints the list as JSON."""
    from fenwick.data import ShopDatabaseError
    from fenwick.data.allowed import forbid_host

    try:
        hosts = forbid_host(home_of(home), host)
    except (OSError, ShopDatabaseError) as error:
        fail(str(error))
    click.echo(json.dumps({"hosts": hosts}))
