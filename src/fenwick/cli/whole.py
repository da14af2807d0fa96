"""`fenwick export`, `fenwick import`, `fenwick log`: the whole shop in one file, and its log as JSON."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import TYPE_CHECKING, Any

import click

from fenwick.cli.backup import HOME
from fenwick.cli.commands import fail, home_of, main

if TYPE_CHECKING:
    from fenwick.data.home import Home
    from fenwick.services.whole import WholeShown

FORMAT = "fenwick-whole-shop"


@main.command("export")
@HOME
@click.option("--out", type=click.Path(path_type=Path, dir_okay=False), required=True, help="The zip to write.")
def export_command(home: Path | None, out: Path) -> None:
    """Write a whole shop into one zip: all of it as JSON, photos as they are, tables to read beside it."""
    from fenwick.data import ShopDatabaseError, open_database
    from fenwick.services.whole import export_shop

    here = home_of(home)
    if not here.shop.is_file():
        fail(f"there is no shop at {here.shop}")
    try:
        shop = open_database(here.shop)
        with _progress("Writing") as told:
            export_shop(shop, out, told)
        shop.close()
    except ShopDatabaseError as error:
        fail(str(error))
    _say({"written": str(out), "bytes": out.stat().st_size})


@main.command("import")
@HOME
@click.argument("packed", type=click.Path(path_type=Path, dir_okay=False))
@click.option("--show", is_flag=True, help="Only say what would change.")
@click.option("--replace", is_flag=True, help="Put it in the place of the shop, rather than add what is not there.")
def import_command(packed: Path, home: Path | None, show: bool, replace: bool) -> None:
    """Read the whole shop in PACKED into a shop: what is not there is added; a copy is written beside it before."""
    from fenwick.data import ShopDatabaseError, create_database
    from fenwick.data.lock import alone
    from fenwick.services.whole import add_whole, replace_whole, show_whole

    if not packed.is_file():
        fail(f"there is no file at {packed}")
    here: Home = home_of(home)
    if show and not here.shop.is_file():
        _show_to_nobody(packed)
        return
    try:
        here.make()
        with alone(here):
            shop = create_database(here.shop)
            copy = None
            if show:
                shown = show_whole(shop, packed)
            else:
                with _progress("Reading") as told:
                    shown, copy = replace_whole(shop, packed, told) if replace else add_whole(shop, packed, told)
            shop.close()
    except ShopDatabaseError as error:
        fail(str(error))
    _say({"changed": not show, **_told(shown, replace), "before": None if copy is None else str(copy.path)})


def _show_to_nobody(packed: Path) -> None:
    """What reading a shop in would do where there is none yet: to look makes none."""
    from fenwick.data import ShopDatabaseError, create_database
    from fenwick.services.whole import show_whole

    with TemporaryDirectory(prefix="fenwick-") as folder:
        try:
            shop = create_database(Path(folder) / "shop.db")
            shown = show_whole(shop, packed)
            shop.close()
        except ShopDatabaseError as error:
            fail(str(error))
    _say({"changed": False, **_told(shown, replace=False), "before": None})


@main.command("log")
@HOME
@click.option("--most", type=click.IntRange(0, 100_000), default=200, show_default=True, help="Entries, newest first.")
def log_command(home: Path | None, most: int) -> None:
    """Print a shop's log as JSON: what it says of today, what is due, and its entries."""
    from datetime import datetime

    from fenwick.data import ShopDatabaseError, open_database
    from fenwick.services.logbook.document import log_document

    here = home_of(home)
    if not here.shop.is_file():
        fail(f"there is no shop at {here.shop}")
    try:
        shop = open_database(here.shop)
        with shop.session() as session:
            document = log_document(session, datetime.now(), most)
        shop.close()
    except ShopDatabaseError as error:
        fail(str(error))
    click.echo(json.dumps(document, indent=2, ensure_ascii=False, allow_nan=False))


def _told(shown: WholeShown, replace: bool) -> dict[str, Any]:
    lines = [{"name": one.name, "way": one.way} for one in shown.replaces.lines]
    return {
        "shop": shown.name,
        "here_was_empty": shown.empty,
        "replace": {"lines": lines, "shop_file": shown.replaces.shop} if replace else None,
        "adds": None if replace else {"lines": list(shown.adds), "entries": shown.entries, "there": list(shown.same)},
    }


@contextmanager
def _progress(label: str) -> Iterator[Callable[[float], None]]:
    """A share of work as a bar, where somebody looks."""
    done = 0
    with click.progressbar(length=1000, label=label, file=sys.stderr) as bar:

        def tell(share: float) -> None:
            nonlocal done
            bar.update(round(1000 * share) - done)
            done = round(1000 * share)

        yield tell


def _say(document: dict[str, Any]) -> None:
    click.echo(json.dumps({"format": FORMAT, "version": 1, **document}, indent=2, ensure_ascii=False))
