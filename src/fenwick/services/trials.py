"""Tests of a line: judged with all that was read of them, and used as readings of the line."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from sqlmodel import Session

from fenwick.core.arrays import Array
from fenwick.core.bench.trials.expect import Expected, drawn_outcomes, expected_band, readings_of_test, slot_factor
from fenwick.core.bench.trials.judge import Judged, Lies, Run, judge
from fenwick.core.bench.trials.plan import MONITOR, Plan, Setup
from fenwick.core.components.bins import Bin
from fenwick.core.components.dust import DUSTS
from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.tuning.candidates import READ_AT
from fenwick.core.tuning.readings import Reading
from fenwick.data.air_logs import log_states
from fenwick.data.lines import LineState, NotFoundError, line_state
from fenwick.data.trials import TrialState, logs_of_runs
from fenwick.data.variants import VariantLine
from fenwick.rig import Rig, RigError, build_line
from fenwick.rig.voice import voice_for
from fenwick.services.readings import DIGITS, station_kinds
from fenwick.services.solving import solve
from fenwick.units import METRIC
from fenwick.wording.say import Voice

SLOT = "slot"  #: the kind of test that tells what slots give back


@dataclass(frozen=True)
class Workbench:
    """A line with its words and the places on it."""

    state: LineState
    line: Line
    voice: Voice
    kinds: Mapping[str, str]  #: of every station

    @property
    def places(self) -> tuple[str, ...]:
        """Where suction can be read, in the order of the air."""
        return tuple(name for name, kind in self.kinds.items() if kind in READ_AT)

    @property
    def bin(self) -> Bin | None:
        """The first separator's bin."""
        stage = next(iter(self.line.separators), None)
        return None if stage is None else stage.bin

    def bulk_density(self, plan: Plan, variant: int = 0) -> float | None:
        """Of the dust fed, as it lies [kg/m^3]; None: not known."""
        kind = plan.condition(variant).dust or plan.dust
        dust = DUSTS[kind] if kind else self.line.dust
        return None if dust is None else dust.bulk_density

    def here(self, plan: Plan, other: Line) -> Plan:
        """A plan made on another line as this one has it: port by name, a place that is here, too, the same heap."""
        ids = [leaf.id for leaf in self.line.leaves]
        if plan.port in ids:
            port = plan.port
        else:
            names = {leaf.id: leaf.port.name for leaf in other.leaves}
            like = (leaf.id for leaf in self.line.leaves if leaf.port.name == names.get(plan.port))
            port = next(like, next((leaf.id for leaf in self.line.leaves if leaf.open), ids[0] if ids else ""))
        station = plan.station if plan.station in self.kinds else ""
        return replace(plan, port=port if plan.port else "", station=station, dust=plan.dust or self._heap_of(other))

    def _heap_of(self, other: Line) -> str:
        """Kind of dust that another line's tools make, where this one's make another: all states are fed one heap."""
        fed, mine = other.dust, self.line.dust
        if fed is None or fed.kind not in DUSTS or (mine is not None and mine.kind == fed.kind):
            return ""
        return fed.kind

    def drawn(self, plan: Plan, variant: int = 0) -> Array | None:
        """What the model expects of a state of this line, as it stands and drawn; None where it cannot say."""
        said = replace(plan, repeats=1, hoped=1.0, seed=0, setup=PLAIN_SETUP)  # what is expected does not ask for them
        return _drawn(self.state.rig, said, self.places, variant)

    def expects(self, plan: Plan, variant: int = 0) -> Expected | None:
        """The same with its band."""
        drawn = self.drawn(plan, variant)
        return None if drawn is None else expected_band(drawn)


PLAIN_SETUP = Setup()


@lru_cache(maxsize=256)
def _drawn(rig: Rig, plan: Plan, places: tuple[str, ...], variant: int) -> Array | None:
    """What a state is expected to come to, worked out once for each."""
    try:
        return drawn_outcomes(solve(rig).line, plan, places, variant)
    except CoreError:
        return None


def workbench(state: LineState, system: str) -> Workbench:
    """The line as it predicts now, tuned where it is tuned."""
    line = build_line(state.rig)
    return Workbench(state, line, voice_for(state.rig, system), station_kinds(line))


@dataclass(frozen=True)
class StateBench:
    """A state of a test with the line that it is."""

    name: str
    plan: Plan  #: as that line has it
    variant: int
    bench: Workbench | None  #: None: its line cannot be opened any more
    line_name: str  #: where it is another line than the test was planned on; else empty
    told: bool  #: whether more than its name is known of it: then the model can speak
    changed: bool = False  #: whether its line has been changed since it was planned

    @property
    def lies(self) -> Lies:
        """Where its dust lies."""
        if self.bench is None:
            return Lies()
        return Lies(self.bench.bin, self.bench.bulk_density(self.plan, self.variant))

    @property
    def drawn(self) -> Array | None:
        """What the model expects of it, as it stands and drawn; None where it cannot say."""
        return self.bench.drawn(self.plan, self.variant) if self.bench is not None and self.told else None


