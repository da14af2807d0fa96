"""The record of a way: every change gives another record, what is done stays, nothing is done twice."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.rig.format.problems import RigError
from fenwick.way_kept import edit
from fenwick.way_kept.model import MOST_STRUCK, KeptStep, KeptWay, read_way, write_way

DAY = "2026-11-28"


def step(key: str, done: str | None = None) -> KeptStep:
    """A step of eight in money and half an hour."""
    return KeptStep(key=key, words=f"Do {key}", cost=8.0, hours=0.5, done=done)


WAY = KeptWay(spend=60.0, hours=12.0, steps=tuple(step(key) for key in "abcd"))


def keys(steps: tuple[KeptStep, ...]) -> str:
    """In their order."""
    return "".join(one.key for one in steps)


def test_a_tick_has_its_day_and_can_be_taken_back() -> None:
    ticked = edit.tick(WAY, "c", DAY)
    assert (keys(ticked.done), keys(ticked.to_do), ticked.done[0].done) == ("c", "abd", DAY)
    assert edit.tick(ticked, "c", "2027-01-01") == ticked
    assert edit.tick(WAY, "x", DAY) == WAY
    back = edit.untick(ticked, "c")
    assert (keys(back.done), keys(back.to_do)) == ("", "cabd")
    assert edit.untick(WAY, "a") == WAY


def test_steps_to_do_change_places_and_those_done_do_not() -> None:
    ticked = edit.tick(WAY, "a", DAY)
    assert keys(edit.move(ticked, "d", -1).to_do) == "bdc"
    assert keys(edit.move(ticked, "b", 9).to_do) == "cdb"
    assert keys(edit.move(ticked, "b", -9).to_do) == "bcd"
    assert edit.move(ticked, "a", 1) == ticked


def test_what_is_struck_out_leaves_the_way_but_not_what_was_done() -> None:
    ticked = edit.tick(WAY, "a", DAY)
    gone = edit.strike(edit.strike(ticked, "b"), "a")
    assert (keys(gone.to_do), keys(gone.done), gone.struck) == ("cd", "a", ("b", "a"))
    assert edit.strike(gone, "b").struck == ("b", "a")
    assert edit.unstrike(gone, "b").struck == ("a",)


def test_a_way_that_is_taken_up_takes_the_place_of_what_was_to_do() -> None:
    ticked = edit.tick(WAY, "a", DAY)
    taken = edit.take(ticked, [step("a"), step("x"), step("y")])
    assert (keys(taken.done), keys(taken.to_do)) == ("a", "xy")
    assert keys(edit.leave(taken).steps) == "a"
    assert (edit.ask(taken, None, 3.0).spend, edit.ask(taken, None, 3.0).hours) == (None, 3.0)


@given(st.lists(st.tuples(st.sampled_from(["tick", "untick", "strike", "up", "down"]), st.sampled_from("abcde"))))
def test_no_step_is_lost_or_doubled_whatever_is_done(deeds: list[tuple[str, str]]) -> None:
    way = WAY
    for deed, key in deeds:
        match deed:
            case "tick":
                way = edit.tick(way, key, DAY)
            case "untick":
                way = edit.untick(way, key)
            case "strike":
                way = edit.strike(way, key)
            case _:
                way = edit.move(way, key, -1 if deed == "up" else 1)
        assert len(set(keys(way.steps))) == len(way.steps)
        assert keys(way.steps) == keys(way.done) + keys(way.to_do)
        assert set("abcd") - set(way.struck) <= set(keys(way.steps))
        assert read_way(write_way(way)) == way


@pytest.mark.parametrize("text", ["", "{", "[]", '{"format": "fenwick-build"}', '{"steps": [{"key": ""}]}'])
def test_what_is_no_record_is_told_in_a_sentence(text: str) -> None:
    with pytest.raises(RigError, match="the record of the way cannot be read"):
        read_way(text)


def test_the_oldest_of_too_many_struck_out_is_forgotten() -> None:
    way = WAY
    for i in range(MOST_STRUCK + 5):
        way = edit.strike(way, f"k{i}")
    assert len(way.struck) == MOST_STRUCK
    assert way.struck[-1] == f"k{MOST_STRUCK + 4}"
    assert read_way(write_way(way)) == way
