"""Tests of a line: judged with all that was read of them, and used as readings of the line."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from sqlmodel import Session

from fenwick.core.bench.trials.expect import expected_outcome, readings_of_test, slot_factor
from fenwick.core.bench.trials.judge import Judged, Run, judge
from fenwick.core.bench.trials.plan import MONITOR, Plan
from fenwick.core.components.bins import Bin
from fenwick.core.components.dust import DUSTS
from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.tuning.candidates import READ_AT
from fenwick.core.tuning.readings import Reading
from fenwick.data.air_logs import log_states
from fenwick.data.lines import LineState
from fenwick.data.trials import TrialState, logs_of_runs
from fenwick.rig import Rig, build_line
from fenwick.rig.voice import voice_for
from fenwick.services.readings import DIGITS, station_kinds
from fenwick.units import METRIC
from fenwick.wording.say import Voice

SLOT = "slot"  #: the kind of test that tells what slots give back


@dataclass(frozen=True)
class Workbench:
    """A line with its words and the places on it."""

    line: Line
    voice: Voice
    kinds: Mapping[str, str]  #: of every station

    @property
    def places(self) -> list[str]:
        """Where suction can be read, in the order of the air."""
        return [name for name, kind in self.kinds.items() if kind in READ_AT]

    @property
    def bin(self) -> Bin | None:
        """The first separator's bin."""
        stage = next(iter(self.line.separators), None)
        return None if stage is None else stage.bin

    def bulk_density(self, plan: Plan) -> float | None:
        """Of the dust fed, as it lies [kg/m^3]; None: not known."""
        dust = DUSTS[plan.dust] if plan.dust else self.line.dust
        return None if dust is None else dust.bulk_density

    def expects(self, plan: Plan) -> float | None:
        """What the model expects of a plan; None where it cannot say."""
        try:
            return expected_outcome(self.line, plan, self.places)
        except CoreError:
            return None


def workbench(state: LineState, system: str) -> Workbench:
    """The line as it predicts now, tuned where it is tuned."""
    line = build_line(state.rig)
    return Workbench(line, voice_for(state.rig, system), station_kinds(line))


def runs_of(session: Session, trial: TrialState) -> list[Run]:
    """The runs as the core judges them."""
    runs = trial.judged_runs()
    if trial.plan.way != MONITOR:
        return runs
    said = logged(session, [row.id for row in trial.runs])
    return [replace(run, values=said[row.id]) for run, row in zip(runs, trial.runs, strict=True)]


def logged(session: Session, run_ids: Sequence[int]) -> dict[int, dict[str, float]]:
    """What the log of each run says, by the run's id and the keys of its way; empty: nothing yet."""
    logs = logs_of_runs(session, run_ids)
    states = log_states(session, list(logs.values()))
    said: dict[int, dict[str, float]] = {run_id: {} for run_id in run_ids}
    for run_id, log_id in logs.items():
        added = states[log_id].monitored.added
        if added is not None:
            value, sd = added
            said[run_id] = {"log": value} if sd is None else {"log": value, "log_sd": sd}
    return said


def judged_trial(session: Session, trial: TrialState, bench: Workbench) -> Judged:
    """The whole test."""
    return judge(trial.plan, runs_of(session, trial), bench.bin, bench.bulk_density(trial.plan))


def slot_tested(session: Session, trial: TrialState, variant: int, state: LineState) -> Rig | None:
    """The line's rig with what a test of its slots told of them; None where it tells nothing.

    Parameters
    ----------
    variant : place of the state that is the line as it is
    """
    if trial.plan.kind != SLOT or not 0 <= variant < len(trial.plan.variants):
        return None
    tuning = state.rig.tuning
    untested = None if tuning is None else tuning.model_copy(update={"slot": 1.0})
    plain = state.rig.model_copy(update={"tuning": untested})
    bench = workbench(state, METRIC)
    found = judged_trial(session, trial, bench).states[variant]
    factor = None if found is None else slot_factor(build_line(plain), trial.plan, found.mean)
    if factor is None:
        return None
    document = state.rig.model_dump(mode="json")
    document["tuning"] = {**(document["tuning"] or {"on": True}), "slot": round(factor, DIGITS)}
    return Rig.model_validate(document)


def readings_from(session: Session, trial: TrialState, variant: int, bench: Workbench) -> list[Reading]:
    """A state's outcome as readings that the line can be tuned to; none where it has no outcome."""
    if not 0 <= variant < len(trial.plan.variants):
        return []
    judged = judged_trial(session, trial, bench)
    state = judged.states[variant]
    if state is None:
        return []
    counted = [
        run.values
        for run, counts in zip(runs_of(session, trial), judged.counted, strict=True)
        if counts and run.variant == variant
    ]
    return readings_of_test(trial.plan, bench.places, state, counted)
