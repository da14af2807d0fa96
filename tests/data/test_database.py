"""The shop on disk: opened, migrated, protected, and refused in a sentence."""

import sqlite3
from pathlib import Path

import pytest
from sqlmodel import SQLModel, select

from fenwick.data import Database, ShopDatabaseError, create_database, open_database
from fenwick.data.demo import SHOP, seed_demo
from fenwick.data.lines import NotFoundError, change_line, first_line_id, line_state, step_line
from fenwick.data.tables import DustLine, Revision
from fenwick.rig import edit_rig


def test_every_connection_has_foreign_keys_and_the_wal(shop: Database) -> None:
    for _ in range(3):
        with shop.engine.connect() as connection:
            assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
            assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"


def test_the_migrations_make_the_tables_that_the_models_describe(shop: Database) -> None:
    from alembic.autogenerate import compare_metadata
    from alembic.runtime.migration import MigrationContext

    with shop.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), SQLModel.metadata) == []


def test_seeding_twice_keeps_what_was_changed(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    first = seed_demo(path)
    with first.session() as session:
        rig = edit_rig(line_state(session, 1).rig, {"name": "Changed"})
        change_line(session, 1, rig, "name")
    first.close()
    with seed_demo(path).session() as session:
        state = line_state(session, 1)
        assert (state.shop, state.rig.name) == (SHOP, "Changed")


def test_undo_and_redo_walk_the_history_and_a_change_cuts_what_was_undone(shop: Database) -> None:
    with shop.session() as session:
        start = line_state(session, 1)
        assert (start.undo_label, start.redo_label, start.previous) == (None, None, None)
        for bore in (0.04, 0.05):
            change_line(
                session, 1, edit_rig(line_state(session, 1).rig, {"line.elements[1].bore_m": bore}), f"to {bore}"
            )
        assert step_line(session, 1, -1) == "to 0.05"
        assert step_line(session, 1, -1) == "to 0.04"
        assert step_line(session, 1, -1) is None
        assert line_state(session, 1).rig == start.rig
        assert step_line(session, 1, +1) == "to 0.04"
        change_line(session, 1, edit_rig(start.rig, {"name": "Another way"}), "renamed")
        assert line_state(session, 1).redo_label is None
        assert step_line(session, 1, +1) is None


def test_a_shop_deleted_takes_its_lines_along(shop: Database) -> None:
    with shop.engine.begin() as connection:
        connection.exec_driver_sql("DELETE FROM shop")
    with shop.session() as session:
        assert session.exec(select(DustLine)).all() == []
        assert session.exec(select(Revision)).all() == []
        assert first_line_id(session) is None


def test_a_line_that_is_not_there(shop: Database) -> None:
    with shop.session() as session, pytest.raises(NotFoundError, match="no line number 99"):
        line_state(session, 99)


def test_missing(tmp_path: Path) -> None:
    with pytest.raises(ShopDatabaseError, match=r"There is no shop at .*none\.db\. “fenwick demo” makes one"):
        open_database(tmp_path / "none.db")


def test_not_a_database(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    path.write_bytes(b"this is not a database" * 400)
    with pytest.raises(ShopDatabaseError, match="is not a Fenwick shop, or it is damaged"):
        open_database(path)


def test_somebody_elses_database(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    with sqlite3.connect(path) as other:
        other.execute("CREATE TABLE recipes (id INTEGER)")
    with pytest.raises(ShopDatabaseError, match="is a database, but not a Fenwick shop"):
        open_database(path)


def test_from_a_newer_version(shop: Database) -> None:
    with shop.engine.begin() as connection:
        connection.exec_driver_sql("UPDATE alembic_version SET version_num = '9999'")
    shop.close()
    with pytest.raises(ShopDatabaseError, match="was made by a newer Fenwick"):
        open_database(shop.path)


def test_read_only(shop: Database) -> None:
    shop.close()
    locked = Database(shop.path, read_only=True)
    with locked.session() as session:
        state = line_state(session, 1)
        assert state.rig.name
    with pytest.raises(ShopDatabaseError, match="is read-only, so nothing was saved"), locked.session() as session:
        change_line(session, 1, state.rig, "nothing")
    locked.close()


def test_no_room_to_make_one(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("in the way")
    with pytest.raises(ShopDatabaseError, match="cannot be made: File exists"):
        create_database(tmp_path / "file" / "shop.db")
