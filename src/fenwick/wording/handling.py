"""An emptying in words: its steps, what it takes, and how to see when it is time."""

from __future__ import annotations

from fenwick.core.logbook.handling import FLAT, ROLLS, Handling
from fenwick.wording.say import Voice

STEPS = {
    "settle": "Switch off, pull the plug, and wait until the dust has settled. Mask on before anything is opened.",
    "untie": "Untie what holds it upright.",
    "head": "Lift the vacuum off and stand it aside; mind its cable.",
    "hoses": "Undo the hoses at the lid: the one from the tool, the one to the vacuum.",
    "slide": "Let the cams down and pull the bin out; lid, hoses and separator stay where they are.",
    "carry": "Carry it outside, tip it slowly down the wind into a bag, and wipe the bin.",
    "seal": "Wipe the rim and the seal; pick at the bead with a fingernail. What is sticky, flat or torn is renewed.",
    "close": "Put it back the same way round and close it evenly, so that the seal is pressed all round.",
    "note": "Log it, with how high the dust stood: the next forecast is surer.",
}
OPEN = {
    "screwed-gasket": "Undo the {holds} screws round the lid, and put them in a dish.",
    "clamp-ring": "Open the lever of the clamp ring, and take the ring off.",
    "foam-strip": "Lift off what presses the lid on its foam, then the lid.",
    "snap-on": "Free the lid from the rim, a hand's width at a time, all round.",
    "latch-gasket": "Open the {holds} latches, those across from each other in turn.",
    "loose": "Lift the lid off.",
}
HELD = {
    "screwed-gasket": "about {holds} screws", "clamp-ring": "a clamp ring", "snap-on": "a snap-on rim",
    "latch-gasket": "about {holds} latches",
}  # fmt: skip
LAY = {
    FLAT: "Lay the lid down on its flat side: it does not roll.",
    ROLLS: "What comes off is round and rolls: stand it in a bucket or on a ring of hose, its dust outlet down.",
}
SIGHT = {
    "clear": "The dust is seen through the wall. Stick a strip of tape at the mark.",
    "window": "A window shows it. Wipe it from inside at every emptying.",
    "lamp": "A lamp behind the wall shows the shadow of the dust.",
    "opaque": "Nothing is seen from outside: go by the log's count, or knock; full, it sounds dull up to the dust.",
}
NO_SIGHT = "How the fill is seen is not said: say it at the bin. A strip of clear wall saves opening it to look."
STORED = (
    "Hose: hung over a round peg as wide as a plate, not over a nail; ends up, so that what is in it stays in it.",
    "Cord: in loose loops, never round the hot motor; pulled out by the plug.",
    "Nozzles: where the hand is when one needs them; what lies on the floor is stepped on.",
)


def step_words(key: str, found: Handling) -> str:
    """One step of an emptying, by its key."""
    if key == "open":
        return OPEN[found.closure].format(holds=found.holds)
    return LAY[found.lies] if key == "lay" else STEPS[key]


def sight_words(sight: str | None) -> str:
    """How to see that it is time."""
    return NO_SIGHT if sight is None else SIGHT[sight]


def minutes_words(found: Handling) -> str:
    """What an emptying takes, and what a closure without tools would save."""
    saves = "" if found.saves < 1.0 else f" A bin that cams let down would save {found.saves:.0f} of them."
    return f"About {found.minutes:.0f} minutes.{saves}"


def weight_words(found: Handling, voice: Voice) -> str:
    """What is lifted."""
    if found.weight is None:
        return "What it weighs full is not known: say what dust it is."
    words = f"{voice.figure(found.weight, 'heap')} full to its mark"
    return f"{words}: by two, or emptied sooner." if found.heavy else f"{words}."


def room_words(found: Handling, voice: Voice) -> str:
    """The room that it wants."""
    above = "" if found.above is None else f"{voice.figure(found.above, 'length')} from the floor up, and "
    return f"{above}{voice.figure(found.front, 'length')} in front of it."


def undone_words(found: Handling) -> str:
    """What has to be undone."""
    if not found.hoses and not found.cables:
        return "Nothing: no hose, no cable."
    hoses = f"{found.hoses} hose{'' if found.hoses == 1 else 's'}" if found.hoses else ""
    held = HELD.get(found.closure, "").format(holds=found.holds)
    told = [part for part in (hoses, "1 cable" if found.cables else "", held) if part]
    return f"{' and '.join([', '.join(told[:-1]), told[-1]] if told[1:] else told)}."


def bag_steps(inlet: str) -> tuple[str, ...]:
    """How a new bag goes in.

    Parameters
    ----------
    inlet : bore of the vacuum's inlet, in the user's units; empty: not known
    """
    bore = f"the inlet's bore, {inlet}," if inlet else "the inlet's bore with a ruler"
    return (
        f"Hold the bag's collar against {bore} before it is unfolded: it has to go on by itself, without being cut.",
        "Push it on by the collar, never by the paper, as far as it goes.",
        "Let it hang without a twist, unfolded by hand, its back to the filter.",
        "Look that it is clear of clips, edges and the float before the head goes on: what it rubs on tears it.",
    )
