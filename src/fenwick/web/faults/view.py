"""What the fault finder shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import LOOK, Hunt, NextCheck, hunt, next_checks
from fenwick.core.tuning.readings import KINDS, Reading
from fenwick.data.lines import LineState
from fenwick.data.readings import Taken
from fenwick.logged.entry import Logged
from fenwick.rig.voice import voice_for
from fenwick.services.faults import case_of
from fenwick.units import unit_label
from fenwick.web.kit.pieces import Refused, Tick
from fenwick.wording.faults import (
    FAULT_WORDS,
    SYMPTOM_WORDS,
    belief_words,
    check_words,
    reason,
    since_words,
    work_words,
)
from fenwick.wording.say import Voice
from fenwick.wording.tuning import reading_figure, reading_words

MOST_SUSPECTS, MOST_LOOKS, MOST_GAUGES = 5, 2, 3


@dataclass(frozen=True)
class SuspectRow:
    """One suspect."""

    title: str
    remedy: str
    belief: str
    share: float  #: of belief [-]
    reasons: list[str]


@dataclass(frozen=True)
class NextCheckRow:
    """One check to make."""

    key: str  #: kind~station
    words: str
    detail: str
    look: bool
    unit: str
    typed: str = ""
    error: str = ""


@dataclass(frozen=True)
class HuntView:
    """The page."""

    state: LineState
    done: list[Tick]  #: what was done lately, ticked where it began with that
    since: str
    symptoms: list[Tick]
    chosen: list[str]
    suspects: list[SuspectRow]
    explained: bool
    begun: bool
    readings: list[tuple[int, str]]
    checks: list[NextCheckRow]


def hunt_view(
    state: LineState,
    taken: list[Taken],
    chosen: Sequence[str],
    since: str,
    done: Sequence[tuple[str, Logged]],
    system: str,
    wrong: Refused | None = None,
) -> HuntView:
    """Rank the faults and prepare the page.

    Parameters
    ----------
    since : the work with which it began; empty: not known
    done : what was done on the line lately, by the log
    wrong : the figure of a check that was just refused
    """
    voice, case = voice_for(state.rig, system), case_of(state.rig)
    readings = [one.reading for one in taken]
    found = hunt(case, readings, chosen, since)
    begun = bool(chosen or readings or since)
    checks = next_checks(case, found, checks_of(case.line, readings)) if begun else []
    return HuntView(
        state=state,
        done=[Tick(key, work_words(key, f"{entry.at.day} {entry.at:%B}"), key == since) for key, entry in done],
        since=since,
        symptoms=[Tick(key, words, key in chosen) for key, words in SYMPTOM_WORDS.items()],
        chosen=list(chosen),
        suspects=[
            SuspectRow(
                *FAULT_WORDS[one.fault],
                belief_words(one.share),
                one.share,
                [*since_words(one.fault, since), *reason(one, case, readings, voice)],
            )
            for one in found.named[:MOST_SUSPECTS]
        ]
        if begun
        else [],
        explained=found.explained,
        begun=begun,
        readings=[(one.id, _told(one.reading, voice)) for one in taken],
        checks=[_check_row(check, voice, wrong) for check in _in_order(checks, found)],
    )


def _in_order(checks: Sequence[NextCheck], found: Hunt) -> list[NextCheck]:
    """A look at a suspect takes no tool: it comes before the gauges, whatever they would tell."""
    suspects = {one.fault for one in found.named[:MOST_SUSPECTS]}
    looks = [one for one in checks if one.reading.kind == LOOK and one.reading.station in suspects]
    gauges = [one for one in checks if one.reading.kind != LOOK]
    return [*looks[:MOST_LOOKS], *gauges[:MOST_GAUGES]]


def _told(reading: Reading, voice: Voice) -> str:
    if reading.kind == LOOK:
        return f"{FAULT_WORDS[reading.station][0]}: {'seen' if reading.value > 0.5 else 'not seen'}"
    return f"{reading_words(reading, voice)}: {reading_figure(reading, reading.value, voice)}"


def _check_row(check: NextCheck, voice: Voice, wrong: Refused | None) -> NextCheckRow:
    key = f"{check.reading.kind}~{check.reading.station}"
    words, detail = check_words(check, voice)
    look = check.reading.kind == LOOK
    unit = "" if look else unit_label(KINDS[check.reading.kind], voice.system)
    typed, error = (wrong.text, wrong.error) if wrong and wrong.key == key else ("", "")
    return NextCheckRow(key, words, detail, look, unit, typed, error)
