"""Sentences for checks of air and dust on their way, the wall round them, and the label: figure, limit, remedy."""

from __future__ import annotations

from math import isfinite

from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.units.sentence import inside
from fenwick.wording.checks.said import JUDGED, LUNGS, PATH, STRENGTH, CheckWords, Said


def _air(said: Said) -> str:
    if said.level == OK:
        return f"{said.value} reaches {said.name}."
    return f"Next to nothing reaches {said.name} ({said.value}). The line is blocked, shut or far too narrow."


def _containment(said: Said) -> str:
    if said.level == OK:
        return f"{said.value} reaches what it takes to contain fine dust at {said.machine}, {said.limit}."
    return f"Containing fine dust at {said.machine} takes {said.limit} or more. Fine dust escapes: wear a respirator."


def _caught(said: Said) -> str:
    if said.level == OK:
        return f"{said.value} of what is made at {said.name} is caught."
    return (
        f"{said.value} of what is made at {said.name} is caught; {said.limit} is good. The rest lies on the floor or "
        "hangs in the air: nearer, boxed in, or turned back behind the cut."
    )


def _kept(said: Said) -> str:
    if said.check.part is None:
        return "Nothing is kept ahead of the vacuum: there is no separator, and all of it goes to its bag or filter."
    if said.level == OK:
        return f"{said.value} of what enters is kept in the bin; {said.limit} is good."
    return f"{said.value} of what enters is kept in the bin; {said.limit} is good. The rest goes on to the filter."


def _settling(said: Said) -> str:
    dust = inside(said.voice.dust or "the dust")
    if said.level == OK:
        return f"{said.name} is the slowest run, at {said.value}, and carries {dust}; below {said.limit} dust settles."
    if said.level == WATCH:
        return f"{said.name} only just carries {dust}, at {said.value}; below {said.limit} dust settles."
    return f"{said.name}, at {said.value}, lets {dust} lie; it takes {said.limit}."


def _collapse(said: Said) -> str:
    if not isfinite(said.check.value[0]):
        return f"A blocked hose pulls {said.limit}; this wall is too short to fold at all."
    if said.level == OK:
        return f"A blocked hose pulls {said.limit}; this wall, if plain and round, folds at {said.value}."
    return (
        f"A blocked hose pulls {said.limit}; this wall, if plain and round, folds at {said.value}, and suddenly: "
        "hands off. "
        "Stiffen it, or fit a relief valve."
    )


def _leak(said: Said) -> str:
    if said.level == OK:
        return f"{said.value} of the air enters below the separator; under {said.limit} does little harm."
    return f"{said.value} of the air enters below the separator and blows dust back up. Seal the bin's lid and seams."


def _full(said: Said) -> str:
    if said.level == OK:
        return f"The dust stands {said.value} below where it drops in; from {said.limit} on the air stirs it up."
    return (
        f"The dust stands {said.value} below where it drops in: the air stirs it up again. Empty the bin at "
        f"{said.limit}."
    )


def _bridging(said: Said) -> str:
    if said.level == OK:
        return f"The slot, {said.value}, passes the longest chips of this dust, {said.limit}."
    return f"Chips of up to {said.limit} lie across a slot of {said.value} and block it. Make the slot wider."


def _swapped(said: Said) -> str:
    if said.level == OK:
        return f"At {said.name} the vacuum is on the centre port and the tool on the side, as it should be."
    return (
        f"The hoses are on the wrong ports of {said.name}: the vacuum belongs on the centre port, the "
        f"tool on the side. As it is, about {said.value} of what it could keep is kept."
    )


def _tail(said: Said) -> str:
    if said.level == OK:
        return f"The vortex ends {said.value} below its outlet tube, inside {said.name} ({said.limit})."
    return (
        f"The vortex would reach {said.value} below its outlet tube and {said.name} has {said.limit}: its tail "
        "stirs the "
        "bin. A taller cone, a narrower outlet tube, or a vortex breaker over the dust."
    )


def _carry_over(said: Said) -> str:
    if said.level == OK:
        return (
            f"Air rises at {said.value} over the water; from {said.limit} on it takes droplets along. Keep it upright."
        )
    return (
        f"Air rises at {said.value} over the water and takes droplets to the vacuum (from {said.limit}): water "
        "must never "
        "reach a dry vacuum. Use a wider vessel, and never tip or overfill it."
    )


def _overfull(said: Said) -> str:
    if said.level == OK:
        return f"The water stands {said.value} high; the line not to pass is {said.limit}. Empty the vessel outdoors."
    return (
        f"The water stands {said.value} high and the line not to pass is {said.limit}: it splashes to the outlet, "
        "and on to the vacuum. Let water off."
    )


