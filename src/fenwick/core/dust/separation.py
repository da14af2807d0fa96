"""What each stage keeps, size by size."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import partial
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import Dust
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.caught import Arriving
from fenwick.core.formulas import bin as bin_rules
from fenwick.core.formulas import cyclone as cyclone_models
from fenwick.core.formulas.cyclone import CycloneGeometry, Grade, InletStream
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import SIZES, mass_median, terminal_velocity
from fenwick.core.formulas.swirl import Swirl, cut_size_orbit, grade_efficiency, surplus_share, swirl_velocities
from fenwick.core.formulas.wet import wet_cut_size
from fenwick.core.line.filters import passes_before_stages
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.line.rows import bin_leak_id, stage_load, swirl_factor
from fenwick.core.rules import RuleBook

Model: TypeAlias = Callable[[CycloneGeometry, InletStream, Array], Grade]
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


def separations(line: Line, point: OperatingPoint, arriving: Arriving | None) -> tuple[Separation, ...]:
    """Every stage at the line's operating point, in the order of the air.

    Parameters
    ----------
    line, point : solved
    arriving : at its first stage; None where the dust is not known
    """
    median = entering_median(line, arriving) if np.any(point.caught) else np.full(1, SIZES[0, 0])
    return tuple(
        _wet(stage, line, point) if isinstance(stage, WetStage) else _separation(stage, line, point, median)
        for stage in line.stages
    )


def entering_median(line: Line, arriving: Arriving | None) -> Array:
    """Size that half of what enters the first stage is finer than, by mass [m], shape (n,)."""
    if arriving is None or line.dust is None or not line.stages:
        return np.full(1, SIZES[0, 0])
    return mass_median(arriving.entering * passes_before_stages(line, line.dust.sizes)[0])


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
    flow, load = mass / density, stage_load(stage, line, point.caught, mass)
    friction = line.rules[stage.manner.friction]
    swirl = swirl_velocities(stage.geometry, flow, friction, load, swirl_factor(stage, line.rules))
    return Inside(swirl, flow, density, load, point.leak_flow[point.leak_ids.index(bin_leak_id(stage.id))])


def _separation(stage: Separator, line: Line, point: OperatingPoint, median: Array) -> Separation:
    air = inside(stage, line, point)
    row = point.stations.index(stage.id)
    mass = point.stations.mass_flow[row]
    grades: dict[str, Grades] = {} if line.dust is None else _grades(stage, line, line.dust, air, median)
    return Separation(
        id=stage.id,
        inlet_velocity=air.swirl.inlet_velocity,
        pressure_drop=point.stations.loss[row],
        leak_share=air.leak * point.room_density / np.maximum(mass, 1e-12),
        free_height=np.broadcast_to(np.asarray(stage.free_height, dtype=float), air.flow.shape),
        grades=grades.pop(ORBIT, None),
        others=grades,
    )


def _grades(stage: Separator, line: Line, dust: Dust, air: Inside, median: Array) -> dict[str, Grades]:
    """Every model that describes the separator; the bin gives back the same in all of them.

    Grains of different density are cut apart; the cut size told is that of their mean density.
    """
    stays = _stays(stage, line, dust, air)
    right_way = line.rules["swirl.swapped"] if stage.swapped else 1.0
    found = {}
    for name, model in _models(stage, line, air).items():
        told = model(dust.particle_density)
        grades = [told.efficiency] if len(dust.densities) == 1 else [model(rho).efficiency for rho in dust.densities]
        reaches = right_way * _with_surplus(np.concatenate(grades), air.load, told.cut_size, median, line)
        found[name] = Grades(told.cut_size, reaches, stays, bool(np.any(told.extrapolated)))
    return found


def _models(stage: Separator, line: Line, air: Inside) -> dict[str, Callable[[float], Grade]]:
    """Grade by the density of a grain [kg/m^3], by each model that describes the separator."""

    def orbit(density: float) -> Grade:
        cut = cut_size_orbit(stage.geometry, air.swirl, air.flow, density, air.density, line.site.viscosity)
        cut = np.asarray(line.rules["swirl.cut"] * cut)
        return Grade(cut, grade_efficiency(SIZES, cut, line.rules[stage.manner.steepness]), np.zeros(1, dtype=bool))

    found: dict[str, Callable[[float], Grade]] = {ORBIT: orbit}
    if isinstance(stage, Cyclone):
        found |= {name: partial(_published, model, stage.shape, line, air) for name, model in OTHER_MODELS.items()}
    return found


def _published(model: Model, shape: CycloneGeometry, line: Line, air: Inside, density: float) -> Grade:
    stream = InletStream(air.flow, air.density, line.site.viscosity, line.site.temperature, density)
    return model(shape, stream, SIZES)


def _with_surplus(grade: Array, load: Values, cut: Array, median: Array, line: Line) -> Array:
    """Above the limit load the surplus drops at once, whatever its size."""
    if not np.any(load):
        return grade
    return np.asarray(1.0 - (1.0 - surplus_share(load, cut, median, line.rules["swirl.limit-load"])) * (1.0 - grade))


def exchange(stage: Separator, line: Line, air: Inside) -> Array:
    """x, share of the flow that dips into the bin and comes back [-], ledges included.

    What an elbow's air lacks in swirl it has in turbulence, which dips into the bin as well.
    """
    rules, manner = line.rules, stage.manner
    factor = rules[manner.exchange]
    share = (
        np.broadcast_to(np.asarray(factor, dtype=float), air.flow.shape)
        if manner.exchange_fixed
        else bin_rules.exchange_share(
            stage.opening,
            air.swirl.wall_velocity / swirl_factor(stage, rules),
            air.flow,
            factor,
            rules["bin.exchange-most"],
        )
    )
    if manner.exchange_more is not None:
        share = share * rules[manner.exchange_more]
    return np.asarray(np.minimum(share + _ledges(stage, line), 1.0))


def _ledges(stage: Separator, line: Line) -> Values:
    """What the ledges of its bin add to the exchange [-]."""
    rules, bin_ = line.rules, stage.bin
    surface = bin_.diameter_at(bin_.fill_height)
    constants = bin_rules.LedgeRules(rules["bin.ledge"], rules["bin.swirl-zone"], rules["bin.ledge-fades"])
    outlet, added = bin_.height - np.asarray(stage.drop_below_rim), np.asarray(0.0)
    for ledge in bin_.ledges:
        over = ledge.height - np.asarray(bin_.fill_height)
        added = added + bin_rules.ledge_exchange(ledge.depth, outlet - ledge.height, over, surface, constants)
    return added


def falls_through(stage: Separator, rules: RuleBook) -> Values:
    """Share of what the swirl throws out that finds a slot and falls through it [-]; 1 where there is no disc."""
    if not isinstance(stage, SlottedDisc):
        return 1.0
    # the gap round a hung disc counts as a slot all the way round, as far as it is wide enough to be one
    gap = bin_rules.slot_fall(stage.gap, rules["slot.falls"])
    weighted, area, arc = gap * stage.gap_area, np.asarray(stage.gap_area), 2.0 * np.pi * gap
    for slot in stage.slots:
        own = stage.slot_area(slot)
        weighted = weighted + bin_rules.slot_fall(slot.width, rules["slot.falls"]) * own
        area, arc = area + own, arc + slot.arc
    through = weighted / np.maximum(area, 1e-12)
    return np.asarray(through * bin_rules.arc_fall(arc, np.radians(rules["slot.arc"])))


def _stays(stage: Separator, line: Line, dust: Dust, air: Inside) -> Array:
    rules, bin_ = line.rules, stage.bin
    surface = bin_.diameter_at(bin_.fill_height)
    free = stage.free_height
    stir = bin_rules.stirring(free, surface, rules["bin.stir"], rules["bin.stir-depth"])
    area = stage.bin.area_at(stage.bin.fill_height)
    moving = bin_rules.BinAir(air.flow, air.leak, exchange(stage, line, air), stir, area, stage.opening)
    falling = terminal_velocity(dust.sizes, dust.grain_density, air.density, line.site.viscosity)
    kept = bin_rules.retention(falling, moving, rules["bin.leak-weight"], rules["bin.leak-jet"])
    upright = bin_rules.tilt_share(stage.tilt, rules[stage.manner.tilt])
    stays = kept * bin_rules.brim_share(free, surface, rules["bin.brim"]) * upright * falls_through(stage, rules)
    if not isinstance(stage, SlottedDisc):
        return np.asarray(stays)
    return np.asarray(1.0 - np.minimum(rules["slot.loss"] * (1.0 - stays), 1.0))


def _wet(stage: WetStage, line: Line, point: OperatingPoint) -> Separation:
    row = point.stations.index(stage.id)
    mass, density = point.stations.mass_flow[row], point.stations.density_mean[row]
    throat = np.maximum(mass, 1e-9) / density / bore_area(stage.throat_diameter)
    nothing = np.zeros_like(throat)
    grades = None
    if line.dust is not None:
        cut = wet_cut_size(throat, line.rules["wet.cut"])
        grade = grade_efficiency(line.dust.sizes, cut, 2.0)
        grades = Grades(cut, grade, np.ones_like(grade))
    return Separation(stage.id, throat, point.stations.loss[row], nothing, nothing, grades, wet=True)


def fill_mark(stage: Separator, rules: RuleBook) -> tuple[float, float]:
    """(height above the floor [m], volume below it [m^3]) up to which the bin may fill before the air stirs it up.

    0 where even an empty bin is too shallow. For the first variant.
    """
    heights = np.linspace(0.0, stage.bin.height, MARK_STEPS)
    free = stage.changed(tilt=float(np.ravel(stage.tilt)[0])).free_above(heights)
    spare = free - float(np.ravel(rules["bin.stir-depth"])[0]) * stage.bin.diameter_at(heights)
    height = float(np.max(heights[spare >= 0.0], initial=0.0))
    return height, float(stage.bin.volume_to(height))
