"""Everything the Separator page shows, prepared as plain values."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.core.components.separator import Separator
from fenwick.core.dust.separation import Separation, fill_mark
from fenwick.core.dust.stream import kept_by_models
from fenwick.core.formulas.sizes import all_densities, mass_median, over_densities
from fenwick.core.judging.assess import Assessment
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from fenwick.core.search.effects import Sweep
from fenwick.data.lines import LineState
from fenwick.drawing.grade_chart import GradeChart, render_grade_chart
from fenwick.drawing.lid import render_lid
from fenwick.drawing.section import render_section
from fenwick.drawing.sweep_chart import render_sweep
from fenwick.rig import Rig
from fenwick.rig.edits.kinds import KINDS, kind_of
from fenwick.rig.format.separator import ChamberPart, CyclonePart, SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services.separators import study_of
from fenwick.services.solving import solve, sureness_of
from fenwick.web.kit.editor import Editor
from fenwick.web.separator.fields import DUST_ROWS, ROWS, dust_editor, whole_editor
from fenwick.wording import VerdictRow, check_sentence
from fenwick.wording.bin import DipMark, bin_words, dip_rod
from fenwick.wording.claims import ClaimRow, claim_rows
from fenwick.wording.say import Voice
from fenwick.wording.separator import (
    EffectRow,
    ModelRow,
    drop_checks,
    effect_row,
    model_rows,
    stage_rows,
    through_the_wall,
    unmodelled_rows,
)

USUAL_BOLT_HOLE = 0.0055  #: where no size is printed [m]
SWEEP_TITLES = {"fill": "How full, {unit}", "tilt": "Leaning over", "leak": "Air leaking in below"}


@dataclass(frozen=True)
class Picture:
    """What follows every drag: the drawing, the figures, the grade curve."""

    section: Markup
    rows: list[VerdictRow]
    grade: Markup | None
    past: str  #: what gets past, in a sentence; empty where the dust is not known


@dataclass(frozen=True)
class SweepRow:
    """What is kept as one thing runs through its range."""

    id: str
    title: str
    chart: Markup


@dataclass(frozen=True)
class SeparatorView:
    """The Separator page."""

    state: LineState
    rig: Rig
    part: SeparatorPart
    title: str
    kind: str
    kinds: dict[str, tuple[str, str]]
    others: list[tuple[str, str]]  #: (id, name) of the line's further separators
    picture: Picture
    editor: Editor
    rows: dict[str, str]  #: lists that can grow: (list, what a row is called)
    inlet_words: str  #: what its inlet can be turned into; empty where it is round only
    bin_turn_words: str  #: what its bin can be turned into
    models: list[ModelRow]
    drop_checks: str
    faults: list[EffectRow]
    sizes: list[EffectRow]
    sweeps: list[SweepRow]
    sights: list[str]
    notes: list[tuple[str, str]]  #: (level, sentence) of its checks
    dust: str
    dust_editor: Editor
    dust_row: str  #: what a row of its list is called; empty without one
    claims: list[ClaimRow]
    lid: tuple[Markup, str] | None  #: of a bought separator: the holes in the lid, and their sizes
    bin_words: list[str]
    dip_rod: list[DipMark]  #: on a dip rod or window
    air: str
    error: str = ""


def picture_of(rig: Rig, part: SeparatorPart, system: str, *, bands: bool = True) -> Picture:
    """Drawing, figures and grade curve; without bands where it has to be quick."""
    solved = solve(rig)
    line, found, voice = solved.line, solved.found, voice_for(rig, system)
    stage, _ = _stage(line, found, part.id)
    at = [one.id for one in line.stages].index(part.id)
    sure = sureness_of(rig).stages[at] if bands else None
    grade, past = _grade(found, at, voice)
    free = next((float(c.limit[0]) for c in found.checks if c.id == "bin-full" and c.part == part.id), 0.0)
    return Picture(
        render_section(part, free, voice, "section"), stage_rows(line, stage, found, sure, voice), grade, past
    )


def _stage(line: Line, found: Assessment, part: str) -> tuple[Separator, Separation]:
    stage = next(stage for stage in line.separators if stage.id == part)
    return stage, next(one for one in found.separations if one.id == part)


def _grade(found: Assessment, at: int, voice: Voice) -> tuple[Markup | None, str]:
    result = found.separations[at]
    if found.walk is None or result.grades is None:
        return None, ""
    grades, entering = result.grades, found.walk.entering[at]
    past = 1.0 - float(found.efficiency[at][0])

    def shown(share: Array) -> Array:
        return over_densities(share, entering)[:, 0]

    chart = GradeChart(
        all_densities(entering)[:, 0],
        shown(grades.kept),
        shown(grades.reaches_wall),
        {name: shown(other.reaches_wall) for name, other in result.others.items()},
        float(grades.cut_size[0]),
        past,
        float(mass_median(entering * (1.0 - grades.kept))[0]),
    )
    return render_grade_chart(chart, voice, "grade"), f"{100.0 * past:.1f} g of each 100 g that enter get past"


def separator_view(
    state: LineState,
    part: SeparatorPart,
    system: str,
    editor: Editor | None = None,
    error: str = "",
    dust: Editor | None = None,
) -> SeparatorView:
    """Solve the line and prepare the page of one of its separators."""
    rig = state.rig
    solved, voice = solve(rig), voice_for(rig, system)
    line, found = solved.line, solved.found
    stage, result = _stage(line, found, part.id)
    at = [one.id for one in line.stages].index(part.id)
    study = study_of(rig, part.id)
    row = found.point.stations.index(part.id)
    density = float(found.point.stations.density_mean[row, 0])
    return SeparatorView(
        state=state,
        rig=rig,
        part=part,
        title=voice.name(part.id),
        kind=kind_of(part),
        kinds={key: (kind.label, kind.sentence) for key, kind in KINDS.items()},
        others=[(one.id, voice.name(one.id)) for one in line.separators if one.id != part.id],
        picture=picture_of(rig, part, system),
        editor=editor or whole_editor(rig, part, voice.name(part.id), system),
        rows={key: word for key, (word, _) in ROWS.items() if key != "slots" or hasattr(part, "slots")},
        inlet_words=_inlet_words(part),
        bin_turn_words="Rectangular bin" if part.bin.is_round else "Round bin",
        models=model_rows(result, kept_by_models(result, found.walk.entering[at]), voice)
        if found.walk is not None and result.others
        else [],
        drop_checks=drop_checks(stage, result, density, voice),
        faults=[effect_row(effect, voice) for effect in study.faults],
        sizes=[*(effect_row(effect, voice) for effect in study.sizes), *unmodelled_rows(stage)],
        sweeps=_sweeps(study.sweeps, stage, line.rules, voice),
        sights=through_the_wall(line, stage, result, voice),
        notes=_notes(found, part.id, voice),
        dust=line.dust.label if line.dust else "",
        dust_editor=dust or dust_editor(rig, system),
        dust_row=DUST_ROWS[rig.dust.kind][0] if rig.dust and rig.dust.kind in DUST_ROWS else "",
        claims=_claims(part, found, row, result, voice),
        lid=_lid(part, voice),
        bin_words=bin_words(line, stage, voice),
        dip_rod=dip_rod(line, stage, voice),
        air=voice.figure(found.point.stations.flow[row, 0], "flow"),
        error=error,
    )


def _inlet_words(part: SeparatorPart) -> str:
    if not isinstance(part, CyclonePart | ChamberPart):
        return ""
    return "Rectangular inlet" if part.inlet_height_m is None else "Round inlet"


def _claims(part: SeparatorPart, found: Assessment, row: int, result: Separation, voice: Voice) -> list[ClaimRow]:
    if part.claim is None:
        return []
    at = [one.id for one in found.separations].index(part.id)
    kept = float(found.efficiency[at][0]) if found.efficiency else None
    flow, drop = float(found.point.stations.flow[row, 0]), float(result.pressure_drop[0])
    return claim_rows(part.claim.model_dump(), flow, drop, kept, voice)


def _lid(part: SeparatorPart, voice: Voice) -> tuple[Markup, str] | None:
    claim = part.claim
    if claim is None or claim.bolt_circle_d_m is None or claim.bolts is None or not isinstance(part, CyclonePart):
        return None
    return render_lid(
        part.dust_outlet_d_m, claim.bolt_circle_d_m, claim.bolts, claim.bolt_d_m or USUAL_BOLT_HOLE, voice
    )


def _sweeps(sweeps: tuple[Sweep, ...], stage: Separator, rules: RuleBook, voice: Voice) -> list[SweepRow]:
    mark, _ = fill_mark(stage, rules)
    unit = voice.figure(0.0, "bore").split(" ")[1]
    return [
        SweepRow(
            sweep.id,
            SWEEP_TITLES[sweep.id].format(unit=unit),
            render_sweep(sweep, voice, f"sweep-{sweep.id}", mark if sweep.id == "fill" else None),
        )
        for sweep in sweeps
    ]


def _notes(found: Assessment, part: str, voice: Voice) -> list[tuple[str, str]]:
    words = {1: "watch", 2: "act"}
    bad = [check for check in found.checks if check.part == part and int(check.level[0]) > 0]
    return [(words[int(c.level[0])], check_sentence(c, voice)) for c in sorted(bad, key=lambda c: -int(c.level[0]))]
