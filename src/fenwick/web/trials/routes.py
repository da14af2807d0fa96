"""Routes of the place Test: the list, the plan, the result. Parse, call, render."""

from __future__ import annotations

import secrets

from flask import Blueprint, Response, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_names, line_state
from fenwick.data.readings import take
from fenwick.data.runs import add_finished
from fenwick.data.trials import TrialState, add_run, add_trial, list_of_trials, remove_trial, trial_state, trials_of
from fenwick.rig import RigError
from fenwick.services.trials import readings_from, slot_tested, trial_bench, workbench
from fenwick.sheets.report import write_report
from fenwick.trials.runs_csv import parse_runs, runs_table, write_runs
from fenwick.web.kit.database import session
from fenwick.web.kit.history import save
from fenwick.web.kit.imports import begins_import
from fenwick.web.kit.numbers import real, whole
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.paging import paged
from fenwick.web.kit.units import unit_system
from fenwick.web.trials.hub import HubView, trial_row
from fenwick.web.trials.plan_view import plan_view
from fenwick.web.trials.propose import propose_view
from fenwick.web.trials.reported import report_of
from fenwick.web.trials.result_view import result_view
from fenwick.web.trials.table import rows_of
from fenwick.wording.held import HELD_BADGES, HELD_STATES
from fenwick.wording.trials import TEST_KINDS, title_of

bp = Blueprint("trials", __name__)
ON_A_PAGE = 20  #: tests
SEEDS = 1_000_000  #: of orders of runs


@bp.get("/tests")
def start() -> ResponseReturnValue:
    """The tests of the line in hand; the five questions where there is none."""
    line_id = line_in_hand()
    return redirect(url_for("trials.hub", line_id=line_id) if line_id else url_for("start.ask"))


@bp.get("/lines/<int:line_id>/tests")
def hub(line_id: int) -> ResponseReturnValue:
    """What was tested on a line, and what could be."""
    state = line_state(session(), line_id)
    bench = workbench(state, unit_system())
    there = list_of_trials(session(), line_id)
    pages = paged(len(there.readable), ON_A_PAGE, "trials.hub", line_id=line_id)
    rows = [trial_row(trial, bench) for trial in trials_of(session(), line_id, pages.skip, ON_A_PAGE)]
    removed = request.args.get("removed", type=whole)
    view = HubView(state, rows, TEST_KINDS, there.unreadable, pages)
    return render_template("trials/hub.html", view=view, lines=line_names(session(), line_id), removed=removed)


@bp.get("/lines/<int:line_id>/tests/plan")
def plan(line_id: int) -> ResponseReturnValue:
    """The form of a plan, with what the test will be able to tell."""
    return _plan(line_id, 200)


@bp.get("/lines/<int:line_id>/tests/propose")
def propose(line_id: int) -> ResponseReturnValue:
    """Which test tells most for its minutes, of what one wants to know and with what one has got."""
    view = propose_view(line_state(session(), line_id), request.args, unit_system())
    fragment = request.headers.get("HX-Request")
    lines = [] if fragment else line_names(session(), line_id)
    return render_template("trials/_propose.html" if fragment else "trials/propose.html", view=view, lines=lines)


@bp.post("/lines/<int:line_id>/tests/plan")
def plan_it(line_id: int) -> ResponseReturnValue:
    """Record the plan; what is wrong comes back beside what was typed."""
    view = plan_view(line_state(session(), line_id), request.form, _seed(), unit_system())
    if view.form.wrong:
        return _plan(line_id, 422)
    made = view.form.plan
    title = request.form.get("title", "").strip() or title_of(made)
    trial = add_trial(session(), line_id, made, title, view.form.lines)
    return redirect(url_for("trials.show", trial_id=trial))


def _seed() -> int:
    given = request.values.get("seed", type=whole)
    return secrets.randbelow(SEEDS) if given is None else abs(given) % SEEDS


def _plan(line_id: int, status: int) -> ResponseReturnValue:
    view = plan_view(line_state(session(), line_id), request.values, _seed(), unit_system())
    fragment = request.headers.get("HX-Request")
    lines = [] if fragment else line_names(session(), line_id)
    template = "trials/_plan.html" if fragment else "trials/plan.html"
    return render_template(template, view=view, lines=lines, title=request.values.get("title", "")), status


@bp.get("/tests/<int:trial_id>")
def show(trial_id: int) -> ResponseReturnValue:
    """A test with its runs and what they show."""
    return _result(trial_id)


@bp.get("/tests/<int:trial_id>/sheet")
def sheet(trial_id: int) -> ResponseReturnValue:
    """The test on paper: what to set back, and a bin_ for every figure."""
    trial = trial_state(session(), trial_id)
    view = result_view(trial, line_state(session(), trial.line_id), unit_system())
    return render_template("trials/sheet.html", view=view, lines=line_names(session(), trial.line_id))


