"""Every formula that works value by value: a batch is its values one by one, finite, and moves the right way."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
import pytest

from fenwick.core.formulas import (
    air,
    bed,
    bin,
    capture,
    fan,
    filtering,
    fittings,
    friction,
    joint,
    metrology,
    orifice,
    room,
    shell,
    sizes,
    stand,
    swirl,
    wet,
    work,
)

Range = tuple[float, float]
POINTS = 40


@dataclass(frozen=True)
class Case:
    """A formula, the ranges that a shop vacuum meets, and which way it moves with each argument that it moves with."""

    formula: Callable[..., Any]
    ranges: dict[str, Range]
    rises: tuple[str, ...] = ()
    falls: tuple[str, ...] = ()
    fixed: tuple[tuple[str, Any], ...] = ()

    @property
    def name(self) -> str:
        """For the report."""
        return self.formula.__name__ + "".join(f"-{key}={value}" for key, value in self.fixed)

    def drawn(self, seed: int) -> dict[str, np.ndarray]:
        """Arguments anywhere in their ranges."""
        chance = np.random.default_rng(seed)
        return {key: chance.uniform(low, high, POINTS) for key, (low, high) in self.ranges.items()}

    def along(self, key: str, seed: int) -> dict[str, Any]:
        """One argument through its range, the others standing somewhere."""
        chance = np.random.default_rng(seed)
        stand = {name: float(chance.uniform(low, high)) for name, (low, high) in self.ranges.items()}
        return {**stand, key: np.linspace(*self.ranges[key], POINTS)}

    def __call__(self, **arguments: Any) -> np.ndarray:
        return np.asarray(self.formula(**arguments, **dict(self.fixed)), dtype=float)


FLOW, BORE, SUCTION, DENSITY = (0.001, 0.1), (0.02, 0.15), (100.0, 25e3), (0.9, 1.3)
GRAIN, SHARE, METRES, SPEED = (1e-7, 5e-3), (0.0, 1.0), (0.01, 2.0), (0.1, 40.0)
AREA = (1e-4, 0.02)

CASES = (
    Case(air.pressure_isa1976, {"altitude": (0.0, 4000.0)}, falls=("altitude",)),
    Case(
        air.density_ideal_gas,
        {"pressure": (6e4, 1.1e5), "temperature": (250.0, 320.0)},
        rises=("pressure",),
        falls=("temperature",),
    ),
    Case(air.viscosity_sutherland, {"temperature": (250.0, 320.0)}, rises=("temperature",)),
    Case(
        bin.ledge_exchange,
        {"depth": (0.0, 0.05), "below": (0.0, 0.6), "above_dust": (0.0, 0.4), "bin_diameter": (0.2, 0.5)},
        rises=("depth", "above_dust"),
        falls=("below",),
        fixed=(("rules", bin.LedgeRules(0.05, 0.5, 0.1)),),
    ),
    Case(bin.heap_share, {"lean": (0.0, 30.0)}, falls=("lean",)),
    Case(bin.slot_fall, {"width": (0.0, 0.06), "least": (5e-3, 11e-3)}, rises=("width",), falls=("least",)),
    Case(bin.arc_fall, {"arc": (0.0, 6.28), "least": (0.3, 0.8)}, rises=("arc",), falls=("least",)),
    Case(
        bed.bed_share,
        {"velocity": (0.0, 30.0), "settles_below": (13.0, 23.0), "most": (0.8, 0.95)},
        rises=("settles_below", "most"),
        falls=("velocity",),
    ),
    Case(bed.bore_left, {"bore": (0.02, 0.12), "share": (0.0, 0.9)}, rises=("bore",), falls=("share",)),
    Case(bed.height_left, {"bore": (0.02, 0.12), "share": (0.0, 0.9)}, rises=("bore",), falls=("share",)),
    Case(
        capture.entering_share,
        {"mouth_velocity": (0.0, 40.0), "scale": (0.5, 2.0)},
        rises=("mouth_velocity",),
        falls=("scale",),
    ),
    Case(
        capture.narrower_mouth_share,
        {"bore": (0.02, 0.15), "own_bore": (0.04, 0.12), "power": (0.0, 2.0)},
        rises=("bore",),
        falls=("own_bore", "power"),
    ),
    Case(
        filtering.buried_loss,
        {"clean": (1e3, 1e4), "load": (0.0, 5.0), "full": (0.5, 2.0)},
        rises=("clean", "load"),
        falls=("full",),
    ),
    Case(
        filtering.cake_left,
        {"cleaning": (0.0, 60.0), "most": (0.1, 0.5), "over": (3.0, 15.0)},
        rises=("cleaning", "most"),
        falls=("over",),
    ),
    Case(
        swirl.surplus_share,
        {"dust_load": (0.0, 2.0), "cut_size": (1e-6, 2e-5), "median_size": (1e-5, 3e-3), "factor": (0.01, 0.06)},
        rises=("dust_load", "median_size"),
        falls=("cut_size", "factor"),
    ),
    Case(bin.tilt_share, {"tilt": (0.0, 0.7), "power": (0.5, 3.0)}),
    Case(
        capture.velocity_at_distance,
        {"flow": FLOW, "opening_area": AREA, "distance": (0.001, 1.0)},
        rises=("flow",),
        falls=("distance", "opening_area"),
        fixed=(("flanged", False),),
    ),
    Case(
        capture.velocity_at_distance,
        {"flow": FLOW, "opening_area": AREA, "distance": (0.001, 1.0)},
        rises=("flow",),
        falls=("distance", "opening_area"),
        fixed=(("flanged", True),),
    ),
    Case(
        capture.slot_velocity,
        {"flow": FLOW, "length": (0.1, 1.0), "width": (0.005, 0.09), "distance": (0.005, 1.0)},
        rises=("flow",),
        falls=("distance",),
        fixed=(("flanged", False),),
    ),
    Case(
        capture.reach_of_opening,
        {"flow": FLOW, "opening_area": AREA, "velocity": (0.3, 10.0)},
        rises=("flow",),
        falls=("velocity",),
        fixed=(("flanged", False),),
    ),
    Case(capture.face_velocity, {"flow": FLOW, "open_area": AREA}, rises=("flow",), falls=("open_area",)),
    Case(capture.airborne_share, {"diameter": GRAIN, "scale": (1e-5, 3e-4)}, rises=("scale",), falls=("diameter",)),
    Case(
        capture.captured_airborne_share,
        {"velocity": SPEED, "needed": (0.2, 10.0), "missed": (0.0, 0.3), "power": (1.0, 4.0)},
        rises=("velocity",),
        falls=("needed",),
    ),
    Case(
        fan.suction_nameplate,
        {"flow": (0.0, 0.06), "sealed_suction": SUCTION, "open_flow": (0.06, 0.1), "exponent": (1.0, 3.0)},
        rises=("sealed_suction", "open_flow", "exponent"),
        falls=("flow",),
    ),
    Case(fan.peak_air_power_share, {"exponent": (0.5, 4.0)}, rises=("exponent",)),
    Case(
        fan.hole_plate_flow,
        {"diameter": (0.003, 0.02), "holes": (1.0, 20.0), "suction": SUCTION, "density": DENSITY},
        rises=("diameter", "holes", "suction"),
        falls=("density",),
    ),
    Case(
        fan.asked_suction,
        {"flow": FLOW, "known_flow": (0.01, 0.05), "known_suction": SUCTION},
        rises=("flow", "known_suction"),
        falls=("known_flow",),
    ),
    Case(
        filtering.cake_loss,
        {"cake_resistance": (0.0, 5e5), "face_velocity": (0.001, 0.2)},
        rises=("cake_resistance", "face_velocity"),
    ),
    Case(
        filtering.clean_penetration,
        {"diameter": GRAIN, "base": (0.01, 0.6), "scale": (5e-7, 2e-5), "power": (0.5, 3.0)},
        rises=("base",),
        falls=("diameter",),
    ),
    Case(
        filtering.caked_penetration,
        {"clean": SHARE, "load": (0.0, 1.0), "cake": (0.01, 0.3)},
        rises=("clean",),
        falls=("load",),
    ),
    Case(filtering.tank_drop_share, {"diameter": GRAIN, "scale": (1e-5, 1e-3)}, rises=("diameter",), falls=("scale",)),
    Case(
        fittings.contraction_loss,
        {"bore_in": (0.05, 0.1), "bore_out": (0.02, 0.05), "length": (0.0, 0.1)},
        rises=("bore_in",),
        falls=("bore_out",),
    ),
    Case(
        fittings.expansion_loss,
        {"bore_in": (0.02, 0.05), "bore_out": (0.05, 0.1)},
        rises=("bore_out",),
        falls=("bore_in",),
    ),
    Case(
        fittings.gate_loss,
        {"opening": (0.01, 1.0), "bore": BORE, "shut_leak": (1e-6, 1e-5)},
        falls=("opening",),
    ),
    Case(fittings.mitre_loss, {"angle": (0.0, 1.57)}, rises=("angle",)),
    Case(
        fittings.plate_loss, {"bore": (0.05, 0.1), "open_area": (2e-5, 1.9e-3)}, rises=("bore",), falls=("open_area",)
    ),
    Case(fittings.bore_area, {"bore": BORE}, rises=("bore",)),
    Case(
        friction.friction_factor_colebrook,
        {"reynolds": (5e3, 5e5), "relative_roughness": (0.0, 0.05)},
        rises=("relative_roughness",),
        falls=("reynolds",),
    ),
    Case(
        joint.diametral_gap,
        {"outer_inside": BORE, "inner_outside": BORE},
        rises=("outer_inside",),
        falls=("inner_outside",),
    ),
    Case(joint.open_ring, {"outer_inside": (0.05, 0.06), "inner_outside": (0.04, 0.05)}, rises=("outer_inside",)),
    Case(metrology.resolution_sd, {"resolution": (1e-4, 1.0)}, rises=("resolution",)),
    Case(
        metrology.difference_sd,
        {"resolution": (1e-4, 1.0), "repeat_sd": (0.0, 1.0)},
        rises=("resolution", "repeat_sd"),
    ),
    Case(metrology.separation_share, {"kept": (0.001, 1.0), "past": (0.001, 1.0)}, rises=("kept",), falls=("past",)),
    Case(
        metrology.separation_sd,
        {"kept": (0.01, 1.0), "past": (0.01, 1.0), "kept_sd": (1e-4, 0.01), "past_sd": (1e-4, 0.01)},
        rises=("kept_sd", "past_sd"),
    ),
    Case(
        metrology.closure,
        {"kept": SHARE, "past": SHARE, "held": (0.0, 0.1), "fed": (0.5, 2.0)},
        rises=("kept", "past", "held"),
        falls=("fed",),
    ),
    Case(
        orifice.orifice_flow,
        {"area": AREA, "pressure_difference": SUCTION, "density": DENSITY},
        rises=("area", "pressure_difference"),
        falls=("density",),
    ),
    Case(orifice.orifice_resistance, {"area": AREA, "density": DENSITY}, falls=("area", "density")),
    Case(
        room.air_changes,
        {"changes": (0.1, 10.0), "cleaned": (0.0, 0.3), "volume": (20.0, 200.0)},
        rises=("changes", "cleaned"),
    ),
    Case(
        room.concentration,
        {
            "time": (0.0, 3e3),
            "source": (1e-9, 1e-5),
            "volume": (20.0, 200.0),
            "rate": (1e-5, 0.01),
            "duration": (3e3, 9e3),
        },
        rises=("time", "source"),
        falls=("rate", "volume"),
    ),
    Case(
        room.falls_out,
        {"fall_velocity": (0.0, 0.01), "height": (2.0, 4.0)},
        rises=("fall_velocity",),
        falls=("height",),
    ),
    Case(
        room.dose,
        {"source": (0.0, 1e-6), "volume": (10.0, 300.0), "rate": (1e-5, 0.01), "duration": (1.0, 7200.0)},
        rises=("source", "duration"),
        falls=("volume", "rate"),
    ),
    Case(
        shell.collapse_pressure,
        {
            "diameter": (0.2, 0.6),
            "bay_length": (0.1, 0.8),
            "wall": (0.001, 0.006),
            "youngs_modulus": (5e8, 2e11),
            "poisson_ratio": (0.25, 0.45),
        },
        rises=("wall", "youngs_modulus"),
        falls=("diameter", "bay_length"),
    ),
    Case(
        shell.section_stiffness,
        {"youngs_modulus": (5e8, 2e11), "outwards": (0.005, 0.05), "tall": (0.005, 0.05)},
        rises=("youngs_modulus", "outwards", "tall"),
    ),
    Case(
        shell.plate_stiffness,
        {"youngs_modulus": (5e8, 2e11), "thickness": (0.001, 0.02), "poisson_ratio": (0.1, 0.45)},
        rises=("youngs_modulus", "thickness", "poisson_ratio"),
    ),
    Case(
        shell.relief_area,
        {"flow": FLOW, "pressure": SUCTION, "density": DENSITY},
        rises=("flow", "density"),
        falls=("pressure",),
    ),
    Case(
        shell.bending_stress,
        {"youngs_modulus": (5e8, 2e11), "thickness": (0.001, 0.01), "radius": (0.05, 0.4)},
        rises=("youngs_modulus", "thickness"),
        falls=("radius",),
    ),
    Case(
        sizes.terminal_velocity,
        {"diameter": GRAIN, "particle_density": (300.0, 3000.0), "air_density": DENSITY, "viscosity": (1.7e-5, 1.9e-5)},
        rises=("diameter", "particle_density"),
        falls=("air_density",),
    ),
    Case(
        stand.tipping_force,
        {"mass": (1.0, 40.0), "base": (0.2, 0.8), "height": (0.3, 1.5)},
        rises=("mass", "base"),
        falls=("height",),
    ),
    Case(stand.tipping_angle, {"base": (0.2, 0.8), "centre": (0.2, 1.2)}, rises=("base",), falls=("centre",)),
    Case(
        swirl.grade_efficiency,
        {"diameter": GRAIN, "cut_size": (1e-6, 1e-4), "steepness": (1.0, 8.0)},
        rises=("diameter",),
        falls=("cut_size",),
    ),
    Case(
        wet.wet_stage_drop,
        {"immersion": (0.0, 0.05), "mass_flow": (1e-4, 0.1), "throat_area": (1e-4, 1e-2), "air_density": DENSITY},
        rises=("immersion", "mass_flow"),
        falls=("throat_area", "air_density"),
    ),
    Case(
        wet.wet_cut_size,
        {"throat_velocity": (5.0, 40.0), "cut_at_reference": (1e-6, 1e-5)},
        rises=("cut_at_reference",),
        falls=("throat_velocity",),
    ),
    Case(
        wet.water_level,
        {"water": (0.0, 40.0), "vessel_diameter": (0.1, 0.6)},
        rises=("water",),
        falls=("vessel_diameter",),
    ),
    Case(
        wet.water_up_to,
        {"level": (0.0, 0.6), "vessel_diameter": (0.1, 0.6)},
        rises=("level", "vessel_diameter"),
    ),
    Case(
        work.planed_volume,
        {"width": (0.02, 0.4), "depth": (1e-4, 3e-3), "length": METRES},
        rises=("width", "depth", "length"),
    ),
    Case(
        work.sawn_volume,
        {"kerf": (1e-3, 4e-3), "thickness": (0.005, 0.1), "length": METRES},
        rises=("kerf", "thickness", "length"),
    ),
)

EVERY = pytest.mark.parametrize("case", CASES, ids=lambda case: case.name)
MOVES = [(case, key, way) for case in CASES for way, keys in ((1, case.rises), (-1, case.falls)) for key in keys]


@EVERY
@pytest.mark.parametrize("seed", range(2))
def test_a_batch_is_what_its_values_are_one_by_one(case: Case, seed: int) -> None:
    drawn = case.drawn(seed)
    together = case(**drawn)
    assert together.shape == (POINTS,)
    for i in range(0, POINTS, 5):
        assert case(**{key: float(values[i]) for key, values in drawn.items()}) == pytest.approx(together[i], rel=1e-12)


@EVERY
def test_in_the_ranges_of_a_shop_every_value_is_finite(case: Case) -> None:
    for seed in range(4):
        assert np.all(np.isfinite(case(**case.drawn(seed))))
    corners = {key: np.array([low, high, low, high]) for key, (low, high) in case.ranges.items()}
    assert np.all(np.isfinite(case(**corners)))


@pytest.mark.parametrize(
    ("case", "key", "way"), MOVES, ids=lambda given: given.name if isinstance(given, Case) else None
)
def test_it_moves_the_way_it_must_and_without_a_jump(case: Case, key: str, way: int) -> None:
    for seed in range(3):
        values = case(**case.along(key, seed))
        steps = way * np.diff(values)
        size = np.max(np.abs(values)) + 1e-300
        assert np.all(steps >= -1e-9 * size)
        assert np.any(steps > 0.0) or np.ptp(values) == 0.0
