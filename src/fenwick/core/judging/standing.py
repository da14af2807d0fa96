"""Whether a separator fits where it stands, stays upright, and can be lifted. The first variant."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Values, one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.separator import Separator
from fenwick.core.dust.separation import fill_mark
from fenwick.core.formulas.stand import tipping_angle, tipping_force
from fenwick.core.judging.check import WATCH, Check, fact, figure
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

DUST_ALONE = "dust-alone"  #: said where the bin's own weight is not known


def standing_checks(stage: Separator, line: Line) -> list[Check]:
    """Headroom, floor, tipping, rolling apart, weight; what is not described is left out."""
    return [
        *_headroom(stage, line),
        *_footprint(stage),
        *_tips(stage, line),
        *_rolls(stage),
        *_weight(stage, line),
    ]


def over_rim(stage: Separator, rules: RuleBook) -> Values:
    """How far what stands on a bin reaches over its rim, the vacuum's head on a deck included [m]."""
    if not isinstance(stage, OneBody):
        return stage.rise_above_rim
    head = rules["stand.head"] if stage.head_height is None else stage.head_height
    return stage.rise_above_rim + np.asarray(head)


def stands_tall(stage: Separator, line: Line) -> float:
    """Bin, separator and the bend of the hose over it [m]; over a vacuum's head no hose bends."""
    bend = 0.0 if isinstance(stage, OneBody) else one_value(line.rules["stand.bend"]) * one_value(stage.outlet_bore)
    return stage.bin.height + one_value(over_rim(stage, line.rules)) + bend


def _headroom(stage: Separator, line: Line) -> list[Check]:
    if stage.stand is None or stage.stand.headroom is None:
        return []
    room, tall = one_value(stage.stand.headroom), stands_tall(stage, line)
    wanted = tall + one_value(line.rules["stand.lift"])
    return [figure("headroom", room < tall, room < wanted, room, wanted, "length", stage.id, tall)]


def _footprint(stage: Separator) -> list[Check]:
    if stage.stand is None or stage.stand.space is None:
        return []
    widest, space = max(stage.bin.diameters), one_value(stage.stand.space)
    if isinstance(stage, OneBody) and stage.head_width is not None:
        widest = max(widest, one_value(stage.head_width))
    return [figure("footprint", widest > space, False, widest, space, "length", stage.id)]


def _tips(stage: Separator, line: Line) -> list[Check]:
    """The pull of a hose at the inlet against what tips it over empty; full it stands firmer."""
    stand, shell = stage.stand, stage.bin.shell_mass
    if stand is None or shell is None:
        return []
    head = 0.0 if stand.mass is None else one_value(stand.mass)
    base = float(stage.bin.diameters[0]) if stand.base is None else one_value(stand.base)
    rise = one_value(over_rim(stage, line.rules))
    height = stage.bin.height + 0.5 * rise
    weight = one_value(shell) + head
    empty = float(tipping_force(weight, base, height))
    full = float(tipping_force(weight + (_dust_mass(stage, line) or 0.0), base, height))
    centre = (one_value(shell) * 0.5 * stage.bin.height + head * (stage.bin.height + 0.5 * rise)) / weight
    leans = float(tipping_angle(base, centre))
    pull = one_value(line.rules["stand.pull"])
    loose = not stand.tied
    return [
        figure(
            "tips",
            loose and empty < pull,
            loose and empty < one_value(line.rules["stand.sure"]) * pull,
            empty,
            pull,
            "force",
            stage.id,
            full,
            leans,
        )
    ]


def _rolls(stage: Separator) -> list[Check]:
    if stage.stand is None or not stage.stand.wheels or stage.stand.tied:
        return []
    return [fact("rolls-apart", WATCH, stage.id)]


def _weight(stage: Separator, line: Line) -> list[Check]:
    """The bin filled to where it is emptied, as it is lifted."""
    dust = _dust_mass(stage, line)
    if dust is None:
        return []
    shell = stage.bin.shell_mass
    weight = dust + (0.0 if shell is None else one_value(shell))
    heavy, too_heavy = (one_value(line.rules[f"stand.{key}"]) for key in ("heavy", "too-heavy"))
    found = figure("full-weight", weight > too_heavy, weight > heavy, weight, heavy, "heap", stage.id, dust)
    if shell is not None:
        return [found]
    return [Check(**{**found.__dict__, "about": (DUST_ALONE,)})]


def _dust_mass(stage: Separator, line: Line) -> float | None:
    """Of the dust when the bin is full to its mark [kg]; None where it is not known how it lies."""
    if line.dust is None:
        return None
    mass = line.dust.heap_mass(fill_mark(stage, line.rules)[1])
    return None if mass is None else one_value(mass)
