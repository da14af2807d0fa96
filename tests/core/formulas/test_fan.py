"""The fan curve: its ends, its peak, and where it meets a resistance."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.vacuum import MeasuredCurve, Nameplate, air_power_in_room
from fenwick.core.errors import OutsideDomainError
from fenwick.core.formulas import fan


@given(st.floats(0.5, 4.0))
def test_peak_air_power_is_the_largest_product(exponent: float) -> None:
    flow = np.linspace(0, 0.06, 20001)
    power = flow * fan.suction_nameplate(flow, 18e3, 0.06, exponent)
    assert np.max(power) == pytest.approx(18e3 * 0.06 * fan.peak_air_power_share(exponent), rel=1e-6)


@given(st.floats(0.55, 3.9))
def test_exponent_comes_back_from_its_air_power(exponent: float) -> None:
    power = 18e3 * 0.06 * float(fan.peak_air_power_share(exponent))
    assert fan.exponent_from_air_power(power, 18e3, 0.06) == pytest.approx(exponent, rel=1e-9)


@pytest.mark.parametrize(("power", "word"), [(10.0, "too low"), (2000.0, "too high")])
def test_air_power_that_contradicts_the_pair_is_refused(power: float, word: str) -> None:
    with pytest.raises(OutsideDomainError, match=word):
        fan.exponent_from_air_power(power, 18e3, 0.06)


@given(st.floats(1e-3, 1e12), st.sampled_from([0.5, 1.0, 1.7, 4.0]))
def test_fan_meets_the_line_where_both_suctions_agree(resistance: float, exponent: float) -> None:
    sealed, open_flow = np.array([18e3]), np.array([0.07])
    mass = fan.meeting_mass_flow(np.array([resistance]), sealed, open_flow, np.array([exponent]))
    made = sealed * (1 - (mass / open_flow) ** exponent)
    assert made[0] == pytest.approx(resistance * mass[0] ** 2, rel=1e-6, abs=1e-6 * sealed[0])


POINTS = [(0.01, 15e3), (0.03, 10e3), (0.05, 3e3)]


def test_measured_points_are_met_and_their_ends_drawn_out() -> None:
    flows, suctions = fan.extend_points(POINTS)
    for flow, suction in POINTS:
        assert float(fan.suction_points(flow, flows, suctions)) == pytest.approx(suction)
    assert suctions[0] == pytest.approx(15e3 + 0.01 * 5e3 / 0.02)  # hand: along the first secant
    assert flows[-1] == pytest.approx(0.05 + 3e3 / (7e3 / 0.02))  # hand: along the last
    between = fan.suction_points(np.linspace(0, flows[-1], 500), flows, suctions)
    assert np.all(np.diff(between) < 0)


@pytest.mark.parametrize(
    ("points", "words"),
    [
        (POINTS[:2], "three or more"),
        ([*POINTS, (0.03, 9e3)], "stands at the same flow as point 2"),
        ([*POINTS, (0.04, 12e3)], "must fall in suction"),
    ],
)
def test_points_that_make_no_curve_are_refused(points: list[tuple[float, float]], words: str) -> None:
    with pytest.raises(OutsideDomainError, match=words):
        fan.extend_points(points)


@given(st.floats(1e-2, 1e9))
def test_a_measured_curve_meets_the_line(resistance: float) -> None:
    curve = MeasuredCurve.through(POINTS)
    density = np.array([1.15])
    mass = curve.meet(np.array([resistance]), density)
    made = curve.suction(mass / density, density)
    assert float(made[0]) == pytest.approx(resistance * float(mass[0]) ** 2, rel=1e-6, abs=0.01)


CLIFF = [(0.001, 34.6e3), (0.0231, 26e3), (0.0605, 21.6e3), (0.0619, 17.3e3), (0.0943, 13e3), (0.1007, 4.3e3)]


@given(st.lists(st.floats(1e4, 1e8), min_size=1, max_size=40))
def test_a_curve_that_falls_off_a_cliff_meets_every_line(resistances: list[float]) -> None:
    """Newton's steps from a cliff hardly move, and gave another flow for the next resistance."""
    curve, resistance = MeasuredCurve.through(CLIFF), np.sort(np.array(resistances))
    density = np.full(resistance.shape, 1.2041)
    mass = curve.meet(resistance, density)
    assert curve.suction(mass / density, density) == pytest.approx(resistance * mass**2, rel=1e-6)
    assert np.all(np.diff(mass) <= 1e-12)


def test_points_of_a_straight_label_give_the_labels_answers() -> None:
    label = Nameplate(18e3, 0.06)
    measured = MeasuredCurve.through([(q, float(label.suction(q, 1.2))) for q in (0.01, 0.03, 0.05)])
    resistance, density = np.array([3e6, 2e7]), np.array([1.2, 1.2])
    assert measured.meet(resistance, density) == pytest.approx(label.meet(resistance, density), rel=1e-6)
    assert measured.peak_air_power == pytest.approx(float(label.peak_air_power), rel=1e-4)


@given(st.floats(0.9, 1.3), st.floats(0.3, 3.0), st.booleans())
def test_no_flow_gives_more_than_the_best_of_a_fan(density: float, exponent: float, measured: bool) -> None:
    curve = MeasuredCurve.through(POINTS) if measured else Nameplate(18e3, 0.06, exponent)
    flow = np.linspace(0.0, float(curve.open_flow), 777)
    power = flow * np.asarray(curve.suction(flow, density))
    best = float(air_power_in_room(curve, density))
    assert float(np.max(power)) <= best * (1.0 + 1e-5)
    assert float(np.max(power)) == pytest.approx(best, rel=1e-3)


def test_thin_air_takes_from_the_best_of_a_fan_in_proportion() -> None:
    label = Nameplate(18e3, 0.062)
    assert float(air_power_in_room(label, 1.2)) == pytest.approx(18e3 * 0.062 / 4.0)  # hand: a straight line
    assert float(air_power_in_room(label, 0.9)) == pytest.approx(0.75 * 18e3 * 0.062 / 4.0)


def test_hole_plate_is_the_sharp_orifice() -> None:
    flow = fan.hole_plate_flow(0.02, 3, 5000.0, 1.2)
    assert float(flow) == pytest.approx(0.61 * 3 * np.pi / 4 * 0.02**2 * np.sqrt(2 * 5000 / 1.2))  # hand
