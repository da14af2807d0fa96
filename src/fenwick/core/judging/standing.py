"""Whether a separator fits where it stands, stays upright, and can be lifted. The first variant."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Values, one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.separator import Separator, Stand
from fenwick.core.dust.separation import fill_mark
from fenwick.core.formulas.sizes import GRAVITY
from fenwick.core.formulas.stand import caster_share, tipping_angle, tipping_force
from fenwick.core.judging.check import WATCH, Check, fact, figure
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

DUST_ALONE = "dust-alone"  #: said where the bin's own weight is not known


def standing_checks(stage: Separator, line: Line) -> list[Check]:
    """Headroom, floor, tipping, rolling apart, weight; what is not described is left out."""
    return [
        *_headroom(stage, line),
        *_legs(stage, line),
        *_footprint(stage),
        *_tips(stage, line),
        *_rolls(stage, line),
        *_weight(stage, line),
    ]


def over_rim(stage: Separator, rules: RuleBook) -> Values:
    """How far what stands on a bin reaches over its rim, the vacuum's head on a deck included [m]."""
    if not isinstance(stage, OneBody):
        return stage.rise_above_rim
    head = rules["stand.head"] if stage.head_height is None else stage.head_height
    return stage.rise_above_rim + np.asarray(head)


def stands_tall(stage: Separator, line: Line) -> float:
    """From the floor: what it stands on, bin, separator, the bend of the hose over it [m]; over a head none bends."""
    bend = 0.0 if isinstance(stage, OneBody) else one_value(line.rules["stand.bend"]) * one_value(stage.outlet_bore)
    base = 0.0 if stage.stand is None else one_value(stage.stand.base_height)
    return base + stage.bin.height + one_value(over_rim(stage, line.rules)) + bend


def _headroom(stage: Separator, line: Line) -> list[Check]:
    if stage.stand is None or stage.stand.headroom is None:
        return []
    room, tall = one_value(stage.stand.headroom), stands_tall(stage, line)
    wanted = tall + one_value(line.rules["stand.lift"])
    return [figure("headroom", room < tall, room < wanted, room, wanted, "length", stage.id, tall)]


def leg_length(stand: Stand, rules: RuleBook) -> float | None:
    """Height of a deck that the vacuum stands under, with room to lift its head [m]; None where it is not known."""
    if stand.vacuum_height is None:
        return None
    lift = rules["stand.lift"] if stand.head_lift is None else stand.head_lift
    return one_value(stand.vacuum_height) + one_value(lift)


def _legs(stage: Separator, line: Line) -> list[Check]:
    """A deck or shelf over the vacuum: as high as that, and higher to get at it."""
    stand = stage.stand
    needed = None if stand is None else leg_length(stand, line.rules)
    if stand is None or stand.on not in ("deck", "shelf") or needed is None:
        return []
    stands, vacuum = one_value(stand.base_height), one_value(stand.vacuum_height or 0.0)
    return [figure("legs", stands < vacuum, stands < needed, stands, needed, "length", stage.id, vacuum)]


def _footprint(stage: Separator) -> list[Check]:
    if stage.stand is None or stage.stand.space is None:
        return []
    widest, space = _widest(stage), one_value(stage.stand.space)
    return [figure("footprint", widest > space, False, widest, space, "length", stage.id)]


def _widest(stage: Separator) -> float:
    """Across the bin, what it stands on, and the vacuum's head over it [m]."""
    widest = stage.bin.widest
    if isinstance(stage, OneBody) and stage.head_width is not None:
        widest = max(widest, one_value(stage.head_width))
    return widest


@dataclass(frozen=True)
class _Unit:
    """Everything that tips over together."""

    weight: float  #: empty [kg]
    base: float  #: across what it stands on [m]
    pulled_at: float  #: over the floor [m]
    centre: float  #: of its mass, over the floor [m]


def _unit(stage: Separator, line: Line) -> _Unit | None:
    """Bin, separator and, in a stack, the vacuum; None where the bin's weight is not known."""
    stand, shell = stage.stand, stage.bin.shell_mass
    if stand is None or shell is None:
        return None
    bin_, up, rise = one_value(shell), one_value(stand.base_height), one_value(over_rim(stage, line.rules))
    head = 0.0 if stand.mass is None else one_value(stand.mass)
    below = one_value(stand.vacuum_mass) if stand.carries_vacuum and stand.vacuum_mass is not None else 0.0
    usual = stand.base_height if stand.stacked else stage.bin.height
    half_vacuum = 0.5 * one_value(usual if stand.vacuum_height is None else stand.vacuum_height)
    weight = bin_ + head + below
    moments = bin_ * (up + 0.5 * stage.bin.height) + head * (up + stage.bin.height + 0.5 * rise) + below * half_vacuum
    base = stands_across(stage, line.rules)
    return _Unit(weight, base, up + stage.bin.height + 0.5 * rise, moments / weight)


