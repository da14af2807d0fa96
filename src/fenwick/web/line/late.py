"""What is slower than the eye: bands and advice, which follow the page by themselves."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.search.whatif import Picked
from fenwick.data.lines import LineState
from fenwick.rig.edits.changes import candidate_key
from fenwick.services.advice import advice_for
from fenwick.services.ports import port_study
from fenwick.services.solving import solve, sureness_of
from fenwick.wording.causes import PortFound, amiss_words, cause_words
from fenwick.wording.hood import effect_words, option_words
from fenwick.wording.say import Voice
from fenwick.wording.verdict import believable_words
from fenwick.wording.whatif import Suggestion, suggestion, unhelped_words

MOST_SUGGESTIONS = 3


@dataclass(frozen=True)
class Late:
    """What is slower than the eye."""

    port: str  #: id of the tool that it is about
    believable: dict[str, str]  #: of what is kept and of what is caught, in a sentence each
    suggestions: list[tuple[str, Suggestion]]  #: (key, words) of the single changes that help, best first
    others: list[tuple[str, Suggestion]]  #: those behind them, which gain something too
    at_hood: Suggestion | None  #: what helps most at the hood, where no change of the line does
    unhelped: list[str]  #: why nothing is advised for what is to act on
    trying: bool  #: whether a change is on trial: no others are offered


def late_of(state: LineState, at: int, voice: Voice, *, trying: bool) -> Late:
    """What is slower than the eye, for the port at a place among the leaves; while a change is tried no others."""
    solved = solve(state.rig)
    sure, leaf = sureness_of(state.rig), solved.line.leaves[at]
    believable = {
        "kept": believable_words(sure.kept, voice),
        "caught": believable_words(sure.caught.get(leaf.id), voice),
    }
    found = Picked((), (), ()) if trying else advice_for(state.rig, state.owned, at, MOST_SUGGESTIONS)
    here = PortFound(solved.line, solved.found, at, voice)
    advised, others = (
        [(candidate_key(one.candidate), suggestion(one, voice, cause_words(one, here))) for one in outcomes]
        for outcomes in (found.outcomes, found.others)
    )
    unhelped = [_unhelped(figure, here) for figure in found.unhelped]
    at_hood = None if trying or advised else _at_hood(state, leaf.id, voice)
    return Late(leaf.id, believable, advised, others, at_hood, unhelped, trying)


def _at_hood(state: LineState, port: str, voice: Voice) -> Suggestion | None:
    """As Ports and the hood's own page have it: for the tool open alone."""
    option = port_study(state.rig, state.owned, port).hood
    if option is None:
        return None
    action, effort = option_words(option.id, option.value, voice)
    return Suggestion(action, effect_words(option.id, option.gain, option.in_bin), "", effort, "")


def _unhelped(figure: str, here: PortFound) -> str:
    """The cause, then why no single change mends it."""
    cause = amiss_words(figure, here)
    words = unhelped_words(figure, here.line.leaves[here.port].id, here.voice)
    return f"{cause}. {words}" if cause else words
