"""What a hood does, in rows and sentences."""

from __future__ import annotations

import numpy as np

from fenwick.core.components.hood import Enclosure, FloorNozzle, Hood
from fenwick.core.dust.capture import Capture, containment_flow
from fenwick.core.dust.fate import Fate
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.judging.checks import caught_level, containment_level, speed_level
from fenwick.core.line.line import Leaf, Line
from fenwick.wording.rows import VerdictRow, bar, split
from fenwick.wording.say import Voice

HOOD_WORDS = {
    "built-in": "Port built into the machine",
    "opening": "Opening that faces the dust",
    "slot": "Slot beside the dust",
    "enclosure": "Box around the tool",
    "floor": "Floor nozzle",
}
#: what can be done at a hood: (words, what it takes)
OPTIONS = {
    "nearer": ("Port {bore} from the dust", "free"),
    "flange": ("A flange around the opening", "a plate"),
    "plate": ("A plate behind the tool, to turn chips back", "a board"),
    "box": ("Box the tool in, down to {area} open", "an evening"),
    "close-in": ("Close the box to {area} at most", "free"),
    "outdoors": ("Do this job outdoors", "free"),
}


def hood_rows(line: Line, leaf: Leaf, port: Capture, drawn: float, fate: Fate | None, voice: Voice) -> list[VerdictRow]:
    """What a hood does, for the first variant.

    Parameters
    ----------
    line : with that port open alone
    leaf : the port
    port : what it catches
    drawn : air through all ports and extra fans of the tool [m^3/s]
    fate : of the dust made there; None where it is not known
    voice : words and units
    """
    assert leaf.port.hood is not None
    rows = [
        _caught(line, port, voice),
        _speed(line, leaf.port.hood, port, voice),
        _floating(port, voice),
        _thrown(leaf.port.hood, port, voice),
    ]
    if fate is not None:
        rows.append(_escapes(leaf, fate))
    rows.append(_contains(line, leaf, port, drawn, voice))
    return rows


def _speed(line: Line, hood: Hood, port: Capture, voice: Voice) -> VerdictRow:
    speed, needed = float(port.velocity[0]), port.needed
    number, unit = split(voice.figure(speed, "speed"))
    low, high = voice.figure(port.band[0], "speed", unit=False), voice.figure(port.band[1], "speed")
    where = {True: "in its openings", False: "where the dust is made"}[isinstance(hood, Enclosure)]
    where = "under its lips" if isinstance(hood, FloorNozzle) else where
    worst = next(way.name for way in port.ways if float(way.velocity[0]) == speed)
    when = f" at its worst, {worst.lower()}" if len(port.ways) > 1 else ""
    sentence = f"Air {where}{when}; dust released so wants {low}–{high}, {voice.figure(needed, 'speed')} in the middle."
    if not isinstance(hood, Enclosure | FloorNozzle):
        sentence += f" In its opening it moves at {voice.figure(float(port.face[0]), 'speed')}."
    if isinstance(hood, Enclosure):
        sentence += " Less open area is more speed, for free."
    level = LEVEL_WORDS[int(speed_level(port.velocity, port.needed, line)[0])]
    title = "Face speed" if isinstance(hood, Enclosure | FloorNozzle) else "Speed at the dust"
    return VerdictRow("hood-speed", title, number, unit, level, *bar(speed, needed), sentence)


def _floating(port: Capture, voice: Voice) -> VerdictRow:
    share = float(port.airborne[0])
    number, unit = split(voice.figure(share, "share"))
    extra = float(1.0 - port.to_line[0])
    fan = f" The extra fan takes {100.0 * extra:.0f} % of it." if extra > 0.0 else ""
    sentence = f"Of the dust that floats. Nine tenths would be caught at {voice.figure(port.needed, 'speed')}.{fan}"
    return VerdictRow("floating", "Floating dust caught", number, unit, "", share, None, sentence)


def _thrown(hood: Hood, port: Capture, voice: Voice) -> VerdictRow:
    share = float(port.thrown[0])
    number, unit = split(voice.figure(share, "share"))
    aimed = voice.figure(float(hood.thrown_share), "share")
    if isinstance(hood, FloorNozzle):
        sentence = "Of what lies under it and is too heavy to float; the rest takes a second stroke."
        return VerdictRow("thrown", "Picked up", number, unit, "", share, None, sentence)
    plate = " A plate turns half of the others back." if hood.rebound else ""
    sentence = f"The tool aims {aimed} of them there{_at_a_mouth(hood, voice)}.{plate}"
    speed = voice.figure(float(port.mouth[0]), "speed")
    sentence += f" Air goes into its mouth at {speed}; whether the run behind carries them is another question."
    return VerdictRow("thrown", "Chips into the port", number, unit, "", share, None, sentence)


