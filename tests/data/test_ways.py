"""The way that a line is on, with its history; gone with its line."""

from __future__ import annotations

from sqlmodel import Session, select

from fenwick.data.tables import LineWay, LineWayRevision
from fenwick.data.ways import change_way, step_way, way_state
from fenwick.way_kept import edit
from fenwick.way_kept.model import KeptStep, KeptWay

STEPS = tuple(KeptStep(key=key, words=key, cost=0.0, hours=0.25) for key in "ab")


def test_a_line_has_no_way_until_one_is_taken_up(session: Session) -> None:
    assert way_state(session, 1).way == KeptWay()
    assert step_way(session, 1, -1) is None
    change_way(session, 1, edit.take(KeptWay(), STEPS), "Taken up")
    assert way_state(session, 1).way.to_do == STEPS
    assert way_state(session, 2).way == KeptWay()


def test_every_change_is_taken_back_and_brought_again(session: Session) -> None:
    change_way(session, 1, edit.take(KeptWay(), STEPS), "Taken up")
    change_way(session, 1, edit.tick(way_state(session, 1).way, "a", "2026-11-28"), "Done: a")
    here = way_state(session, 1)
    assert (here.undo_label, here.redo_label, len(here.way.done)) == ("Done: a", None, 1)
    assert step_way(session, 1, -1) == "Done: a"
    assert way_state(session, 1).redo_label == "Done: a"
    assert not way_state(session, 1).way.done
    assert step_way(session, 1, 1) == "Done: a"
    assert step_way(session, 1, 1) is None
    assert step_way(session, 1, -1) == "Done: a"
    assert step_way(session, 1, -1) == "Taken up"
    assert way_state(session, 1).way == KeptWay()
    change_way(session, 1, edit.strike(KeptWay(), "b"), "Struck out")
    assert way_state(session, 1).redo_label is None  # what was undone is left behind
    assert len(session.exec(select(LineWay)).all()) == 1
    assert len(session.exec(select(LineWayRevision)).all()) == 3
