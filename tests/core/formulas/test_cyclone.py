"""Four cyclone models: published worked values, limits and order."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.formulas.cyclone import (
    FAMILIES,
    CycloneGeometry,
    InletStream,
    drops_by_heads,
    grade_iozia_leith,
    grade_lapple,
    grade_leith_licht,
    heads_casal,
    heads_shepherd_lapple,
    inlet_velocity,
    natural_length,
    shape_leith_licht,
    steepness_iozia_leith,
)
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.formulas.swirl import cut_size_orbit, loss_coefficient_orbit, swirl_velocities
from fenwick.core.formulas.wet import water_level, water_up_to, wet_cut_size, wet_stage_drop

WORKED = FAMILIES["high-efficiency"].of(0.150)
AIR = InletStream(0.035, 1.2, 1.81e-5, 293.15, 700.0)
MODELS = (grade_lapple, grade_leith_licht, grade_iozia_leith)


@pytest.mark.parametrize(
    ("model", "cut"), [(grade_lapple, 3.61e-6), (grade_iozia_leith, 2.85e-6), (grade_leith_licht, 1.49e-6)]
)
def test_the_worked_cyclone(model, cut: float) -> None:  # type: ignore[no-untyped-def]
    assert float(model(WORKED, AIR, SIZES).cut_size) == pytest.approx(cut, rel=0.02)  # published


def test_what_the_worked_cyclone_rests_on() -> None:
    assert float(inlet_velocity(WORKED, 0.035)) == pytest.approx(15.6, rel=0.005)  # published
    assert float(shape_leith_licht(WORKED)) == pytest.approx(55.1, rel=0.002)  # published
    assert float(steepness_iozia_leith(WORKED, 2.854e-6)) == pytest.approx(3.6, rel=0.02)  # published
    drops = drops_by_heads(WORKED, 15.5556, 1.2)
    assert float(drops["shepherd-lapple"]) == pytest.approx(929, rel=0.002)  # published
    assert float(drops["casal"]) == pytest.approx(746, rel=0.002)  # published
    assert float(heads_shepherd_lapple(WORKED)) == pytest.approx(6.4)  # hand: 16 · 0.5 · 0.2 / 0.5²
    assert float(heads_casal(WORKED)) == pytest.approx(11.3 * 0.16 + 3.33)  # hand


def test_the_orbit_of_the_worked_cyclone_with_and_without_its_cone() -> None:
    orbit = WORKED.orbit
    swirl = swirl_velocities(orbit, 0.035, 0.005, 0.0)
    drop = loss_coefficient_orbit(orbit, 0.005, 0.0) * 0.5 * 1.2 * swirl.outlet_velocity**2
    assert float(drop) == pytest.approx(1347, rel=0.002)  # published

    def cut(height: float) -> float:
        whole = replace(orbit, orbit_height=height)
        return float(cut_size_orbit(whole, swirl, 0.035, 700.0, 1.2, 1.81e-5))

    assert cut(WORKED.height - WORKED.outlet_length) == pytest.approx(2.54e-6, rel=0.002)  # published, H − S
    # the outlet is wider than the dust outlet, so its cylinder ends on the cone: 2 D + D instead of 3.5 D
    assert float(orbit.orbit_height) == pytest.approx(3.0 * 0.150)  # hand
    assert cut(float(orbit.orbit_height)) == pytest.approx(2.54e-6 * np.sqrt(3.5 / 3.0), rel=0.002)  # hand


def test_the_cone_meets_nothing_where_the_outlet_is_narrow() -> None:
    narrow = replace(WORKED, outlet=0.05)
    assert float(narrow.orbit.orbit_height) == pytest.approx(narrow.height - narrow.outlet_length)


GEOMETRIES = st.builds(
    lambda family, body: FAMILIES[family].of(body), st.sampled_from(sorted(FAMILIES)), st.floats(0.06, 0.6)
)


@given(GEOMETRIES, st.floats(0.005, 0.15), st.floats(300.0, 8000.0))
def test_every_model_keeps_more_of_the_coarse_and_half_at_its_cut(
    shape: CycloneGeometry, flow: float, density: float
) -> None:
    stream = replace(AIR, flow=flow, particle_density=density)
    for model in MODELS:
        found = model(shape, stream, SIZES)
        grade = found.efficiency[:, 0]
        assert np.all((grade >= 0.0) & (grade <= 1.0))
        assert np.all(np.diff(grade) >= -1e-12)
        at_cut = model(shape, stream, np.array([[float(found.cut_size)]])).efficiency
        assert float(at_cut[0, 0]) == pytest.approx(0.5, abs=1e-6)


@given(GEOMETRIES, st.floats(0.005, 0.1), st.floats(1.05, 3.0))
def test_more_air_and_heavier_grains_cut_finer(shape: CycloneGeometry, flow: float, factor: float) -> None:
    slow = replace(AIR, flow=flow)
    for model in MODELS:
        assert model(shape, replace(slow, flow=factor * flow), SIZES).cut_size < model(shape, slow, SIZES).cut_size
        heavy = replace(slow, particle_density=700.0 * factor)
        assert model(shape, heavy, SIZES).cut_size < model(shape, slow, SIZES).cut_size


def test_many_cyclones_in_one_call_are_those_one_by_one() -> None:
    bodies = np.array([0.1, 0.15, 0.3])
    many = FAMILIES["conventional"].of(bodies)
    for model in MODELS:
        together = model(many, AIR, SIZES)
        for i, body in enumerate(bodies):
            alone = model(FAMILIES["conventional"].of(float(body)), AIR, SIZES)
            assert together.cut_size[i] == pytest.approx(float(alone.cut_size), rel=1e-12)
            assert together.efficiency[:, i] == pytest.approx(alone.efficiency[:, 0], rel=1e-12)


def test_a_vortex_with_room_ends_before_the_bottom() -> None:
    tall = replace(WORKED, height=2.0)
    assert float(natural_length(tall)) < tall.height - tall.outlet_length
    assert shape_leith_licht(tall) < shape_leith_licht(replace(WORKED, height=0.9)) * 1.5
    squat = replace(WORKED, height=0.3)
    assert float(natural_length(squat)) > squat.height - squat.outlet_length
    assert shape_leith_licht(squat) < shape_leith_licht(WORKED)


def test_iozia_and_leith_say_when_they_are_stretched() -> None:
    assert not grade_iozia_leith(WORKED, AIR, SIZES).extrapolated
    wide = replace(WORKED, inlet_height=0.012, inlet_width=0.006)
    assert grade_iozia_leith(wide, replace(AIR, flow=0.0005), SIZES).extrapolated


def test_a_wet_stage_by_hand() -> None:
    assert float(wet_stage_drop(0.05, 1e-4, 1.0, 1.2)) == pytest.approx(998 * 9.80665 * 0.05)  # hand: water alone
    assert float(wet_stage_drop(0.0, 1.2 * 20.0 * 1e-3, 1e-3, 1.2)) == pytest.approx(1.5 * 0.5 * 1.2 * 400)  # throat
    assert float(wet_stage_drop(0.05, 0.0, 1e-3, 1.2)) == 0.0  # no air: the water holds whatever pulls at it
    assert float(wet_cut_size(20.0, 1.2e-6)) == pytest.approx(1.2e-6)
    assert float(wet_cut_size(40.0, 1.2e-6)) == pytest.approx(0.6e-6)
    assert float(water_level(20.0, 0.3)) == pytest.approx(0.2835, abs=1e-4)  # hand: 20.04 L over 707 cm²
    assert float(water_up_to(water_level(7.3, 0.25), 0.25)) == pytest.approx(7.3)
