"""What each stage keeps, size by size."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import Dust
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas import bin as bin_rules
from fenwick.core.formulas import cyclone as cyclone_models
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import SIZES, terminal_velocity
from fenwick.core.formulas.swirl import Swirl, cut_size_orbit, grade_efficiency, limit_load, swirl_velocities
from fenwick.core.formulas.wet import wet_cut_size
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.line.rows import bin_leak_id, stage_load, swirl_factor
from fenwick.core.rules import RuleBook

MARK_STEPS = 401  #: heights tried for the fill mark
ORBIT = "orbit"  #: the headline model
OTHER_MODELS = {
    "lapple": cyclone_models.grade_lapple,
    "leith-licht": cyclone_models.grade_leith_licht,
    "iozia-leith": cyclone_models.grade_iozia_leith,
}


@dataclass(frozen=True)
class Grades:
    """What happens to each size of a known dust, by one model."""

    cut_size: Array  #: kept by half at the wall, shape (n,) [m]
    reaches_wall: Array  #: share of each size thrown to the wall [-], shape (60, n)
    stays_in_bin: Array  #: share of each size that the bin does not give back [-], shape (60, n)
    extrapolated: bool = False  #: whether the model is used outside the range it was fitted to

    @property
    def kept(self) -> Array:
        """Share of each size that ends in the bin [-], shape (60, n)."""
        return self.reaches_wall * self.stays_in_bin


@dataclass(frozen=True)
class Separation:
    """One stage at work; arrays of shape (n,) unless said otherwise."""

    id: str
    inlet_velocity: Array  #: of a wet stage, in its throat [m/s]
    pressure_drop: Array  #: [Pa]
    leak_share: Array  #: air drawn in below the separator over its flow [-]
    free_height: Array  #: from where dust leaves the swirl to its surface [m]
    grades: Grades | None  #: None where the dust is not known
    others: Mapping[str, Grades] = field(default_factory=dict)  #: further published models, by name
    wet: bool = False

    @property
    def models(self) -> dict[str, Grades]:
        """Every model that describes this stage, the headline first."""
        return {} if self.grades is None else {ORBIT: self.grades, **self.others}


def separations(line: Line, point: OperatingPoint) -> tuple[Separation, ...]:
    """Every stage at the line's operating point, in the order of the air."""
    return tuple(
        _wet(stage, line, point) if isinstance(stage, WetStage) else separation(stage, line, point)
        for stage in line.stages
    )


@dataclass(frozen=True)
class Inside:
    """The air inside a separator; arrays of shape (n,)."""

    swirl: Swirl
    flow: Array  #: [m^3/s]
    density: Array  #: [kg/m^3]
    load: Values  #: c0 [kg/kg]
    leak: Array  #: below it [m^3/s]


def inside(stage: Separator, line: Line, point: OperatingPoint) -> Inside:
    """The air inside a separator at the line's operating point."""
    row = point.stations.index(stage.id)
    density, mass = point.stations.density_mean[row], point.stations.mass_flow[row]
    flow, load = mass / density, stage_load(stage, line, mass)
    friction = line.rules[stage.manner.friction]
    swirl = swirl_velocities(stage.geometry, flow, friction, load, swirl_factor(stage, line.rules))
    return Inside(swirl, flow, density, load, point.leak_flow[point.leak_ids.index(bin_leak_id(stage.id))])


def separation(stage: Separator, line: Line, point: OperatingPoint) -> Separation:
    """A separator at the line's operating point."""
    air = inside(stage, line, point)
    row = point.stations.index(stage.id)
    mass = point.stations.mass_flow[row]
    grades: dict[str, Grades] = {} if line.dust is None else _grades(stage, line, line.dust, air)
    return Separation(
        id=stage.id,
        inlet_velocity=air.swirl.inlet_velocity,
        pressure_drop=point.stations.loss[row],
        leak_share=air.leak * point.room_density / np.maximum(mass, 1e-12),
        free_height=np.broadcast_to(np.asarray(stage.free_height, dtype=float), air.flow.shape),
        grades=grades.pop(ORBIT, None),
        others=grades,
    )


