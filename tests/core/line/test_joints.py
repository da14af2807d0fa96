"""Joints: what goes inside what, the gap, and the fix, worked by hand."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.joint import FITS, PLASTICS, End
from fenwick.core.formulas.joint import diametral_gap, open_ring, stretch_needed, tape_wraps
from fenwick.core.line.joints import ADAPTER, FITS_SO, SLEEVE, TAPE, TROUBLE, UNKNOWN, WARM, Joint, fit_joint, stacks
from fenwick.core.rules import RuleBook

RULES = RuleBook()


def fit(leaving: End, entering: End):  # type: ignore[no-untyped-def]
    return fit_joint(Joint("a", "b", leaving, entering), RULES)


@pytest.mark.parametrize(
    ("leaving", "entering", "fix", "inner"),
    [
        (End(0.034, 0.0380), End(0.0383, 0.042), FITS_SO, "a"),  # 0.3 mm of play
        (End(0.0383, 0.042), End(0.034, 0.0380), FITS_SO, "b"),  # the other way round
        (End(0.034, 0.0380), End(0.0397, 0.044), TAPE, "a"),  # 1.7 mm
        (End(0.034, 0.0400), End(0.0385, 0.042, plastic="pvc-soft"), WARM, "a"),  # 3.9 % of 6 %
        (End(0.034, 0.0400), End(0.0385, 0.042, plastic="metal"), SLEEVE, "a"),  # metal does not give
        (End(0.034, 0.0400), End(0.0385, 0.042), SLEEVE, "a"),  # not known whether it gives
        (End(0.028, 0.0320), End(0.0900, 0.100), ADAPTER, "a"),
        (End(0.034, 0.0380, fit="screw"), End(0.05, 0.06, fit="screw"), FITS_SO, None),
        (End(fit="screw"), End(fit="left-screw"), ADAPTER, None),
        (End(), End(0.0383, 0.042), UNKNOWN, None),
    ],
)
def test_each_case(leaving: End, entering: End, fix: str, inner: str | None) -> None:
    found = fit(leaving, entering)
    assert found.fix == fix
    assert found.inner == inner


def test_wraps_and_leak_by_hand() -> None:
    found = fit(End(0.034, 0.0380), End(0.0397, 0.044))
    assert found.gap == pytest.approx(1.7e-3)
    assert found.wraps == 7  # 1.7 mm over 2 × 0.13 mm
    assert found.open_area == pytest.approx(3.14159265 / 4 * (0.0397**2 - 0.038**2))
    assert float(tape_wraps(0.52e-3, 0.13e-3)) == 2.0
    assert float(tape_wraps(-1.0, 0.13e-3)) == 0.0
    assert float(stretch_needed(0.05, 0.0525)) == pytest.approx(0.05)
    assert float(open_ring(0.04, 0.05)) == 0.0
    assert float(diametral_gap(0.05, 0.048)) == pytest.approx(0.002)


def test_left_and_right_thread_do_not_go_together() -> None:
    assert fit(End(fit="screw"), End(fit="left-screw")).clash
    assert not fit(End(fit="bayonet"), End(fit="bayonet")).clash


def test_with_equal_trouble_the_air_runs_from_inner_to_outer() -> None:
    both = fit(End(0.0382, 0.0380), End(0.0382, 0.0380))
    assert both.inner == "a"


def test_a_long_stack_is_found() -> None:
    run = [("hose", False), ("r1", True), ("r2", True), ("r3", True), ("hose-2", False), ("r4", True), ("r5", True)]
    assert stacks(run, RULES) == [("r1", "r2", "r3")]


ENDS = st.builds(
    End,
    st.none() | st.floats(0.02, 0.12),
    st.none() | st.floats(0.02, 0.12),
    st.sampled_from(sorted(FITS)),
    st.none() | st.sampled_from(sorted(PLASTICS)),
)


@given(ENDS, ENDS)
def test_every_pair_of_ends_has_one_answer_whichever_comes_first(one: End, other: End) -> None:
    there, back = fit(one, other), fit(other, one)
    assert there.fix in TROUBLE
    assert there.fix == back.fix
    if there.fix == WARM:
        assert there.stretch is not None
        assert there.limit is not None
        assert 0.0 < there.stretch <= there.limit
    if there.fix == TAPE:
        assert there.wraps >= 1
        assert there.gap is not None
        assert there.gap > 0.0
