"""A whole shop read in: shown first, added or put in the place of the one here."""

import zipfile
from datetime import datetime
from pathlib import Path

import pytest

from fenwick.data import Database, create_database
from fenwick.data.lines import all_line_ids, all_names, line_state, set_removed
from fenwick.data.logbook import LogWanted, add_entries, add_log_photo, count_of, entries_of, photos_of, step_log
from fenwick.data.trials import trials_of
from fenwick.logged import Logged
from fenwick.rig import edit_rig
from fenwick.services.lines import store
from fenwick.services.whole import add_whole, export_shop, replace_whole, show_whole

NOW = datetime(2026, 11, 28, 17, 0)


@pytest.fixture
def packed(shop: Database, tmp_path: Path) -> Path:
    """The demo shop, with a photo in its log, in a zip."""
    with shop.session(to_write=True) as session:
        (entry,) = add_entries(session, [Logged("odd", NOW, 2, words="<script>alert(1)</script>")], "Odd")
        add_log_photo(session, entry, b"\xff\xd8\xff\xe0 a photo")
    path = tmp_path / "packed.zip"
    export_shop(shop, path)
    return path


@pytest.fixture
def other(tmp_path: Path) -> Database:
    """An empty shop."""
    (tmp_path / "other").mkdir()
    return create_database(tmp_path / "other" / "shop.db")


def test_an_empty_shop_takes_all_of_it_and_gives_the_same_file(packed: Path, other: Database, tmp_path: Path) -> None:
    shown, _ = add_whole(other, packed)
    assert shown.empty
    again = tmp_path / "again.zip"
    export_shop(other, again)
    assert again.read_bytes() == packed.read_bytes()


def test_what_is_here_already_is_not_added_again(shop: Database, packed: Path) -> None:
    shown = show_whole(shop, packed)
    assert (shown.adds, shown.entries) == ((), 0)
    assert shown.replaces.nothing
    add_whole(shop, packed)
    with shop.session() as session:
        assert len(all_line_ids(session)) == 3


def test_it_is_shown_what_would_come_and_then_it_comes_with_all_that_hangs_on_it(shop: Database, packed: Path) -> None:
    with shop.session(to_write=True) as session:
        kept = count_of(session, LogWanted())
        store(session, 2, edit_rig(line_state(session, 2).rig, {"line.elements[0].length_m": 2.2}), "Shorter")
        step_log(session, -1)
        set_removed(session, 3, removed=True)
    shown = show_whole(shop, packed)
    assert shown.adds == ("Bench line", "Drum sander, cyclone")
    assert {one.name: one.way for one in shown.replaces.lines} == {
        "Drum sander line": "stays",
        "Bench line": "changes",
        "Drum sander, cyclone": "comes",
    }
    assert shown.entries == 1
    add_whole(shop, packed)
    with shop.session() as session:
        names = all_names(session)
        assert {"Bench line", "Bench line 2", "Drum sander, cyclone"} <= names
        came = {line_state(session, line).rig.name: line for line in all_line_ids(session)}["Bench line 2"]
        assert [one.title for one in trials_of(session, came)] == [one.title for one in trials_of(session, 2)]
        assert count_of(session, LogWanted()) == kept
        (odd,) = entries_of(session, LogWanted(text="script"))
        assert odd.id is not None
        assert photos_of(session, [odd.id])


def test_it_takes_the_place_of_the_shop_and_the_old_one_is_a_copy(shop: Database, packed: Path, tmp_path: Path) -> None:
    with shop.session(to_write=True) as session:
        set_removed(session, 1, removed=True)
    _, before = replace_whole(shop, packed)
    assert before.path.is_file()
    with shop.session() as session:
        assert len(all_line_ids(session)) == 3
    again = tmp_path / "again.zip"
    export_shop(shop, again)
    assert again.read_bytes() == packed.read_bytes()


def test_tables_to_read_lie_beside_it(packed: Path) -> None:
    with zipfile.ZipFile(packed) as file:
        names = file.namelist()
        log = file.read("csv/log.csv").decode()
    assert {"csv/log.csv", "lines/0002.json", "csv/readings-0003.csv"} <= set(names)
    assert "Bench line" in log
    assert log.splitlines()[0].startswith("when,entry,line,level (mm),volume (L),mass (kg)")
