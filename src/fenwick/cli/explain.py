"""`fenwick explain`: how a figure of a rig comes about."""

from __future__ import annotations

import json
from pathlib import Path

import click

from fenwick.cli.commands import bytes_of, fail, main


@main.command()
@click.argument("rig", type=click.Path(path_type=Path, allow_dash=True))
@click.argument("figure", required=False)
@click.option("--port", help="Id of the tool port; without it the first that is open.")
@click.option("--shop", "shop_file", type=click.Path(path_type=Path), help="Shop file, for the room's air.")
@click.option("--readings", type=click.Path(path_type=Path), help="Table of readings, for the tuned factors.")
@click.option("--text", is_flag=True, help="As lines to read, rather than JSON.")
def explain(
    rig: Path, figure: str | None, port: str | None, shop_file: Path | None, readings: Path | None, text: bool
) -> None:
    """Show how FIGURE of the line in RIG comes about; without FIGURE, the figures that there are."""
    from fenwick.core.errors import CoreError
    from fenwick.rig import RigError, read_from_outside
    from fenwick.rig.format.readings_csv import read_readings
    from fenwick.rig.voice import part_names
    from fenwick.rig.working import figures_document, working_document
    from fenwick.services.workings import all_explained, asked_of, explained, title_of
    from fenwick.shop import read_shop
    from fenwick.wording.working import figure_of, lines_of, unit_of

    at = rig
    try:
        line = read_from_outside(bytes_of(rig))
        at = shop_file or rig
        shop = None if shop_file is None else read_shop(bytes_of(shop_file))
        at = readings or rig
        taken = [] if readings is None else read_readings(bytes_of(readings))
        at = rig
        asked = asked_of(line, port, shop, taken)
        if figure is None:
            found = all_explained(line, asked)
            if text:
                for name, one in found.items():
                    click.echo(f"{name:28} {title_of(name)}: {figure_of(one.root.value)}{unit_of(one.root)}")
            else:
                titles = {name: title_of(name) for name in found}
                click.echo(json.dumps(figures_document(found, titles), indent=2, ensure_ascii=False))
            return
        working = explained(line, asked, figure)
    except KeyError as error:
        fail(f"{rig}: the line has no port {error}; it has {', '.join(_ports(bytes_of(rig)))}")
    except (RigError, CoreError) as error:
        fail(f"{at}: {error}")
    if working is None:
        fail(f"{rig}: the figure {figure} is not told for this input; without a figure, explain lists those that are")
    if text:
        click.echo("\n".join(lines_of(working, part_names(line))).lstrip("\n"))
    else:
        click.echo(json.dumps(working_document(working), indent=2, allow_nan=False, ensure_ascii=False))


def _ports(raw: bytes) -> list[str]:
    from fenwick.rig import build_line, read_rig

    return [leaf.id for leaf in build_line(read_rig(raw)).leaves]
