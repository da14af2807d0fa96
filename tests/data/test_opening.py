"""A shop opens again whatever happened to it: stopped at any moment, left with holes, made by an earlier Fenwick."""

import os
import shutil
import sqlite3
import stat
import subprocess
import sys
from itertools import count
from pathlib import Path

import pytest
from sqlalchemy import event

from fenwick.data import Database, ShopDatabaseError, create_database, open_database
from fenwick.data.air_logs import begin_log, logs_of
from fenwick.data.backups import MIGRATION, backups_of
from fenwick.data.demo import seed_demo
from fenwick.data.lines import all_line_ids, change_line, line_state, step_line
from fenwick.data.opening import MIGRATIONS
from fenwick.data.readings import readings_of
from fenwick.data.shops import shop_state
from fenwick.rig import edit_rig
from tests.data.test_migrations import older

REVISIONS = sorted(path.name[:4] for path in (MIGRATIONS / "versions").glob("0*.py"))


def crashing_at(number: int, left: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """What lies on disk at the statement of a number is what a crash would leave there."""
    begin, seen = Database.__init__, [0]

    def watching(database: Database, path: Path, *, read_only: bool = False) -> None:
        def listen(*_: object) -> None:
            seen[0] += 1
            if seen[0] == number:
                shutil.copytree(path.parent, left)

        begin(database, path, read_only=read_only)
        event.listen(database.engine, "before_cursor_execute", listen)

    monkeypatch.setattr(Database, "__init__", watching)


def version(path: Path) -> str:
    with sqlite3.connect(path) as shop:
        return str(shop.execute("SELECT version_num FROM alembic_version").fetchone()[0])


def dump(path: Path) -> list[str]:
    with sqlite3.connect(path) as shop:
        return list(shop.iterdump())


@pytest.mark.parametrize("revision", [REVISIONS[0], REVISIONS[-2]])
def test_stopped_at_any_statement_of_a_migration_it_opens_again(
    tmp_path: Path, revision: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    old = tmp_path / "old" / "shop.db"
    old.parent.mkdir()
    older(old, revision).close()
    before = dump(old)
    for number in count(1):
        path, left = tmp_path / f"{number}" / "shop.db", tmp_path / f"left-{number}"
        path.parent.mkdir()
        shutil.copy(old, path)
        with monkeypatch.context() as patch:
            crashing_at(number, left, patch)
            open_database(path).close()
        if not left.exists():
            break
        assert dump(left / path.name) == before or version(left / path.name) == REVISIONS[-1]  # before, or after
        reopened = open_database(left / path.name)
        with reopened.session() as session:
            assert all_line_ids(session) == []
        reopened.close()
    assert number > 8


def test_a_copy_is_there_before_an_older_shop_is_brought_up_to_date(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    older(path, "0005").close()
    before = dump(path)
    open_database(path).close()
    (copy,) = backups_of(path)
    assert copy.why == MIGRATION
    assert dump(copy.path) == before
    open_database(path).close()
    assert len(backups_of(path)) == 1  # once is enough


def test_without_a_copy_nothing_is_brought_up_to_date(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    older(path, "0005").close()
    before = dump(path)
    (tmp_path / "backups").write_text("in the way")
    with pytest.raises(ShopDatabaseError, match="No copy of the shop could be written"):
        open_database(path)
    assert dump(path) == before


def test_a_first_start_that_was_stopped_begins_again(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    path.touch()
    shop = create_database(path)
    with shop.session() as session:
        assert shop_state(session).file.name == "My shop"
    shop.close()


def test_the_demo_is_there_whole_or_not_at_all(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "shop.db"

    def stopping(*_: object) -> None:
        raise KeyboardInterrupt

    with monkeypatch.context() as patch:
        patch.setattr("fenwick.data.demo.seed_trials", stopping)
        with pytest.raises(KeyboardInterrupt):
            seed_demo(path)
    shop = seed_demo(path)
    with shop.session() as session:
        assert len(all_line_ids(session)) == 3
    shop.close()


def test_a_shop_is_nobody_elses_to_read(tmp_path: Path) -> None:
    home = tmp_path / "home"
    shop = create_database(home / "shop.db")
    with shop.session(to_write=True) as session:
        shop_state(session)
    assert stat.S_IMODE(home.stat().st_mode) == 0o700
    for file in home.iterdir():
        assert stat.S_IMODE(file.stat().st_mode) == 0o600, file.name
    shop.close()


def test_a_shop_that_others_could_read_is_its_owners_alone_once_it_was_opened(shop: Database) -> None:
    shop.close()
    shop.path.chmod(0o644)
    open_database(shop.path).close()
    assert stat.S_IMODE(shop.path.stat().st_mode) == 0o600


@pytest.fixture
def longer(shop: Database) -> Database:
    """A shop whose first line has a history of six states."""
    with shop.session(to_write=True) as session:
        for i in range(5):
            change_line(session, 1, edit_rig(line_state(session, 1).rig, {"name": f"Name {i}"}), f"to {i}")
    return shop


@pytest.mark.parametrize(
    ("damage", "name"),
    [
        ("DELETE FROM revision WHERE line_id = 1 AND number = 6", "Name 3"),
        ("DELETE FROM revision WHERE line_id = 1 AND number IN (2, 4)", "Name 4"),
        ("UPDATE dust_line SET cursor = 40 WHERE id = 1", "Name 4"),
        ("UPDATE dust_line SET cursor = -2 WHERE id = 1", "First"),
        ("DELETE FROM revision WHERE line_id = 1 AND number < 4", "Name 4"),
    ],
)
def test_a_cursor_on_a_state_that_is_not_there_steps_to_the_nearest(longer: Database, damage: str, name: str) -> None:
    with longer.session() as session:
        while step_line(session, 1, -1):
            pass
        first = line_state(session, 1).rig.name
        while step_line(session, 1, +1):
            pass
    with longer.engine.begin() as connection:
        connection.exec_driver_sql(damage)
    longer.close()
    healed = open_database(longer.path)
    assert any("history" in sentence for sentence in healed.healed)
    with healed.session() as session:
        assert line_state(session, 1).rig.name == (first if name == "First" else name)
        while step_line(session, 1, -1):
            line_state(session, 1)
        while step_line(session, 1, +1):
            line_state(session, 1)
    healed.close()
    again = open_database(longer.path)
    assert again.healed == ()
    again.close()


def test_a_log_left_live_is_closed(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        begin_log(session, 1, "left on")
    shop.close()
    reopened = open_database(shop.path)
    assert reopened.healed == ("The log “left on” was being recorded when Fenwick was stopped; it is closed now.",)
    with reopened.session() as session:
        assert "left on" in [log.name for log in logs_of(session, 1)]
    reopened.close()


def test_a_column_that_an_earlier_fenwick_did_not_have_is_added(shop: Database) -> None:
    with shop.session() as session:
        before = readings_of(session, 3)
    with shop.engine.begin() as connection:
        connection.exec_driver_sql("ALTER TABLE reading DROP COLUMN purpose")
    shop.close()
    reopened = open_database(shop.path)
    assert reopened.healed == ("The table reading lacked its column purpose; it has it now.",)
    with reopened.session() as session:
        assert readings_of(session, 3) == before
    reopened.close()


def test_cuts_of_an_older_log_become_rows_and_half_a_cut_is_left_behind(tmp_path: Path) -> None:
    path = tmp_path / "shop.db"
    with older(path, "0006") as shop:
        now = "2026-01-01 00:00:00"
        shop.execute("INSERT INTO shop VALUES (1, 'Old shed', ?, 0)", (now,))
        shop.execute("INSERT INTO dust_line (id, shop_id, name, position, cursor, removed) VALUES (1, 1, 'L', 1, 1, 0)")
        shop.execute(
            "INSERT INTO air_log (id, line_id, name, cuts, unreadable, notes, created_at)"
            " VALUES (1, 1, 'a', ?, 0, '', ?)",
            ("-5.000--2.000;3.500-60.000;61.0", now),
        )
    shop.close()
    open_database(path).close()
    with sqlite3.connect(path) as found:
        assert found.execute("SELECT start, stop FROM air_log_cut").fetchall() == [(-5.0, -2.0), (3.5, 60.0)]


SEED_AND_STOP = """
import os, sys, threading
from pathlib import Path
from fenwick.data.demo import seed_demo
threading.Timer(float(sys.argv[2]), lambda: os.kill(os.getpid(), 9)).start()
seed_demo(Path(sys.argv[1])).close()
"""


@pytest.mark.parametrize("after", [0.02, 0.1, 0.25])
def test_a_first_start_that_is_killed_begins_again(tmp_path: Path, after: float) -> None:
    path = tmp_path / "shop.db"
    subprocess.run([sys.executable, "-c", SEED_AND_STOP, str(path), str(after)], check=False, env=dict(os.environ))
    shop = seed_demo(path)
    with shop.session() as session:
        assert len(all_line_ids(session)) == 3
    shop.close()
