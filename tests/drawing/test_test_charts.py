"""The pictures of tests: runs with their intervals, a monitor's log with its cuts; nothing lies outside its frame."""

from __future__ import annotations

import re
from xml.etree import ElementTree

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.bench.trials.expect import Expected
from fenwick.core.bench.trials.monitor import monitored, ordered
from fenwick.drawing.axes import span_ticks
from fenwick.drawing.log_chart import MOST_POINTS, _thinned, render_log
from fenwick.drawing.runs_chart import RunMark, StateRow, render_runs, runs_scene
from fenwick.wording.say import Voice

METRIC, INCH = Voice("metric", {}), Voice("inch", {})
shares = st.lists(st.floats(0.0, 1.0), min_size=1, max_size=8)


@given(shares, shares, st.none() | st.floats(0.0, 1.0))
def test_every_run_interval_and_expectation_lies_within_the_frame(
    a: list[float], b: list[float], expected: float | None
) -> None:
    states = [
        StateRow(
            name,
            tuple(RunMark(i, v, i % 3 > 0) for i, v in enumerate(values)),
            float(np.mean(values)),
            min(values),
            max(values),
            None if expected is None else Expected(expected, 0.5 * expected, 0.5 + 0.5 * expected),
        )
        for name, values in (("one", a), ("another, with a name that is much too long to be written in full", b))
    ]
    scene = runs_scene(states, "share", METRIC, (0.0, 1.0))
    assert scene is not None
    frame = (scene.left - 1e-6, scene.right + 1e-6)
    for row, state in zip(scene.rows, states, strict=True):
        assert len(row.name) <= 48
        assert len(row.dots) == len(state.runs)
        assert all(frame[0] <= dot.x <= frame[1] and scene.top <= dot.y <= scene.bottom for dot in row.dots)
        assert row.ends is not None
        assert row.mean is not None
        assert frame[0] <= row.ends[0] <= row.mean + 1e-6 <= row.ends[1] + 2e-6 <= frame[1] + 3e-6
        assert (row.expected is None) == (expected is None)
        if row.expected is not None and row.believed is not None:
            assert frame[0] <= row.believed[0] <= row.expected <= row.believed[1] + 1e-6 <= frame[1] + 2e-6
    svg = ElementTree.fromstring(str(render_runs(scene)))
    hollow = [c for c in svg.iter() if c.get("class") == "run apart"]
    assert len(hollow) == sum(not run.counts for state in states for run in state.runs)


def test_nothing_read_draws_nothing_and_a_single_run_draws() -> None:
    assert str(render_runs(runs_scene([StateRow("a", (), None, None, None)], "share", METRIC, (0.0, 1.0)))) == ""
    expected = StateRow("a", (), None, None, None, Expected(0.9, 0.8, 0.95))
    assert "believed" in str(render_runs(runs_scene([expected], "share", METRIC, (0.0, 1.0))))
    scene = runs_scene([StateRow("a", (RunMark(1, 12.0, True),), 12.0, None, None)], "force", INCH, (0.0, np.inf))
    assert scene is not None
    assert "nothing that counts" in scene.description
    assert len(scene.ticks) >= 2


def test_runs_of_one_value_stand_beside_each_other() -> None:
    scene = runs_scene(
        [StateRow("a", tuple(RunMark(i, 0.5, True) for i in range(3)), 0.5, 0.4, 0.6)], "share", METRIC, (0, 1)
    )
    assert scene is not None
    places = [(dot.x, dot.y) for dot in scene.rows[0].dots]
    assert len(set(places[:2])) == 2


@given(st.floats(-1e4, 1e4), st.floats(1e-3, 1e4), st.sampled_from(["metric", "inch"]))
def test_ticks_hold_the_span_and_are_few(low: float, span: float, system: str) -> None:
    ticks = span_ticks(low, low + span, "suction", system)
    assert ticks[0] <= low + 1e-6 * span
    assert ticks[-1] >= low + span - 1e-6 * span
    assert 2 <= len(ticks) <= 8
    assert np.all(np.diff(ticks) > 0.0)


@given(st.integers(2, 6000), st.integers(0, 1000))
def test_a_thinned_log_keeps_its_highest_and_its_lowest(n: int, seed: int) -> None:
    rng = np.random.default_rng(seed)
    time, value = np.arange(n, dtype=float), rng.random(n)
    t, v = _thinned(time, value)
    assert t.size <= MOST_POINTS + 2
    assert (v.max(), v.min()) == (value.max(), value.min())
    assert np.all(np.diff(t) > 0.0)


def test_a_log_is_drawn_with_its_cuts_baseline_and_way_back() -> None:
    time = np.arange(0.0, 4000.0, 10.0)
    dust = 9e-9 + np.where(time >= 600.0, 60e-9 * np.exp(-(time - 600.0) / 300.0), 0.0)
    log = ordered(list(zip(time, dust, strict=True)))
    svg = str(render_log(log, monitored(log, [(600.0, 660.0)]), METRIC))
    tree = ElementTree.fromstring(svg)
    kinds = [element.get("class") for element in tree.iter()]
    assert kinds.count("cutting") == 1
    assert kinds.count("back") == 1
    assert "baseline" in kinds
    points = re.search(r'class="dust" points="([^"]+)"', svg)
    assert points is not None
    heights = [float(pair.split(",")[1]) for pair in points[1].split()]
    assert all(0.0 <= height <= 260.0 for height in heights)
    assert str(render_log(ordered([(0.0, 1e-9)]), monitored(ordered([]), []), METRIC)) == ""


@pytest.mark.parametrize("jump", [5_000.0, -5_000.0])
def test_a_leap_of_the_clock_is_marked(jump: float) -> None:
    rows = [(10.0 * i, 9e-9) for i in range(20)] + [(190.0 + jump + 10.0 * i, 9e-9) for i in range(1, 20)]
    log = ordered([(t, v) for t, v in rows if t >= 0.0] if jump > 0.0 else [(t + 6_000.0, v) for t, v in rows])
    assert 'class="jump"' in str(render_log(log, monitored(log, []), METRIC))
