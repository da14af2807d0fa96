"""Shops made by an earlier Fenwick are brought up to date, and nothing in them is lost."""

import json
import sqlite3
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine

from fenwick.data import open_database
from fenwick.data.lines import line_names, line_state
from fenwick.data.opening import MIGRATIONS


def older(path: Path, revision: str) -> sqlite3.Connection:
    """An empty shop as it was at a revision."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with create_engine(f"sqlite:///{path}").begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
    return sqlite3.connect(path)


@pytest.fixture
def before_names(tmp_path: Path, document: dict[str, object]) -> Path:
    """A shop from before lines had a column for their name: one line renamed once and stepped back, one damaged."""
    path = tmp_path / "old.db"
    with older(path, "0005") as shop:
        now = "2026-01-01 00:00:00"
        shop.execute("INSERT INTO shop VALUES (1, 'Old shed', ?, 0)", (now,))
        shop.executemany("INSERT INTO dust_line VALUES (?, 1, ?, 1, 0)", [(1, 1), (2, 2)])
        texts = [
            (1, 1, json.dumps({**document, "name": "First name"})),
            (1, 2, json.dumps({**document, "name": "2nd"})),
        ]
        for line, number, text in [*texts, (2, 1, "{broken")]:
            shop.execute(
                "INSERT INTO revision (line_id, number, label, document, created_at) VALUES (?, ?, '', ?, ?)",
                (line, number, text, now),
            )
    shop.close()
    return path


def test_names_come_from_the_revision_in_force(before_names: Path) -> None:
    shop = open_database(before_names)
    with shop.session() as session:
        assert dict(line_names(session, 1)) == {1: "First name", 2: "Dust line"}
        assert line_state(session, 1).rig.name == "First name"
    shop.close()
