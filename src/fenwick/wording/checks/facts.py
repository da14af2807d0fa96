"""Sentences for checks of facts: what must not meet, what harms, what stands loose. Each ends with what to do."""

from __future__ import annotations

from math import isfinite

from fenwick.core.components.bins import MATERIALS
from fenwick.core.components.dust import DUSTS, HELD_BESIDES
from fenwick.core.judging.check import ACT, OK
from fenwick.core.site.checks import NOWHERE
from fenwick.units.sentence import inside
from fenwick.wording.checks.said import FIRE, JUDGED, LUNGS, POWER, STANDING, STRENGTH, CheckWords, Said
from fenwick.wording.making.bonds import bond_sentence
from fenwick.wording.making.names import part_name


def _kind(kind: str) -> str:
    label = DUSTS[kind].label if kind in DUSTS else HELD_BESIDES.get(kind, kind)
    return inside(label)


def _meet(said: Said) -> str:
    sparks, fuel = said.about
    return (
        f"On one line there are {_kind(sparks)} and {_kind(fuel)}: sparks or hot metal set dust in hose, bin, filter "
        "on fire. Give metal a vacuum and a line of its own."
    )


def _last_held(said: Said) -> str:
    if len(said.about) == 1:
        return (
            f"Nobody has said what this vacuum last held. Before {_kind(said.about[0])} goes in, it must be emptied "
            "and cleaned of anything that burns: bin, hoses, tank and filter."
        )
    now, held = said.about
    if said.level == OK:
        return f"It last held {_kind(held)}, and was emptied and cleaned before {_kind(now)}."
    return (
        f"It last held {_kind(held)}; {_kind(now)} must not go in on top: that is how a vacuum catches fire. "
        "Empty bin, "
        "tank and filter, clean the hoses, then say so at the vacuum."
    )


def _fibre(said: Said) -> str:
    hepa = "" if said.level < ACT else " Fit a HEPA filter."
    return (
        "Fibre dust hurts skin and lungs, and carbon fibre conducts: it reaches motors and switches. Respirator, "
        f"gloves, cover the sockets, and blow nothing out.{hepa}"
    )


def _species(said: Said) -> str:
    _, species = said.about
    why = {
        "mdf": "MDF dust carries resin and is fine enough for the depth of the lungs",
        "beech-oak": "dust of beech and oak is known to cause cancer of the nose",
        "tropical": "dust of tropical woods makes many people allergic, some for life",
        "resinous": "dust of cedar and the like brings asthma",
    }.get(species, "this dust is fine and harms lungs")
    return (
        f"For this dust the mask comes before the bin: {why}. A respirator that fits, extraction at the source, and "
        "clothes changed after work."
    )


def _bond(said: Said) -> str:
    one, other, sealant, on, because, *instead = said.about
    told = bond_sentence(sealant, on, because, instead)
    return told if said.level == OK else f"{part_name(one)} to {part_name(other).lower()}. {told}"


def _static(said: Said) -> str:
    if said.level == OK:
        return "The hoses are earthed as far as they can be; dry dust in plastic still charges up."
    return (
        "Dry dust charges plastic hoses: a shock at the tool, seldom more. Earth what can be earthed (a bare "
        "wire along "
        "the hose, from tool to vacuum), then say so here."
    )


def _no_filter(said: Said) -> str:
    where = "outdoors" if said.level < ACT else "into the room you breathe in"
    return f"There is neither filter nor bag: all that passes the separator is blown {where}. Fit a filter."


def _dusty(said: Said) -> str:
    return (
        "Neither filter nor bag stands before the motor: dust grinds its bearings and can burn in it. A motor never "
        "runs in a dusty stream unless it is made for it."
    )


def _water(said: Said) -> str:
    if said.level == OK:
        return "A wet stage stands ahead, and this vacuum takes water. Keep it upright all the same."
    takes = "is not made for water" if said.level == ACT else "may not be made for water"
    return (
        f"A wet stage stands ahead, and this vacuum {takes}: tipped or overfilled, water reaches the motor. Check the "
        "label, fix the vessel, and never lift it while it runs."
    )


