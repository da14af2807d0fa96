"""`fenwick demo` and `fenwick serve`: a shop, made first where there is none, on this machine or to its network."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

import click

from fenwick.cli.commands import bytes_of, fail, home_of, main

Command = TypeVar("Command", bound=Callable[..., Any])
OPTIONS = (
    click.option("--home", type=click.Path(path_type=Path, file_okay=False), help="Folder of the shop."),
    click.option("--host", help="Address to serve on; this machine's own without it."),
    click.option(
        "--port", default=8765, show_default=True, type=click.IntRange(0, 65535), help="Port; 0 takes a free one."
    ),
    click.option("--lan", is_flag=True, help="Serve the network too; whoever comes has to sign in."),
    click.option("--name-of-host", "names", multiple=True, help="A name that this machine is called by in a browser."),
    click.option("--behind-tls", is_flag=True, help="A proxy in front speaks TLS: cookies go over it alone."),
)


def _served(command: Command) -> Command:
    """The options of everything that serves."""
    for option in reversed(OPTIONS):
        command = option(command)
    return command


@main.command()
@_served
def demo(home: Path | None, **how: Any) -> None:
    """Make the demo shop where there is none yet, and serve it."""
    from fenwick.cli.server import Serving, serve_alone
    from fenwick.data import ShopDatabaseError
    from fenwick.data.demo import seed_demo

    here = home_of(home, "demo")
    try:
        serve_alone(here, lambda: seed_demo(here.shop), Serving(**how))
    except ShopDatabaseError as error:
        fail(str(error))


@main.command()
@_served
@click.option("--line", type=click.Path(path_type=Path), help="Rig file to begin an empty shop with.")
@click.option("--name", help="Name of the shop; it keeps its own where none is given.")
def serve(home: Path | None, line: Path | None, name: str | None, **how: Any) -> None:
    """Serve a shop, made first where there is none; with --line it begins with a rig file."""
    from fenwick.cli.server import BadNameError, Serving, begin, named, serve_alone
    from fenwick.core.errors import CoreError
    from fenwick.data import ShopDatabaseError
    from fenwick.data.opening import create_database
    from fenwick.rig import RigError, read_from_outside

    here = home_of(home)
    try:
        if line is not None:
            rig = read_from_outside(bytes_of(line))
            serve_alone(here, lambda: named(begin(here.shop, rig), name), Serving(**how))
        else:
            serve_alone(here, lambda: named(create_database(here.shop), name), Serving(**how))
    except BadNameError as error:
        fail(str(error))
    except (RigError, CoreError) as error:
        fail(f"{line}: {error}")
    except ShopDatabaseError as error:
        fail(str(error))
