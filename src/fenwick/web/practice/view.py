"""What the page of a practice hunt shows: all of it follows from what is hidden, what was read and what was named."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import LOOK, MINUTES, Case, hunt
from fenwick.core.bench.faults.kinds import HEALTHY
from fenwick.core.bench.faults.practice import HuntStage, cost, good_stages
from fenwick.core.tuning.readings import Reading
from fenwick.data.practice import HuntRecord
from fenwick.services.practice import Played, play, reading_key
from fenwick.units.sentence import inside
from fenwick.wording.faults import FAULT_WORDS, LEVEL_TITLES, LOOK_WORDS, SYMPTOM_WORDS
from fenwick.wording.say import Voice
from fenwick.wording.tuning import reading_figure, reading_words


@dataclass(frozen=True)
class TakenRow:
    """One reading taken."""

    words: str
    shown: str
    sound: str  #: what a sound line would show
    stage: int  #: how many faults had been mended before it


@dataclass(frozen=True)
class MoveRow:
    """One reading of a good hunt."""

    words: str
    shown: str
    minutes: str
    then: str


@dataclass(frozen=True)
class GoodStage:
    """A good hunt for one fault."""

    moves: list[MoveRow]
    ends: str  #: what it names, and what it cannot tell from that


@dataclass(frozen=True)
class Offer:
    """A reading that can be taken."""

    key: str
    words: str
    minutes: float


@dataclass(frozen=True)
class PastHunt:
    """A hunt that came to its end."""

    level: str
    right: bool
    minutes: str
    seed: int
    key: str  #: of its level


@dataclass(frozen=True)
class PracticeView:
    """The page."""

    seed: int
    level: str
    levels: list[tuple[str, str]]
    symptoms: list[str]
    taken: list[TakenRow]
    minutes: float
    mended: list[str]  #: faults that were named rightly, while something was left
    offers: list[Offer]
    faults: list[tuple[str, str]]
    named: str  #: the last that was named; empty: the hunt goes on
    right: bool
    answers: list[tuple[str, str]]  #: (fault, what to do) of all that was hidden
    stages: list[GoodStage]
    good_readings: int
    good_minutes: float
    leading: str  #: what a hunter with these readings would believe
    past: list[PastHunt]
    past_words: str


def practice_view(case: Case, record: HuntRecord, past: Sequence[HuntRecord], voice: Voice) -> PracticeView:
    """Show what has been found out of what is hidden."""
    played = play(case, record)
    puzzle, here = played.puzzle, len(played.mended)
    taken = [one for _, one in played.read]
    sound = case.said(taken)[0]
    done = {reading_key(one) for stage, one in played.read if stage == here}
    offered = [one for one in checks_of(case.line) if reading_key(one) not in done]
    possible = dict.fromkeys(one.fault for one in case.lines if one.fault != HEALTHY)
    stages = good_stages(puzzle, checks_of(case.line)) if played.named else ()
    return PracticeView(
        seed=record.seed,
        level=record.level,
        levels=list(LEVEL_TITLES.items()),
        symptoms=[SYMPTOM_WORDS[one] for one in puzzle.symptoms],
        taken=[
            _taken_row(one, float(healthy), stage, voice)
            for (stage, one), healthy in zip(played.read, sound, strict=True)
        ],
        minutes=cost(taken),
        mended=[FAULT_WORDS[one][0] for one in played.mended],
        offers=[Offer(reading_key(one), _words(one, voice), MINUTES[one.kind]) for one in offered],
        faults=[(key, FAULT_WORDS[key][0]) for key in possible if key not in played.mended],
        named=FAULT_WORDS[played.named][0] if played.named else "",
        right=played.right,
        answers=[FAULT_WORDS[one.fault] for one in puzzle.hidden] if played.named else [],
        stages=[_stage(stage, voice) for stage in stages],
        good_readings=sum(len(stage.moves) for stage in stages),
        good_minutes=sum(stage.minutes for stage in stages),
        leading=_leading(played) if played.named else "",
        past=[_past(one) for one in past],
        past_words=_past_words(past),
    )


def _stage(stage: HuntStage, voice: Voice) -> GoodStage:
    moves = [
        MoveRow(
            _words(move.reading, voice),
            _shown(move.reading, voice),
            f"{move.minutes:.0f} min",
            f"{FAULT_WORDS[move.suspect][0]}, {100.0 * move.share:.0f} in 100",
        )
        for move in stage.moves
    ]
    ends = f"It names: {inside(FAULT_WORDS[stage.named][0])}."
    if stage.alike:
        others = "; ".join(inside(FAULT_WORDS[one][0]) for one in stage.alike)
        ends = f"{ends} With what can be read here it cannot tell that from: {others}."
    return GoodStage(moves, ends)


def _past(one: HuntRecord) -> PastHunt:
    good = "" if one.good_minutes is None else f", a good hunt {one.good_minutes:.0f}"
    return PastHunt(LEVEL_TITLES[one.level], one.right, f"{one.minutes:.0f} min{good}", one.seed, one.level)


def _past_words(past: Sequence[HuntRecord]) -> str:
    """How it goes; empty before the first."""
    if not past:
        return ""
    right = [one for one in past if one.right]
    said = f"{len(right)} of the last {len(past)} found"
    timed = [(one.minutes, one.good_minutes) for one in right if one.good_minutes]
    if timed:
        longer = sum(mine for mine, _ in timed) / sum(good for _, good in timed)
        said += f", in {longer:.1f} times the minutes of a good hunt"
    return f"{said}."


def _leading(played: Played) -> str:
    here = [one for stage, one in played.read if stage == len(played.mended)]
    first = hunt(played.puzzle.case, here, played.left.symptoms).suspects[0]
    return f"{FAULT_WORDS[first.fault][0]}, {100.0 * first.share:.0f} in 100"


def _words(reading: Reading, voice: Voice) -> str:
    return LOOK_WORDS[reading.station] if reading.kind == LOOK else reading_words(reading, voice)


def _shown(reading: Reading, voice: Voice) -> str:
    if reading.kind == LOOK:
        return "yes" if reading.value > 0.5 else "no"
    return reading_figure(reading, reading.value, voice)


def _taken_row(reading: Reading, sound: float, stage: int, voice: Voice) -> TakenRow:
    expected = "no" if reading.kind == LOOK else reading_figure(reading, sound, voice)
    return TakenRow(_words(reading, voice), _shown(reading, voice), expected, stage)
