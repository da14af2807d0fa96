"""`fenwick read`, `fenwick render`, `fenwick card`: measuring with a telephone, its stand-ins, and what is printed."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click

from fenwick.cli.commands import BAD_INPUT, bytes_of, fail, main

READS = ("grey", "squares", "depth", "tube", "pitch")


@main.command()
@click.argument("kind", type=click.Choice(READS))
@click.argument("files", nargs=-1, required=True, type=click.Path(path_type=Path, dir_okay=False))
@click.option("--rig", "rig_file", type=click.Path(path_type=Path), help="The line that is measured.")
@click.option("--bar", type=click.FloatRange(10.0, 250.0), default=50.0, show_default=True,
              help="What the printed bar of 50 mm measures, in mm.")  # fmt: skip
def read(kind: str, files: tuple[Path, ...], rig_file: Path | None, bar: float) -> None:
    """Read the grey of a filter, squares hit, a depth, a U of water or a motor's pitch off FILES.

    Several files of a kind are repeats; of squares before and after; of a pitch open, shut, and as it stands.
    """
    from fenwick.core.errors import CoreError
    from fenwick.rig import RigError, read_from_outside
    from fenwick.services.phone import MOST_FILES, read_by_phone, reading_document

    if len(files) > MOST_FILES:
        fail(f"at most {MOST_FILES} files at once")
    try:
        rig = None if rig_file is None else read_from_outside(bytes_of(rig_file))
        found = read_by_phone(kind, [bytes_of(one) for one in files], rig, bar)
    except (RigError, CoreError) as error:
        fail(f"{rig_file}: {error}")
    click.echo(json.dumps(reading_document(found), indent=2, ensure_ascii=False))
    if found.refused is not None:
        sys.exit(BAD_INPUT)


@main.command()
@click.argument("kind", type=click.Choice(READS))
@click.option("--seed", type=click.IntRange(0), required=True, help="Of all that is drawn.")
@click.option("--out", type=click.Path(path_type=Path, dir_okay=False), required=True, help="The file to write.")
@click.option("--broken", default="", help="What is wrong with it: no-card, cut, blur, dark, two, scale, shadow; "
              "of a pitch silent, clipped, noise, short.")  # fmt: skip
def render(kind: str, seed: int, out: Path, broken: str) -> None:
    """Draw a stand-in for a photo or a recording, with its truth as JSON beside it."""
    from fenwick.phone.scenes import broken_ways, scene

    if broken and broken not in broken_ways(kind):
        fail(f"--broken must be one of {', '.join(broken_ways(kind))}")
    found = scene(kind, seed, broken)
    beside = out.with_suffix(".json")
    if beside == out:
        fail("--out must not end in .json: the truth is written beside it under that name")
    out.write_bytes(found.data)
    beside.write_text(json.dumps({"kind": kind, "seed": seed, **found.truth}, indent=2))
    click.echo(json.dumps({"written": str(out), "truth": str(beside)}))


@main.command()
@click.option("--out", type=click.Path(path_type=Path, dir_okay=False), required=True, help="The PDF to write.")
@click.option("--paper", type=click.Choice(["a4", "letter"]), default="a4", show_default=True)
def card(out: Path, paper: str) -> None:
    """Print what a telephone measures by: the card, the sheet of squares and the strip, 1:1."""
    from fenwick.sheets.phone_targets import write_targets

    out.write_bytes(write_targets(paper))
    click.echo(json.dumps({"written": str(out)}))
