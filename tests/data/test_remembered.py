"""What a session remembers: read once, forgotten as soon as anything is written or taken back."""

import pytest
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.lines import change_line, line_names, line_state
from fenwick.data.remembered import known, remember, remembered
from fenwick.rig import edit_rig


def counting(value: str) -> tuple[list[str], object]:
    """A reader that notes every time it is asked."""
    asked: list[str] = []

    def read() -> str:
        asked.append(value)
        return value

    return asked, read


def test_it_is_read_once_for_each_key(shop: Database) -> None:
    asked, read = counting("a")
    with shop.session() as session:
        assert [remembered(session, ("x", 1), read) for _ in range(3)] == ["a"] * 3  # type: ignore[arg-type]
        assert remembered(session, ("x", 2), read) == "a"  # type: ignore[arg-type]
    assert len(asked) == 2


def test_sessions_do_not_share_what_they_know(shop: Database) -> None:
    with shop.session() as session:
        remember(session, ("x",), 1)
        assert known(session, ("x",)) == 1
        with shop.session() as other:
            assert known(other, ("x",)) is None


@pytest.mark.parametrize("end", ["commit", "rollback"])
def test_it_is_forgotten_when_something_is_written_or_taken_back(shop: Database, end: str) -> None:
    with shop.session() as session:
        line_state(session, 1)  # a transaction has begun
        remember(session, ("x",), 1)
        getattr(session, end)()
        assert known(session, ("x",)) is None


def test_a_change_is_seen_by_the_session_that_made_it(shop: Database) -> None:
    with shop.session() as session:
        before = line_state(session, 1)
        change_line(session, 1, edit_rig(before.rig, {"name": "Renamed"}), "name")
        assert line_state(session, 1).rig.name == "Renamed"
        assert dict(line_names(session, 1))[1] == "Renamed"


def test_names_are_those_of_the_documents_in_force(shop: Database) -> None:
    def names(session: Session) -> tuple[str, str]:
        return dict(line_names(session, 1))[1], line_state(session, 1).rig.name

    with shop.session() as session:
        first = names(session)[0]
        change_line(session, 1, edit_rig(line_state(session, 1).rig, {"name": "Renamed"}), "name")
    from fenwick.data.lines import step_line

    for by, wanted in ((0, "Renamed"), (-1, first), (1, "Renamed")):
        with shop.session() as session:
            if by:
                step_line(session, 1, by)
        with shop.session() as session:
            assert names(session) == (wanted, wanted)
