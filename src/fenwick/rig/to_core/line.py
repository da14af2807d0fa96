"""From the checked rig file to the core's components: degrees to radians, Celsius to kelvin, the rest is SI already."""

from __future__ import annotations

from functools import lru_cache
from math import pi, radians
from typing import Any

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import ElbowLid, OneBody, RimInlet
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import (
    Bend,
    Branch,
    Elbow,
    Element,
    FixedLoss,
    Gate,
    Hose,
    InlineFilter,
    Leak,
    Plate,
    Port,
    Reducer,
)
from fenwick.core.components.separator import Separator, Slot, SlottedDisc, Stand
from fenwick.core.components.site import Site
from fenwick.core.components.vacuum import FilterMedium, Vacuum
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.cakes import with_cakes
from fenwick.core.formulas.air import ZERO_CELSIUS
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.line.filters import bag_area
from fenwick.core.line.line import Line
from fenwick.core.line.ports import with_dust
from fenwick.core.rules import RuleBook
from fenwick.core.tuning.factors import tuned
from fenwick.rig.format.curve import build_curve
from fenwick.rig.format.dust import build_dust
from fenwick.rig.format.elements import (
    BranchPart,
    ElbowPart,
    ElementPart,
    GatePart,
    HosePart,
    InlineFilterPart,
    LeakPart,
    LossPart,
    PlatePart,
    PortPart,
    ReducerPart,
)
from fenwick.rig.format.hood import build_hood
from fenwick.rig.format.model import BagPart, Rig, VacuumPart
from fenwick.rig.format.separator import (
    ChamberPart,
    CyclonePart,
    ElbowLidPart,
    OneBodyPart,
    RimInletPart,
    SeparatorPart,
    SlottedDiscPart,
    WetStagePart,
)
from fenwick.rig.format.stand import StandPart
from fenwick.rig.format.tuning import TuningPart
from fenwick.rig.to_core.bin import build_bin


@lru_cache(maxsize=256)
def build_line(rig: Rig) -> Line:
    """The core's line for a checked rig, built once for each: both are immutable."""
    site = Site(rig.site.temperature_c + ZERO_CELSIUS, rig.site.altitude_m, rig.site.outdoors)
    swapped = rig.line.use == "swap"
    line = Line(
        vacuum=build_vacuum(rig.vacuum, site),
        dust=build_dust(rig.dust) if rig.dust else None,
        branches=tuple(_branch(branch, site, swapped=swapped) for branch in rig.line.branches),
        trunk=tuple(_element(element) for element in rig.line.elements),
        junction_bore=rig.line.junction_bore_m,
        site=site,
        earthed=rig.line.earthed,
        rules=RuleBook().with_values(ONE_HOSE) if swapped else RuleBook(),
    )
    if rig.tuning and rig.tuning.on:
        line = tuned(line, rig.tuning.factors, rig.tuning.left, rig.tuning.slopes)
    return with_cakes(with_dust(line))


def described_line(rig: Rig) -> Line:
    """The line by its description, whatever its readings said; what a test of its slots told belongs to them."""
    slot = 1.0 if rig.tuning is None else rig.tuning.slot
    tested = None if slot == 1.0 else TuningPart(slot=slot)
    return build_line(rig.model_copy(update={"tuning": tested}))


#: with one hose moved from tool to tool there is no gate to leak or to lose suction in, and no junction
ONE_HOSE = {"gate.leak": 1e-8, "gate.body": 0.0}


def build_vacuum(part: VacuumPart, site: Site) -> Vacuum:
    """The core's vacuum, in the air of a site."""
    held = part.filter
    bag = part.bag
    curve = build_curve(part.curve, float(site.density))
    return Vacuum(
        curve=curve if part.motor_speed is None else curve.at_speed(part.motor_speed),
        inlet_bore=part.inlet_bore_m,
        filter=FilterMedium(held.kind, held.area_m2, held.held_kg, coated=held.coated) if held else None,
        bag=_bag(bag, part) if bag else None,
        tank=part.tank_m3,
        bag_volume=bag.volume_m3 if bag else None,
        name=part.name,
        electrical_power=part.electrical_power_w,
        exhaust_outdoors=part.exhaust == "outdoors",
        own_cooling=None if part.cooling is None else part.cooling == "own-air",
        takes_water=part.takes_water,
        wiring=part.wiring,
        last_held=part.last_held,
        emptied=part.emptied,
    )


def _bag(part: BagPart, vacuum: VacuumPart) -> FilterMedium:
    """The bag; where its area is not given, by what it holds or by the tank it hangs in."""
    if part.area_m2 is not None:
        return FilterMedium("bag", part.area_m2, part.held_kg)
    rules = RuleBook()
    tank = one_value(rules["tank.volume"]) if vacuum.tank_m3 is None else vacuum.tank_m3
    volume = one_value(rules["bag.share"]) * tank if part.volume_m3 is None else part.volume_m3
    return FilterMedium("bag", one_value(bag_area(volume, rules)), part.held_kg)