def _at_a_mouth(hood: Hood, voice: Voice) -> str:
    if hood.thrown_bore is None:
        return ""
    return f", at a mouth of {voice.figure(float(np.ravel(hood.thrown_bore)[0]), 'bore')}"


def _caught(line: Line, port: Capture, voice: Voice) -> VerdictRow:
    """All that is caught of the tool's dust."""
    share = float(port.tool_total[0])
    number, unit = split(voice.figure(share, "share"))
    level = LEVEL_WORDS[int(caught_level(port, line)[0])]
    every = "By all ports of the tool" if share > float(port.total[0]) + 1e-9 else "Chips and what floats"
    good = float(line.rules["verdict.caught-good"])
    return VerdictRow("caught", "Caught in all", number, unit, level, share, good, f"{every}, by mass.")


def _escapes(leaf: Leaf, fate: Fate) -> VerdictRow:
    air, floor, hood = (100.0 * float(share[0]) for share in (fate.room_air, fate.floor, fate.hood))
    into = "blows away outdoors" if leaf.port.outdoors else "hangs in the room's air"
    held = f" {hood:.0f} g stay in the box." if hood >= 0.5 else ""
    sentence = f"That {into}; another {floor:.0f} g of each 100 g made lie on the floor.{held} Wear a respirator."
    return VerdictRow("escapes", "Escapes to be breathed", f"{air:.1f}", "g of 100", "", air / 100.0, None, sentence)


def _contains(line: Line, leaf: Leaf, port: Capture, drawn: float, voice: Voice) -> VerdictRow:
    title = "Against containing fine dust"
    band = containment_flow(leaf.port.machine)
    number, unit = split(voice.figure(drawn, "flow"))
    if band is None:
        sentence = (
            "Name the machine to see what containing its fine dust takes. A shop vacuum does not: wear a respirator."
        )
        return VerdictRow("contains", title, number, unit, "", None, None, sentence)
    low, high = voice.figure(band[0], "flow", unit=False), voice.figure(band[1], "flow")
    takes = f"{low}–{high}" if band[0] < band[1] else high
    ratio = drawn / band[0]
    if ratio >= 1.0:
        sentence = f"At {voice.machine(leaf.id)} it takes {takes}: reached. Keep a respirator for sanding and emptying."
        return VerdictRow("contains", title, number, unit, "ok", *bar(drawn, band[0]), sentence)
    level = LEVEL_WORDS[int(containment_level(np.array([drawn]), np.array([band[0]]))[0])]
    if leaf.port.hood is not None and leaf.port.hood.encloses and float(port.velocity[0]) >= port.needed:
        sentence = f"At {voice.machine(leaf.id)} it takes {takes} without a box; yours is fast enough in its openings."
        return VerdictRow("contains", title, number, unit, level, *bar(drawn, band[0]), sentence)
    sentence = (
        f"At {voice.machine(leaf.id)} it takes {takes}; this is {100.0 * ratio:.0f} % of that. A shop vacuum takes the "
        "chips and leaves fine dust: a respirator, a room filter, or the job outdoors."
    )
    return VerdictRow("contains", title, number, unit, level, *bar(drawn, band[0]), sentence)


def option_words(key: str, value: float, voice: Voice) -> tuple[str, str]:
    """(what to do at a hood, what it takes)."""
    words, effort = OPTIONS[key]
    return words.format(bore=voice.figure(value, "bore"), area=voice.figure(value, "opening")), effort


def gain_words(gain: float) -> str:
    """What a hood keeps out of the room, of the dust made there."""
    return f"{100.0 * gain:.1f} g of 100 less in the room"


def effect_words(key: str, gain: float, in_bin: float) -> str:
    """What something done at a hood comes to."""
    if key == "outdoors":
        return "what escapes blows away; keep the mask on"
    return f"{gain_words(gain)}, {100.0 * in_bin:.0f} g in the bin"
