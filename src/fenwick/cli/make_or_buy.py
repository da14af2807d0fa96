"""`fenwick make-or-buy`: made against bought; `fenwick bond`: what joins two materials."""

from __future__ import annotations

import json
from pathlib import Path

import click

from fenwick.cli.commands import fail, main, rig_and_shop


@main.command()
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
@click.option("--what", help="Id of a separator; without it the first.")
@click.option("--shop", "shop_file", type=click.Path(path_type=Path), help="Shop file: sheets, tools and prices.")
def make_or_buy(rig: Path, what: str | None, shop_file: Path | None) -> None:
    """Print every kind of separator that the line in RIG takes, made and bought, as JSON."""
    from fenwick.core.errors import CoreError
    from fenwick.rig import RigError
    from fenwick.services.make_or_buy import make_or_buy_of
    from fenwick.services.making import NothingToBuildError, first_separator
    from fenwick.services.shop_stock import asked_of

    line, shop = rig_and_shop(rig, shop_file)
    try:
        of = what or first_separator(line)
        found = make_or_buy_of(line, of, asked_of(shop, of))
    except (RigError, CoreError, NothingToBuildError) as error:
        fail(f"{rig}: {error}")
    if not found:
        fail(f"{rig}: the line has no separator called “{of[:40]}”")
    rows = [
        {
            "kind": way.kind, "how": way.how, "here": way.here, "cost": round(way.money, 2), "hours": way.hours,
            "ready_s": round(way.ready), "missing": list(way.missing), "kept": way.kept,
        }
        for way in found
    ]  # fmt: skip
    click.echo(json.dumps({"format": "fenwick-make-or-buy", "version": 1, "separator": of, "ways": rows}, indent=1))


@main.command()
@click.argument("one")
@click.argument("other")
def bond(one: str, other: str) -> None:
    """Print how each sealant and glue holds two materials together, as JSON."""
    from fenwick.core.making.bonds import GRIPS, MATERIALS, bond

    for material in (one, other):
        if material not in MATERIALS:
            fail(f"nothing is known of “{material[:40]}”; there are {', '.join(MATERIALS)}")
    found = {key: bond(one, other, key) for key in GRIPS}
    rows = [
        {"sealant": key, "holds": how.holds, "because": how.because or None, "instead": list(how.instead)}
        for key, how in found.items()
    ]
    click.echo(
        json.dumps({"format": "fenwick-bonds", "version": 1, "materials": [one, other], "bonds": rows}, indent=1)
    )
