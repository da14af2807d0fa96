"""What is amiss with a part, and the remedy."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.making.bonds import MECHANICAL
from fenwick.core.making.parts import Trouble
from fenwick.wording.making.names import MATERIALS, SEALANTS, part_name
from fenwick.wording.say import Voice

#: sentences with {value} and {limit}, both lengths, and {detail}
SENTENCES: dict[str, str] = {
    "ring-gone": "nothing is left between {value} inside and {limit} outside: take a narrower opening",
    "inlet-too-tall": "the inlet tube is {value} outside, the chamber {limit} high: the cut-out reaches roof and disc. "
    "A chamber that is higher, or a tube with a thinner wall",
    "slot-all-round": "a slot all round leaves nothing to hold the disc: an arc of less than 360°",
    "slot-short": "a slot {value} long cannot end in half circles of {limit}: a longer or narrower one",
    "slots-overlap": "two slots overlap: turn one of them, or make one of the two",
    "slot-land": "only {value} of disc stay between slots, {limit} are wanted: a shorter arc",
    "slot-over-rim": "the chamber is {value} wide, the bin {limit} at its rim: part of the slot ends over the rim. "
    "A narrower chamber, or a wider bin",
    "disc-past-rim": "the disc is {value} wide, the bin {limit} on the way down: saw it in two halves and join "
    "them inside, or take a narrower one",
    "holes-meet": "two holes meet: narrower tubes, or a wider lid",
    "holes-near": "only {value} stay between two holes, {limit} are wanted: a stiffener under them",
    "hole-at-edge": "a hole comes within {value} of the edge, {limit} are wanted: a wider lid",
    "filter-too-long": "the filter needs a chamber {limit} high, it is {value}: a higher wall",
    "seat-narrow": "through an outlet of {value} its holes starve the hose: an outlet of at least {limit}",
    "window-tall": "its window would be {value} high, there is room for {limit}: a higher chamber",
    "splash": "only {value} of air over the water, {limit} are wanted: a taller vessel",
    "throat-on-floor": "it dips {value}, the water stands {limit}: more water, or less dip",
    "not-needed": "nothing of the stand is needed to run: it can stand on the floor",
    "tray-narrow": "it is {value}, the bin's foot {limit}: a wider tray",
    "vacuum-height": "the vacuum's height is not known; it reaches to where the bin stands: measure the vacuum",
    "vacuum-wide": "the vacuum's width is not known; the tray is drawn for the bin alone: measure the vacuum",
    "cart-door": "the cart is {value} across, the door {limit}: take it through end on, or set the vacuum on a deck",
    "cams-want-frame": "what is lifted presses up: fix the separator to a wall, a shelf or a frame over the bin",
    "doorway": "it is {value} across, the door {limit}: less splay, or take the legs off",
    "openings-too-wide": "its openings want {value}, the side has {limit}: fewer or narrower ones",
    "no-room-for-port": "{value} are left for the port's hole of {limit}: a higher box",
    "cutter-wide": "the cutter is {value}, the {detail} {limit} wide: a narrower cutter",
    "trace-it": "nobody has measured its bolt circle: lay it on the lid, trace foot and bolts, drill by that",
    "wrap-tight": "bent to a radius of {value} it cracks or creeps; this sheet takes {limit}: thinner sheet",
    "wrap-unknown": "how tight this sheet may be bent is not known: bend an off-cut first",
    "tube-short": "the tube is {value} long and the roof {limit} thick: it does not come through",
    "sheet-small": "no sheet at hand takes it: it needs {value} by {limit}",
    "no-bond": "{sealant} does not hold on {on}, so the joint to the {other} lets go: {instead}",
    "bond-unknown": "whether {sealant} holds on {on} is not known: glue a strip first and pull it off",
    "cold": "at {value} sealants and glues hardly cure, and snap-on lids crack: warm the parts above {limit}",
    "not-round": "the bin is not round: lid and ring are drawn for its narrow side; trace the bin itself",
}  # fmt: skip


def trouble_sentence(trouble: Trouble, voice: Voice) -> str:
    """What is amiss, with the part's name before it."""
    figures = {
        key: "" if value is None else _figure(trouble, value, voice)
        for key, value in (("value", trouble.value), ("limit", trouble.limit))
    }
    if trouble.key in ("no-bond", "bond-unknown"):
        figures |= _bond_words(trouble)
    said = SENTENCES[trouble.key].format(**figures, detail=trouble.detail)
    return f"{part_name(trouble.part)}: {said}." if trouble.part else f"{said[0].upper()}{said[1:]}."


def _figure(trouble: Trouble, value: float, voice: Voice) -> str:
    return voice.figure(value, "temperature") if trouble.key == "cold" else voice.cut(value)


def _bond_words(trouble: Trouble) -> dict[str, str]:
    """The joint that a trouble is about."""
    other, on, sealant, instead = trouble.detail.split("|")
    return {
        "other": part_name(other).lower(),
        "on": MATERIALS[on],
        "sealant": SEALANTS[sealant],
        "instead": instead_words(instead.split(",")),
    }


def instead_words(instead: Sequence[str]) -> str:
    """What joins two materials instead."""
    if not instead or instead[0] == MECHANICAL:
        return "bolts or rivets through both, with washers and a gasket"
    return " or ".join(SEALANTS[one] for one in instead)