def _grades(stage: Separator, line: Line, dust: Dust, air: Inside) -> dict[str, Grades]:
    """Every model that describes the separator; the bin gives back the same in all of them."""
    stays = _stays(stage, line, dust, air)
    right_way = line.rules["swirl.swapped"] if stage.swapped else 1.0

    def whole(cut: Array, grade: Array, extrapolated: bool = False) -> Grades:
        return Grades(cut, right_way * _with_surplus(grade, air.load, cut, dust.median), stays, extrapolated)

    cut = cut_size_orbit(stage.geometry, air.swirl, air.flow, dust.particle_density, air.density, line.site.viscosity)
    cut = np.asarray(line.rules["swirl.cut"] * cut)
    found = {ORBIT: whole(cut, grade_efficiency(SIZES, cut, line.rules[stage.manner.steepness]))}
    if isinstance(stage, Cyclone):
        stream = cyclone_models.InletStream(
            air.flow, air.density, line.site.viscosity, line.site.temperature, dust.particle_density
        )
        for name, model in OTHER_MODELS.items():
            said = model(stage.shape, stream, SIZES)
            found[name] = whole(said.cut_size, said.efficiency, bool(np.any(said.extrapolated)))
    return found


def _with_surplus(grade: Array, load: Values, cut: Array, median: Values) -> Array:
    """Above the limit load the surplus drops at once, whatever its size."""
    if not np.any(load):
        return grade
    carried = np.where(np.asarray(load) > 0.0, limit_load(load, cut, median) / np.maximum(load, 1e-300), 1.0)
    return np.asarray(1.0 - carried * (1.0 - grade))


def exchange(stage: Separator, line: Line, air: Inside) -> Array:
    """x, share of the flow that dips into the bin and comes back [-], ledges included."""
    rules, bin_, manner = line.rules, stage.bin, stage.manner
    factor = rules[manner.exchange]
    share = (
        np.broadcast_to(np.asarray(factor, dtype=float), air.flow.shape)
        if manner.exchange_fixed
        else bin_rules.exchange_share(
            stage.opening, air.swirl.wall_velocity, air.flow, factor, rules["bin.exchange-most"]
        )
    )
    if manner.exchange_more is not None:
        share = share * rules[manner.exchange_more]
    surface = bin_.diameter_at(bin_.fill_height)
    zone = bin_.height - stage.drop_below_rim - rules["bin.swirl-zone"] * surface
    ledges: Values = 0.0
    for ledge in bin_.ledges:
        swept = (ledge.height > zone) & (ledge.height > np.asarray(bin_.fill_height))
        ledges = np.asarray(ledges + np.where(swept, ledge.depth, 0.0))
    return np.asarray(np.minimum(share + bin_rules.ledge_exchange(ledges, rules["bin.ledge"]), 1.0))


def _stays(stage: Separator, line: Line, dust: Dust, air: Inside) -> Array:
    rules, bin_ = line.rules, stage.bin
    surface = bin_.diameter_at(bin_.fill_height)
    free = stage.free_height
    stir = bin_rules.stirring(free, surface, rules["bin.stir"], rules["bin.stir-depth"])
    moving = bin_rules.BinAir(air.flow, air.leak, exchange(stage, line, air), stir, bore_area(surface), stage.opening)
    falling = terminal_velocity(SIZES, dust.particle_density, air.density, line.site.viscosity)
    kept = bin_rules.retention(falling, moving, rules["bin.leak-weight"], rules["bin.leak-jet"])
    upright = bin_rules.tilt_share(stage.tilt, rules["bin.tilt-power"])
    return np.asarray(kept * bin_rules.brim_share(free, surface, rules["bin.brim"]) * upright)


def _wet(stage: WetStage, line: Line, point: OperatingPoint) -> Separation:
    row = point.stations.index(stage.id)
    mass, density = point.stations.mass_flow[row], point.stations.density_mean[row]
    throat = np.maximum(mass, 1e-9) / density / bore_area(stage.throat_diameter)
    nothing = np.zeros_like(throat)
    grades = None
    if line.dust is not None:
        cut = wet_cut_size(throat, line.rules["wet.cut"])
        grade = grade_efficiency(SIZES, cut, 2.0)
        grades = Grades(cut, grade, np.ones_like(grade))
    return Separation(stage.id, throat, point.stations.loss[row], nothing, nothing, grades, wet=True)


def fill_mark(stage: Separator, rules: RuleBook) -> tuple[float, float]:
    """(height above the floor [m], volume below it [m^3]) up to which the bin may fill before the air stirs it up.

    0 where even an empty bin is too shallow. For the first variant.
    """
    heights = np.linspace(0.0, stage.bin.height, MARK_STEPS)
    surface = stage.bin.diameter_at(heights)
    slope = 0.5 * surface * np.tan(np.max(stage.tilt))
    deep = stage.bin.height - np.max(stage.drop_below_rim)
    spare = deep - heights - slope - np.max(rules["bin.stir-depth"]) * surface
    height = float(np.max(heights[spare >= 0.0], initial=0.0))
    return height, float(stage.bin.volume_to(height))
