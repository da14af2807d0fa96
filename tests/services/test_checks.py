"""The checks with what was acknowledged: what stays open, what is counted, and when an old word no longer covers."""

from __future__ import annotations

import pytest
from sqlmodel import Session

from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.data.acknowledgements import acknowledge, acknowledged, withdraw
from fenwick.data.lines import line_state
from fenwick.services.checks import Tally, checked, reviewed, tally


def test_every_check_of_the_review_comes_and_nothing_is_acknowledged_at_first(session: Session) -> None:
    state = line_state(session, 3)
    found = checked(session, state)
    assert tuple(one.check for one in found) == reviewed(state.rig, state.owned)
    assert {OK, WATCH, ACT} >= {one.level for one in found}
    assert all(one.seen is None for one in found if one.level == OK)


def test_the_count_is_of_what_is_open(session: Session) -> None:
    found = checked(session, line_state(session, 3))
    counted = tally(found)
    assert counted.act == sum(one.open and one.level == ACT for one in found)
    assert counted.watch == sum(one.open and one.level == WATCH for one in found)


def test_what_is_acknowledged_stays_in_sight_and_is_no_longer_counted(session: Session) -> None:
    state = line_state(session, 3)
    before = checked(session, state)
    worst = next(one for one in before if one.open)
    part = worst.check.part or ""
    acknowledge(session, 3, worst.check.id, part, worst.level, "said", "lived with")
    after = checked(session, state)
    assert [one.check for one in after] == [one.check for one in before]
    mine = next(one for one in after if (one.check.id, one.check.part or "") == (worst.check.id, part))
    assert mine.seen is not None
    assert mine.seen.reason == "lived with"
    assert not mine.open
    assert sum(one.open for one in after) == sum(one.open for one in before) - 1
    assert withdraw(session, 3, mine.seen.id)
    assert tally(checked(session, state)) == tally(before)


def test_what_has_become_worse_is_no_longer_covered(session: Session) -> None:
    state = line_state(session, 3)
    worst = next(one for one in checked(session, state) if one.level == ACT and one.open)
    part = worst.check.part or ""
    acknowledge(session, 3, worst.check.id, part, WATCH, "said", "only to watch then")
    (kept,) = [one for one in acknowledged(session, 3) if one.check_id == worst.check.id and one.part == part][:1]
    assert kept.covers(worst.check.id, part, WATCH)
    assert not kept.covers(worst.check.id, part, ACT)
    again = next(one for one in checked(session, state) if one.check == worst.check)
    assert again.open


def test_what_is_in_order_is_never_covered_by_an_old_word(session: Session) -> None:
    state = line_state(session, 3)
    fine = next(one for one in checked(session, state) if one.level == OK)
    acknowledge(session, 3, fine.check.id, fine.check.part or "", ACT, "said", "was bad once")
    again = next(one for one in checked(session, state) if one.check == fine.check)
    assert again.seen is None


def test_an_acknowledgement_of_one_line_says_nothing_of_another(session: Session) -> None:
    state = line_state(session, 3)
    before = tally(checked(session, state))
    for one in checked(session, line_state(session, 1)):
        acknowledge(session, 1, one.check.id, one.check.part or "", one.level, "said", "there")
    assert tally(checked(session, state)) == before


@pytest.mark.parametrize(
    ("counted", "level", "words"),
    [
        (Tally(2, 3), "act", "2 to act on"),
        (Tally(0, 1), "watch", "1 to watch"),
        (Tally(0, 0), "ok", "in order"),
    ],
)
def test_the_header_says_the_worst_alone(counted: Tally, level: str, words: str) -> None:
    assert counted.level == level
    assert counted.words == words


def test_a_line_is_reviewed_once(session: Session) -> None:
    state = line_state(session, 1)
    assert reviewed(state.rig, state.owned) is reviewed(line_state(session, 1).rig, state.owned)
