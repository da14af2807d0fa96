"""Friction and fittings against the library that holds the published coefficients, and against their limits."""

from math import degrees, pi, radians

import fluids
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.formulas import fittings
from fenwick.core.formulas.friction import friction_factor_colebrook
from fenwick.core.formulas.orifice import orifice_flow, orifice_resistance


@given(st.floats(4e3, 1e7), st.floats(1e-6, 0.05))
def test_friction_is_colebrook(reynolds: float, roughness: float) -> None:
    ours = float(friction_factor_colebrook(reynolds, roughness))
    assert ours == pytest.approx(fluids.friction.Colebrook(reynolds, roughness), rel=1e-5)  # oracle


def test_friction_is_laminar_below_2000_and_has_no_step() -> None:
    re = np.geomspace(500, 20000, 4000)
    f = friction_factor_colebrook(re, 0.01)
    assert f[0] == pytest.approx(64 / 500)
    assert np.max(np.abs(np.diff(f)) / f[:-1]) < 0.005


@given(st.floats(10.0, 180.0), st.floats(1.0, 20.0), st.floats(0.012, 0.08))
def test_bend_is_rennels_without_the_friction_of_its_length(angle: float, ratio: float, f: float) -> None:
    whole = fluids.bend_rounded(Di=0.05, angle=angle, fd=f, rc=ratio * 0.05, method="Rennels")  # oracle
    fixed, per_friction = fittings.bend_turning_loss(radians(angle), ratio)
    assert fixed + f * per_friction == pytest.approx(whole - f * radians(angle) * ratio, rel=1e-9)


@given(st.floats(0.02, 0.1), st.floats(0.3, 0.98))
def test_sharp_steps_are_the_published_ones(wide: float, ratio: float) -> None:
    narrow = wide * ratio
    assert fittings.contraction_loss(wide, narrow) == pytest.approx(fluids.contraction_sharp(wide, narrow))  # oracle
    assert fittings.expansion_loss(narrow, wide) == pytest.approx(fluids.diffuser_sharp(narrow, wide))  # oracle


@given(st.floats(0.4, 0.95), st.floats(0.02, 0.3))
def test_cone_is_the_published_one_with_its_friction(ratio: float, length: float) -> None:
    wide, narrow, f = 0.08, 0.08 * ratio, 0.02
    ours = fittings.contraction_loss(wide, narrow, length) + f * fittings.cone_friction(wide, narrow, length)
    angle = degrees(2 * np.arctan2((wide - narrow) / 2, length))
    theirs = fluids.contraction_conical(wide, narrow, fd=f, angle=angle, method="Rennels")  # oracle
    assert float(ours) == pytest.approx(theirs, rel=1e-6)


def test_a_taper_costs_less_than_a_step_and_no_change_costs_nothing() -> None:
    lengths = np.array([0.0, 0.05, 0.1, 0.2])
    for loss, bores in ((fittings.contraction_loss, (0.06, 0.04)), (fittings.expansion_loss, (0.04, 0.06))):
        assert np.all(np.diff(loss(*bores, lengths)) <= 0)
        assert float(loss(0.05, 0.05)) == pytest.approx(0.0, abs=1e-12)


def test_a_gate_closes_monotonically_down_to_its_leak() -> None:
    k = fittings.gate_loss(np.linspace(1.0, 0.0, 50), 0.05, 10e-6)
    assert k[0] == pytest.approx(0.2)
    assert np.all(np.diff(k) >= 0)
    assert fittings.gate_loss(0.0, 0.05, 10e-6) == fittings.gate_loss(10e-6 / (pi / 4 * 0.05**2), 0.05, 10e-6)


def test_leak_flow_and_its_resistance_agree() -> None:
    area, density, pressure = 5e-6, 1.2, 3000.0
    mass = density * orifice_flow(area, pressure, density)
    assert orifice_resistance(area, density) * mass**2 == pytest.approx(pressure)


@given(st.floats(5.0, 150.0))
def test_mitre_is_rennels(angle: float) -> None:
    assert float(fittings.mitre_loss(radians(angle))) == pytest.approx(
        fluids.bend_miter(angle, method="Rennels"), rel=1e-9
    )  # oracle


def test_a_plate_passes_what_its_holes_pass() -> None:
    bore, area, density, flow = 0.05, 4e-4, 1.2, 0.02
    drop = fittings.plate_loss(bore, area) * 0.5 * density * (flow / (pi / 4 * bore**2)) ** 2
    assert orifice_flow(area, drop, density) == pytest.approx(flow)