def _snags(said: Said) -> str:
    hose, head, side = said.about
    whose = "its own head" if hose == head else f"the head of the {inside(head)}"
    words = f"On the floor plan the hose of the {inside(hose)} lies where {whose} moves: it snags."
    if side == NOWHERE:
        return f"{words} No side is free: turn the tool, or lead the hose off from above."
    return f"{words} Lead it off at the {side} of the {inside(head)}."


def _cord(said: Said) -> str:
    name, how = said.about
    across, deep = (said.voice.figure(place, "length") for place in said.check.notes)
    words = f"The vacuum's cord has to cross {inside(name)}, {across} from the left and {deep} from the front"
    if how == "wheels":
        return (
            f"{words}, where wheels roll over it: crushed insulation bares the wire. Move the vacuum or take a nearer "
            "outlet; a damaged cord is work for an electrician."
        )
    return f"{words}, where people walk: they trip. Move the vacuum, take a nearer outlet, or lead it overhead."


def _rain(said: Said) -> str:
    return (
        "It works outdoors: keep rain and puddles from motor and plugs, and feed it through a residual-current device "
        "(a licensed electrician's work where there is none)."
    )


def _rolls(said: Said) -> str:
    if said.level == OK:
        return f"It takes {said.value} to roll it away; a hose pulls about {said.limit}."
    known = f" {said.value} are enough, and a hose pulls about {said.limit}." if isfinite(said.check.value[0]) else ""
    return (
        f"{said.name} is on wheels and tied to nothing: a tug at the hose rolls it away and pulls the link off.{known} "
        "Tie it to the vacuum, or lock the wheels."
    )


def _wet_dust(said: Said) -> str:
    kind, how = said.about
    came = "is made on this line" if how == "made" else "is what the vacuum last held"
    return (
        f"{_kind(kind)[:1].upper()}{_kind(kind)[1:]} {came}, and a wet stage stands in its way: wood swells, clogs and "
        "rots in water, light metal gives off hydrogen. Take the wet stage out, or give that work a line of its own."
    )


def _wet_job(said: Said) -> str:
    kind, job = said.about
    return (
        f"The job “{job}” makes {_kind(kind)}, and on this line a wet stage stands in its way: wood swells, clogs and "
        "rots in water, light metal gives off hydrogen. Do it on another line, or take the wet stage out for it."
    )


def _ash(said: Said) -> str:
    if said.level == OK:
        return "Soot and cold ash go into a bin of metal, with a lid. Ash cold for days; never embers."
    what = "This bin is not of metal" if said.level == ACT else "Nobody has said what this bin is made of"
    return f"{what}: an ember hides in ash for days and burns through. A steel bin with a lid, outdoors; never embers."


def _fan_motor(said: Said) -> str:
    if said.level == OK:
        return f"The motor of the extra fan at {said.name} stands outside the air it moves."
    stands = "stands in" if said.level == ACT else "may stand in"
    return (
        f"The motor of the extra fan at {said.name} {stands} the dusty air it moves: dust wears it out and can burn "
        "in it. A fan whose motor stands outside, or a filter ahead of it."
    )


def _wiring_words(what: str, tested: bool, tick: str) -> str:
    if tested:
        return f"{what} was rewired, and tested since."
    return (
        f"{what} was rewired: a lost earth or a worn cord kills. Local codes come first; have earth, insulation, "
        f"switch and cord tested by an electrician, then {tick}."
    )


def _rewired(said: Said) -> str:
    return _wiring_words("The vacuum", said.level == OK, "say so here")


def _rewired_fan(said: Said) -> str:
    return _wiring_words(f"The extra fan at {said.name}", said.level == OK, "say so at its hood")


def _noise(_: Said) -> str:
    return "How loud vacuum and tool are is not judged: together they take ear protection."