def _wet_lean(said: Said) -> str:
    if said.level == OK:
        return f"It leans {said.value} before water meets its outlet. Keep it upright, and never lift it running."
    return f"Leaning {said.value} its water meets the outlet, and {said.limit} must be stood: less water, or fix it."


def _believable(said: Said) -> str:
    if said.level == OK:
        return f"The label's air power is {said.value} of its electrical power: believable."
    return (
        f"The label promises {said.value} of its electrical power as air power; no shop vacuum passes {said.limit}. "
        "Measure the vacuum before trusting these figures."
    )


def _lift(said: Said) -> str:
    if said.level == OK:
        return f"Air rises at {said.value} in {said.name}; the largest pieces fall at {said.limit}."
    if said.level == WATCH:
        return f"{said.name} only just lifts the largest pieces: air at {said.value}, and they fall at {said.limit}."
    return (
        f"The largest pieces fall back in {said.name}: air at {said.value}, and they fall at {said.limit}. Narrow it."
    )


def _passage(said: Said) -> str:
    if said.level == OK:
        return f"The tightest place, {said.name} at {said.value}, passes the longest chips; {said.limit} would do."
    return f"Chips bridge at {said.name}: it is {said.value} wide, and {said.limit} is wanted for the longest of them."


def _narrow_slot(said: Said) -> str:
    if said.level == OK:
        return f"Its slot is {said.value} wide; from {said.limit} on dust falls through it."
    return f"Its slot is {said.value} wide: much of what reaches it turns on over it. {said.limit} or more let it fall."


def _elbow(said: Said) -> str:
    if said.level == OK:
        return f"The disc stands {said.value} below the elbow; {said.limit} is the least."
    if said.level == ACT:
        return "The elbow reaches down to its disc, or past it: hang the disc lower, or take a shorter elbow."
    return f"The disc stands only {said.value} below the elbow: dust piles up there. Leave {said.limit} at least."


def _tube(said: Said) -> str:
    if said.level == OK:
        return f"The outlet tube is {said.value} wide, and the body {said.limit} where it ends."
    return (
        f"The outlet tube is {said.value} wide, and the cone only {said.limit} where it ends: no air can turn round "
        "it. A shorter or narrower tube."
    )


def _bed(said: Said) -> str:
    volume, suction, share = said.notes
    lies = (
        f"{said.voice.figure(volume, 'volume')} of dust come to lie in {said.name} and fill {100.0 * share:.0f} % of it"
    )
    costs = f"they cost {said.voice.figure(suction, 'suction')}"
    if said.level == OK:
        return f"{lies}, until the rest carries; {costs}. {said.value} stay free, and {said.limit} would plug it."
    plug = "it plugs" if said.level == ACT else "a long chip may plug it"
    return f"{lies}; {costs}, and with {said.value} left free {plug}. Step it down to a bore that carries."


#: every check of this subject: heading, what it is called, what it says
ON_ITS_WAY: dict[str, CheckWords] = {
    "air-at-tool": CheckWords(PATH, "Air at the tool", _air),
    "containment": CheckWords(LUNGS, "Fine dust at the machine", _containment),
    "caught": CheckWords(PATH, "Caught at the tool", _caught),
    "kept": CheckWords(PATH, "Kept by the separator", _kept),
    "settling": CheckWords(PATH, "Slowest run", _settling),
    "slot-narrow": CheckWords(PATH, "Width of the slot", _narrow_slot),
    "elbow-clear": CheckWords(PATH, "Disc below the elbow", _elbow),
    "tube-in-cone": CheckWords(PATH, "Outlet tube in the cone", _tube),
    "bed": CheckWords(PATH, "Bed in a run", _bed),
    "bin-collapse": CheckWords(STRENGTH, "Bin against collapse", _collapse),
    "bin-leak": CheckWords(PATH, "Leak below the separator", _leak),
    "bin-full": CheckWords(PATH, "Room in the bin", _full),
    "slot-bridging": CheckWords(PATH, "Slot in the disc", _bridging),
    "fan-believable": CheckWords(JUDGED, "The vacuum's label", _believable),
    "swapped-hoses": CheckWords(PATH, "Hoses on their ports", _swapped),
    "vortex-tail": CheckWords(PATH, "Tail of the vortex", _tail),
    "wet-overfull": CheckWords(PATH, "Water in the wet stage", _overfull),
    "wet-lean": CheckWords(PATH, "Leaning of the wet stage", _wet_lean),
    "carry-over": CheckWords(PATH, "Droplets from the wet stage", _carry_over),
    "vertical-lift": CheckWords(PATH, "Up a rising hose", _lift),
    "bridging": CheckWords(PATH, "Tightest place", _passage),
}
