"""`fenwick build`: everything for the bench; `fenwick example`: a rig to try it on."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from pathlib import Path

import click

from fenwick.cli.commands import fail, main, rig_and_shop


@main.command()
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
@click.option("--out", required=True, type=click.Path(path_type=Path), help="Folder that the files go to.")
@click.option("--what", help="Id of a separator, hood:PORT, or stand; without it the first separator with its stand.")
@click.option("--paper", type=click.Choice(["a4", "letter"]), default="a4", show_default=True)
@click.option("--shop", "shop_file", type=click.Path(path_type=Path), help="Shop file: sheets and tools at hand.")
@click.option("--swirl", type=click.Choice(["left", "right"]), help="Hand of the swirl, seen from above.")
@click.option("--bought", is_flag=True, help="The separator is bought: what mounts it is made.")
@click.option("--force", is_flag=True, help="Write into a folder that is not empty.")
def build(
    rig: Path,
    out: Path,
    what: str | None,
    paper: str,
    shop_file: Path | None,
    swirl: str | None,
    bought: bool,
    force: bool,
) -> None:
    """Write parts, templates, sheets and booklet of what is built of the line in RIG."""
    from fenwick.core.errors import CoreError
    from fenwick.rig import RigError
    from fenwick.services.making import NothingToBuildError, build_pack, tolerances
    from fenwick.services.making_files import pack_files
    from fenwick.services.shop_stock import asked_of

    _check_folder(out, force=force)
    line, shop = rig_and_shop(rig, shop_file)
    try:
        asked = replace(asked_of(shop, what), swirl=swirl, bought=bought)
        files = pack_files(build_pack(line, asked), tolerances(line, asked), date.today().isoformat(), paper)
    except (RigError, CoreError, NothingToBuildError) as error:
        fail(f"{rig}: {error}")
    try:
        out.mkdir(parents=True, exist_ok=True)
        for name, content in files.items():
            (out / name).write_bytes(content)
    except OSError as error:
        fail(f"{out}: cannot be written: {error.strerror}")
    click.echo("\n".join(sorted(files)))


def _check_folder(out: Path, *, force: bool) -> None:
    """Nothing of somebody else's is overwritten unasked."""
    try:
        if out.exists() and not out.is_dir():
            fail(f"{out}: is a file; a folder is wanted")
        if out.is_dir() and any(out.iterdir()) and not force:
            fail(f"{out}: is not empty; --force writes into it all the same")
    except OSError as error:
        fail(f"{out}: cannot be read: {error.strerror}")


@main.command()
@click.argument("kind", metavar="TYPE")
def example(kind: str) -> None:
    """Print a rig with a separator of TYPE to try a command on."""
    from fenwick.rig import write_rig
    from fenwick.rig.start.examples import EXAMPLES, example_rig

    if kind not in EXAMPLES:
        fail(f"there is no type “{kind[:40]}”; there are {', '.join(EXAMPLES)}")
    click.echo(write_rig(example_rig(kind)).decode(), nl=False)
