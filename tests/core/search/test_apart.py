"""Which of two lines does better: told by the difference of draws that both share."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.judging.assess import assess
from fenwick.core.search.apart import BETTER, CANNOT_TELL, SAME, WORSE, apart, drawn_port, figures_apart
from fenwick.core.search.figures import figures_at
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line, edit_rig

BORE = "line.branches[0].elements[2].bore_m"


def test_a_shared_draw_tells_apart_what_bands_do_not() -> None:
    base = np.linspace(1.0, 2.0, 401)
    told = apart(base, base * 1.02, more_is_better=True)
    assert told.left is not None
    assert told.right is not None
    assert told.left.high > told.right.low, "the bands overlap widely"
    assert (told.verdict, told.surely) == (BETTER, 1.0)
    shuffled = np.random.default_rng(1).permutation(base * 1.02)
    assert apart(base, shuffled, more_is_better=True).verdict == CANNOT_TELL


@given(st.lists(st.floats(0.1, 10.0), min_size=2, max_size=40), st.floats(0.5, 2.0), st.booleans())
def test_the_other_way_round_says_the_opposite(values: list[float], factor: float, more: bool) -> None:
    one = np.array(values)
    there, back = apart(one, one * factor, more_is_better=more), apart(one * factor, one, more_is_better=more)
    opposite = {BETTER: WORSE, WORSE: BETTER, SAME: SAME, CANNOT_TELL: CANNOT_TELL}
    assert there.verdict is not None
    assert back.verdict == opposite[there.verdict]
    assert there.left == back.right
    assert there.surely == back.surely


@pytest.mark.parametrize(("left", "right"), [(None, 1.0), (1.0, None), (None, None), (np.inf, 1.0)])
def test_what_is_not_known_is_never_judged(left: float | None, right: float | None) -> None:
    sides = [None if one is None else np.array([one]) for one in (left, right)]
    told = apart(sides[0], sides[1], more_is_better=True)
    assert told.verdict is None
    assert told.surely is None


def test_nothing_of_both_is_the_same() -> None:
    told = apart(np.zeros(5), np.zeros(5), more_is_better=False)
    assert (told.verdict, told.surely) == (SAME, 1.0)


def test_the_first_draw_is_the_line_as_it_stands() -> None:
    line = build_line(demo_rig())
    drawn, plain = drawn_port(line, 0, draws=40), figures_at(line, assess(line), 0)
    for name in ("flow", "speed", "caught", "kept", "in_bin", "folding"):
        values = drawn.value(name)
        assert values is not None
        assert float(values[0]) == pytest.approx(float(getattr(plain, name)[0]), rel=1e-6), name


def test_the_band_of_what_is_kept_is_that_of_the_line_page() -> None:
    line = build_line(demo_rig())
    kept = figures_apart(drawn_port(line, 0), None)["kept"].left
    band = sureness(line).kept
    assert kept is not None
    assert band is not None
    assert (kept.low, kept.high) == pytest.approx((band.low, band.high), rel=1e-12)


def test_a_line_beside_itself_is_the_same_in_everything() -> None:
    port = drawn_port(build_line(demo_rig()), 0, draws=60)
    assert {one.verdict for one in figures_apart(port, port).values()} == {SAME}


def test_a_narrower_hose_is_surely_faster_whatever_the_walls_are() -> None:
    wide = build_line(demo_rig())
    narrow = build_line(edit_rig(demo_rig(), {BORE: 0.05}))
    told = figures_apart(drawn_port(wide, 0), drawn_port(narrow, 0))
    assert told["speed"].verdict == BETTER
    assert told["flow"].verdict in (WORSE, CANNOT_TELL)


def test_unknown_dust_leaves_the_air_to_compare() -> None:
    unknown = replace(build_line(edit_rig(demo_rig(), {"dust": None})))
    told = figures_apart(drawn_port(unknown, 0, draws=30), drawn_port(unknown, 0, draws=30))
    assert {"flow", "folding"} <= set(told)
    assert "kept" not in told
    assert "cut_size" not in told


def test_a_draw_without_a_figure_tells_nothing_and_takes_none_away() -> None:
    left, right = np.full(101, 2.0), np.full(101, 3.0)
    right[7] = np.nan
    right[9] = np.inf
    found = apart(left, right, more_is_better=True)
    assert (found.verdict, found.surely) == (BETTER, 0.98)
    assert found.right is not None
    assert (found.right.low, found.right.high) == (3.0, 3.0)
    right[20:60] = np.nan
    assert apart(left, right, more_is_better=True).right is None, "mostly there is no such figure"
    right[0] = np.inf
    assert apart(right, right, more_is_better=True).verdict is None
