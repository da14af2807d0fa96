"""`fenwick`: solve a rig file, print the schema.

Heavy imports stay inside the commands: `fenwick solve` must not wait for a web server it does not use.
"""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path
from typing import TYPE_CHECKING, NoReturn

import click

from fenwick import __version__

if TYPE_CHECKING:
    from fenwick.data.home import Home
    from fenwick.rig import Rig
    from fenwick.shop import ShopFile

BAD_INPUT = 2  #: exit status for anything wrong with what the user gave


@click.group(context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(__version__, prog_name="fenwick")
def main() -> None:
    """Fenwick: a workbench for the dust line of a shop vacuum."""


def fail(sentence: str) -> NoReturn:
    """One sentence on standard error, exit status 2."""
    click.echo(f"fenwick: {sentence}", err=True)
    sys.exit(BAD_INPUT)


@main.command()
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
def solve(rig: Path) -> None:
    """Solve the line in RIG (a rig file, or - for standard input) and print the result as JSON."""
    from fenwick.core.errors import CoreError
    from fenwick.rig import RigError, read_from_outside
    from fenwick.rig.result import solve_rig

    try:
        result = solve_rig(read_from_outside(bytes_of(rig)))
    except RigError as error:
        fail(f"{rig}: {error}")
    except CoreError as error:
        fail(f"{rig}: {error}")
    click.echo(json.dumps(result, indent=2, allow_nan=False, ensure_ascii=False))


@main.command()
def schema() -> None:
    """Print the JSON Schema of the rig file."""
    from fenwick.rig import Rig

    document = {"$schema": "https://json-schema.org/draft/2020-12/schema", **Rig.model_json_schema()}
    click.echo(json.dumps(document, indent=2, ensure_ascii=False))


def bytes_of(path: Path) -> bytes:
    """Contents of a file, or of standard input; reads no more than a rig file can hold."""
    from fenwick.rig.format.read import MAX_BYTES, too_large

    try:
        if str(path) == "-":
            return sys.stdin.buffer.read(MAX_BYTES + 1)
        if path.is_file() and path.stat().st_size > MAX_BYTES:
            fail(f"{path}: {too_large(path.stat().st_size)}")
        with path.open("rb") as file:
            return file.read(MAX_BYTES + 1)
    except OSError as error:
        fail(f"{path}: cannot be read: {os.strerror(error.errno) if error.errno else error}")


def rig_and_shop(rig: Path, shop_file: Path | None) -> tuple[Rig, ShopFile | None]:
    """The line in a file, and the shop in another; what is wrong with one of them ends the command by its name."""
    from fenwick.rig import RigError, read_from_outside
    from fenwick.shop import read_shop

    at = rig
    try:
        line = read_from_outside(bytes_of(rig))
        at = shop_file or rig
        return line, None if shop_file is None else read_shop(bytes_of(shop_file))
    except RigError as error:
        fail(f"{at}: {error}")


def home_of(asked: Path | None, name: str = "shop") -> Home:
    """The folder of a shop: the one asked for, or the user's own."""
    from platformdirs import user_data_path

    from fenwick.data.home import Home

    return Home(asked or user_data_path("fenwick", appauthor=False) / name)
