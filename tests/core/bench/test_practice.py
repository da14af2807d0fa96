"""Practice: levels, two faults at once, mending what was named, and hunts that go to their end."""

from __future__ import annotations

import numpy as np
import pytest

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import Case, hunt
from fenwick.core.bench.faults.kinds import FAULTS, HEALTHY, SYMPTOMS, symptom_likelihood
from fenwick.core.bench.faults.practice import (
    EASY,
    LEVELS,
    MOST_MOVES,
    SURE_ENOUGH,
    TWO,
    USUAL,
    good_hunt,
    good_stage,
    good_stages,
    is_right,
    mend,
    set_puzzle,
    take_reading,
)
from fenwick.core.bench.faults.since import WORK, since_factor
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line


@pytest.fixture(scope="module")
def case() -> Case:
    """The demo line with every fault it can have."""
    return Case.of(build_line(demo_rig()))


@pytest.mark.parametrize("level", sorted(LEVELS))
def test_the_same_seed_hides_the_same_and_a_sound_line_never(case: Case, level: str) -> None:
    for seed in range(20):
        one, again = set_puzzle(case, seed, level), set_puzzle(case, seed, level)
        assert one.faults == again.faults
        assert one.symptoms == again.symptoms
        assert HEALTHY not in one.faults
        assert len(one.faults) == LEVELS[level].faults or level == TWO
        assert len(set(one.faults)) == len(one.faults)


def test_two_are_hidden_in_nearly_every_hunt_for_two(case: Case) -> None:
    assert sum(len(set_puzzle(case, seed, TWO).faults) == 2 for seed in range(40)) >= 38


def test_an_easy_one_is_gross_tells_what_it_usually_shows_and_no_look_deceives(case: Case) -> None:
    for seed in range(20):
        puzzle = set_puzzle(case, seed, EASY)
        (fault,) = puzzle.hidden
        assert fault.degree == max(FAULTS[fault.fault].degrees, key=lambda d: FAULTS[fault.fault].degrees.index(d))
        told = {one for one in SYMPTOMS if symptom_likelihood(one, fault.fault) >= 0.5}
        assert set(puzzle.symptoms) == told
        for look in (one for one in checks_of(case.line) if one.kind == "look"):
            assert take_reading(puzzle, look).value == float(look.station == fault.fault)


def test_easy_hunts_are_found_more_often_than_usual_ones(case: Case) -> None:
    offered = checks_of(case.line)
    found = {}
    for level in (EASY, USUAL):
        puzzles = [set_puzzle(case, seed, level) for seed in range(30)]
        found[level] = sum(good_stage(one, offered).named == one.fault for one in puzzles)
    assert found[EASY] >= found[USUAL] - 1
    assert found[EASY] >= 27


def test_a_good_hunt_ends_sure_or_says_what_it_cannot_tell_apart(case: Case) -> None:
    offered = checks_of(case.line)
    for seed in range(30):
        puzzle = set_puzzle(case, seed)
        stage = good_stage(puzzle, offered)
        taken = [move.reading for move in stage.moves]
        found = hunt(case, taken, puzzle.symptoms)
        assert stage.named == found.suspects[0].fault
        assert bool(stage.alike) == (found.suspects[0].share < SURE_ENOUGH and len(found.named) > 1)
        assert stage.named not in stage.alike
        assert len(stage.moves) <= MOST_MOVES
        assert good_hunt(puzzle, offered) == stage.moves


def test_what_is_named_rightly_is_mended_and_the_hunt_goes_on(case: Case) -> None:
    puzzle = next(p for p in (set_puzzle(case, seed, TWO) for seed in range(20)) if len(p.faults) == 2)
    first, second = puzzle.faults
    assert is_right(puzzle, first)
    assert is_right(puzzle, second)
    assert not is_right(puzzle, HEALTHY)
    left = mend(puzzle, first)
    assert left is not None
    assert left.faults == (second,)
    assert left.mended == 1
    assert left.line is not puzzle.line
    assert mend(left, second) is None
    offered = [one for one in checks_of(case.line) if one.kind != "look"]
    before, after = ([take_reading(p, one).value for one in offered] for p in (puzzle, left))
    assert before != after


def test_good_hunts_for_two_find_at_least_one_nearly_always(case: Case) -> None:
    offered = checks_of(case.line)
    both = one = 0
    for seed in range(16):
        puzzle = set_puzzle(case, seed, TWO)
        stages = good_stages(puzzle, offered)
        named = [x for stage in stages for x in (stage.named, *stage.alike)]
        hits = len(set(named) & set(puzzle.faults))
        one += hits >= 1
        both += hits == len(puzzle.faults)
        assert len(stages) <= 2
    assert one >= 14
    assert both >= 8


def test_it_began_with_some_work_speaks_for_what_was_handled_and_against_what_was_renewed(case: Case) -> None:
    for since, work in WORK.items():
        plain = {one.fault: one.share for one in hunt(case, [], ["dust-in-vacuum"]).suspects}
        told = {one.fault: one.share for one in hunt(case, [], ["dust-in-vacuum"], since).suspects}
        assert sum(told.values()) == pytest.approx(1.0)
        for fault in set(plain) - {HEALTHY}:
            odds = (told[fault] / told[HEALTHY]) / (plain[fault] / plain[HEALTHY])
            assert odds == pytest.approx(since_factor(fault, since))
            assert (odds > 1.5) == (fault in work.handled)
            assert (odds < 0.5) == (fault in work.renewed)
    assert since_factor("leak-lid", "") == since_factor("leak-lid", "nothing of the kind") == 1.0
    assert all(not set(work.handled) & set(work.renewed) for work in WORK.values())
    assert np.isfinite([since_factor(fault, since) for fault in FAULTS for since in WORK]).all()
