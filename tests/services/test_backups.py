"""A copy is looked at before it is put back, and what it takes the place of is kept."""

import os
import sqlite3
import threading
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from sqlmodel import Session

from fenwick.data import Database, ShopDatabaseError
from fenwick.data.backups import BROUGHT, BY_HAND, DAILY, RESTORE, back_up, backups_of
from fenwick.data.lines import add_line, change_line, line_names, line_state, set_removed
from fenwick.data.opening import MIGRATIONS
from fenwick.data.shops import shop_state, the_shop
from fenwick.rig import edit_rig
from fenwick.services.backups import bring, daily, restore, what_changes
from fenwick.services.shop_file import store_shop
from fenwick.shop import edit_shop
from tests.data.test_migrations import older

NEWEST = max(path.name[:4] for path in (MIGRATIONS / "versions").glob("0*.py"))


def rename(session: Session, line: int, name: str) -> None:
    change_line(session, line, edit_rig(line_state(session, line).rig, {"name": name}), "name")


def names(shop: Database) -> dict[int, str]:
    with shop.session() as session:
        return dict(line_names(session, 1))


def test_what_would_change_is_told_line_by_line(shop: Database) -> None:
    copy = back_up(shop, BY_HAND)
    assert what_changes(shop, copy.path).nothing
    with shop.session(to_write=True) as session:
        rename(session, 1, "Renamed")
        set_removed(session, 2, removed=True)
        add_line(session, the_shop(session), edit_rig(line_state(session, 1).rig, {"name": "New"}))
        store_shop(session, edit_shop(shop_state(session).file, {"name": "Another shed"}), "name")
    found = what_changes(shop, copy.path)
    assert {one.name: one.way for one in found.lines if one.way != "stays"} == {
        "Renamed": "changes",
        "New": "goes",
        names_before(copy.path)[2]: "comes",
    }
    assert [one.states for one in found.lines if one.name == "Renamed"] == [(2, 1)]
    assert found.shop
    assert not found.nothing


def names_before(path: Path) -> dict[int, str]:
    with sqlite3.connect(path) as copy:
        return dict(copy.execute("SELECT id, name FROM dust_line"))


def test_put_back_all_is_as_it_was_and_what_was_there_can_come_again(shop: Database) -> None:
    before, copy = names(shop), back_up(shop, BY_HAND)
    with shop.session(to_write=True) as session:
        rename(session, 1, "Renamed")
    made = restore(shop, copy.path)
    assert names(shop) == before
    assert made.why == RESTORE
    assert what_changes(shop, copy.path).nothing
    restore(shop, made.path)
    assert names(shop)[1] == "Renamed"
    with shop.session(to_write=True) as session:  # and it goes on from there
        rename(session, 1, "Renamed again")
    assert names(shop)[1] == "Renamed again"


def test_it_is_put_back_under_the_eyes_of_those_who_read(shop: Database) -> None:
    copy = back_up(shop, BY_HAND)
    with shop.session(to_write=True) as session:
        rename(session, 1, "Renamed")
    with shop.session() as reading:
        before = line_state(reading, 1).rig.name
        restore(shop, copy.path)
        assert before == "Renamed"
    assert names(shop)[1] != "Renamed"
    with shop.engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA integrity_check").scalar() == "ok"


def test_who_writes_meanwhile_is_waited_for(shop: Database) -> None:
    copy, written = back_up(shop, BY_HAND), threading.Event()

    def write() -> None:
        with shop.session(to_write=True) as session:
            written.set()
            rename(session, 1, "Renamed")

    thread = threading.Thread(target=write)
    thread.start()
    written.wait(5.0)
    restore(shop, copy.path)
    thread.join()
    with shop.engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA integrity_check").scalar() == "ok"


def test_a_copy_of_an_earlier_fenwick_is_brought_up_to_date_on_its_way(shop: Database, tmp_path: Path) -> None:
    old = tmp_path / "old.db"
    older(old, "0005").close()
    stored = old.read_bytes()
    restore(shop, old)
    assert old.read_bytes() == stored
    with shop.engine.connect() as connection:
        assert connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar() == NEWEST
    with shop.session() as session:
        assert shop_state(session).file.name


@pytest.mark.parametrize("content", [b"", b"holiday" * 1000, b"SQLite format 3\x00" + b"\x07" * 9000])
def test_what_is_no_copy_changes_nothing(shop: Database, tmp_path: Path, content: bytes) -> None:
    before, path = names(shop), tmp_path / "strange.db"
    path.write_bytes(content)
    for use in (what_changes, restore):
        with pytest.raises(ShopDatabaseError, match=r"^strange\.db (is not a copy|cannot be read, or is damaged)"):
            use(shop, path)
    with pytest.raises(ShopDatabaseError):
        bring(shop, path, datetime.now())
    assert names(shop) == before
    assert backups_of(shop.path) == []


def test_somebody_elses_database_is_no_copy(shop: Database, tmp_path: Path) -> None:
    path = tmp_path / "recipes.db"
    with sqlite3.connect(path) as other:
        other.execute("CREATE TABLE recipes (id INTEGER)")
    with pytest.raises(ShopDatabaseError, match="not a Fenwick shop"):
        restore(shop, path)


def test_one_from_elsewhere_lies_beside_the_others(shop: Database, tmp_path: Path) -> None:
    other = back_up(shop, BY_HAND).path.rename(tmp_path / "stick.db")
    found = bring(shop, other, datetime(2026, 1, 2, 3, 4, 5))
    assert (found.why, found.at.year) == (BROUGHT, 2026)
    assert what_changes(shop, found.path).nothing


def test_one_a_day_and_none_where_nothing_has_changed(shop: Database) -> None:
    now = datetime.now()
    for file in shop.path.parent.glob("shop.db*"):
        os.utime(file, (now.timestamp() - 3600.0,) * 2)
    first = daily(shop, now)
    assert first is not None
    assert first.why == DAILY
    assert daily(shop, now + timedelta(hours=1)) is None
    assert daily(shop, now + timedelta(days=2)) is None  # nothing has changed since
    with shop.session(to_write=True) as session:
        rename(session, 1, "Renamed")
    first.path.rename(first.path.with_name(first.name.replace(f"{now:%Y%m%d}", f"{now - timedelta(days=3):%Y%m%d}")))
    assert daily(shop, now) is not None
