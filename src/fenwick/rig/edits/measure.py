"""What to measure next: every guess in a rig moved over its range, alone, ranked by what that does to the verdict."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from fenwick.core.search.figures import Spread, figures_of_each, spread
from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.describe import FieldFacts, describe
from fenwick.rig.format.guesses import GuessPart, guess_path
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import document_value
from fenwick.rig.format.problems import RigError
from fenwick.rig.to_core.line import build_line


@dataclass(frozen=True)
class GuessEffect:
    """One guess, and what hangs on it."""

    guess: GuessPart
    path: str
    facts: FieldFacts
    value: Any  #: as guessed, in the key's own unit
    spread: Spread  #: of the figures of a port, while the value may lie anywhere in its range


def measure_next(rig: Rig, port: int) -> list[GuessEffect]:
    """Every guess of a rig with its effect on one tool port, the most telling first.

    Parameters
    ----------
    rig : any
    port : place of the port among the leaves
    """
    document = rig.model_dump(mode="json")
    trials: list[Rig] = [rig]
    owners: list[int] = []
    for i, guess in enumerate(rig.guesses):
        for value in _ends(guess):
            try:
                trials.append(edit_rig(rig, {guess_path(document, guess.model_dump()): value}))
            except RigError:
                continue  # the end of the range does not fit this line: what is left of it still tells
            owners.append(i)
    figures = figures_of_each([build_line(trial) for trial in trials], port)
    effects = []
    for i, guess in enumerate(rig.guesses):
        mine = [figures[0], *(f for owner, f in zip(owners, figures[1:], strict=True) if owner == i)]
        path = guess_path(document, guess.model_dump())
        facts = describe(Rig, path, document)
        assert facts is not None
        effects.append(GuessEffect(guess, path, facts, document_value(document, path), spread(mine)))
    return sorted(effects, key=lambda effect: effect.spread.swing, reverse=True)


def _ends(guess: GuessPart) -> list[Any]:
    return [*(end for end in (guess.low, guess.high) if end is not None), *guess.others]


def path_of_guess(rig: Rig, part: str, key: str) -> str | None:
    """Path of the value that a guess marks; None when there is no such guess."""
    if not any((guess.part, guess.key) == (part, key) for guess in rig.guesses):
        return None
    return guess_path(rig.model_dump(mode="json"), {"part": part, "key": key})


def confirm_guess(rig: Rig, part: str, key: str) -> Rig:
    """The rig with one value taken as measured, as it stands; the same rig where it was no guess."""
    left = tuple(guess for guess in rig.guesses if (guess.part, guess.key) != (part, key))
    return rig if len(left) == len(rig.guesses) else rig.model_copy(update={"guesses": left})
