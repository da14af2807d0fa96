"""The fault finder: what was noticed and read since it went wrong, suspects with reasons, the next check."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from flask import abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.diagnosis.checks import checks_of
from fenwick.core.diagnosis.faults import SYMPTOMS
from fenwick.core.diagnosis.hunt import LOOK, Case, NextCheck, hunt, next_checks
from fenwick.core.tuning.factors import spreads
from fenwick.core.tuning.fit import KEYS
from fenwick.core.tuning.readings import KINDS, Reading, can_be, usual_sd
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.data.readings import HUNT, Taken, readings_of, take, take_away
from fenwick.rig import Rig, build_line, read_rig, write_rig
from fenwick.rig.result import voice_for
from fenwick.units import BadNumberError, parse_value, unit_label
from fenwick.web.database import session
from fenwick.web.test.routes import bp
from fenwick.web.units import unit_system
from fenwick.wording.hunt import FAULT_WORDS, SYMPTOM_WORDS, belief_words, check_words, reason
from fenwick.wording.say import Voice
from fenwick.wording.tuning import figure, reading_words

MOST_SUSPECTS, MOST_CHECKS = 5, 4


@dataclass(frozen=True)
class SuspectRow:
    """One suspect."""

    title: str
    remedy: str
    belief: str
    share: float  #: of belief [-]
    reasons: list[str]


@dataclass(frozen=True)
class CheckRow:
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
    symptoms: list[tuple[str, str, bool]]
    chosen: list[str]
    suspects: list[SuspectRow]
    explained: bool
    begun: bool
    readings: list[tuple[int, str]]
    checks: list[CheckRow]


@lru_cache(maxsize=8)
def _case(document: bytes) -> Case:
    rig = read_rig(document)
    left = rig.tuning.left if rig.tuning and rig.tuning.on else {}
    spread = spreads(KEYS) * np.array([left.get(key, 1.0) for key in KEYS])
    return Case.of(build_line(rig), np.diag(np.square(np.maximum(spread, 1e-3))))


def case_of(rig: Rig) -> Case:
    """A line with every fault it can have; what each shows is remembered for as long as the line stays as it is."""
    return _case(write_rig(rig))


def hunt_view(
    state: LineState, taken: list[Taken], chosen: Sequence[str], system: str, wrong: tuple[str, str, str] | None = None
) -> HuntView:
    """Rank the faults and prepare the page; `wrong` is (key of a check, what was typed, what is wrong with it)."""
    voice, case = voice_for(state.rig, system), case_of(state.rig)
    readings = [one.reading for one in taken]
    found = hunt(case, readings, chosen)
    begun = bool(chosen or readings)
    checks = next_checks(case, found, checks_of(case.line, readings)) if begun else []
    return HuntView(
        state=state,
        symptoms=[(key, words, key in chosen) for key, words in SYMPTOM_WORDS.items()],
        chosen=list(chosen),
        suspects=[
            SuspectRow(*FAULT_WORDS[one.fault], belief_words(one.share), one.share, reason(one, case, readings, voice))
            for one in found.suspects[:MOST_SUSPECTS]
            if one.share > 0.01
        ]
        if begun
        else [],
        explained=found.explained,
        begun=begun,
        readings=[(one.id, _told(one.reading, voice)) for one in taken],
        checks=[_check_row(check, voice, wrong) for check in checks[:MOST_CHECKS]],
    )


def _told(reading: Reading, voice: Voice) -> str:
    if reading.kind == LOOK:
        return f"{FAULT_WORDS[reading.station][0]}: {'seen' if reading.value > 0.5 else 'not seen'}"
    return f"{reading_words(reading, voice)}: {figure(reading, reading.value, voice)}"


def _check_row(check: NextCheck, voice: Voice, wrong: tuple[str, str, str] | None) -> CheckRow:
    key = f"{check.reading.kind}~{check.reading.station}"
    words, detail = check_words(check, voice)
    look = check.reading.kind == LOOK
    unit = "" if look else unit_label(KINDS[check.reading.kind], voice.system)
    typed, error = (wrong[1], wrong[2]) if wrong and wrong[0] == key else ("", "")
    return CheckRow(key, words, detail, look, unit, typed, error)


@bp.get("/lines/<int:line_id>/test/fault")
def find_fault(line_id: int) -> ResponseReturnValue:
    """What may be wrong with the line."""
    return _render(line_state(session(), line_id))


@bp.post("/lines/<int:line_id>/test/fault/readings")
def add_check(line_id: int) -> ResponseReturnValue:
    """Record the outcome of a check."""
    state, key = line_state(session(), line_id), request.form.get("key", "")
    line = build_line(state.rig)
    taken = [one.reading for one in readings_of(session(), line_id, HUNT)]
    reading = next((one for one in checks_of(line, taken) if f"{one.kind}~{one.station}" == key), None)
    if reading is None:
        abort(404)
    text = request.form.get("value", "").strip()
    if reading.kind == LOOK:
        value = 1.0 if text == "yes" else 0.0
    else:
        try:
            value = parse_value(text, KINDS[reading.kind], unit_system())
        except BadNumberError as error:
            return _render(state, (key, text, f"{str(error)[:1].upper()}{str(error)[1:]}"), 422)
        if not can_be(reading.kind, value):
            return _render(state, (key, text, "Below 0, or more than can be: check the figure and its unit."), 422)
    sd = reading.sd if reading.kind == LOOK else usual_sd(reading.kind, value)
    told = Reading(reading.kind, value, sd, reading.port, reading.station)
    take(session(), line_id, told, purpose=HUNT)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/test/fault/anew")
def hunt_anew(line_id: int) -> ResponseReturnValue:
    """The fault is mended, or it was another one: begin with an empty sheet. What was read stays on record."""
    for one in readings_of(session(), line_id, HUNT):
        take_away(session(), line_id, one.id)
    return redirect(url_for("test.find_fault", line_id=line_id))


@bp.post("/lines/<int:line_id>/test/fault/readings/<int:reading>/remove")
def drop_check(line_id: int, reading: int) -> ResponseReturnValue:
    """Take the outcome of a check back."""
    if not take_away(session(), line_id, reading):
        abort(404)
    return _after(line_id)


def _chosen() -> list[str]:
    return [key for key in request.values.getlist("s") if key in SYMPTOMS]


def _after(line_id: int) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(line_state(session(), line_id))
    return redirect(url_for("test.find_fault", line_id=line_id, s=_chosen()))


def _render(state: LineState, wrong: tuple[str, str, str] | None = None, status: int = 200) -> ResponseReturnValue:
    view = hunt_view(state, readings_of(session(), state.id, HUNT), _chosen(), unit_system(), wrong)
    template = "test/_fault.html" if request.headers.get("HX-Request") else "test/fault.html"
    return render_template(template, view=view, lines=line_names(session(), state.id)), status
