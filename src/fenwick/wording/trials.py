"""Tests in words: what each is for, what is set back, each step, and each figure it asks for."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.bench.trials.plan import DEPTHS, KINDS, WAYS, Plan
from fenwick.wording.say import Voice


@dataclass(frozen=True)
class TestWords:
    """A kind of test."""

    title: str
    tells: str
    states: tuple[str, ...]  #: usual names of the states it compares


TEST_KINDS = {
    "separation": TestWords("How much is kept", "Of what goes in, what the bin keeps.", ("as it is",)),
    "builds": TestWords(
        "One build and another", "Which of two builds of this shop keeps more.", ("this build", "the other build")
    ),
    "tilt": TestWords("Upright or leaning", "What leaning costs.", ("upright", "leaning")),
    "fill": TestWords(
        "Fuller and fuller",
        "From which level the bin gives dust back.",
        ("a quarter full", "three quarters full"),
    ),
    "dust": TestWords(
        "One dust and another", "How it keeps chips, sawdust, sanding dust.", ("sawdust", "sanding dust")
    ),
    "slot": TestWords(
        "A slot or an outlet changed", "Whether a changed slot, disc or tube keeps more.", ("before", "after")
    ),
    "hose": TestWords(
        "One hose and another", "What a wider, shorter or smoother hose gains.", ("this hose", "the other hose")
    ),
    "leak": TestWords("Leaks", "What a line shut by hand still lets in.", ("as it is",)),
    "blockage": TestWords("A hose that may be blocked", "What is lost along one hose.", ("as it is", "cleared")),
    "stations": TestWords("Suction along the line", "Readings that tune the line.", ("as it is",)),
    "air": TestWords("The room's air", "How dusty a cut makes it, and when it is back.", ("as it is",)),
    "hood": TestWords("A hood before and after", "What still lands beside the port.", ("before", "after")),
    "wet": TestWords("Water carried over", "Whether it is dry behind a wet stage.", ("as it is",)),
    "pull-off": TestWords("How a sealant holds", "The force that pulls it off.", ("this sealant", "the other")),
}
#: ways in the words of what one owns
WAY_WORDS: dict[str, str] = {
    "masses": "Kitchen scale: bin, and vacuum, filter or cloth",
    "ruler": "Ruler in the bin, dust by the measure",
    "suction": "Tube of water or manometer",
    "drop": "Tube of water at both ends of the hose",
    "leak": "Tube of water: vacuum sealed, then hose shut",
    "monitor": "Particle monitor",
    "sheet": "Sheet of marked squares at the hood",
    "look": "Graded wipe or photo of the filter",
    "pitch": "Pitch of the motor",
    "force": "Spring or hanging scale",
    "carry": "Cloth behind the wet stage, weighed",
}
#: what a way's outcome is called
OUTCOME_WORDS: dict[str, str] = {
    "masses": "kept in the bin",
    "ruler": "kept in the bin",
    "suction": "suction",
    "drop": "lost along the hose",
    "leak": "lost to leaks",
    "monitor": "dust in the air over the baseline",
    "sheet": "squares hit",
    "look": "grade of the filter",
    "pitch": "of the open flow",
    "force": "pull-off force",
    "carry": "water carried over",
}
#: what must be set back before a run
RESET_WORDS: dict[str, str] = {
    "filter": "Filter cleaned outdoors, masked, and weighed",
    "bin": "Bin emptied outdoors, masked, and wiped",
    "vacuum": "Vacuum's tank emptied and wiped",
    "hose": "Hoses run empty, or tapped out",
    "dust": "The same dust, out of one well mixed heap",
    "mass": "The same mass to feed, weighed out",
    "pace": "The same pace of feeding, by the clock",
    "air": "The room's air back to normal",
    "one-change": "Nothing else changed than what is tested",
    "fill": "The bin filled to the level of this run",
    "same-place": "The same place, the same ports open",
    "warm": "The vacuum warm, after a minute's running",
    "cool": "The motor cool since the last time it was shut",
    "relief": "The bin stands the suction, or its relief hole is open: hands off",
    "same-cut": "The same cut: tool, board, length, speed",
    "doors": "Doors, windows and other air as before",
    "sheet": "A clean sheet of marked squares, taped where it lay",
    "light": "The same light, the same distance, for every look and photo",
    "mask": "Respirator on, and on until the air is back",
    "water-level": "Water up to its line, clean",
    "dry-cloth": "A dry, weighed cloth in the way of the air behind it",
    "same-patch": "The same patch, cleaned and roughened alike",
    "cured": "Cured for as long as it says",
}
#: step to (title, what to do)
STEP_WORDS: dict[str, tuple[str, str]] = {
    "reset": ("Set back", "Tick what is done. What is not set back spoils the comparison."),
    "before": ("Before", "Vacuum off. Weigh or measure twice where you doubt; the figures are kept as you type."),
    "weigh-feed": ("Weigh out the feed", "Once for every run, in the same pot; weigh the pot empty afterwards."),
    "feed": ("Feed", "Vacuum on. Feed evenly at the port until the clock is down."),
    "run-on": ("Let it run on", "The hose runs empty. Then switch off and wait until the fan stands."),
    "after": ("After", "Vacuum off and unplugged. Carry bin and filter level; weigh as before."),
    "sealed": ("Vacuum alone, sealed", "Tube of water at the inlet, all else taped. Seconds only."),
    "cool": ("Let the motor cool", "Let it run open; a fan that was shut has had no cooling air."),
    "shut": (
        "The hose shut by hand",
        "Hand over the port, seconds only. Stand clear of the bin. Listen for a whistle.",
    ),
    "still-air": ("Still air", "Nothing runs, nobody sweeps: this is the baseline."),
    "cut": ("Cut", "Start and stop the cut on the clock; leave the monitor running until the air is back."),
    "read": ("Read", "Write down what it settles at, not the highest."),
    "look": ("Look and note", "Into the vacuum, the hose, the bin. A photo under the same light says more than words."),
}
ASK_WORDS: dict[str, str] = {
    "bin_before": "Bin, before",
    "bin_after": "Bin, after",
    "past_before": "What catches the rest, before",
    "past_after": "What catches the rest, after",
    "hose_before": "Hose, before",
    "hose_after": "Hose, after",
    "fed_feed": "Fed",
    "fed_volume": "Fed, by the measure (or weighed, below)",
    "cloth_before": "Cloth, dry",
    "cloth_after": "Cloth, after",
    "sealed": "Suction, sealed",
    "shut": "Suction, hose shut",
    "whistle": "A whistle or hiss",
    "before_hose": "Suction before the hose",
    "behind_hose": "Suction behind the hose",
    "squares_hit": "Squares with dust",
    "grade": "Grade, 0 clean to 5 black",
    "pitch_open": "Pitch, nothing in the way (Hz, or any one unit)",
    "pitch_shut": "Pitch, hose shut (the same unit)",
    "pitch_now": "Pitch, as it is (the same unit)",
    "force": "Force at which it let go",
    "log": "Log of the monitor",
    **{f"suction_{i}": f"Suction, reading {i}" for i in range(1, 4)},
    **{f"free_before_{i}": f"Rim to dust, point {i}" for i in range(1, DEPTHS + 1)},
    **{f"free_after_{i}": f"Rim to dust, point {i}" for i in range(1, DEPTHS + 1)},
}
#: what is weighed for what gets past
CATCH_WORDS: dict[str, str] = {
    "vacuum": "the whole vacuum",
    "filter": "the filter",
    "bag": "the bag",
    "cloth": "a cloth in its tank",
}
#: what is wrong with a run
RUN_FAULTS: dict[str, str] = {
    "missing": "not all was read",
    "negative": "something lost mass, or rose the wrong way: a slip in before and after?",
    "nothing": "nothing was found: neither in the bin nor past it",
    "more-out": "more came out than went in: dust from an earlier run, or a slip of the scale",
    "less-out": "some of it was not found again: look in the hose, on the floor, in the exhaust",
    "fed-otherwise": "not the mass that was to be fed: the runs are no longer quite alike",
    "coarse": "what got past is less than one step of the scale",
    "deeper": "deeper than the bin is, or below nothing",
    "no-bin": "the line has no bin to measure in",
    "no-density": "how heavy a litre of this dust lies is not known: feed it by the measure",
    "above-sealed": "more suction than the vacuum makes alone: read both again",
    "pitch-order": "the pitch shut must be higher than open: a fan that is shut speeds up",
    "grade": "no whole grade from 0 to 5",
}
CAUTIONS: dict[str, str] = {
    "feed": "Respirator on: feeding and emptying raise dust. No sparks, hot or light metal, silica, lead or asbestos.",
    "shut": "A shut motor has no cooling air, and a bin can fold suddenly: seconds only, hands off.",
    "air": "A low reading proves nothing about health: masks and room air cleaning stay.",
    "wet": "Mains and water: stand dry, plug high. Never water into a dry vacuum.",
    "pull-off": "Eyes protected: what lets go, flies.",
    "any": "Unplug before reaching in.",
}


def feed_words(plan: Plan, voice: Voice) -> str:
    """How much is weighed out for each run, and how near it must be: “500 g, ± 10 g”."""
    return f"{voice.figure(plan.fed, 'weighed')}, ± {voice.figure(plan.fed_within, 'weighed')}"


def run_step_words(plan: Plan, key: str, voice: Voice) -> tuple[str, str]:
    """(title, what to do) of a step of a plan: how much is weighed out stands in it."""
    title, what = STEP_WORDS[key]
    if key == "weigh-feed":
        return f"{title}: {voice.figure(plan.fed, 'weighed')}", f"{feed_words(plan, voice)}. {what}"
    return title, what


def ask_words(plan: Plan, key: str) -> str:
    """What a figure is called in this plan."""
    if key == "squares_hit":
        return f"{ASK_WORDS[key]}, of {plan.setup.squares}"
    caught = CATCH_WORDS[plan.setup.catch]
    return ASK_WORDS[key].replace("What catches the rest", f"{caught[:1].upper()}{caught[1:]}")


def caution(plan: Plan) -> str:
    """What can hurt in this test."""
    if plan.kind in ("air", "wet", "pull-off"):
        return CAUTIONS[plan.kind]
    if plan.kind == "hood":
        return CAUTIONS["air"]
    if plan.way in ("leak", "pitch"):
        return CAUTIONS["shut"]
    return CAUTIONS["feed"] if WAYS[plan.way].feeds else CAUTIONS["any"]


def title_of(plan: Plan) -> str:
    """What to call a test."""
    title = TEST_KINDS[plan.kind].title
    return f"{title}: {' / '.join(plan.variants)}" if plan.compares else title


def resets_of(plan: Plan) -> list[tuple[str, str]]:
    """(key, words) of what must be set back before every run of a plan."""
    keys = [key for key in KINDS[plan.kind].resets if plan.compares or key != "one-change"]
    if not WAYS[plan.way].feeds:
        keys = [key for key in keys if key not in ("dust", "mass", "pace")]
    if WAYS[plan.way].ordinal:
        keys.append("light")
    return [(key, RESET_WORDS[key]) for key in keys]


def outcome_text(plan: Plan, value: float, voice: Voice, *, unit: bool = True) -> str:
    """An outcome as text."""
    way = WAYS[plan.way]
    if way.ordinal:
        return f"{value:.1f}".removesuffix(".0")
    return voice.figure(value, way.quantity, unit=unit)
