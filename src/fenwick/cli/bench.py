"""`fenwick hunt`, `fenwick result`: what may be wrong with a line, and what a test shows."""

from __future__ import annotations

import json
from pathlib import Path

import click

from fenwick.cli.commands import bytes_of, fail, home_of, main, rig_and_shop


@main.command()
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
@click.option("--readings", type=click.Path(path_type=Path), help="A table of what was read since it went wrong.")
@click.option("--noticed", multiple=True, help="What was noticed; a wrong word lists what there is.")
@click.option("--since", default="", help="The work with which it began; a wrong word lists what there is.")
def hunt(rig: Path, readings: Path | None, noticed: tuple[str, ...], since: str) -> None:
    """Print what may be wrong with the line in RIG, and what to check next."""
    from fenwick.core.bench.faults.kinds import SYMPTOMS
    from fenwick.core.bench.faults.since import WORK
    from fenwick.core.errors import CoreError
    from fenwick.rig import RigError
    from fenwick.rig.format.readings_csv import read_readings
    from fenwick.services.hunt_document import hunt_document

    wrong = next((one for one in noticed if one not in SYMPTOMS), None)
    if wrong is not None:
        fail(f"“{wrong[:40]}” is none of {', '.join(SYMPTOMS)}")
    if since and since not in WORK:
        fail(f"“{since[:40]}” is none of {', '.join(WORK)}")
    try:
        taken = read_readings(bytes_of(readings)) if readings else []
        document = hunt_document(rig_and_shop(rig, None)[0], taken, noticed, since)
    except (RigError, CoreError) as error:
        fail(str(error))
    click.echo(json.dumps(document, indent=2, ensure_ascii=False))


@main.command()
@click.argument("number", type=click.IntRange(1))
@click.option("--home", type=click.Path(path_type=Path, file_okay=False), help="The folder of the shop.")
def result(number: int, home: Path | None) -> None:
    """Print what test NUMBER of a shop shows: every state beside what the model expected of it."""
    from fenwick.data import ShopDatabaseError, open_database
    from fenwick.data.lines import NotFoundError
    from fenwick.rig import RigError
    from fenwick.services.trial_document import trial_document

    here = home_of(home)
    if not here.shop.is_file():
        fail(f"there is no shop at {here.shop}")
    try:
        shop = open_database(here.shop)
        with shop.session() as session:
            document = trial_document(session, number)
        shop.close()
    except (ShopDatabaseError, NotFoundError, RigError) as error:
        fail(str(error))
    click.echo(json.dumps(document, indent=2, ensure_ascii=False))
