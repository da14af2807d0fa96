"""What was found beside what was expected: how far off, and what the whole test says of the model."""

from __future__ import annotations

from dataclasses import replace
from math import radians

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.arrays import one_value
from fenwick.core.bench.trials.compare import compare
from fenwick.core.bench.trials.expect import (
    Expected,
    drawn_outcomes,
    expected_band,
    expected_outcome,
    kept_reading,
    readings_of_test,
    state_line,
)
from fenwick.core.bench.trials.held import (
    AGREES,
    ALIKE,
    HIGHER,
    HOLDS,
    LOWER,
    MIXED,
    NOT_SURE,
    NOTHING,
    ONE,
    Held,
    held,
    held_difference,
    held_states,
    what_it_says,
)
from fenwick.core.bench.trials.plan import MASSES, Condition, Plan
from fenwick.core.bench.trials.summary import Summary, summary
from fenwick.core.line.line import Line
from fenwick.core.tuning.readings import KEPT, Reading, expected
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

WITHIN = (0.0, 1.0)


@pytest.fixture(scope="module")
def line() -> Line:
    """The demo line as described."""
    return build_line(demo_rig())


def found(*values: float, sd: float = 0.002) -> Summary:
    """Repeats together."""
    told = summary(values, [sd] * len(values), WITHIN)
    assert told is not None
    return told


def test_within_what_both_are_unsure_of_it_agrees() -> None:
    band = Expected(0.75, 0.55, 0.85)
    assert held(band, 0.60, 0.01).verdict == AGREES
    assert held(band, 0.40, 0.01).verdict == LOWER
    assert held(band, 0.95, 0.01).verdict == HIGHER
    assert held(band, 0.40, 0.20).verdict == AGREES  # so rough a test shows nothing against it
    assert held(band, 0.40, 0.01, unsure=True).verdict == NOT_SURE
    assert held(band, 0.60, 0.01).surer
    assert not held(band, 0.60, 0.2).surer


def test_a_model_without_doubt_and_a_test_without_doubt_agree_only_where_they_are_the_same() -> None:
    sure = Expected(0.5, 0.5, 0.5)
    assert held(sure, 0.5, 0.0).verdict == AGREES
    assert held(sure, 0.5001, 0.0).verdict == HIGHER
    assert held(sure, 0.4999, 0.0).verdict == LOWER


@given(
    value=st.floats(0.1, 0.9), low=st.floats(0.001, 0.09), high=st.floats(0.001, 0.09), off=st.floats(-0.09, 0.09),
    sd=st.floats(1e-4, 0.1),
)  # fmt: skip
def test_the_farther_off_the_less_it_agrees(value: float, low: float, high: float, off: float, sd: float) -> None:
    band = Expected(value, value - low, value + high)
    near, far = held(band, value + off, sd), held(band, value + 2.0 * off, sd)
    assert abs(far.apart) >= abs(near.apart)
    assert near.off == pytest.approx(off, abs=1e-12)
    assert (near.verdict == AGREES) >= (far.verdict == AGREES)


def one(verdict: str) -> Held:
    """A state with a verdict."""
    return Held(Expected(0.5, 0.4, 0.6), 0.5, 0.0, 0.0, verdict, surer=True)


@pytest.mark.parametrize(
    ("verdicts", "says"),
    [
        ((), NOTHING),
        ((None, None), NOTHING),
        ((NOT_SURE,), NOTHING),
        ((AGREES,), HOLDS),
        ((AGREES, AGREES, None), HOLDS),
        ((LOWER,), ONE),
        ((LOWER, AGREES), ONE),
        ((LOWER, LOWER), ALIKE),
        ((HIGHER, HIGHER, HIGHER), ALIKE),
        ((LOWER, HIGHER), MIXED),
        ((LOWER, LOWER, AGREES), MIXED),
    ],
)
def test_what_a_test_says_of_the_model(verdicts: tuple[str | None, ...], says: str) -> None:
    assert what_it_says([None if v is None else one(v) for v in verdicts]) == says


