"""Tuning: known truth is found back within its intervals, what is not read stays a belief, the next reading helps."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.vacuum import MeasuredCurve
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import FACTORS, spreads, tuned
from fenwick.core.tuning.fit import (
    KEYS,
    REACH,
    expected_at,
    figures_at,
    fit,
    next_readings,
    slopes_at,
    stretched,
    stretched_share,
)
from fenwick.core.tuning.readings import BLOCKED, FLOW, KEPT, SEALED, SUCTION, Reading, expected
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

PORT = "drum-sander"
PLACES = ("hose-a", "hose-b", "sep", "link")
DESIGN = (
    *(Reading(SUCTION, 0.0, 60.0, PORT, place) for place in PLACES),
    Reading(SEALED, 0.0, 150.0),
    Reading(BLOCKED, 0.0, 150.0, PORT, "link"),
    Reading(FLOW, 0.0, 1e-3, PORT),
    Reading(KEPT, 0.0, 0.01, PORT),
    Reading(KEPT, 0.0, 0.01, PORT, dust="sanding-p240"),
)


@pytest.fixture(scope="module")
def line() -> Line:
    """The demo line as described."""
    return build_line(demo_rig())


def read(line: Line, logs: np.ndarray, rng: np.random.Generator, design: tuple[Reading, ...] = DESIGN) -> list[Reading]:
    """Readings of a line whose factors are known, with their scatter."""
    truth = expected_at(line, design, logs[:, None])[:, 0]
    return [replace(r, value=float(v + r.sd * rng.standard_normal())) for r, v in zip(design, truth, strict=True)]


def test_a_line_with_all_factors_at_one_is_the_line(line: Line) -> None:
    same = tuned(line, dict.fromkeys(FACTORS, 1.0))
    before, after = expected(line, DESIGN), expected(same, DESIGN)
    assert np.allclose(before, after, rtol=1e-9)
    assert set(KEYS) == {"fan", "roughness", "entry", "leak", "cake", "cut", "exchange"}


@pytest.mark.parametrize(("key", "more"), [("fan", +1), ("roughness", -1), ("entry", -1), ("cake", -1)])
def test_each_factor_moves_the_air_the_way_it_should(line: Line, key: str, more: int) -> None:
    flows = [float(assess(tuned(line, {key: f})).point.port_flow[0, 0]) for f in (0.8, 1.0, 1.25)]
    assert np.all(np.sign(np.diff(flows)) == more)


@pytest.mark.parametrize("key", ["leak", "cut", "exchange"])
def test_each_factor_of_the_separator_costs_what_is_kept(line: Line, key: str) -> None:
    kept = [float(assess(tuned(line, {key: f})).kept[0]) for f in (0.7, 1.0, 1.4)]  # type: ignore[index]
    assert kept[0] > kept[1] > kept[2]


def test_slopes_agree_with_small_steps(line: Line) -> None:
    logs = 0.1 * np.arange(len(KEYS)) - 0.3
    mean, slopes = slopes_at(line, DESIGN, logs)
    for j in range(len(KEYS)):
        step = logs.copy()
        step[j] += 0.005
        moved = expected_at(line, DESIGN, step[:, None])[:, 0]
        assert np.allclose((moved - mean) / 0.005, slopes[:, j], rtol=0.08, atol=2e-3 * np.abs(mean) + 1e-9)


def test_the_truth_lies_within_the_intervals_as_often_as_they_say(line: Line) -> None:
    rng = np.random.default_rng(4)
    shops, held = 24, np.zeros(len(KEYS))
    for _ in range(shops):
        logs = spreads(KEYS) * rng.standard_normal(len(KEYS))
        found = fit(line, read(line, logs, rng))
        assert found is not None
        held += np.abs(found.logs - logs) <= REACH * np.sqrt(np.diag(found.covariance))
    assert 0.80 <= held.mean() / shops <= 0.97


def test_readings_fix_what_they_can_and_say_what_they_cannot(line: Line) -> None:
    rng = np.random.default_rng(5)
    logs = np.zeros(len(KEYS))
    logs[KEYS.index("fan")], logs[KEYS.index("roughness")] = np.log(0.85), np.log(1.6)
    readings = read(line, logs, rng)
    found = fit(line, readings)
    assert found is not None
    by = {one.key: one for one in found.fitted()}
    assert by["fan"].fixed
    assert by["fan"].low <= 0.85 <= by["fan"].high
    assert by["roughness"].fixed
    sealed = next(i for i, r in enumerate(readings) if r.kind == SEALED)
    assert sealed in [i for i, _ in by["fan"].by[:2]]
    assert not by["entry"].fixed
    assert all(one.low < one.value < one.high for one in by.values())


def test_nothing_read_of_masses_leaves_the_separator_a_belief(line: Line) -> None:
    found = fit(line, read(line, np.zeros(len(KEYS)), np.random.default_rng(6), DESIGN[:6]))
    assert found is not None
    by = {one.key: one for one in found.fitted()}
    assert not by["cut"].fixed
    assert not by["exchange"].fixed
    assert by["cut"].high == pytest.approx(by["cut"].prior_high, rel=0.05)


def test_a_wrong_reading_is_doubted_and_leaving_it_out_shows_it(line: Line) -> None:
    readings = read(line, np.zeros(len(KEYS)), np.random.default_rng(8))
    readings[0] = replace(readings[0], value=readings[0].value + 2500.0)
    found = fit(line, readings)
    assert found is not None
    assert 0 in found.doubted
    assert int(np.argmax(np.abs(found.left_out))) == 0


def test_the_next_reading_shrinks_what_it_says_it_does(line: Line) -> None:
    rng = np.random.default_rng(9)
    logs = 0.3 * spreads(KEYS)
    first = read(line, logs, rng, DESIGN[:4])
    found = fit(line, first)
    assert found is not None
    figure = Reading(KEPT, 0.0, 1.0, PORT)
    ranked = next_readings(found, DESIGN[4:], figure)
    assert [w.after for w in ranked] == sorted(w.after for w in ranked)
    best = ranked[0]
    again = fit(line, [*first, best.reading])
    assert again is not None
    told = figures_at(again, figure)
    assert told is not None
    assert told[1][1] == pytest.approx(best.after, rel=0.25)
    assert best.after < best.before


def test_a_reading_the_model_cannot_speak_of_is_left_out(line: Line) -> None:
    unknown = Reading(SUCTION, 3000.0, 60.0, PORT, "nowhere")
    assert fit(line, [unknown]) is None
    found = fit(line, [unknown, *read(line, np.zeros(len(KEYS)), np.random.default_rng(1))])
    assert found is not None
    assert found.used[0] == 1
    bare = replace(line, dust=None)
    assert fit(bare, [Reading(KEPT, 0.8, 0.01, PORT)]) is None


def test_a_measured_curve_is_tuned_too(line: Line) -> None:
    points = [(0.0, 18000.0), (0.02, 14000.0), (0.04, 7500.0), (0.06, 500.0)]
    measured = replace(line, vacuum=replace(line.vacuum, curve=MeasuredCurve.through(points)))
    logs = np.zeros(len(KEYS))
    logs[KEYS.index("fan")] = np.log(0.9)
    found = fit(measured, read(measured, logs, np.random.default_rng(2), DESIGN[:6]))
    assert found is not None
    assert found.factors["fan"] == pytest.approx(0.9, rel=0.05)


def test_a_fixed_factor_leaves_a_narrower_band(line: Line) -> None:
    wide = sureness(tuned(line, {"cut": 1.2})).kept
    sure = {"cut": 0.1, "exchange": 0.1, "leak": 0.1}
    narrow = sureness(tuned(line, {"cut": 1.2}, sure)).kept
    assert wide is not None
    assert narrow is not None
    assert narrow.high - narrow.low < 0.6 * (wide.high - wide.low)
    assert wide.low <= narrow.median <= wide.high


def test_what_readings_left_is_between_nothing_and_all(line: Line) -> None:
    fitted = fit(line, [Reading(SEALED, 17e3, 100.0), Reading(KEPT, 0.8, 0.01)])
    assert fitted is not None
    assert all(0.0 < share <= 1.0 for share in fitted.left.values())
    assert fitted.left["fan"] < 0.3


def test_what_is_believable_moves_with_the_tuning(line: Line) -> None:
    described, moved = sureness(line).kept, sureness(tuned(line, {"leak": 2.5, "exchange": 1.5})).kept
    assert described is not None
    assert moved is not None
    assert moved.median < described.median - 0.03
    assert moved.low < described.low


@given(st.floats(0.001, 0.999), st.floats(1e-4, 3.0))
def test_an_interval_of_a_share_stays_within_none_and_all(value: float, sd: float) -> None:
    low, high = stretched_share(value, sd)
    assert 0.0 <= low <= value <= high <= 1.0
    narrow = stretched_share(value, 0.1 * sd)
    assert low <= narrow[0] <= value <= narrow[1] <= high


@given(st.floats(0.001, 1e5), st.floats(1e-6, 1e5))
def test_an_interval_of_a_figure_stays_above_nothing(value: float, sd: float) -> None:
    low, high = stretched(value, sd)
    assert 0.0 < low <= value <= high


def test_narrow_intervals_are_as_wide_as_their_deviation_says() -> None:
    assert stretched_share(0.6, 0.01) == pytest.approx((0.6 - REACH * 0.01, 0.6 + REACH * 0.01), abs=3e-4)
    assert stretched(30.0, 0.3) == pytest.approx((30.0 - REACH * 0.3, 30.0 + REACH * 0.3), abs=6e-3)
    assert stretched(0.0, 1.0)[0] == 0.0
    assert stretched_share(0.0, 0.1)[0] == 0.0
