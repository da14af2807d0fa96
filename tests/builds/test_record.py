"""The record of a build: each change gives another record, and does nothing that is done already."""

from __future__ import annotations

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from fenwick.builds.edit import choose, decide, forget, get, move, note_cut, remember, see, tick, untick
from fenwick.builds.model import BuildFile, MadeFor, read_build, write_build
from fenwick.rig import RigError

AT = "2026-11-28T10:00:00Z"
LATER = "2026-11-29T10:00:00Z"
EMPTY = BuildFile(what="sep")
NAMES = ("roof", "wall", "disc", "ring")


def test_a_tick_begins_the_build_and_the_clock_of_a_cure() -> None:
    done = tick(EMPTY, "seal", AT, cures=True)
    assert (done.begun, done.clocks[0].step, done.clocks[0].since) == (AT, "seal", AT)
    assert tick(done, "seal", LATER, cures=True) == done
    assert tick(done, "cut", LATER, cures=False).begun == AT


def test_what_is_not_done_after_all_has_no_clock() -> None:
    done = tick(tick(EMPTY, "seal", AT, cures=True), "cut", AT, cures=False)
    back = untick(done, "seal")
    assert [one.step for one in back.done] == ["cut"]
    assert back.clocks == ()
    assert untick(back, "never") == back


def test_a_figure_is_measured_again_and_taken_back() -> None:
    first = note_cut(EMPTY, "roof", "d_m", 0.35)
    again = note_cut(first, "roof", "d_m", 0.352)
    assert [(one.part, one.dim, one.value_m) for one in again.cut] == [("roof", "d_m", 0.352)]
    assert note_cut(again, "roof", "d_m", None).cut == ()


def test_a_new_figure_forgets_what_was_decided_of_the_old_one() -> None:
    decided = decide(note_cut(EMPTY, "roof", "d_m", 0.35), "roof", "d_m", "shim")
    assert decided.cut[0].decision == "shim"
    assert note_cut(decided, "roof", "d_m", 0.36).cut[0].decision == ""


def test_a_decision_about_nothing_changes_nothing() -> None:
    assert decide(EMPTY, "roof", "d_m", "shim") == EMPTY


def test_things_come_and_go() -> None:
    there = get(get(EMPTY, "bolts", there=True), "bolts", there=True)
    assert there.got == ("bolts",)
    assert get(there, "bolts", there=False) == EMPTY


def test_what_was_seen_last_stands() -> None:
    seen = see(see(EMPTY, "listen", AT, fine=False, note="hiss"), "listen", AT, fine=True, note="")
    assert [(one.check, one.fine, one.note) for one in seen.first_run] == [("listen", True, "")]


def test_a_part_is_remembered_as_it_was_first_wanted_until_it_is_made_anew() -> None:
    old, new = (MadeFor(part="roof", material="plywood", thickness_m=0.012, dims={"d_m": d}) for d in (0.35, 0.4))
    kept = remember(remember(EMPTY, [old]), [new])
    assert kept.made == (old,)
    assert remember(forget(kept, "roof"), [new]).made == (new,)


@given(st.lists(st.tuples(st.sampled_from(NAMES), st.integers(-6, 6)), max_size=12))
def test_however_steps_are_moved_none_is_lost_and_none_doubled(moves: list[tuple[str, int]]) -> None:
    build, order = EMPTY, list(NAMES)
    for name, by in moves:
        before = order.index(name)
        build = move(build, order, name, by)
        order = list(build.order)
        assert sorted(order) == sorted(NAMES)
        assert order.index(name) == min(max(before + by, 0), len(NAMES) - 1)


def test_a_step_that_is_not_there_is_not_moved() -> None:
    assert move(EMPTY, NAMES, "nothing", 1) == EMPTY


@given(
    st.lists(st.sampled_from(NAMES), unique=True), st.booleans(), st.sampled_from(("evening", "weekend")),
    st.floats(0.0, 3.0),
)  # fmt: skip
def test_a_record_is_read_as_it_was_written(done: list[str], bought: bool, hours: str, value: float) -> None:
    build = choose(note_cut(EMPTY, "roof", "d_m", value), bought=bought, hours=hours)
    for name in done:
        build = tick(build, name, AT, cures=bought)
    assert read_build(write_build(build)) == build


@pytest.mark.parametrize(
    "changes",
    [
        {"what": ""},
        {"what": "a b"},
        {"hours": "never"},
        {"done": [{"step": "x", "at": "yesterday"}]},
        {"cut": [{"part": "roof", "dim": "d_m", "value_m": -1.0}]},
        {"cut": [{"part": "roof", "dim": "d_m", "value_m": 9.0}]},
        {"got": ["<script>"]},
        {"first_run": [{"check": "listen", "fine": True, "note": "x" * 600}]},
        {"surprise": 1},
    ],
)
def test_what_cannot_be_in_a_record_is_refused(changes: dict[str, object]) -> None:
    document = {**json.loads(write_build(EMPTY)), **changes}
    with pytest.raises(ValidationError):
        BuildFile.model_validate(document)
    with pytest.raises(RigError, match="record of the build"):
        read_build(json.dumps(document))