def stands_across(stage: Separator, rules: RuleBook) -> float:
    """Across what it stands on, its narrow way [m]: as given, the bin's floor, or on a cart the tray round it."""
    stand = stage.stand
    if stand is not None and stand.base is not None:
        return one_value(stand.base)
    floor = stage.bin.sides_at(0.0)
    foot = float(min(floor.width, floor.depth))
    edge = 2.0 * one_value(rules["make.tray-edge"]) if stand is not None and stand.on == "cart" else 0.0
    return foot + edge


def full_mass(stage: Separator, line: Line) -> float | None:
    """Of everything that stands or rolls together, its bin full to the mark [kg]; None where it is not known."""
    unit, dust = _unit(stage, line), _dust_mass(stage, line)
    return None if unit is None or dust is None else unit.weight + dust


def _tips(stage: Separator, line: Line) -> list[Check]:
    """The pull of a hose at the inlet against what tips it over empty; full it stands firmer."""
    unit, stand = _unit(stage, line), stage.stand
    if unit is None or stand is None:
        return []
    empty = float(tipping_force(unit.weight, unit.base, unit.pulled_at))
    full = float(tipping_force(unit.weight + (_dust_mass(stage, line) or 0.0), unit.base, unit.pulled_at))
    leans = float(tipping_angle(unit.base, unit.centre))
    pull = one_value(line.rules["stand.pull"])
    loose = not (stand.tied or stand.fixed or stand.hangs)
    sure = one_value(line.rules["stand.sure"]) * pull
    return [figure("tips", loose and empty < pull, loose and empty < sure, empty, pull, "force", stage.id, full, leans)]


def _rolls(stage: Separator, line: Line) -> list[Check]:
    """A hose's pull against what rolls it away; the doors and steps on its way."""
    stand = stage.stand
    if stand is None or not stand.wheels:
        return []
    return [*_parts(stage, stand, line), *_casters(stage, stand, line), *_on_its_way(stage, stand, line)]


def _casters(stage: Separator, stand: Stand, line: Line) -> list[Check]:
    """What one caster must bear of the full unit, against what it is made for."""
    mass = full_mass(stage, line)
    if stand.caster_bears is None or mass is None:
        return []
    share, made_for = float(caster_share(mass)), one_value(stand.caster_bears)
    sure = one_value(line.rules["stand.caster-sure"]) * share
    return [figure("casters", made_for < share, made_for < sure, share, made_for, "heap", stage.id)]


def _parts(stage: Separator, stand: Stand, line: Line) -> list[Check]:
    if stand.tied or stand.fixed:
        return []
    unit = _unit(stage, line)
    if unit is None:
        return [fact("rolls-apart", WATCH, stage.id)]
    rolls, pull = one_value(line.rules["stand.rolls"]) * unit.weight * GRAVITY, one_value(line.rules["stand.pull"])
    return [figure("rolls-apart", False, rolls < pull, rolls, pull, "force", stage.id)]


def _on_its_way(stage: Separator, stand: Stand, line: Line) -> list[Check]:
    found = []
    if stand.doorway is not None:
        across = max(_widest(stage), stands_across(stage, line.rules))
        door = one_value(stand.doorway)
        found.append(figure("doorway", across > door, False, across, door, "length", stage.id))
    if stand.step is not None and stand.wheel is not None:
        climbs, step = one_value(line.rules["stand.climb"]) * one_value(stand.wheel), one_value(stand.step)
        found.append(figure("step", False, step > climbs, step, climbs, "length", stage.id))
    return found


def _weight(stage: Separator, line: Line) -> list[Check]:
    """The bin filled to where it is emptied, as it is lifted."""
    dust, weight = _dust_mass(stage, line), weight_to_lift(stage, line)
    if dust is None or weight is None:
        return []
    shell = stage.bin.shell_mass
    heavy, too_heavy = (one_value(line.rules[f"stand.{key}"]) for key in ("heavy", "too-heavy"))
    found = figure("full-weight", weight > too_heavy, weight > heavy, weight, heavy, "heap", stage.id, dust)
    if shell is not None:
        return [found]
    return [Check(**{**found.__dict__, "about": (DUST_ALONE,)})]


def weight_to_lift(stage: Separator, line: Line) -> float | None:
    """The bin full to its mark, as it is lifted [kg]; of the dust alone where its shell is not known, None without."""
    dust, shell = _dust_mass(stage, line), stage.bin.shell_mass
    return None if dust is None else dust + (0.0 if shell is None else one_value(shell))


def _dust_mass(stage: Separator, line: Line) -> float | None:
    """Of the dust when the bin is full to its mark [kg]; None where it is not known how it lies."""
    if line.dust is None:
        return None
    mass = line.dust.heap_mass(fill_mark(stage, line.rules)[1])
    return None if mass is None else one_value(mass)
