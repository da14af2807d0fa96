"""What the page of the dust shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.dust.fate import ENDS, Fate
from fenwick.core.formulas.sizes import BREATHED
from fenwick.core.hours.work import Done, Week, by_class, week
from fenwick.core.judging.assess import Assessment
from fenwick.core.rules import RuleBook
from fenwick.data.lines import LineState
from fenwick.drawing.fate import render_small_ends
from fenwick.drawing.flow import render_flow
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.ports import alone
from fenwick.rig.voice import voice_for
from fenwick.services.bands import air_bands_of
from fenwick.services.solving import solve
from fenwick.shop.read import empty_shop
from fenwick.shop.work import jobs_on_line
from fenwick.units.sentence import inside
from fenwick.web.dust.air import AirCard, Typed, air_card, job_duration
from fenwick.wording.air import air_bands_words
from fenwick.wording.say import Voice
from fenwick.wording.work import full_words, job_words

WEEK = "week"
JOB = "job:"  #: before the id of a job
COARSE = 100e-6  #: dust above it flies and lies [m]


@dataclass(frozen=True)
class JobRow:
    """One job."""

    key: str
    name: str
    tool: str
    makes: str
    in_bin: str
    full_after: str
    bar: Markup | None


@dataclass(frozen=True)
class SizeRow:
    """Dust of some sizes."""

    size: str
    share: str  #: of the dust
    bar: Markup  #: where it goes


@dataclass(frozen=True)
class Followed:
    """The dust that is followed."""

    title: str
    subtitle: str
    ends: dict[str, float] | None = None  #: [-]; None where nothing is known
    sizes: tuple[SizeRow, ...] = ()
    made: str = ""  #: what it all begins as


@dataclass(frozen=True)
class DustView:
    """The page."""

    state: LineState
    rig: Rig
    of: str  #: id of the port, or `WEEK`
    choices: list[tuple[str, str]]
    title: str
    subtitle: str
    flow: Markup | None
    sizes: tuple[SizeRow, ...]
    jobs: list[JobRow]
    left_out: list[tuple[str, str]]
    full: str  #: when the bin is full
    air: AirCard | None
    harmful: bool  #: the air comes first
    why_not: str = ""


def dust_view(state: LineState, of: str | None, typed: Typed, system: str) -> DustView:
    """Follow the dust of one tool, or of the week.

    Parameters
    ----------
    state : the line as stored
    of : id of a port, or `WEEK`; None takes the first open one
    typed : what was typed about the air
    system : unit system
    """
    rig, shop, rules = state.rig, state.owned or empty_shop(state.shop), RuleBook()
    voice, line = voice_for(rig, system), build_line(rig)
    ports = [(leaf.id, leaf.port.name) for leaf in line.leaves]
    jobs, left = jobs_on_line(shop, rig, rules)
    choices = [*ports, (WEEK, "The week's work")]
    total = week(line, jobs)
    job = next((one for one in total.jobs if of == f"{JOB}{one.job.id}"), None)
    if job is None and of not in [key for key, _ in choices]:
        of = next((leaf.id for leaf in line.leaves if leaf.open), ports[0][0])
    assert of is not None
    port = line.leaves[job.job.port].id if job else of
    if job is not None:
        shown = _job_view(job, voice)
    else:
        shown = _week_view(total) if of == WEEK else _port_view(rig, of, voice)
    lone = alone(rig, port) if port != WEEK else None
    lone_voice = voice_for(lone or rig, system)
    return DustView(
        state=state,
        rig=rig,
        of=of,
        choices=choices,
        title=shown.title,
        subtitle=shown.subtitle,
        flow=render_flow(shown.ends, _amount(of, total, job, voice), shown.made, "flow") if shown.ends else None,
        sizes=shown.sizes,
        jobs=[_job_row(one, voice) for one in total.jobs],
        left_out=left,
        full=full_words(total, voice),
        air=air_card(lone, state.previous, port, shop, typed, lone_voice, rules) if lone else None,
        harmful=bool(lone and (dust := build_line(lone).dust) and dust.harmful),
        why_not="" if shown.ends else _why_not(of, left, total),
    )


def dust_bands(state: LineState, of: str | None, typed: Typed, system: str) -> dict[str, str]:
    """What is believable of the room's air over a job at a port, by row; nothing where that is not known."""
    lone = None if of is None else alone(state.rig, of)
    shop = state.owned or empty_shop(state.shop)
    if lone is None or of is None:
        return {}
    rules, voice = RuleBook(), voice_for(lone, system)
    found = air_bands_of(lone, of, shop, job_duration(shop, typed, voice, rules))
    return {} if found is None else air_bands_words(found, rules, voice)


