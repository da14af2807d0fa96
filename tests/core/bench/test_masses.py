"""Separation by mass: GUM by hand, coverage by simulation, bad rows kept apart; verdicts that do not cry wolf."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.bench.trials.by_hand import flow_share_by_pitch, volume_by_ruler
from fenwick.core.bench.trials.compare import CANNOT_SHOW, NOT_SHOWN, REAL, compare
from fenwick.core.bench.trials.separation import MassRun, Scale, run_found
from fenwick.core.bench.trials.summary import summary
from fenwick.core.components.bins import Bin
from fenwick.core.formulas.metrology import (
    closure,
    difference_sd,
    repeats_needed,
    resolution_sd,
    separation_sd,
    separation_share,
    smallest_difference,
    welch_freedom,
)

KITCHEN, FINE = Scale(1e-3), Scale(1e-4)


def test_uncertainties_by_hand() -> None:
    assert float(resolution_sd(1.0)) == pytest.approx(0.288675, rel=1e-5)
    assert float(difference_sd(1e-3)) == pytest.approx(0.40825e-3, rel=1e-4)
    assert float(separation_share(0.095, 0.005)) == pytest.approx(0.95)
    # 5·0.408 and 95·0.408 over 100² grams
    assert float(separation_sd(95.0, 5.0, 0.40825, 0.40825)) == pytest.approx(0.003884, rel=1e-3)
    assert float(closure(0.095, 0.004, 0.001, 0.1)) == pytest.approx(1.0)
    # equal variances and counts: 2(n − 1)
    assert float(welch_freedom(1.0, 4, 1.0, 4)) == pytest.approx(6.0)


@given(st.floats(0.01, 1.0), st.floats(0.001, 0.5), st.floats(1e-5, 1e-3))
def test_propagation_agrees_with_drawing(kept: float, past: float, sd: float) -> None:
    rng = np.random.default_rng(1)
    drawn = separation_share(kept + sd * rng.standard_normal(20_000), past + sd * rng.standard_normal(20_000))
    if sd < 0.05 * (kept + past):
        assert float(separation_sd(kept, past, sd, sd)) == pytest.approx(float(np.std(drawn)), rel=0.05)


def test_a_run_that_finds_more_or_less_than_was_fed_says_so() -> None:
    good = run_found(MassRun(0.1, 0.095, 0.005), KITCHEN, KITCHEN)
    assert good.faults == ()
    assert good.closes == pytest.approx(1.0)
    assert "more-out" in run_found(MassRun(0.1, 0.12, 0.005), KITCHEN, KITCHEN).faults
    assert "less-out" in run_found(MassRun(0.1, 0.08, 0.005), KITCHEN, KITCHEN).faults
    assert "negative" in run_found(MassRun(0.1, 0.105, -0.005), KITCHEN, KITCHEN).faults
    assert "coarse" in run_found(MassRun(0.1, 0.0995, 0.0005), KITCHEN, KITCHEN).faults
    assert run_found(MassRun(0.1, 0.0, 0.0), KITCHEN, KITCHEN).faults[0] == "nothing"
    assert run_found(MassRun(None, 0.095, 0.005), KITCHEN, KITCHEN).closes is None


def simulated(rng: np.random.Generator, share: float, scatter: float, scale: Scale, fed: float = 0.1) -> MassRun:
    """A run as a scale that rounds would show it."""
    true = float(np.clip(share + scatter * rng.standard_normal(), 0.0, 1.0))

    def weigh(mass: float) -> float:
        empty = rng.uniform(0.5, 2.0)
        step = scale.resolution
        return float(round((empty + mass) / step) * step - round(empty / step) * step)

    return MassRun(fed, weigh(fed * true), weigh(fed * (1.0 - true)))


@pytest.mark.parametrize(("n", "scatter"), [(1, 0.0), (3, 0.01), (5, 0.02)])
def test_intervals_hold_the_truth_as_often_as_they_say(n: int, scatter: float) -> None:
    rng = np.random.default_rng(7)
    held = 0
    for _ in range(400):
        runs = [run_found(simulated(rng, 0.9, scatter, KITCHEN), KITCHEN, KITCHEN) for _ in range(n)]
        found = summary([run.share for run in runs], [run.sd for run in runs], (0.0, 1.0))
        assert found is not None
        held += found.low <= 0.9 <= found.high
    assert 0.91 <= held / 400 <= 1.0


def verdicts(shift: float, n: int, scatter: float, scale: Scale, tests: int) -> list[str]:
    """Verdicts of simulated tests."""
    rng = np.random.default_rng(11)
    found = []
    for _ in range(tests):
        shares = [
            [run_found(simulated(rng, share, scatter, scale), scale, scale).share for _ in range(n)]
            for share in (0.85, 0.85 + shift)
        ]
        sd = run_found(MassRun(0.1, 0.085, 0.015), scale, scale).sd
        result = compare(*shares, sd, 0.02)
        assert result is not None
        found.append(result.verdict)
    return found


@pytest.mark.parametrize(("n", "scatter", "scale"), [(2, 0.01, FINE), (3, 0.01, KITCHEN), (5, 0.02, FINE)])
def test_a_change_of_nothing_is_seldom_called_real(n: int, scatter: float, scale: Scale) -> None:
    assert verdicts(0.0, n, scatter, scale, 2000).count(REAL) <= 0.06 * 2000


def test_a_large_change_is_mostly_called_real_and_a_hopeless_test_says_so() -> None:
    assert verdicts(0.08, 4, 0.01, FINE, 200).count(REAL) > 190
    assert verdicts(0.0, 2, 0.05, FINE, 200).count(CANNOT_SHOW) > 180
    assert verdicts(0.0, 8, 0.004, FINE, 200).count(NOT_SHOWN) > 180


def test_comparisons_that_cannot_be_made() -> None:
    assert compare([0.9], [0.8, 0.81], 0.01, 0.02) is None
    same = compare([0.9, 0.9], [0.9, 0.9], 0.0, 0.02)
    assert same is not None
    assert same.verdict == NOT_SHOWN
    lucky = compare([0.90, 0.90], [0.905, 0.905], 0.01, 0.02)
    assert lucky is not None
    assert lucky.verdict != REAL  # equal readings are the scale's doing, not certainty


def test_repeats_and_the_smallest_difference_belong_together() -> None:
    n = repeats_needed(0.01, 0.02)
    assert n is not None
    assert float(smallest_difference(0.01, float(n))) <= 0.02 < float(smallest_difference(0.01, n - 1.0))
    assert repeats_needed(0.05, 0.001) is None


def test_a_ruler_in_the_bin() -> None:
    box = Bin((0.0, 0.42), (0.32, 0.38))
    even = volume_by_ruler(box, [0.25, 0.25, 0.25, 0.25], 0.001)
    assert even.value == pytest.approx(float(box.volume_to(0.17)))
    heaped = volume_by_ruler(box, [0.20, 0.25, 0.28, 0.27], 0.001)
    assert heaped.sd > 5.0 * even.sd
    assert volume_by_ruler(box, [0.25], 0.001).sd > heaped.sd  # one point says little


def test_the_pitch_of_a_motor_is_a_rough_reading() -> None:
    assert flow_share_by_pitch(400.0, 500.0, 400.0).value == 1.0  # type: ignore[union-attr]
    half = flow_share_by_pitch(400.0, 500.0, 450.0)
    assert half is not None
    assert half.value == pytest.approx(0.5)
    assert half.sd >= 0.1
    assert flow_share_by_pitch(500.0, 400.0, 450.0) is None
