"""What a reader of the figures must know before trusting them."""

from __future__ import annotations

from fenwick.core.components.cyclone import Cyclone
from fenwick.core.doubt.doubts import Doubt, doubts
from fenwick.core.judging.assess import Assessment
from fenwick.core.line.line import Line
from fenwick.wording.say import Voice

SENTENCES = {
    "shut": "The gate at {name} is shut; only its leak of {flow} passes.",
    "blocked": "Next to nothing flows at {name} ({flow}): some part of the line is far too narrow or blocked.",
    "no-fan": "The fan has no suction to speak of: {suction} with everything shut.",
    "all-open": "The fan runs all but open, with no suction left at its inlet: nothing in this line resists it.",
    "starved": "This fan is made for a wide hose and passes {flow}, a small part of what it could: the small hose "
    "starves it. A wide hose of its own, straight to the tool, serves it better.",
    "no-filter": "No filter and no bag are given: whatever passes the separator is counted as blown into the room.",
    "rough": "{name} is rougher for its bore than the friction law was tested for.",
    "kinked": "{name} bends tighter than its own bore: it kinks, and the loss is a guess.",
    "overlap": "The inlet of {name} overlaps its outlet tube: the swirl model is indicative only.",
    "linked": "{name} carries the vacuum's own head: hoses behind it are none. Take them out.",
    "short-tube": "The outlet tube of {name} ends above the bottom of its inlet: air may run straight across into it; "
    "the model does not see that.",
    "wet-first": "{name} stands ahead of any dry stage: it silts up at once. Put a dry stage before it.",
    "step": "The bore changes {ratio} to 1 at {name}: check its unit, millimetres or inches.",
    "unknown-dust": "The dust is not known: carrying, separation and what becomes of the dust are left out.",
}


def warnings(line: Line, assessment: Assessment, voice: Voice) -> list[str]:
    """Plain sentences, for the first variant; empty when there is nothing to warn of."""
    return [warning(doubt, voice) for doubt in doubts(line, assessment.point)]


def warning(doubt: Doubt, voice: Voice) -> str:
    """A doubt in words."""
    return SENTENCES[doubt.kind].format(
        name=voice.name(doubt.part),
        flow=voice.figure(doubt.value, "flow"),
        suction=voice.figure(doubt.value, "suction"),
        ratio=f"{doubt.value:.0f}",
    )


def least_certain(line: Line, voice: Voice) -> str | None:
    """The figure to trust least: what a flat chamber costs; None without one."""
    flat = next((stage for stage in line.separators if not isinstance(stage, Cyclone)), None)
    return None if flat is None else f"least certain: {voice.name(flat.id)}"