def _branch(part: BranchPart, site: Site, *, swapped: bool = False) -> Branch:
    gate = part.gate.opening if part.gate else None
    if swapped and gate is None:
        gate = 1.0
    return Branch(
        id=part.id,
        port=_port(part.port, site) if part.port else None,
        elements=tuple(_element(element) for element in part.elements),
        gate_opening=gate,
        join_angle=0.0 if swapped else radians(part.join_angle_deg),
        branches=tuple(_branch(branch, site) for branch in part.branches),
        junction_bore=part.junction_bore_m,
    )


def _port(part: PortPart, site: Site) -> Port:
    return Port(
        name=part.name,
        bore=part.bore_m,
        entry=part.entry,
        hood=build_hood(part.hood, float(site.density)) if part.hood else None,
        dust_rate=part.dust_rate_kg_s,
        machine=part.machine,
        tool=part.tool,
        outdoors=part.outdoors,
        dust=DUSTS[part.dust] if part.dust else None,
    )


def _element(part: ElementPart) -> Element:
    match part:
        case HosePart():
            bends = tuple(Bend(radians(bend.angle_deg), bend.radius_m) for bend in part.bends)
            return Hose(
                part.id,
                part.bore_m,
                part.length_m,
                part.wall,
                bends,
                part.roughness_m,
                part.rise_m,
                wall_thickness=part.wall_m,
                clear=part.clear,
            )
        case ReducerPart():
            return Reducer(part.id, part.bore_in_m, part.bore_out_m, part.length_m)
        case LossPart():
            return FixedLoss(part.id, part.bore_m, part.k)
        case LeakPart():
            return Leak(part.id, part.area_m2)
        case GatePart():
            return Gate(part.id, part.bore_m, part.opening)
        case ElbowPart():
            return Elbow(part.id, part.bore_m, radians(part.angle_deg), part.style, part.radius_m)
        case PlatePart():
            area = sum(pi / 4.0 * hole.diameter_m**2 * hole.count for hole in part.holes)
            return Plate(part.id, part.bore_m, area)
        case InlineFilterPart():
            return InlineFilter(part.id, part.bore_m, FilterMedium(part.medium, part.area_m2, part.held_kg))
        case WetStagePart():
            return WetStage(
                part.id, part.throat_d_m, part.immersion_m, part.vessel_d_m, part.water_kg, part.outlet_height_m
            )
        case _:
            return build_separator(part)


def build_separator(part: SeparatorPart) -> Separator:
    """The core's separator."""
    common: dict[str, Any] = {
        "bin": build_bin(part.bin),
        "tilt": radians(part.tilt_deg),
        "swapped": part.hoses_swapped,
        "stand": _stand(part.stand) if part.stand else None,
        "body": (part.body_material, part.body_m) if part.body_material and part.body_m else None,
    }
    match part:
        case CyclonePart():
            shape = CycloneGeometry(
                *part.inlet,
                part.body_d_m,
                part.outlet_d_m,
                part.outlet_length_m,
                part.cylinder_height_m,
                part.total_height_m,
                part.dust_outlet_d_m,
            )
            return Cyclone(part.id, shape, part.finish, **common)
        case ElbowLidPart():
            ways = (part.inlet_bore_m, part.outlet_d_m, part.outlet_length_m)
            return ElbowLid(part.id, *ways, aim=part.outlet_aim, **common)
        case RimInletPart():
            return RimInlet(part.id, part.inlet_bore_m, part.outlet_d_m, part.outlet_length_m, **common)
        case OneBodyPart():
            return OneBody(
                **_chamber(part),
                window_area=part.window_area_m2,
                deck_leak=part.deck_leak_m2,
                head_width=part.head_d_m,
                head_height=part.head_height_m,
                **common,
            )
        case SlottedDiscPart():
            return SlottedDisc(
                **_chamber(part),
                hung=part.hung,
                elbow=part.inlet_style == "elbow",
                opposed=part.outlet_aim == "opposed",
                elbow_reach=part.elbow_reach_m,
                **common,
            )
    raise TypeError(f"no such separator: {type(part).__name__}")


def _stand(part: StandPart) -> Stand:
    return Stand(
        part.headroom_m,
        part.space_m,
        part.base_m,
        part.mass_kg,
        part.wheels,
        part.tied,
        on=part.stands_on,
        base_height=part.base_height_m or 0.0,
        vacuum_height=part.vacuum_height_m,
        vacuum_mass=part.vacuum_mass_kg,
        head_lift=part.head_lift_m,
        fixed=part.fixed,
        doorway=part.doorway_m,
        step=part.step_m,
        wheel=part.wheel_d_m,
        vacuum_width=part.vacuum_d_m,
        caster_bears=part.caster_kg,
        nozzles=part.nozzles,
    )


def _chamber(part: ChamberPart) -> dict[str, Any]:
    return {
        "id": part.id,
        "chamber_diameter": part.chamber_d_m,
        "chamber_height": part.chamber_height_m,
        "inlet_bore": part.inlet_bore_m,
        "outlet_diameter": part.outlet_d_m,
        "outlet_length": part.outlet_length_m,
        "inlet_rectangle": part.inlet if part.inlet_height_m is not None else None,
        "slots": tuple(Slot(slot.width_m, radians(slot.arc_deg), radians(slot.start_deg)) for slot in part.slots),
    }
