"""What the page of a practice hunt shows. All of it follows from the address: seed, readings taken, fault named."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import LOOK, MINUTES, Case, hunt
from fenwick.core.bench.faults.kinds import HEALTHY
from fenwick.core.bench.faults.practice import Puzzle, cost, good_hunt, set_puzzle, take_reading
from fenwick.core.tuning.readings import Reading
from fenwick.wording.faults import FAULT_WORDS, LOOK_WORDS, SYMPTOM_WORDS
from fenwick.wording.say import Voice
from fenwick.wording.tuning import reading_figure, reading_words


@dataclass(frozen=True)
class TakenRow:
    """One reading taken."""

    words: str
    shown: str
    sound: str  #: what a sound line would show


@dataclass(frozen=True)
class MoveRow:
    """One reading of a good hunt."""

    words: str
    shown: str
    minutes: str
    then: str


@dataclass(frozen=True)
class Offer:
    """A reading that can be taken."""

    key: str
    words: str
    minutes: float


@dataclass(frozen=True)
class PracticeView:
    """The page."""

    seed: int
    symptoms: list[str]
    taken: list[TakenRow]
    keys: list[str]  #: of what was taken
    minutes: float
    offers: list[Offer]
    faults: list[tuple[str, str]]
    named: str
    right: bool
    answer: str
    remedy: str
    moves: list[MoveRow]
    good_minutes: float
    leading: str  #: what a hunter with these readings would believe


def reading_key(reading: Reading) -> str:
    """What a check is called in the address."""
    return f"{reading.kind}~{reading.station}"


def practice_view(case: Case, seed: int, keys: Sequence[str], named: str, voice: Voice) -> PracticeView:
    """Hide the fault that the seed says, and show what has been found out."""
    puzzle = set_puzzle(case, seed)
    offered = checks_of(case.line)
    by_key = {reading_key(one): one for one in offered}
    chosen = [key for key in dict.fromkeys(keys) if key in by_key]
    taken = [take_reading(puzzle, by_key[key]) for key in chosen]
    possible = dict.fromkeys(one.fault for one in case.lines if one.fault != HEALTHY)
    named = named if named in possible else ""
    moves = good_hunt(puzzle, offered) if named else ()
    return PracticeView(
        seed=seed,
        symptoms=[SYMPTOM_WORDS[one] for one in puzzle.symptoms],
        taken=[_taken_row(one, sound, voice) for one, sound in zip(taken, case.said(taken)[0], strict=True)],
        keys=chosen,
        minutes=cost(taken),
        offers=[Offer(key, _words(one, voice), MINUTES[one.kind]) for key, one in by_key.items() if key not in chosen],
        faults=[(key, FAULT_WORDS[key][0]) for key in possible],
        named=FAULT_WORDS[named][0] if named else "",
        right=named == puzzle.fault,
        answer=FAULT_WORDS[puzzle.fault][0] if named else "",
        remedy=FAULT_WORDS[puzzle.fault][1] if named else "",
        moves=[
            MoveRow(
                _words(move.reading, voice),
                _shown(move.reading, voice),
                f"{move.minutes:.0f} min",
                f"{FAULT_WORDS[move.suspect][0]}, {100.0 * move.share:.0f} in 100",
            )
            for move in moves
        ],
        good_minutes=sum(move.minutes for move in moves),
        leading=_leading(puzzle, taken) if named else "",
    )


def _leading(puzzle: Puzzle, taken: Sequence[Reading]) -> str:
    first = hunt(puzzle.case, taken, puzzle.symptoms).suspects[0]
    return f"{FAULT_WORDS[first.fault][0]}, {100.0 * first.share:.0f} in 100"


def _words(reading: Reading, voice: Voice) -> str:
    return LOOK_WORDS[reading.station] if reading.kind == LOOK else reading_words(reading, voice)


def _shown(reading: Reading, voice: Voice) -> str:
    if reading.kind == LOOK:
        return "yes" if reading.value > 0.5 else "no"
    return reading_figure(reading, reading.value, voice)


def _taken_row(reading: Reading, sound: float, voice: Voice) -> TakenRow:
    expected = "no" if reading.kind == LOOK else reading_figure(reading, float(sound), voice)
    return TakenRow(_words(reading, voice), _shown(reading, voice), expected)