def _port_view(rig: Rig, of: str, voice: Voice) -> Followed:
    """One port alone."""
    solved = solve(alone(rig, of) or rig)
    line, found = solved.line, solved.found
    dust = line.dust.label if line.dust else "Dust not known"
    subtitle = f"{dust}, its port open alone · widths are true"
    title = f"Where 100 g go at the {voice.name(of).lower()}"
    if found.fate is None:
        return Followed(title, subtitle)
    ends = {end: float(found.fate.share(end)[0]) for end in ENDS}
    return Followed(title, subtitle, ends, _sizes(found.fate), "made")


def _week_view(total: Week) -> Followed:
    """All the week's jobs together."""
    count = f"{len(total.jobs)} job{'' if len(total.jobs) == 1 else 's'}"
    subtitle = f"{count} on this line · widths are true"
    if total.made <= 0.0:
        return Followed("Where the week's dust goes", subtitle)
    ends = {end: mass / total.made for end, mass in total.ends.items()}
    return Followed("Where the week's dust goes", subtitle, ends, made="made a week")


def _job_view(one: Done, voice: Voice) -> Followed:
    """One job, each time it is done."""
    name = one.job.name
    each = {"hour": "an hour", "board": "one board", "cut": "one cut"}[one.job.unit]
    title = f"Where the dust of {each} goes: {inside(name)}"
    dust = one.line.dust.label if one.line.dust else "Dust not known"
    subtitle = f"{dust}, at the {one.line.leaves[one.job.port].port.name.lower()} · widths are true"
    if one.found.fate is None:
        return Followed(title, subtitle)
    ends = {end: float(one.found.fate.share(end)[0]) for end in ENDS}
    return Followed(title, subtitle, ends, _sizes(one.found.fate), "made")


def _amount(of: str, total: Week, job: Done | None, voice: Voice) -> Callable[[float], str]:
    def grams(share: float) -> str:
        mass = 100.0 * share
        return f"{mass:.0f} g" if mass >= 9.95 else f"{mass:.1f} g"

    def masses(share: float) -> str:
        mass = share * (job.job.mass if job else total.made)
        return voice.figure(mass, "heap" if mass >= 0.995 else "mass")

    return masses if of == WEEK or job else grams


def _sizes(fate: Fate) -> tuple[SizeRow, ...]:
    words = ("below 10 µm, breathed", "10 to 100 µm, floats", "above 100 µm, flies")
    rows = []
    for name, (share, ends) in zip(words, by_class(fate, (BREATHED, COARSE)), strict=True):
        if share > 0.0:
            said = f"{100 * share:.0f} g" if share >= 0.0095 else f"{100 * share:.1f} g"
            rows.append(SizeRow(name, said, render_small_ends(ends, 560.0)))
    return tuple(rows)


def _job_row(one: Done, voice: Voice) -> JobRow:
    told = job_words(one, voice)
    found: Assessment = one.found
    bar = render_small_ends({end: float(found.fate.share(end)[0]) for end in ENDS}, 200.0) if found.fate else None
    port = one.line.leaves[one.job.port].port.name
    return JobRow(f"{JOB}{one.job.id}", one.job.name, port, told.makes, told.in_bin, told.full, bar)


def _why_not(of: str, left: list[tuple[str, str]], total: Week) -> str:
    if of == WEEK and not total.jobs:
        return "No job of the shop's list is done on this line." if left else "No jobs are listed yet."
    return "Not known: it takes the kind of dust and the hood at the port."
