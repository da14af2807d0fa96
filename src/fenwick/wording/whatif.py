"""A single change in words: what to do, what it takes, and what it moves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.rules import ENTRY_LOSS
from fenwick.core.system.changes import Candidate
from fenwick.core.system.whatif import Outcome
from fenwick.wording.say import Voice

EFFORT = {
    "bore": "another hose",
    "shorter": "a cut",
    "smooth": "another hose",
    "straight": "re-route",
    "entry": "a fitting",
    "nearer": "free",
    "close-in": "free",
    "taper": "a fitting",
    "clean-inline": "free",
    "vacuum": "owned",
    "shut": "free",
    "seal": "tape",
    "seal-bin": "gasket",
    "clean": "free",
    "clean-bag": "a bag",
    "empty": "free",
    "upright": "free",
    "stiffen": "a ring",
}


#: efforts that fit into a stretch of time
WITHIN = {
    "20-minutes": ("free", "owned", "tape", "a cut", "re-route", "a bag"),
    "evening": ("free", "owned", "tape", "a cut", "re-route", "a bag", "gasket", "a fitting", "a ring"),
}
TIME_WORDS = {"20-minutes": "20 minutes", "evening": "an evening", "weekend": "a weekend"}


def with_the_time(found: Sequence[Suggestion], time: str) -> str:
    """The best of some suggestions that fits into the time there is, as a sentence."""
    fitting = [s for s in found if time not in WITHIN or s.effort in WITHIN[time]]
    if not fitting:
        return f"Nothing that helps is done in {TIME_WORDS[time]}: take it to measure."
    best = fitting[0]
    return f"With {TIME_WORDS[time]}: {best.action[:1].lower()}{best.action[1:]} ({best.effort}; {best.effect})."


@dataclass(frozen=True)
class Suggestion:
    """One line of “if you change one thing”."""

    action: str
    effect: str
    effort: str
    level: str  #: ok where it makes a figure stop being to act on, else empty


def suggestion(outcome: Outcome, voice: Voice) -> Suggestion:
    """An outcome in words."""
    gains: list[str] = []
    losses: list[str] = []
    if outcome.folding and outcome.folding[0] != outcome.folding[1]:
        gains.append(f"collapse {outcome.folding[0]:.1f} → {outcome.folding[1]:.1f} ×")
    if outcome.speed and abs(outcome.speed[1] - outcome.speed[0]) > 0.05 * outcome.speed[0]:
        _side(outcome.speed, gains, losses).append(f"slowest {_from_to(outcome.speed, 'speed', voice)}")
    if outcome.kept and abs(outcome.kept[1] - outcome.kept[0]) > 0.002:
        _side(outcome.kept, gains, losses).append(f"kept {_from_to(outcome.kept, 'share', voice)}")
    if outcome.candidate.kind in ("nearer", "close-in") and outcome.in_bin:
        gains.append(f"in the bin {100 * outcome.in_bin[0]:.0f} → {100 * outcome.in_bin[1]:.0f} g of 100")
    change = outcome.air_change
    if abs(change) > 0.005:
        _side(outcome.flow, gains, losses).append(f"air {'+' if change > 0 else '−'}{abs(100.0 * change):.0f} %")
    level = "ok" if outcome.acts[1] < outcome.acts[0] else ""
    return Suggestion(
        action_words(outcome.candidate, voice), ", ".join([*gains, *losses][:2]), EFFORT[outcome.candidate.kind], level
    )


def _side(pair: tuple[float, float], gains: list[str], losses: list[str]) -> list[str]:
    """Gains are told before losses."""
    return gains if pair[1] > pair[0] else losses


def _from_to(pair: tuple[float, float], quantity: str, voice: Voice) -> str:
    return f"{voice.figure(pair[0], quantity, unit=False)} → {voice.figure(pair[1], quantity)}"


ENTRIES = {"flanged": "flange", "tapered": "taper", "bellmouth": "bellmouth"}
ACTIONS = {
    "bore": "{name} in {bore}",
    "shorter": "{name} cut to {length}",
    "smooth": "{name} with a smooth bore",
    "straight": "{name} without bends",
    "entry": "A {entry} at the {name} port",
    "nearer": "{name} port {bore} from the dust",
    "close-in": "Half the open area at the {name}",
    "shut": "Shut the gate at {name}",
    "seal": "Seal {name}",
    "seal-bin": "Seal the bin's lid and seams",
    "clean": "Clean the filter, outdoors and masked",
    "clean-bag": "A new bag",
    "clean-inline": "Clean {name}, outdoors and masked",
    "taper": "A cone of {bore} in the place of {name}",
    "vacuum": "The {vacuum} in its place",
    "empty": "Empty the bin",
    "upright": "Set the separator upright",
    "stiffen": "A ring round the bin at {bore}",
}


def action_words(change: Candidate, voice: Voice) -> str:
    """What to do, in words."""
    return ACTIONS[change.kind].format(
        name=voice.name(change.part),
        bore=voice.figure(change.value, "bore"),
        length=voice.figure(change.value, "length"),
        vacuum=(voice.owned or {}).get(change.part, change.part),
        entry=next(
            (ENTRIES[kind] for kind, loss in ENTRY_LOSS.items() if loss == change.value and kind in ENTRIES), "fitting"
        ),
    )
