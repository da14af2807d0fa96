"""What a separator stands on: a tray, a cart with its vacuum beside it, a shelf, or a deck on legs over it."""

from __future__ import annotations

from dataclasses import replace
from math import cos, degrees, radians, sin

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator, Stand
from fenwick.core.formulas.stand import CASTERS, caster_share
from fenwick.core.judging.standing import leg_length
from fenwick.core.making.cams import cam_parts
from fenwick.core.making.given import Making
from fenwick.core.making.holders import holders
from fenwick.core.making.parts import MadePart, MadeParts, SawnHole, Trouble
from fenwick.core.making.pieces import bought, disc, panel
from fenwick.core.making.rims import bin_wall

LEGS, BRACKETS, FILLETS = 4, 2, 2
SPLAY = radians(5.0)  #: of legs from upright, outwards [rad]
PLAIN = Stand()


def stand_parts(stage: Separator, making: Making, mass: float | None) -> MadeParts:
    """A tray, cart, shelf or deck, with what lifts the bin, rolls the whole and holds bin, hose, cord and nozzles.

    Parameters
    ----------
    mass : of the full unit [kg]; None: not known
    """
    stand = PLAIN if stage.stand is None else stage.stand
    foot = bin_foot(stage, making)
    kinds = {"cart": _cart, "shelf": _shelf, "deck": _deck}
    under = kinds.get(stand.on, _tray)(stage, stand, making, foot)
    cams = cam_parts(stage, making, foot)
    rolls = stage.stand is None or (stand.wheels and not stand.hangs)
    fixing = [bought("machine-brackets", "bracket", BRACKETS)] if stand.fixed else []
    needless = stand.on == "floor" and not (rolls or stand.fixed or cams.parts)
    parts = (*cams.parts, *under.parts, *([_casters(mass)] if rolls else []), *fixing, *holders(stage, making, foot))
    told = [Trouble("not-needed")] if needless else []
    return MadeParts(parts, (*told, *cams.troubles, *under.troubles))


def bin_foot(stage: Separator, making: Making) -> float:
    """Outside width of a bin's foot [m]."""
    return float(stage.bin.narrow_at(0.0)) + 2.0 * bin_wall(stage.bin, making)


def _rest(making: Making, foot: float) -> MadePart:
    return disc("bin-rest", making.plate, foot, holes=[SawnHole("mouth", foot - 2.0 * making.rule("ring"))])


def _across(stand: Stand, making: Making, foot: float) -> float:
    return foot + 2.0 * making.rule("tray-edge") if stand.base is None else one_value(stand.base)


def _tray(stage: Separator, stand: Stand, making: Making, foot: float) -> MadeParts:
    wide = _across(stand, making, foot)
    troubles = [Trouble("tray-narrow", "tray", wide, foot)] if wide < foot else []
    return MadeParts((_rest(making, foot), panel("tray", making, wide, wide)), tuple(troubles))


def _cart(stage: Separator, stand: Stand, making: Making, foot: float) -> MadeParts:
    """One tray with the bin on one side, the vacuum between fillets on the other."""
    wide = _across(stand, making, foot)
    if stand.vacuum_width is None:
        whole = _tray(stage, stand, making, foot)
        return MadeParts(whole.parts, (*whole.troubles, Trouble("vacuum-wide", "tray")))
    edge, vacuum = making.rule("tray-edge"), one_value(stand.vacuum_width)
    across = max(wide, vacuum + 2.0 * edge)
    troubles = [Trouble("tray-narrow", "tray", wide, foot)] if wide < foot else []
    if stand.doorway is not None and across > one_value(stand.doorway):
        troubles.append(Trouble("cart-door", "tray", across, one_value(stand.doorway)))
    tray = panel("tray", making, foot + vacuum + 3.0 * edge, across, bin_m=foot, vacuum_m=vacuum)
    fillet = panel("vacuum-fillet", making, vacuum, making.rule("rail"), count=FILLETS)
    return MadeParts((_rest(making, foot), tray, fillet), tuple(troubles))


def _shelf(stage: Separator, stand: Stand, making: Making, foot: float) -> MadeParts:
    """A plate on brackets, over the vacuum."""
    wide = _across(stand, making, foot)
    clear, troubles = _clear(stand, making, "shelf")
    plate = panel("shelf", making, wide, wide, clear_m=clear)
    brackets = bought("wall-brackets", "bracket", BRACKETS, length_m=wide)
    return MadeParts((_rest(making, foot), plate, brackets), tuple(troubles))


def _deck(stage: Separator, stand: Stand, making: Making, foot: float) -> MadeParts:
    """A plate on splayed legs, over the vacuum on its tray."""
    wide = _across(stand, making, foot)
    clear, troubles = _clear(stand, making, "leg")
    long = clear / cos(SPLAY)
    reach = wide + 2.0 * long * sin(SPLAY)
    if stand.doorway is not None and reach > one_value(stand.doorway):
        troubles.append(Trouble("doorway", "leg", reach, one_value(stand.doorway)))
    parts = (
        _rest(making, foot),
        panel("deck-plate", making, wide, wide),
        panel("leg", making, making.rule("leg-width"), long, count=LEGS, splay_deg=degrees(SPLAY), clear_m=clear),
        panel("tray", making, reach, reach),
    )
    return MadeParts(parts, tuple(troubles))


def _clear(stand: Stand, making: Making, part: str) -> tuple[float, list[Trouble]]:
    """Room for the vacuum and its head; where its height is not known, as high as the bin stands."""
    clear = leg_length(stand, making.rules)
    if clear is None:
        return one_value(stand.base_height), [Trouble("vacuum-height", part)]
    return clear, []


def _casters(mass: float | None) -> MadePart:
    """Casters, with what one must bear.

    Parameters
    ----------
    mass : of the full unit [kg]; None: not known
    """
    plain = bought("casters", "caster", CASTERS)
    return plain if mass is None else replace(plain, dims={"bears_kg": float(caster_share(mass))})
