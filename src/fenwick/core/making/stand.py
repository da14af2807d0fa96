"""What a separator stands on: a tray on casters beside its vacuum, or a deck on legs over it."""

from __future__ import annotations

from dataclasses import replace
from math import cos, degrees, pi, radians, sin

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator
from fenwick.core.judging.standing import leg_length
from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadePart, MadeParts, SawnHole, Trouble
from fenwick.core.making.pieces import bought, disc, panel
from fenwick.core.making.rims import bin_wall

CASTERS, LEGS, STRAPS = 4, 4, 2
SPLAY = radians(5.0)  #: of legs from upright, outwards [rad]


def stand_parts(stage: Separator, making: Making, mass: float | None) -> MadeParts:
    """A tray on casters, or a deck with its legs, with what holds the bin and the hose.

    Parameters
    ----------
    mass : of the full unit [kg]; None: not known
    """
    stand = stage.stand
    foot = float(stage.bin.narrow_at(0.0)) + 2.0 * bin_wall(stage.bin, making)
    if stand is not None and stand.on == "deck":
        return _deck(stage, making, foot, mass)
    wide = foot + 2.0 * making.rule("tray-edge") if stand is None or stand.base is None else one_value(stand.base)
    troubles = [Trouble("tray-narrow", "tray", wide, foot)] if wide < foot else []
    wheels = stand is None or stand.wheels
    parts: list[MadePart] = [
        disc("bin-rest", making.plate, foot, holes=[SawnHole("mouth", foot - 2.0 * making.rule("ring"))]),
        panel("tray", making, wide, wide),
        *([_casters(mass)] if wheels else []),
        *_holders(foot),
    ]
    return MadeParts(tuple(parts), tuple(troubles))


def _deck(stage: Separator, making: Making, foot: float, mass: float | None) -> MadeParts:
    stand = stage.stand
    assert stand is not None
    clear = leg_length(stand, making.rules)
    troubles = []
    if clear is None:
        clear = one_value(stand.base_height)
        troubles.append(Trouble("vacuum-height", "leg"))
    wide = foot + 2.0 * making.rule("tray-edge") if stand.base is None else one_value(stand.base)
    long = clear / cos(SPLAY)
    reach = wide + 2.0 * long * sin(SPLAY)
    if stand.doorway is not None and reach > one_value(stand.doorway):
        troubles.append(Trouble("doorway", "leg", reach, one_value(stand.doorway)))
    parts: list[MadePart] = [
        panel("deck-plate", making, wide, wide),
        panel("leg", making, making.rule("leg-width"), long, count=LEGS, splay_deg=degrees(SPLAY), clear_m=clear),
        panel("tray", making, reach, reach),
        *([_casters(mass)] if stand.wheels else []),
        *_holders(foot),
    ]
    return MadeParts(tuple(parts), tuple(troubles))


def _holders(foot: float) -> list[MadePart]:
    return [bought("straps", "strap", STRAPS, length_m=pi * foot), bought("hose-holder", "hook", 2)]


def _casters(mass: float | None) -> MadePart:
    """Casters, with what one must bear: on a floor that is not flat, three of them stand.

    Parameters
    ----------
    mass : of the full unit [kg]; None: not known
    """
    plain = bought("casters", "caster", CASTERS)
    return plain if mass is None else replace(plain, dims={"bears_kg": mass / (CASTERS - 1)})
