"""Hunts for practice played again from their record, and gone on with: a reading, or a fault that is named."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import Case
from fenwick.core.bench.faults.kinds import HEALTHY
from fenwick.core.bench.faults.practice import Puzzle, cost, good_stages, is_right, mend, set_puzzle, take_reading
from fenwick.core.tuning.readings import Reading
from fenwick.data.practice import HuntRecord


def reading_key(reading: Reading) -> str:
    """What a check is called."""
    return f"{reading.kind}~{reading.station}"


@dataclass(frozen=True)
class Played:
    """A hunt played as far as it has come."""

    puzzle: Puzzle  #: as it was hidden
    left: Puzzle  #: what the readings that come next are of
    read: tuple[tuple[int, Reading], ...]  #: (how many had been mended, reading)
    mended: tuple[str, ...]
    named: str  #: with which it ended; empty: it goes on
    right: bool

    @property
    def record_right(self) -> bool:
        """Whether all that was hidden was named, and nothing else."""
        return bool(self.named) and self.right


def play(case: Case, record: HuntRecord) -> Played:
    """Play a hunt again, from what was hidden to where it stands."""
    puzzle = set_puzzle(case, record.seed, record.level)
    by_key = {reading_key(one): one for one in checks_of(case.line)}
    stages: list[Puzzle] = [puzzle]
    mended: list[str] = []
    ended, right = "", False
    possible = {one.fault for one in case.lines if one.fault != HEALTHY}
    for fault in (one for one in record.named if one in possible):
        here = stages[-1]
        left = mend(here, fault) if is_right(here, fault) else None
        if left is None:
            ended, right = fault, is_right(here, fault)
            break
        mended.append(fault)
        stages.append(left)
    read = []
    for told in dict.fromkeys(record.read):
        stage, _, key = told.partition(":")
        if stage.isdecimal() and int(stage) < len(stages) and key in by_key:
            read.append((int(stage), take_reading(stages[int(stage)], by_key[key])))
    return Played(puzzle, stages[-1], tuple(read), tuple(mended), ended, right)


def with_reading(record: HuntRecord, played: Played, key: str) -> HuntRecord:
    """The record with one reading more, where there is such a reading and the hunt goes on."""
    known = {reading_key(one) for one in checks_of(played.puzzle.case.line)}
    told = f"{len(played.mended)}:{key}"
    if key not in known or played.named or told in record.read:
        return record
    return replace(record, read=(*record.read, told))


def with_name(record: HuntRecord, case: Case, fault: str) -> HuntRecord:
    """The record with a fault named; with the last of them it has come to its end."""
    played = play(case, record)
    if played.named or fault not in {one.fault for one in case.lines if one.fault != HEALTHY}:
        return record
    record = replace(record, named=(*record.named, fault))
    after = play(case, record)
    if not after.named:
        return record
    good = good_stages(after.puzzle, checks_of(case.line))
    return replace(
        record,
        ended=True,
        right=after.record_right,
        minutes=cost([one for _, one in after.read]),
        good_minutes=sum(stage.minutes for stage in good),
    )
