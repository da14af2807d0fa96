"""What was done on other pages, with its day: steps of a way and of a build, and tests; the log shows it, too."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import UTC, datetime, time
from itertools import groupby

from sqlmodel import Session

from fenwick.data.builds import builds_of
from fenwick.data.lines import readable_lines
from fenwick.data.tested import tests_done
from fenwick.data.ways import ways_of
from fenwick.units.sentence import inside
from fenwick.wording.making.work import step_title

NAMED = 3  #: steps of a build that are named for a day
ON_WAY, BUILT, TESTED = "way", "built", "tested"


@dataclass(frozen=True)
class DoneElsewhere:
    """Something that was done, and where it is kept."""

    at: datetime  #: by the shop's clock
    timed: bool  #: whether the hour is known, not only the day
    kind: str  #: one of the three
    line: int
    words: str
    what: str = ""  #: that is built
    test: int = 0


def done_elsewhere(session: Session, lines: Collection[int] | None = None) -> list[DoneElsewhere]:
    """All of it, the newest first.

    Parameters
    ----------
    session : of the shop
    lines : whose; None: every line's
    """
    there = [line for line, _ in readable_lines(session)[0] if lines is None or line in lines]
    found = [*_on_ways(session, there), *_built(session, there)]
    found += [
        DoneElsewhere(_by_shop_clock(one.at), True, TESTED, one.line, f"{one.title}: {_runs(one.runs)}", test=one.test)
        for one in tests_done(session)
        if one.line in there
    ]
    return sorted(found, key=lambda one: one.at, reverse=True)


def steps_on_ways(session: Session, lines: Collection[int]) -> list[DoneElsewhere]:
    """Steps of the ways of some lines alone: they change the line, and explain what changed with it."""
    return sorted(_on_ways(session, lines), key=lambda one: one.at)


def _on_ways(session: Session, lines: Collection[int]) -> list[DoneElsewhere]:
    return [
        DoneElsewhere(datetime.combine(datetime.fromisoformat(step.done), time()), False, ON_WAY, line, step.words)
        for line, way in ways_of(session, lines)
        for step in way.done
        if step.done is not None
    ]


def _built(session: Session, lines: Collection[int]) -> list[DoneElsewhere]:
    """What was built on a day, all of it together."""
    found = []
    for line, file in builds_of(session, lines):
        done = sorted((_by_shop_clock(datetime.fromisoformat(one.at)), one.step) for one in file.done)
        for _, group in groupby(done, lambda one: one[0].date()):
            steps = list(group)
            told = [step_title(step) for _, step in steps]
            words = ", ".join([told[0], *map(inside, told[1:NAMED])])
            more = f" and {len(told) - NAMED} more" if len(told) > NAMED else ""
            found.append(DoneElsewhere(steps[-1][0], True, BUILT, line, words + more, what=file.what))
    return found


def _runs(count: int) -> str:
    return "one run" if count == 1 else f"{count} runs"


def _by_shop_clock(moment: datetime) -> datetime:
    """A moment of UTC on the clock of this machine, by which the log is kept."""
    there = moment if moment.tzinfo is not None else moment.replace(tzinfo=UTC)
    return there.astimezone().replace(tzinfo=None, second=0, microsecond=0)