@bp.post("/tests/<int:trial_id>/runs")
def one_more(trial_id: int) -> ResponseReturnValue:
    """One more run of a state."""
    trial = trial_state(session(), trial_id)
    variant = request.form.get("variant", 0, type=whole)
    add_run(session(), trial_id, min(max(variant, 0), len(trial.plan.variants) - 1))
    return redirect(url_for("trials.show", trial_id=trial_id))


@bp.post("/tests/<int:trial_id>/<any(remove, back):what>")
def remove(trial_id: int, what: str) -> ResponseReturnValue:
    """Take a test away, or bring it back."""
    line_id = remove_trial(session(), trial_id, back=what == "back")
    return redirect(url_for("trials.hub", line_id=line_id, removed=trial_id if what == "remove" else None))


def _result(trial_id: int, status: int = 200, error: str = "") -> ResponseReturnValue:
    trial = trial_state(session(), trial_id)
    view = result_view(trial, line_state(session(), trial.line_id), unit_system())
    lines = line_names(session(), trial.line_id)
    used = request.args.get("used", type=whole)
    of = used_line(trial, request.args.get("on", 0, type=whole)) if used else (0, "")
    told = "" if not used else f"{'It is a reading' if used == 1 else f'{used} readings'} of {of[1]} now."
    factor = request.args.get("slots", type=real)
    slots = "" if factor is None else f"Its slots now give back {factor:.2f} × what the model says."
    told_of = {"used": told, "used_line": of[0], "slots": slots}
    told_of |= {"held_states": HELD_STATES, "held_badges": HELD_BADGES}
    return render_template("trials/result.html", view=view, lines=lines, error=error, **told_of), status


def used_line(trial: TrialState, variant: int) -> tuple[int, str]:
    """(id, name) of the line that a state's readings went to."""
    number = trial.line_of(variant)
    return number, f"“{dict(line_names(session(), trial.line_id)).get(number, 'the line')}”"


@bp.post("/tests/<int:trial_id>/use")
def use(trial_id: int) -> ResponseReturnValue:
    """Take a state's outcome as readings of the line."""
    trial = trial_state(session(), trial_id)
    bench = trial_bench(session(), trial, workbench(line_state(session(), trial.line_id), unit_system()))
    variant = request.form.get("variant", 0, type=whole)
    readings = readings_from(session(), trial, variant, bench)
    for reading in readings:
        take(session(), trial.line_of(variant), reading, trial.title)
    return redirect(url_for("trials.show", trial_id=trial_id, used=len(readings), on=variant))


@bp.post("/tests/<int:trial_id>/slots")
def take_slots(trial_id: int) -> ResponseReturnValue:
    """Take what a test told of the slots into the line."""
    trial = trial_state(session(), trial_id)
    variant = request.form.get("variant", 0, type=whole)
    state = line_state(session(), trial.line_of(variant))
    rig = slot_tested(session(), trial, variant, state)
    if rig is None or rig.tuning is None:
        return _result(trial_id, 422, "The model cannot be brought to what this test found by its slots alone.")
    save(state.id, rig, f"Slots by test: × {rig.tuning.slot:g}")
    return redirect(url_for("trials.show", trial_id=trial_id, slots=f"{rig.tuning.slot:.2f}"))


@bp.get("/tests/<int:trial_id>/runs.<any(csv, json):form>")
def runs_file(trial_id: int, form: str) -> ResponseReturnValue:
    """The runs as a table, or as JSON with its columns."""
    trial = trial_state(session(), trial_id)
    if form == "json":
        return jsonify(runs_table(trial.plan, rows_of(trial, unit_system()), unit_system()))
    return _file(
        write_runs(trial.plan, rows_of(trial, unit_system()), unit_system()).encode(),
        "text/csv",
        f"test-{trial_id}.csv",
    )


@bp.post("/tests/<int:trial_id>/runs.csv")
def read_runs(trial_id: int) -> ResponseReturnValue:
    """Runs out of a table, added behind the others; what cannot be read is named, and nothing is taken."""
    trial = trial_state(session(), trial_id)
    upload = request.files.get("runs")
    if upload is None or not upload.filename:
        return _result(trial_id, 422, "Choose the file first.")
    try:
        rows = parse_runs(upload.stream.read(), trial.plan, unit_system())
    except RigError as error:
        return _result(trial_id, 422, f"{upload.filename[:60]} was not read: {error}.")
    if begins_import():
        add_finished(session(), trial_id, rows, unit_system())
    return redirect(url_for("trials.show", trial_id=trial_id))


@bp.get("/tests/<int:trial_id>/report.pdf")
def report(trial_id: int) -> ResponseReturnValue:
    """The test as a report to print."""
    trial = trial_state(session(), trial_id)
    view = result_view(trial, line_state(session(), trial.line_id), unit_system())
    return _file(write_report(report_of(view)), "application/pdf", f"test-{trial_id}.pdf")


def _file(body: bytes, kind: str, name: str) -> Response:
    response = Response(body, mimetype=kind)
    response.headers.set("Content-Disposition", "attachment", filename=name)
    return response
