"""What is amiss with a part, and the remedy."""

from __future__ import annotations

from fenwick.core.making.parts import Trouble
from fenwick.wording.making.names import part_name
from fenwick.wording.say import Voice

LENGTH = "bore"
#: key: (sentence with {value} and {limit}, quantity of both)
SENTENCES: dict[str, tuple[str, str]] = {
    "ring-gone": ("nothing is left between {value} inside and {limit} outside: take a narrower opening", LENGTH),
    "inlet-too-tall": (
        "the inlet tube is {value} outside, the chamber {limit} high: the cut-out reaches roof and disc. "
        "A chamber that is higher, or a tube with a thinner wall", LENGTH,
    ),
    "slot-all-round": ("a slot all round leaves nothing to hold the disc: an arc of less than 360°", LENGTH),
    "slot-short": ("a slot {value} long cannot end in half circles of {limit}: a longer or narrower one", LENGTH),
    "slots-overlap": ("two slots overlap: turn one of them, or make one of the two", LENGTH),
    "slot-land": ("only {value} of disc stay between slots, {limit} are wanted: a shorter arc", LENGTH),
    "slot-over-rim": (
        "the chamber is {value} wide, the bin {limit} at its rim: part of the slot ends over the rim. "
        "A narrower chamber, or a wider bin", LENGTH,
    ),
    "disc-past-rim": (
        "the disc is {value} wide, the bin {limit} on the way down: saw it in two halves and join them inside, "
        "or take a narrower one", LENGTH,
    ),
    "holes-meet": ("two holes meet: narrower tubes, or a wider lid", LENGTH),
    "holes-near": ("only {value} stay between two holes, {limit} are wanted: a stiffener under them", LENGTH),
    "hole-at-edge": ("a hole comes within {value} of the edge, {limit} are wanted: a wider lid", LENGTH),
    "filter-too-long": ("the filter needs a chamber {limit} high, it is {value}: a higher wall", LENGTH),
    "seat-narrow": ("through an outlet of {value} its holes starve the hose: an outlet of at least {limit}", LENGTH),
    "window-tall": ("its window would be {value} high, there is room for {limit}: a higher chamber", LENGTH),
    "splash": ("only {value} of air over the water, {limit} are wanted: a taller vessel", LENGTH),
    "throat-on-floor": ("it dips {value}, the water stands {limit}: more water, or less dip", LENGTH),
    "tray-narrow": ("it is {value}, the bin's foot {limit}: a wider tray", LENGTH),
    "vacuum-height": ("the vacuum's height is not known; the legs reach to where the bin stands: measure it", LENGTH),
    "doorway": ("it is {value} across, the door {limit}: less splay, or take the legs off", LENGTH),
    "openings-too-wide": ("its openings want {value}, the side has {limit}: fewer or narrower ones", LENGTH),
    "no-room-for-port": ("{value} are left for the port's hole of {limit}: a higher box", LENGTH),
    "cutter-wide": ("the cutter is {value}, the {detail} {limit} wide: a narrower cutter", LENGTH),
    "trace-it": ("nobody has measured its bolt circle: lay it on the lid, trace foot and bolts, drill by that", LENGTH),
    "wrap-tight": ("bent to a radius of {value} it cracks or creeps; this sheet takes {limit}: thinner sheet", LENGTH),
    "wrap-unknown": ("how tight this sheet may be bent is not known: bend an off-cut first", LENGTH),
    "tube-short": ("the tube is {value} long and the roof {limit} thick: it does not come through", LENGTH),
    "sheet-small": ("no sheet at hand takes it: it needs {value} by {limit}", LENGTH),
    "not-round": ("the bin is not round: lid and ring are drawn for its narrow side; trace the bin itself", LENGTH),
}  # fmt: skip


def trouble_sentence(trouble: Trouble, voice: Voice) -> str:
    """What is amiss, with the part's name before it."""
    pattern, quantity = SENTENCES[trouble.key]
    figures = {
        key: "" if value is None else voice.figure(value, quantity)
        for key, value in (("value", trouble.value), ("limit", trouble.limit))
    }
    said = pattern.format(**figures, detail=trouble.detail)
    return f"{part_name(trouble.part)}: {said}." if trouble.part else f"{said[0].upper()}{said[1:]}."
