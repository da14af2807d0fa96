"""The made-up shop that Fenwick ships with, so that every page has something to show and something to find."""

from __future__ import annotations

from importlib import resources
from pathlib import Path

from fenwick.data.database import Database, create_database
from fenwick.data.lines import add_line, add_shop, first_line_id
from fenwick.rig import Rig, read_rig

SHOP = "Willow Yard Ukuleles"


def demo_rig() -> Rig:
    """The drum sander line: a hose too wide for its vacuum, and a bin that folds."""
    return read_rig(resources.files("fenwick.data").joinpath("demo_line.json").read_bytes())


def seed_demo(path: Path) -> Database:
    """Open the demo shop at `path`, made first where there is none; a shop already there is left as it is.

    Raises
    ------
    ShopDatabaseError
    """
    database = create_database(path)
    with database.session() as session:
        if first_line_id(session) is None:
            add_line(session, add_shop(session, SHOP), demo_rig())
    return database
