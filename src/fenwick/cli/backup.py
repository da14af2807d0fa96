"""`fenwick backup` and `fenwick restore`: copies of a shop, made, listed and put back."""

from __future__ import annotations

import json
from datetime import UTC
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from fenwick.cli.commands import fail, home_of, main

if TYPE_CHECKING:
    from fenwick.data.backups import Backup
    from fenwick.services.backups import WhatChanges

FORMAT = "fenwick-backup"
HOME = click.option("--home", type=click.Path(path_type=Path, file_okay=False), help="Folder of the shop.")


@main.command()
@HOME
@click.option("--list", "listed", is_flag=True, help="Only say which copies there are.")
def backup(home: Path | None, listed: bool) -> None:
    """Write a checked copy of a shop beside it, also while it is served, and print where as JSON."""
    from fenwick.data import Database, ShopDatabaseError
    from fenwick.data.backups import BY_HAND, back_up, backups_of
    from fenwick.data.opening import revision_of

    path = home_of(home).shop
    if not path.is_file():
        fail(f"there is no shop at {path}")
    try:
        if listed:
            found: dict[str, Any] = {"copies": [_told(one) for one in backups_of(path)]}
        else:
            shop = Database(path)
            revision_of(shop)
            found = {"copy": _told(back_up(shop, BY_HAND))}
            shop.close()
    except ShopDatabaseError as error:
        fail(str(error))
    _say(found)


@main.command()
@click.argument("copy", type=click.Path(path_type=Path))
@HOME
@click.option("--yes", is_flag=True, help="Put it back; without this, only show what would change.")
def restore(copy: Path, home: Path | None, yes: bool) -> None:
    """Show what putting COPY, a file or the name of a copy, in the place of a shop would change; with --yes, do it."""
    from fenwick.data import ShopDatabaseError, open_database
    from fenwick.data.lock import alone
    from fenwick.services.backups import restore as put_back
    from fenwick.services.backups import what_changes

    here = home_of(home)
    named = here.backups / copy.name
    copy = named if not copy.exists() and named.exists() else copy
    if not copy.is_file():
        fail(f"there is no copy at {copy}")
    try:
        with alone(here):
            shop = open_database(here.shop)
            changes = what_changes(shop, copy)
            before = put_back(shop, copy) if yes else None
            shop.close()
    except ShopDatabaseError as error:
        fail(str(error))
    _say({"changes": _changes(changes), "restored": yes, "before": _told(before) if before else None})


def _told(copy: Backup) -> dict[str, Any]:
    at = copy.at.astimezone(UTC).isoformat()
    return {"name": copy.name, "path": str(copy.path), "at": at, "why": copy.why, "bytes": copy.size}


def _changes(found: WhatChanges) -> dict[str, Any]:
    return {
        "nothing": found.nothing,
        "shop": found.shop,
        "lines": [
            {"name": one.name, "way": one.way, "states_now": one.states[0], "states_in_copy": one.states[1]}
            for one in found.lines
        ],
        "counts": {one.what: {"now": one.now, "in_copy": one.then} for one in found.counts},
    }


def _say(document: dict[str, Any]) -> None:
    click.echo(json.dumps({"format": FORMAT, "version": 1, **document}, indent=2, ensure_ascii=False))
