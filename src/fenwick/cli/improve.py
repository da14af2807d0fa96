"""`fenwick improve`: the ways to a line that works, within money and time."""

from __future__ import annotations

import json
from pathlib import Path

import click

from fenwick.cli.commands import fail, main, rig_and_shop


@main.command()
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
@click.option("--shop", "shop_file", type=click.Path(path_type=Path), help="Shop file: drawer, jobs, tools and prices.")
@click.option("--spend", type=click.FloatRange(min=0.0), help="Money at hand; without it no limit.")
@click.option("--hours", type=click.FloatRange(min=0.0), help="Hours at hand; without them no limit.")
@click.option("--without", multiple=True, help="Key of a step that is out of the question; may come several times.")
def improve(
    rig: Path, shop_file: Path | None, spend: float | None, hours: float | None, without: tuple[str, ...]
) -> None:
    """Print the ways to a better line from RIG, each an ordered list of changes, as JSON."""
    from math import isfinite

    from fenwick.core.errors import CoreError
    from fenwick.rig.voice import voice_for
    from fenwick.services.way import WayAsked, ways_to
    from fenwick.services.way_document import plans_document
    from fenwick.units import METRIC

    for name, value in (("--spend", spend), ("--hours", hours)):
        if value is not None and not isfinite(value):
            fail(f"{name} must be a number that can be counted to")
    line, shop = rig_and_shop(rig, shop_file)
    try:
        found = ways_to(line, shop, WayAsked(spend, hours, tuple(without)))
    except CoreError as error:
        fail(f"{rig}: {error}")
    document = plans_document(found, "€" if shop is None else shop.money, voice_for(line, METRIC))
    click.echo(json.dumps(document, indent=1, allow_nan=False, ensure_ascii=False))
