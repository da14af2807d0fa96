"""Builds in the shop's file: a tick is a step of the history, photos hang on their step, lines keep theirs apart."""

from __future__ import annotations

import pytest
from sqlmodel import Session, select

from fenwick.builds.edit import get, tick
from fenwick.builds.model import BuildFile
from fenwick.data import Database
from fenwick.data.builds import (
    add_build_photo,
    build_photo,
    build_state,
    change_build,
    photos_of_step,
    remove_build_photo,
    step_build,
)
from fenwick.data.healing import heal
from fenwick.data.lines import NotFoundError
from fenwick.data.tables import Build, BuildRevision

AT = "2026-11-28T10:00:00Z"


def ticked(session: Session, name: str, line: int = 2) -> None:
    state = build_state(session, line, "sep")
    change_build(session, line, "sep", tick(state.file, name, AT, cures=False), name)


def done(session: Session, line: int = 2) -> list[str]:
    return [one.step for one in build_state(session, line, "sep").file.done]


def test_nothing_is_written_by_looking(session: Session) -> None:
    before = len(session.exec(select(Build)).all())
    state = build_state(session, 2, "sep")
    assert (state.id, state.file, state.undo_label) == (None, BuildFile(what="sep"), None)
    assert len(session.exec(select(Build)).all()) == before


def test_every_step_is_taken_back_one_by_one_and_brought_again(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        for name in ("a", "b", "c"):
            ticked(session, name)
        assert done(session) == ["a", "b", "c"]
        assert [step_build(session, 2, "sep", -1) for _ in range(4)] == ["c", "b", "a", None]
        assert done(session) == []
        assert [step_build(session, 2, "sep", +1) for _ in range(4)] == ["a", "b", "c", None]
        assert done(session) == ["a", "b", "c"]


def test_what_was_undone_stands_behind_no_step_once_something_else_is_done(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        for name in ("a", "b"):
            ticked(session, name)
        step_build(session, 2, "sep", -1)
        ticked(session, "x")
        assert done(session) == ["a", "x"]
        assert build_state(session, 2, "sep").redo_label is None
        assert len(session.exec(select(BuildRevision)).all()) >= 3  # nothing is thrown away


def test_builds_of_two_lines_and_of_two_things_are_apart(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        ticked(session, "a", 2)
        ticked(session, "b", 3)
        stand = build_state(session, 2, "stand")
        change_build(session, 2, "stand", get(stand.file, "casters", there=True), "casters")
        assert (done(session, 2), done(session, 3)) == (["a"], ["b"])
        assert build_state(session, 2, "stand").file.got == ("casters",)


def test_photos_hang_on_their_step_and_on_their_line(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        first = add_build_photo(session, 2, "sep", "wrap-dry", b"one")
        second = add_build_photo(session, 2, "sep", "wrap-dry", b"two")
        other = add_build_photo(session, 2, "sep", "cut-wall", b"three")
        build = build_state(session, 2, "sep")
        assert photos_of_step(session, build.id, "wrap-dry") == [first, second]
        assert photos_of_step(session, build.id, "cut-wall") == [other]
        assert build_photo(session, 2, second).picture == b"two"
        with pytest.raises(NotFoundError):
            build_photo(session, 3, second)
        assert remove_build_photo(session, 2, first) == "wrap-dry"
        assert photos_of_step(session, build.id, "wrap-dry") == [second]


def test_a_hole_in_the_history_of_a_build_is_closed_at_the_next_opening(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        for name in ("a", "b", "c"):
            ticked(session, name)
        build = build_state(session, 2, "sep")
        middle = session.exec(
            select(BuildRevision).where(BuildRevision.build_id == build.id, BuildRevision.number == 2)
        ).one()
        session.delete(middle)
        session.flush()
        assert any("record of a build “sep”" in one for one in heal(session))
        assert done(session) == ["a", "b", "c"]
        assert step_build(session, 2, "sep", -1) == "c"
        assert done(session) == ["a"]
