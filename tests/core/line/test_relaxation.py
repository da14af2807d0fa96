"""What creeps is helped on, what swings is held back, and each value by itself."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.line.operating import operating_point
from fenwick.core.line.relaxation import BOLD_TAKE, HELD_TAKE, Relaxation
from fenwick.rig import build_line, check_rig

STEPS = 12


def put_in(shares: np.ndarray, end: np.ndarray, start: np.ndarray) -> np.ndarray:
    """Where the values are after some steps, each of which leaves a share of the way, as a ratio, to its end."""
    relaxation, value = Relaxation(), start
    for _ in range(STEPS):
        value = relaxation.next(value, end * (value / end) ** shares)
    return value


@given(st.lists(st.floats(-2.0, 0.6), min_size=1, max_size=6), st.floats(1e-3, 1e9), st.floats(0.1, 10.0))
def test_what_creeps_and_what_swings_both_arrive(shares: list[float], end: float, off: float) -> None:
    factors = np.array(shares)
    found = put_in(factors, np.full(factors.shape, end), np.full(factors.shape, end * off))
    assert found == pytest.approx(np.full(factors.shape, end), rel=1e-6)


def test_a_path_that_halves_its_error_is_there_at_the_second_step() -> None:
    relaxation, plain = Relaxation(), 16.0
    value = np.array([plain])
    for _ in range(2):
        value, plain = relaxation.next(value, np.sqrt(value)), plain**0.5
    assert value == pytest.approx(1.0, rel=1e-9)
    assert plain == 2.0


def test_what_is_nothing_and_what_becomes_it_are_taken_as_found() -> None:
    relaxation, value = Relaxation(), np.array([1e6, 0.0, 0.0, 3.0])
    for _ in range(4):
        value = relaxation.next(value, np.array([1.0, 0.0, 2.0, 0.0]))
        assert np.all(np.isfinite(value)), "no logarithm of nothing"
    assert value == pytest.approx([1.0, 0.0, 2.0, 0.0])


def test_values_that_stand_still_stay() -> None:
    relaxation, value = Relaxation(), np.array([3.0, 0.0])
    for _ in range(5):
        value = relaxation.next(value, value)
    assert value.tolist() == [3.0, 0.0]


def test_two_values_that_rock_one_another_come_to_rest_once_they_are_held_back() -> None:
    relaxation, value = Relaxation(), np.array([2.0, 0.5])
    for _ in range(60):
        flow = 1.0 / np.sqrt(value.sum())
        found = np.array([flow**2.4, flow**-1.0])  # one rises with what passes both, the other falls
        value = relaxation.next(value, found, HELD_TAKE)
    assert value == pytest.approx(found, rel=1e-6)


def test_what_creeps_by_the_same_share_for_ever_is_taken_further_when_bold() -> None:
    reached = []
    for most in (HELD_TAKE, BOLD_TAKE):
        relaxation, value = Relaxation(), np.array([1.0])
        for _ in range(20):
            value = relaxation.next(value, 1.08 * value, most)
        reached.append(float(value[0]))
    assert reached[0] < 10.0
    assert reached[1] > 1e10


def test_a_caked_bag_behind_a_hose_at_the_edge_of_turbulence_settles_in_every_draw() -> None:
    hoses = [{"id": f"t{i}", "kind": "hose", "bore_m": 0.0625, "length_m": 1.0, "wall": "smooth"} for i in range(3)] + [
        {"id": "t3", "kind": "hose", "bore_m": 0.010000000000000002, "length_m": 4.0, "wall": "corrugated"}
    ]
    rig = check_rig(
        {
            "format": "fenwick-rig",
            "version": 1,
            "site": {"temperature_c": 0.0},
            "vacuum": {
                "curve": {"kind": "nameplate", "sealed_suction_pa": 500.0, "open_flow_m3_s": 0.25},
                "bag": {"area_m2": 0.5, "held_kg": 1.0},
            },
            "line": {
                "elements": hoses,
                "branches": [{"id": "tool", "elements": [], "port": {"name": "T", "bore_m": 0.0625, "entry": "plain"}}],
            },
        }
    )
    line = build_line(rig)
    assert sureness(line).kept is None  # nothing is kept, for no dust is named; but every draw was solved
    assert operating_point(line).passes < 40
