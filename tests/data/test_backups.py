"""Copies of a shop: whole, checked, and kept by their age."""

import sqlite3
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.data import Database, ShopDatabaseError, open_database
from fenwick.data.backups import BY_HAND, DAILY, FRESH, MOST_FRESH, back_up, backups_of, copy_checked, kept_of
from fenwick.data.lines import change_line, line_state
from fenwick.rig import edit_rig

NOW = datetime(2026, 11, 28, 12, 0, 0)
AGES = st.lists(st.integers(0, 4 * 365 * 24 * 60), max_size=120)


@given(ages=AGES)
def test_the_newest_of_each_day_week_and_month_is_kept(ages: list[int]) -> None:
    times = [NOW - timedelta(minutes=age) for age in ages]
    keep = kept_of(times, NOW)
    assert keep <= set(times)
    assert len(keep) <= 14 + 8 + 24 + MOST_FRESH
    if times:
        assert max(times) in keep
    for most, key in ((14, "%Y-%j"), (8, "%G-%V"), (24, "%Y-%m")):
        for span in sorted({at.strftime(key) for at in times}, reverse=True)[:most]:
            assert max(at for at in times if at.strftime(key) == span) in keep


@given(ages=AGES)
def test_what_was_let_go_is_not_missed_later(ages: list[int]) -> None:
    """To let go day by day keeps the same as to let go once."""
    times = [NOW - timedelta(minutes=age) for age in ages]
    once = kept_of(times, NOW)
    assert kept_of(sorted(kept_of(times, NOW)), NOW) == once


def test_a_year_of_daily_copies() -> None:
    keep: set[datetime] = set()
    for day in range(400):
        at = NOW + timedelta(days=day)
        keep = kept_of([*keep, at], at)
    ages = sorted((at - one).days for one in keep)
    assert ages[:14] == list(range(14))
    assert len(keep) <= 14 + 8 + 24
    assert ages[-1] >= 365 - 31  # a year back there is still one of a month


def test_a_copy_in_use_is_whole_and_opens_as_a_shop(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        change_line(session, 1, edit_rig(line_state(session, 1).rig, {"name": "In the copy"}), "name")
        with shop.session() as other:
            line_state(other, 1)
            copy = back_up(shop, BY_HAND)  # what is not kept yet is not in it
    later = back_up(shop, BY_HAND)
    names = []
    for one in (copy, later):
        assert [path.name for path in one.path.parent.iterdir() if path.name.startswith(one.path.stem + ".db-")] == []
        opened = open_database(one.path)
        with opened.session() as session:
            names.append(line_state(session, 1).rig.name)
        opened.close()
    assert names[1] == "In the copy"
    assert names[0] != "In the copy"


def test_copies_of_one_second_have_names_of_their_own(shop: Database) -> None:
    made = {back_up(shop, BY_HAND, now=NOW).name for _ in range(3)}
    assert len(made) == 3
    assert {one.name for one in backups_of(shop.path)} == made
    assert all(one.at == NOW for one in backups_of(shop.path))


def test_old_copies_are_let_go_and_other_files_are_not(shop: Database) -> None:
    for day in range(30):
        back_up(shop, DAILY, now=NOW - timedelta(days=30 - day))
    strange = shop.path.parent / "backups" / "holiday.jpg"
    strange.write_text("mine")
    back_up(shop, DAILY, now=NOW)
    ages = [(NOW - one.at).days for one in backups_of(shop.path)]
    assert ages[:14] == list(range(14))
    assert len(ages) < 22
    assert strange.exists()
    assert timedelta(days=1) < FRESH


def test_a_copy_that_is_not_whole_is_none(shop: Database, tmp_path: Path) -> None:
    damaged = tmp_path / "damaged.db"
    with shop.engine.begin() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint")
    raw = bytearray(shop.path.read_bytes())
    raw[8192:12288] = b"\x07" * 4096
    damaged.write_bytes(raw)
    with pytest.raises(sqlite3.Error):
        copy_checked(damaged, tmp_path / "copy.db")
    assert not (tmp_path / "copy.db").exists()
    assert not (tmp_path / "copy.part").exists()


def test_no_room_for_copies_is_said(shop: Database) -> None:
    (shop.path.parent / "backups").write_text("in the way")
    with pytest.raises(ShopDatabaseError, match="No copy of the shop could be written"):
        back_up(shop, BY_HAND)
