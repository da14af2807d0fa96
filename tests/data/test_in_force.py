"""What stands of every way and build of some lines, in one question; what cannot be read is left to its own page."""

from sqlalchemy import text
from sqlmodel import Session

from fenwick.builds.edit import tick
from fenwick.data.builds import build_state, builds_of, change_build, step_build
from fenwick.data.ways import change_way, step_way, way_state, ways_of
from fenwick.way_kept.model import KeptStep, KeptWay


def way(*keys: str) -> KeptWay:
    """A way of some steps."""
    return KeptWay(steps=tuple(KeptStep(key=key, words=key, cost=1.0, hours=1.0) for key in keys))


def test_ways_are_those_that_stand_after_changes_and_undo(session: Session) -> None:
    assert ways_of(session, [1, 2, 3]) == []
    change_way(session, 2, way("a"), "one")
    change_way(session, 2, way("a", "b"), "two")
    change_way(session, 3, way("c"), "one")
    assert [(line, len(found.steps)) for line, found in ways_of(session, [1, 2, 3])] == [(2, 2), (3, 1)]
    step_way(session, 2, -1)
    assert ways_of(session, [2]) == [(2, way_state(session, 2).way)]
    step_way(session, 2, -1)  # before the first state nothing stands
    assert ways_of(session, [2]) == []
    assert ways_of(session, []) == []


def test_builds_are_those_that_stand_and_each_is_of_its_line(session: Session) -> None:
    (before,) = builds_of(session, [1, 2, 3])
    assert before == (1, build_state(session, 1, "sep").file)
    file = build_state(session, 3, "sep").file
    change_build(session, 3, "sep", tick(file, "read", "2026-11-01T10:00:00Z", cures=False), "Read")
    assert [line for line, _ in builds_of(session, [1, 2, 3])] == [1, 3]
    step_build(session, 3, "sep", -1)
    assert [line for line, _ in builds_of(session, [1, 3])] == [1]


def test_what_cannot_be_read_is_left_out_and_the_rest_is_there(session: Session) -> None:
    change_way(session, 2, way("a"), "one")
    change_way(session, 3, way("b"), "one")
    session.connection().execute(text("update line_way_revision set document = '{' where label = 'one' and id = 1"))
    session.connection().execute(text("update build_revision set document = 'x'"))
    assert len(ways_of(session, [2, 3])) == 1
    assert builds_of(session, [1]) == []
