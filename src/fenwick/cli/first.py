"""`fenwick start`, `fill-shop`, `line-of-shop`: the first line from answers, a shop from a line, a line from a shop."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import click

from fenwick.cli.commands import bytes_of, fail, main, rig_and_shop

#: answers that are figures, in SI
FIGURES = (
    "sealed_suction", "open_flow", "air_watts", "electrical_power", "current", "mains", "hose_bore", "hose_length",
    "link_bore", "link_length", "bin_top", "bin_bottom", "bin_height", "bin_volume",
)  # fmt: skip
WORDS = ("share", "dust", "vacuum", "hose_wall", "bin_material", "bin_closure", "stands")


def _answers(command: Any) -> Any:
    for name in FIGURES:
        command = click.option(f"--{name.replace('_', '-')}", type=float, help="In SI.")(command)
    for name in WORDS:
        command = click.option(f"--{name.replace('_', '-')}", help="As the rig file has it.")(command)
    return command


@main.command()
@click.option("--tool", "tools", multiple=True, help="Key of a kind of tool; may come several times.")
@_answers
def start(tools: tuple[str, ...], **given: Any) -> None:
    """Print the first line that answers come to, with what was concluded, as JSON; what is not given is a guess."""
    from fenwick.core.catalogue.tools import TOOLS
    from fenwick.core.catalogue.vacuums import VACUUMS
    from fenwick.rig import RigError
    from fenwick.rig.start import Answers, start_line
    from fenwick.rig.start.answers import SHARING, STANDS
    from fenwick.units import METRIC

    known: dict[str, set[str]] = {"vacuum": {*VACUUMS}, "share": {*SHARING}, "stands": {*STANDS}}
    wrong = [one for one in tools if one not in TOOLS]
    wrong += [given[key] for key, words in known.items() if given[key] is not None and given[key] not in words]
    if wrong:
        fail(f"“{wrong[0][:40]}” is none of the choices")
    answers = Answers(tools=tuple(dict.fromkeys(tools)), **{k: v for k, v in given.items() if v is not None})
    try:
        started = start_line(answers)
    except (RigError, ValueError, OverflowError) as error:
        fail(str(error))
    found = started.as_found
    document = {
        "format": "fenwick-start",
        "version": 1,
        "planned": started.planned.model_dump(mode="json"),
        "as_found": None if found is None else found.model_dump(mode="json"),
        "said": [one.sentence(METRIC) for one in started.said],
    }
    click.echo(json.dumps(document, indent=1, allow_nan=False, ensure_ascii=False))


@main.command("fill-shop")
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
@click.option("--shop", "shop_file", type=click.Path(path_type=Path), help="Shop file; without one a new shop.")
def fill_shop(rig: Path, shop_file: Path | None) -> None:
    """Print the shop with the vacuum, tools, hoses and adapters of RIG that it does not have yet."""
    from fenwick.rig import RigError
    from fenwick.shop import write_shop
    from fenwick.shop.from_line import filled_from
    from fenwick.shop.read import empty_shop

    line, shop = rig_and_shop(rig, shop_file)
    try:
        filled = filled_from(shop or empty_shop("My shop"), line)
    except RigError as error:
        fail(f"{rig}: {error}")
    click.echo(write_shop(filled.file), nl=False)


@main.command("line-of-shop")
@click.argument("shop_file", metavar="SHOP", type=click.Path(path_type=Path, allow_dash=True))
def line_of_shop(shop_file: Path) -> None:
    """Print a line of every tool in SHOP: its first vacuum and its longest hose, moved from tool to tool."""
    from fenwick.rig import RigError, write_rig
    from fenwick.shop import read_shop
    from fenwick.shop.from_line import line_of

    try:
        rig = line_of(read_shop(bytes_of(shop_file)))
    except RigError as error:
        fail(f"{shop_file}: {error}")
    click.echo(write_rig(rig), nl=False)
