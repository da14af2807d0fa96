"""Flat patterns by hand, and choosing among many."""

from math import cos, pi, radians, sin, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from fenwick.core.formulas.choice import undominated, weighted_score
from fenwick.core.formulas.pattern import RingSector, cone_pattern, fits_on, sector_box


def test_a_cone_by_hand() -> None:
    # 3-4-5: radii 0.3 and 0.15 over a height of 0.2 give a slant of 0.25; the apex is 0.5 from the rim
    cone = cone_pattern(0.6, 0.3, 0.2)
    assert float(cone.outer) == pytest.approx(0.5)
    assert float(cone.inner) == pytest.approx(0.25)
    assert float(cone.angle) == pytest.approx(2 * pi * 0.6)


@given(st.floats(0.05, 0.6), st.floats(0.1, 0.9), st.floats(0.05, 1.5))
def test_a_pattern_has_the_cone_s_slant_and_rims(wide: float, share: float, height: float) -> None:
    narrow = share * wide
    cone = cone_pattern(wide, narrow, height)
    assert cone.outer - cone.inner == pytest.approx(sqrt(height**2 + ((wide - narrow) / 2) ** 2), rel=1e-6)
    assert cone.outer * cone.angle == pytest.approx(pi * wide, rel=1e-6)
    assert cone.inner * cone.angle == pytest.approx(pi * narrow, rel=1e-6)


@pytest.mark.parametrize("degrees", [40.0, 90.0, 200.0, 350.0])
def test_a_sector_lies_inside_its_box(degrees: float) -> None:
    width, height = (float(v) for v in sector_box(RingSector(np.array(0.5), np.array(0.2), np.array(radians(degrees)))))
    turns = np.linspace(-radians(degrees) / 2, radians(degrees) / 2, 721)
    across = np.concatenate([r * np.sin(turns) for r in (0.2, 0.5)])
    along = np.concatenate([r * np.cos(turns) for r in (0.2, 0.5)])
    assert np.ptp(across) == pytest.approx(width, rel=1e-4)
    assert np.ptp(along) == pytest.approx(height, rel=1e-4)
    assert width <= 1.0 + 1e-9
    if degrees <= 180:
        assert width == pytest.approx(2 * 0.5 * sin(radians(degrees) / 2))
        assert height == pytest.approx(0.5 - 0.2 * cos(radians(degrees) / 2))


def test_a_piece_may_be_turned() -> None:
    assert float(fits_on(0.9, 0.4, 0.5, 1.0)) == pytest.approx(0.9)
    assert float(fits_on(0.9, 0.6, 0.5, 1.0)) > 1.0


@given(arrays(float, st.tuples(st.integers(1, 4), st.integers(1, 40)), elements=st.integers(0, 6).map(float)))
def test_who_is_undominated_is_beaten_by_nobody_and_the_rest_by_somebody(values: np.ndarray) -> None:
    keep = undominated(values)
    assert keep.any()
    for i in range(values.shape[1]):
        others = values.T
        beaten = np.any(np.all(others >= others[i], axis=1) & np.any(others > others[i], axis=1))
        assert keep[i] == (not beaten)


@given(arrays(float, st.tuples(st.integers(1, 4), st.integers(2, 30)), elements=st.floats(-5, 5)))
def test_a_score_lies_between_nothing_and_one_and_never_prefers_the_beaten(values: np.ndarray) -> None:
    score = weighted_score(values, [1.0] * len(values))
    assert np.all((score >= -1e-12) & (score <= 1.0 + 1e-12))
    assert undominated(values)[np.flatnonzero(score >= score.max() - 1e-12)].any()
