"""The log on disk: every change is a step that can be taken back, and nothing that was written is lost."""

from collections.abc import Iterator
from datetime import datetime, timedelta

import pytest
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.lines import NotFoundError
from fenwick.data.logbook import (
    LogWanted,
    add_entries,
    add_log_photo,
    change_entry,
    count_of,
    entries_of,
    entry_of,
    hours_logged,
    log_photo,
    log_stamp,
    photos_of,
    remove_entries,
    remove_log_photo,
    standing_of_log,
    step_log,
)
from fenwick.logged import Logged

NOW = datetime(2026, 11, 28, 17, 0)


@pytest.fixture
def log(shop: Database) -> Iterator[Session]:
    """A session that writes, in a shop whose log was thrown away."""
    session = shop.open_session(to_write=True)
    there = [one.id for one in entries_of(session, LogWanted()) if one.id is not None]
    if there:
        remove_entries(session, there, "Nothing of before")
    yield session
    session.close()


def told(session: Session) -> list[str]:
    return [entry.words for entry in entries_of(session, LogWanted())]


def test_an_entry_is_added_changed_taken_away_and_each_is_undone_and_redone(log: Session) -> None:
    (first,) = add_entries(log, [Logged("remark", NOW, words="one")], "Remark")
    second = change_entry(log, first, Logged("remark", NOW, words="two"), "Changed")
    remove_entries(log, [second], "Taken away")
    assert told(log) == []
    states = [(step_log(log, -1), told(log)) for _ in range(3)]
    assert states == [("Taken away", ["two"]), ("Changed", ["one"]), ("Remark", [])]
    assert [step_log(log, 1) for _ in range(4)] == ["Remark", "Changed", "Taken away", None]
    assert told(log) == []


def test_a_change_after_an_undo_leaves_what_was_undone_behind(log: Session) -> None:
    add_entries(log, [Logged("remark", NOW, words="one")], "One")
    step_log(log, -1)
    add_entries(log, [Logged("remark", NOW, words="two")], "Two")
    assert standing_of_log(log).redo_label is None
    assert step_log(log, 1) is None
    assert told(log) == ["two"]


def test_many_entries_are_one_step(log: Session) -> None:
    many = [Logged("worked", NOW - timedelta(hours=i), 2, "Bandsaw", hours=0.5) for i in range(3000)]
    ids = add_entries(log, many, "From a table")
    assert ids == list(range(ids[0], ids[0] + 3000))
    assert count_of(log, LogWanted(kinds=("worked",))) == 3000
    (bandsaw,) = hours_logged(log)
    assert (bandsaw.line, bandsaw.tool, float(bandsaw.hours.sum())) == (2, "Bandsaw", 1500.0)
    assert list(bandsaw.at) == sorted(bandsaw.at)
    step_log(log, -1)
    assert count_of(log, LogWanted(kinds=("worked",))) == 0


def test_the_newest_comes_first_and_what_is_asked_for_narrows(log: Session) -> None:
    add_entries(
        log,
        [
            Logged("remark", NOW, 1, words="a 100 % clean filter"),
            Logged("tapped", NOW - timedelta(days=1), 2),
            Logged("odd", NOW - timedelta(days=9), 2, words="a screw"),
        ],
        "Three",
    )
    assert [one.kind for one in entries_of(log, LogWanted())] == ["remark", "tapped", "odd"]
    assert [one.kind for one in entries_of(log, LogWanted(line=2))] == ["tapped", "odd"]
    assert [one.kind for one in entries_of(log, LogWanted(text="SCREW"))] == ["odd"]
    assert [one.kind for one in entries_of(log, LogWanted(text="0 %"))] == ["remark"]
    assert [one.kind for one in entries_of(log, LogWanted(since=NOW - timedelta(days=2)), start=1)] == ["tapped"]


def test_a_photo_goes_with_its_entry_however_that_is_changed(log: Session) -> None:
    (first,) = add_entries(log, [Logged("odd", NOW, words="one")], "Odd")
    photo = add_log_photo(log, first, b"jpeg")
    second = change_entry(log, first, Logged("odd", NOW, words="two"), "Changed")
    assert photos_of(log, [second]) == {second: [photo]}
    step_log(log, -1)
    assert photos_of(log, [first, second]) == {first: [photo]}
    step_log(log, 1)
    assert log_photo(log, photo) == b"jpeg"
    assert remove_log_photo(log, photo) == second
    with pytest.raises(NotFoundError):
        log_photo(log, photo)


def test_what_is_not_there_is_said(log: Session) -> None:
    for wrong in (
        lambda: entry_of(log, 10**9),
        lambda: change_entry(log, 10**9, Logged("odd", NOW), "x"),
        lambda: add_log_photo(log, 10**9, b""),
        lambda: remove_log_photo(log, 10**9),
    ):
        with pytest.raises(NotFoundError):
            wrong()


def test_two_states_of_a_log_have_two_stamps(log: Session) -> None:
    stamps = [log_stamp(log)]
    for words in ("one", "two"):
        add_entries(log, [Logged("remark", NOW, words=words)], words)
        stamps.append(log_stamp(log))
    step_log(log, -1)
    stamps.append(log_stamp(log))
    assert len(set(stamps)) == len(stamps)
