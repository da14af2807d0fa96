"""`fenwick compare`: two lines side by side, every figure with its band and which of them does better."""

from __future__ import annotations

import json
from pathlib import Path

import click

from fenwick.cli.commands import fail, main, rig_and_shop


@main.command()
@click.argument("left", type=click.Path(path_type=Path, allow_dash=True))
@click.argument("right", type=click.Path(path_type=Path))
@click.option("--shop", "shop_file", type=click.Path(path_type=Path), help="Shop file: jobs that weigh the tools.")
def compare(left: Path, right: Path, shop_file: Path | None) -> None:
    """Print the lines in LEFT and RIGHT side by side as JSON; better and worse are said of RIGHT."""
    from fenwick.core.errors import CoreError
    from fenwick.services.compare_document import comparison_document
    from fenwick.services.side_by_side import side_by_side

    one, shop = rig_and_shop(left, shop_file)
    other, _ = rig_and_shop(right, None)
    try:
        found = side_by_side(one, other, shop)
    except CoreError as error:
        fail(f"{left}, {right}: {error}")
    click.echo(json.dumps(comparison_document(one, other, found), indent=1, allow_nan=False, ensure_ascii=False))
