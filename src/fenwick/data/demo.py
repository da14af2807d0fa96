"""The made-up shop that Fenwick ships with, so that every page has something to show and something to find."""

from __future__ import annotations

import json
from datetime import datetime
from importlib import resources
from pathlib import Path

from fenwick.builds.model import BuildFile, read_build
from fenwick.core.tuning.readings import Reading
from fenwick.data.builds import change_build
from fenwick.data.by_log import show_by_log
from fenwick.data.database import Database
from fenwick.data.demo_log import seed_log
from fenwick.data.demo_trials import seed_trials
from fenwick.data.lines import add_line, first_line_id
from fenwick.data.opening import create_database
from fenwick.data.readings import take
from fenwick.data.shops import begin_shop, the_shop
from fenwick.rig import Rig, read_rig
from fenwick.shop import ShopFile, read_shop

SHOP = "Willow Yard Ukuleles"


def demo_rig(name: str = "demo_line") -> Rig:
    """A demo line: `demo_line` (a hose too wide, a leak, a bin that folds), `demo_bench` or `demo_cyclone`."""
    return read_rig(resources.files("fenwick.data").joinpath(f"{name}.json").read_bytes())


def demo_shop() -> ShopFile:
    """The demo shop's own file: what it owns and where it stands."""
    return read_shop(resources.files("fenwick.data").joinpath("demo_shop.json").read_bytes())


def demo_readings() -> list[tuple[Reading, str]]:
    """(reading, note) of the demo's last line, the one with the cyclone: a tired fan, a rough hose, a leak."""
    rows = json.loads(resources.files("fenwick.data").joinpath("demo_readings.json").read_text())
    return [(Reading(**{key: value for key, value in row.items() if key != "note"}), row["note"]) for row in rows]


def demo_build() -> BuildFile:
    """The build that the demo is half-way through: its disc came out 3 mm too small."""
    return read_build(resources.files("fenwick.data").joinpath("demo_build.json").read_text())


def seed_demo(path: Path) -> Database:
    """Open the demo shop at `path`, made first where there is none; a shop already there is left as it is.

    Raises
    ------
    ShopDatabaseError
    """
    database = create_database(path)
    with database.session(to_write=True) as session:  # all of it, or none: a second start begins again
        shop = the_shop(session)
        if first_line_id(session) is None and not shop.cursor:
            shop.name = SHOP
            begin_shop(session, shop, demo_shop())
            lines = [add_line(session, shop, demo_rig(name)) for name in ("demo_line", "demo_bench", "demo_cyclone")]
            for reading, note in demo_readings():
                take(session, lines[-1], reading, note)
            seed_trials(session, lines)
            seed_log(session, lines, datetime.now())
            for as_described in (lines[0], lines[2]):  # what is wrong with them is told by what is described
                show_by_log(session, as_described, on=False)
            build = demo_build()
            change_build(session, lines[0], build.what, build, "Half-way")
    return database
