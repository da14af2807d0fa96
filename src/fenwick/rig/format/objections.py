"""What is refused of new values, though a line stored before may hold it: there it stands as a check to act on."""

from __future__ import annotations

from collections.abc import Iterator

from fenwick.core.components.dust import DUSTS
from fenwick.core.components.wet import WET_DUSTS
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.formulas.wet import water_up_to
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem
from fenwick.rig.format.separator import CyclonePart, WetStagePart
from fenwick.units.sentence import inside


def objections(rig: Rig) -> tuple[Problem, ...]:
    """Everything of a rig that would be refused if it were new."""
    return tuple(_of_wet_stages(rig)) + tuple(_of_cyclones(rig))


def dangers(rig: Rig) -> tuple[Problem, ...]:
    """Those of them that no file may bring in anew: dust that must not meet water."""
    return tuple(_in_water(rig))


def _of_wet_stages(rig: Rig) -> Iterator[Problem]:
    yield from _in_water(rig)
    for i, part in enumerate(rig.line.elements):
        if isinstance(part, WetStagePart) and part.outlet_height_m is not None:
            most = float(water_up_to(part.outlet_height_m, part.vessel_d_m))
            if part.water_kg >= most:
                rule = "must leave the water below the vessel's outlet, under {limit}"
                yield Problem(f"line.elements[{i}].water_kg", rule, most, part.water_kg, "heap")


def _in_water(rig: Rig) -> Iterator[Problem]:
    if not any(isinstance(part, WetStagePart) for part in rig.line.elements):
        return
    for path, branch in rig.line.walk():
        if branch.port is not None and branch.port.dust is not None and branch.port.dust not in WET_DUSTS:
            label = inside(DUSTS[branch.port.dust].label)
            rule = f"{label} must not reach the wet stage of this line: wood swells in water, light metal burns"
            yield Problem(f"line.{path}.port.dust", rule)


def _of_cyclones(rig: Rig) -> Iterator[Problem]:
    for i, part in enumerate(rig.line.elements):
        if not isinstance(part, CyclonePart):
            continue
        shape = CycloneGeometry(
            *part.inlet,
            part.body_d_m,
            part.outlet_d_m,
            part.outlet_length_m,
            part.cylinder_height_m,
            part.total_height_m,
            part.dust_outlet_d_m,
        )
        there = float(shape.width_at_tube)
        if part.outlet_d_m > there * (1.0 + 1e-9):
            rule = "must be narrower than the cone where the tube ends, {limit}"
            yield Problem(f"line.elements[{i}].outlet_d_m", rule, there, part.outlet_d_m, "bore")