@dataclass(frozen=True)
class TrialBench:
    """A test's plan with the lines that its states are."""

    plan: Plan
    own: Workbench  #: the line that it was planned on
    states: tuple[StateBench, ...]

    @property
    def voice(self) -> Voice:
        """Its line's words, in the user's units."""
        return self.own.voice

    @property
    def drawn(self) -> tuple[Array | None, ...]:
        """What the model expects of every state."""
        return tuple(state.drawn for state in self.states)

    def with_plan(self, plan: Plan) -> TrialBench:
        """The same lines under another plan of as many states."""
        states = tuple(replace(s, plan=_here(s.bench, plan, self.own)) for s in self.states)
        return TrialBench(plan, self.own, states)


def bench_of_states(
    session: Session, plan: Plan, own: Workbench, lines: Mapping[int, VariantLine], *, changed: bool = False
) -> TrialBench:
    """The states of a plan with their lines.

    Parameters
    ----------
    own : line that it is planned on
    lines : that its states are, by their places
    changed : whether the line that it is planned on has been changed since
    """
    benches = {
        k: own if one.id == own.state.id else _other(session, one.id, own.voice.system) for k, one in lines.items()
    }
    since = {k: one.changed for k, one in lines.items()}
    found = bench_of(plan, own, benches)
    return replace(found, states=tuple(replace(s, changed=since.get(s.variant, changed)) for s in found.states))


def bench_of(plan: Plan, own: Workbench, benches: Mapping[int, Workbench | None]) -> TrialBench:
    """The states of a plan with the lines that they are, by their places; the others are only named.

    Parameters
    ----------
    own : line that it is planned on
    benches : None for a line that cannot be opened any more
    """
    states = []
    for k, name in enumerate(plan.variants):
        bench = benches.get(k, own)
        told = k == 0 or k in benches or not plan.condition(k).plain
        other = "" if bench is own else "a line that is gone" if bench is None else bench.state.rig.name
        states.append(StateBench(name, _here(bench, plan, own), k, bench, other, told))
    return TrialBench(plan, own, tuple(states))


def _here(bench: Workbench | None, plan: Plan, own: Workbench) -> Plan:
    return plan if bench is own or bench is None else bench.here(plan, own.line)


def _other(session: Session, line_id: int, system: str) -> Workbench | None:
    try:
        return workbench(line_state(session, line_id), system)
    except (NotFoundError, RigError, CoreError):
        return None


def trial_bench(session: Session, trial: TrialState, own: Workbench) -> TrialBench:
    """The states of a test with their lines."""
    return bench_of_states(session, trial.plan, own, trial.lines, changed=trial.line_changed)


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


def judged_trial(session: Session, trial: TrialState, bench: TrialBench) -> Judged:
    """The whole test."""
    return judge(trial.plan, runs_of(session, trial), [state.lies for state in bench.states])


def slot_tested(session: Session, trial: TrialState, variant: int, state: LineState) -> Rig | None:
    """A state's line with what a test of its slots told of them; None where it tells nothing.

    Parameters
    ----------
    variant : place of the state that is the line as it is
    state : of that line
    """
    if trial.plan.kind != SLOT or not 0 <= variant < len(trial.plan.variants):
        return None
    tuning = state.rig.tuning
    untested = None if tuning is None else tuning.model_copy(update={"slot": 1.0})
    plain = state.rig.model_copy(update={"tuning": untested})
    bench = trial_bench(session, trial, workbench(state, METRIC))
    found = judged_trial(session, trial, bench).states[variant]
    here = bench.own.here(trial.plan, bench.own.line)
    factor = None if found is None else slot_factor(build_line(plain), here, found.mean, variant)
    if factor is None:
        return None
    document = state.rig.model_dump(mode="json")
    document["tuning"] = {**(document["tuning"] or {"on": True}), "slot": round(factor, DIGITS)}
    return Rig.model_validate(document)


def readings_from(session: Session, trial: TrialState, variant: int, bench: TrialBench) -> list[Reading]:
    """A state's outcome as readings that its line can be tuned to; none where it has no outcome, or stood otherwise."""
    if not 0 <= variant < len(trial.plan.variants):
        return []
    judged = judged_trial(session, trial, bench)
    state, of = judged.states[variant], bench.states[variant]
    if state is None or of.bench is None or not of.plan.condition(variant).stands_as_its_line:
        return []
    counted = [
        run.values
        for run, counts in zip(runs_of(session, trial), judged.counted, strict=True)
        if counts and run.variant == variant
    ]
    return readings_of_test(of.plan, of.bench.places, state, counted, variant)