def test_every_state_is_held_to_its_own_and_their_difference_draw_by_draw(line: Line) -> None:
    plan = Plan("tilt", MASSES, ("upright", "leaning"), conditions=(Condition(), Condition(lean=radians(30.0))))
    drawn = [drawn_outcomes(line, plan, (), k) for k in (0, 1)]
    assert drawn[0] is not None
    assert drawn[1] is not None
    bands = [expected_band(values) for values in drawn]
    assert bands[1].value < bands[0].value
    told = held_states(drawn, [found(bands[0].value, bands[0].value + 0.01), None])
    assert told[0] is not None
    assert told[0].verdict == AGREES
    assert told[1] is None
    apart = compare((0.75, 0.76), (0.70, 0.69), 0.005, 0.02)
    both = found(0.75, 0.76), found(0.70, 0.69)
    difference = held_difference(drawn[0], drawn[1], apart, both)
    assert difference is not None
    # what is not known of both moves both the same way: their difference is surer than either
    assert difference.expected.sd < 0.6 * bands[0].sd
    assert held_difference(None, drawn[1], apart, both) is None
    assert held_difference(drawn[0], drawn[1], None, both) is None
    assert held_difference(drawn[0], drawn[1], apart, (None, both[1])) is None


def test_drawn_the_first_is_the_line_as_it_stands(line: Line) -> None:
    plan = Plan("separation", MASSES, fed=0.3)
    drawn = drawn_outcomes(line, plan)
    assert drawn is not None
    assert drawn[0] == pytest.approx(expected_outcome(line, plan), rel=1e-5)
    assert drawn.size == 201
    suction = drawn_outcomes(line, Plan("stations", "suction", port="drum-sander", station="link"))
    assert suction is not None
    assert expected_band(suction).low < suction[0] < expected_band(suction).high
    assert drawn_outcomes(line, Plan("pull-off", "force", ("a", "b"))) is None


def test_a_state_that_leans_is_its_line_leaning(line: Line) -> None:
    plan = Plan("tilt", MASSES, ("a", "b"), conditions=(Condition(), Condition(lean=0.5)))
    assert state_line(line, plan, 0) is line
    assert one_value(state_line(line, plan, 1).separators[0].tilt) == 0.5
    assert state_line(line, plan, 7) is line
    bare = replace(line, trunk=tuple(part for part in line.trunk if part is not line.separators[0]))
    assert state_line(bare, plan, 1) is bare


def test_the_fuller_a_run_begins_the_less_is_kept(line: Line) -> None:
    levels = (0.0, 0.5, 0.9, 0.99)
    plan = Plan("fill", MASSES, ("a",) * 4, conditions=tuple(Condition(level=level) for level in levels))
    shares = [expected_outcome(line, plan, (), k) for k in range(4)]
    assert all(share is not None for share in shares)
    assert shares == sorted(shares, reverse=True)  # type: ignore[type-var]
    assert shares[-1] < 0.8 * shares[0]  # type: ignore[operator]


def test_what_was_fed_and_where_it_began_go_into_the_reading(line: Line) -> None:
    plan = Plan("fill", MASSES, ("a", "b"), fed=0.4, port="drum-sander", conditions=(Condition(level=0.25),))
    told = readings_of_test(plan, (), found(0.7, 0.72), [{}, {}], 0)
    assert [(one.kind, one.fed, one.level) for one in told] == [(KEPT, 0.4, 0.25)]
    assert kept_reading(Plan("separation", MASSES), 0).level == 0.0
    assert kept_reading(plan, 1).level is None
    assert kept_reading(Plan("dust", MASSES, ("a",), conditions=(Condition(dust="saw"),)), 0).dust == "saw"
    said = expected(line, [told[0], replace(told[0], fed=0.0)])[:, 0]
    assert np.all(np.isfinite(said))


def leaning(line: Line, tilt: float | np.ndarray) -> Line:
    """The line with its separator leaning."""
    first = line.separators[0]
    return replace(line, trunk=tuple(part.changed(tilt=tilt) if part is first else part for part in line.trunk))


def test_many_lines_are_followed_as_each_alone(line: Line) -> None:
    """One code path for one line and for many."""
    tilts = (0.0, 0.3, 0.8)
    reading = Reading(KEPT, 0.0, 1.0, "drum-sander", fed=1.0, level=0.1)
    alone = [expected(leaning(line, tilt), [reading])[0, 0] for tilt in tilts]
    assert np.allclose(expected(leaning(line, np.array(tilts)), [reading])[0], alone, rtol=1e-9)
