"""A single change in words: what to do, what it takes, and what it moves."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from fenwick.core.rules import ENTRY_LOSS
from fenwick.core.search.changes import Candidate
from fenwick.core.search.whatif import ChangeOutcome, FigureMove
from fenwick.units.sentence import inside
from fenwick.wording.say import Voice


@dataclass(frozen=True)
class KindWords:
    """One kind of change in words."""

    action: str  #: what to do
    effort: str  #: what it takes


#: every kind of single change
KINDS: dict[str, KindWords] = {
    "bore": KindWords("{name} in {bore}", "a hose"),
    "shorter": KindWords("{name} cut to {length}", "a cut"),
    "smooth": KindWords("{name} with a smooth bore", "a hose"),
    "straight": KindWords("{name} without bends", "re-route"),
    "entry": KindWords("A {entry} at the {name} port", "a fitting"),
    "nearer": KindWords("{name} port {bore} from the dust", "free"),
    "close-in": KindWords("Half the open area at the {name}", "free"),
    "narrower": KindWords("{name}: hoses in {bore}", "a hose"),
    "step-down": KindWords("{name} port down to {bore}", "a hose"),
    "shut": KindWords("Shut the gate at {name}", "free"),
    "seal": KindWords("Seal {name}", "tape"),
    "seal-bin": KindWords("Seal the bin's lid and seams", "gasket"),
    "clean": KindWords("Clean the filter, outdoors and masked", "free"),
    "clean-bag": KindWords("A new bag", "a bag"),
    "clean-inline": KindWords("Clean {name}, outdoors and masked", "free"),
    "taper": KindWords("A cone of {bore} in the place of {name}", "a fitting"),
    "vacuum": KindWords("The {vacuum} in its place", "owned"),
    "empty": KindWords("Empty the bin", "free"),
    "upright": KindWords("Set the separator upright", "free"),
    "stiffen": KindWords("A ring round the bin at {bore}", "a ring"),
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
    return f"With {TIME_WORDS[time]}: {inside(best.action)} ({best.effort}; {best.told})."


@dataclass(frozen=True)
class Suggestion:
    """One line of “if you change one thing”."""

    action: str
    effect: str  #: what gets better
    loss: str  #: what gets worse for it; empty where nothing does
    effort: str
    level: str  #: ok where it makes a figure stop being to act on, else empty
    cause: str = ""  #: what is amiss that it mends

    @property
    def told(self) -> str:
        """What it moves, gains before losses."""
        return ", ".join(words for words in (self.effect, self.loss) if words)


def suggestion(outcome: ChangeOutcome, voice: Voice, cause: str = "") -> Suggestion:
    """An outcome in words; what is amiss that it mends goes before it."""
    gains, losses = (
        ", ".join([MOVES[move.figure](move, voice) for move in outcome.moves if move.gains is better][:MOST_TOLD])
        for better in (True, False)
    )
    effort = KINDS[outcome.candidate.kind].effort
    return Suggestion(
        action_words(outcome.candidate, voice), gains, losses, effort, "ok" if outcome.mends else "", cause
    )


def _from_to(words: str, quantity: str) -> Callable[[FigureMove, Voice], str]:
    def told(move: FigureMove, voice: Voice) -> str:
        return f"{words} {voice.figure(move.before, quantity, unit=False)} → {voice.figure(move.after, quantity)}"

    return told


def _air(move: FigureMove, _: Voice) -> str:
    return f"air {'+' if move.change > 0 else '−'}{abs(100.0 * move.change):.0f} %"


MOST_TOLD = 3
MOVES: dict[str, Callable[[FigureMove, Voice], str]] = {
    "folding": lambda move, _: f"collapse {move.before:.1f} → {move.after:.1f} ×",
    "speed": _from_to("slowest", "speed"),
    "kept": _from_to("kept", "share"),
    "in_bin": lambda move, _: f"in the bin {100 * move.before:.0f} → {100 * move.after:.0f} g of 100",
    "caught": _from_to("caught", "share"),
    "flow": _air,
}

#: what to say of a figure to act on that no single change of the line helps
UNHELPED = {
    "flow": "No single change brings air to the {port}: look for what is shut, blocked or far too narrow.",
    "caught": "No single change catches more at the {port}: another hood does, or a box round the tool.",
    "speed": "No single change carries the dust all the way: the whole run wants another bore, or a stronger vacuum.",
    "kept": "No single change keeps enough: it takes several at once, or another separator.",
    "folding": "No single change saves the bin: it takes a stiffer one, or several rings.",
}


def unhelped_words(figure: str, port: str, voice: Voice) -> str:
    """Why nothing is advised for a figure that is to act on.

    Parameters
    ----------
    figure : flow, caught, speed, kept or folding
    port : id of the port looked at
    """
    return UNHELPED[figure].format(port=inside(voice.name(port)))


ENTRIES = {"flanged": "flange", "tapered": "taper", "bellmouth": "bellmouth"}


def action_words(change: Candidate, voice: Voice) -> str:
    """What to do, in words."""
    return KINDS[change.kind].action.format(
        name=voice.name(change.part),
        bore=voice.figure(change.value, "bore"),
        length=voice.figure(change.value, "length"),
        vacuum=(voice.owned or {}).get(change.part, change.part),
        entry=next(
            (ENTRIES[kind] for kind, loss in ENTRY_LOSS.items() if loss == change.value and kind in ENTRIES), "fitting"
        ),
    )
