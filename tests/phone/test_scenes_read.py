"""Stand-ins of known truth are read within their bounds, and what is broken is refused; `make soak` has hundreds."""

from __future__ import annotations

import numpy as np
import pytest

from fenwick.core.rules import RuleBook
from fenwick.phone.grey import grade_of
from fenwick.phone.reading import PhoneReading
from fenwick.phone.scenes import StandIn, broken_ways, scene
from fenwick.services.phone import KINDS, read_by_phone

HELD_OUT = 40_000  #: seeds that nothing was fitted to
#: (within, in the reading's own unit; of its value [-]) for 19 of 20
WITHIN = {"grey": (0.3, 0.0), "squares": (0.0, 0.02), "depth": (2.0, 0.0), "tube": (1.5, 0.0), "pitch": (0.0, 0.005)}


def read(one: StandIn) -> PhoneReading:
    """What is read off a stand-in."""
    return read_by_phone(one.kind, [one.data])


@pytest.mark.parametrize("kind", KINDS)
def test_nineteen_of_twenty_are_read_within_their_bounds(kind: str) -> None:
    within, share = WITHIN[kind]
    good = held = 0
    for seed in range(HELD_OUT, HELD_OUT + 20):
        drawn = scene(kind, seed)
        found, truth = read(drawn), float(drawn.truth["value"])
        assert found.refused is None, (kind, seed, found.refused)
        assert found.value is not None
        assert found.low is not None
        assert found.high is not None
        assert found.low <= found.value <= found.high
        off = abs(found.value - truth)
        good += off <= within + share * truth
        held += found.low - 1e-9 <= truth <= found.high + 1e-9
        if kind == "grey":
            assert abs(found.seen["L"] - drawn.truth["L"]) < 2.0
    assert good >= 19
    assert held >= 17


@pytest.mark.parametrize(("kind", "broken"), [(kind, broken) for kind in KINDS for broken in broken_ways(kind)])
def test_what_is_broken_is_refused_with_a_sentence_and_never_guessed(kind: str, broken: str) -> None:
    for seed in range(HELD_OUT, HELD_OUT + 2):
        found = read(scene(kind, seed, broken))
        if broken == "shadow" and kind in ("depth", "tube") and found.refused is None:
            truth = float(scene(kind, seed, broken).truth["value"])
            assert found.value == pytest.approx(truth, abs=6.0)  # a shadow off the strip is no harm
            continue
        assert found.value is None, (seed, found.value)
        assert found.low is None
        assert found.refused is not None
        assert found.refused[0].isupper()
        assert found.refused[-1] in ".?"


def test_the_same_seed_is_the_same_scene_and_another_is_not() -> None:
    assert scene("tube", 5).data == scene("tube", 5).data
    assert scene("tube", 5).data != scene("tube", 6).data
    assert scene("pitch", 5).data == scene("pitch", 5).data


def test_grades_go_from_clean_to_black_without_a_step() -> None:
    stars = np.linspace(0.0, 100.0, 201)
    grades = grade_of(stars, RuleBook())
    assert grades[0] == 5.0
    assert grades[-1] == 0.0
    assert np.all(np.diff(grades) <= 0.0)
    assert np.abs(np.diff(grades)).max() < 0.1