def _wall_not_judged(said: Said) -> str:
    why = "Its walls are flat" if said.about[0] == "flat" else "Its ribs stand upright"
    return (
        f"{why}: whether it folds is not judged. Brace it inside, fit a relief valve, and test it with a hole left "
        "open and hands off."
    )


def _hose_not_judged(said: Said) -> str:
    return f"Whether suction flattens {said.name} is not judged: nobody has said how thick its wall is."


def _sheet_not_judged(said: Said) -> str:
    material = inside(MATERIALS[said.about[0]].label)
    return f"How far a sheet of {material} may be bent cold is not judged: bend an off-cut to the radius and leave it."


def _solvent(said: Said) -> str:
    return (
        "Solvents, and adhesives with solvents, craze this plastic; it cracks later, under suction. Soap and water to "
        "clean it, hybrid sealant to close it."
    )


def _window(said: Said) -> str:
    if said.level == OK:
        return "The window charges up in dry air; the line is earthed as far as it can be."
    return "Dry dust charges a plastic window: a shock to the hand that wipes it. Earth a ring round it, wipe it damp."


SIGHT_WORDS = {
    "clear": "Its fill is seen through the wall: mark the line on it.",
    "window": "Its fill is seen in the window: the window must reach up to the line.",
    "lamp": "Its fill is seen as a shadow with a lamp behind the wall: try it where the line is marked.",
    "opaque": "Its fill is not seen from outside: a dip rod through the lid, its weight, or hours counted off.",
}


def _sight(said: Said) -> str:
    return SIGHT_WORDS[said.about[0]]


#: every check of this subject: heading, what it is called, what it says
FACTS: dict[str, CheckWords] = {
    "dust-meets": CheckWords(FIRE, "Sparks and dust that burns", _meet),
    "last-held": CheckWords(FIRE, "What the vacuum last held", _last_held),
    "fibre": CheckWords(LUNGS, "Fibre dust", _fibre),
    "species": CheckWords(LUNGS, "A dust that harms most", _species),
    "static": CheckWords(FIRE, "Static on the hoses", _static),
    "no-filter": CheckWords(LUNGS, "No filter", _no_filter),
    "motor-dusty": CheckWords(POWER, "Dust in the motor", _dusty),
    "water": CheckWords(POWER, "Water to the motor", _water),
    "rain": CheckWords(POWER, "Rain", _rain),
    "snags": CheckWords(STANDING, "Where a head moves", _snags),
    "cord-crossed": CheckWords(POWER, "Where the cord lies", _cord),
    "wet-job": CheckWords(FIRE, "A job and water", _wet_job),
    "wet-dust": CheckWords(FIRE, "Dust and water", _wet_dust),
    "ash-bin": CheckWords(FIRE, "Ash in the bin", _ash),
    "fan-motor": CheckWords(POWER, "Motor of the extra fan", _fan_motor),
    "rewired": CheckWords(POWER, "Wiring of the vacuum", _rewired),
    "rewired-fan": CheckWords(POWER, "Wiring of the extra fan", _rewired_fan),
    "noise-not-judged": CheckWords(JUDGED, "Noise not judged", _noise),
    "wall-not-judged": CheckWords(STRENGTH, "Walls not judged", _wall_not_judged),
    "hose-not-judged": CheckWords(STRENGTH, "Hoses not judged", _hose_not_judged),
    "sheet-not-judged": CheckWords(STRENGTH, "Sheet not judged", _sheet_not_judged),
    "bond": CheckWords(STRENGTH, "Joints as they are to be made", _bond),
    "solvent": CheckWords(STRENGTH, "Solvents", _solvent),
    "window-static": CheckWords(FIRE, "Static on the window", _window),
    "fill-seen": CheckWords(STANDING, "Seeing how full it is", _sight),
    "rolls-apart": CheckWords(STANDING, "Rolling apart", _rolls),
}
