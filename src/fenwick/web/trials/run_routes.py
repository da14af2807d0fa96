"""Routes of a run: every figure kept as it is typed, a step at a time. Parse, call, render."""

from __future__ import annotations

from collections.abc import Mapping

from flask import Response, abort, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.bench.trials.plan import RULER, WAYS, Ask, Plan
from fenwick.core.bench.trials.steps import fed_by_clock, steps
from fenwick.data import runs, trials
from fenwick.data.devices import devices_of
from fenwick.data.lines import line_names, line_state
from fenwick.services.trials import trial_bench, workbench
from fenwick.trials.values import Entry, run_values, text_in
from fenwick.units import SYSTEMS
from fenwick.web.kit.database import session
from fenwick.web.kit.devices import tell_simulated
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.photos import BadPhotoError, small_jpeg
from fenwick.web.kit.units import unit_system
from fenwick.web.trials.routes import bp
from fenwick.web.trials.run_view import RunView, run_view

NOTE = "note"
FED = {"fed_volume", "fed_feed"}  #: of a ruler's test one is enough


@bp.get("/runs/<int:run_id>")
def run(run_id: int) -> ResponseReturnValue:
    """A run, at the step where it stands."""
    return _render(run_id)


@bp.post("/runs/<int:run_id>/entries")
def keep(run_id: int) -> ResponseReturnValue:
    """Keep one text as it is typed; says what is wrong with it and what the run comes to."""
    trial, state = trials.run_state(session(), run_id)
    key, text = request.form.get("key", ""), request.form.get("text", "")
    if key == NOTE:
        runs.save_note(session(), run_id, text)
        return jsonify(error="", outcome="")
    ask = next((ask for ask in WAYS[trial.plan.way].asks if ask.key == key), None)
    if ask is None:
        abort(404)
    _keep(run_id, state, ask, text)
    view = _view(run_id)
    wrong = {ask.key: ask.error for row in view.rows for ask in row.asks}
    return jsonify(error=wrong.get(key, ""), outcome=render_template("trials/_outcome.html", view=view))


def _keep(run_id: int, state: trials.RunState, ask: Ask, text: str) -> None:
    """Keep a text that differs from what is there; a device's own stays its own."""
    system = request.form.get("system", "")
    system = system if system in SYSTEMS else unit_system()
    there = state.entries.get(ask.key)
    # a figure shown in other units than it was typed in, and left alone, stays what it was
    same = text == (text_in(there, ask, system) if there else "")
    if not same:
        runs.save_entry(session(), run_id, ask.key, Entry(text, system, request.form.get("source", "")))


@bp.post("/runs/<int:run_id>/tick")
def tick(run_id: int) -> ResponseReturnValue:
    """Something has been set back, or has not."""
    runs.tick(session(), run_id, request.form.get("key", "")[:20], on="on" in request.form)
    return _after(run_id)


@bp.post("/runs/<int:run_id>/step")
def step(run_id: int) -> ResponseReturnValue:
    """Keep what the step asks for, and go on, or back; the step behind the last ends the run."""
    trial, state = trials.run_state(session(), run_id)
    to, here = request.form.get("to", 0, type=whole), state.step
    asks = steps(trial.plan)[here].asks
    for ask in asks:
        if ask.key in request.form:
            _keep(run_id, state, ask, request.form[ask.key])
    if NOTE in request.form:
        runs.save_note(session(), run_id, request.form[NOTE])
    _, state = trials.run_state(session(), run_id)
    values, wrong = run_values(trial.plan, state.entries)
    missing = {a.key: "Not read yet." for a in asks if a.needed and a.key not in values and a.device != "monitor"}
    if trial.plan.way == RULER and steps(trial.plan)[here].key == "weigh-feed" and not values.keys() & FED:
        missing["fed_volume"] = "Not read yet: by the measure, or weighed."
    if to > here:
        missing |= _clock_faults(trial.plan, here, state.clock)
    if to > here and (wrong or missing) and "without" not in request.values:
        return _render(run_id, {**missing, **wrong}, 422)
    runs.go_to_step(session(), run_id, to)
    if to > here:
        _tell(steps(trial.plan)[here].key, values.get("fed_feed", trial.plan.fed))
    _, state = trials.run_state(session(), run_id)
    if state.state == trials.DONE:
        address = url_for("trials.show", trial_id=trial.id)
        if request.headers.get("HX-Request"):
            return Response(headers={"HX-Redirect": address})
        return redirect(address)
    return _after(run_id)


def _clock_faults(plan: Plan, here: int, counted: float) -> dict[str, str]:
    """What is wrong where dust was to be fed by the clock, and the clock has not run."""
    if fed_by_clock(plan, here, counted):
        return {}
    return {"clock": "The clock has not run down: start it, and feed evenly until it has. Runs fed faster are no like."}


def _tell(step: str, fed: float) -> None:
    """A simulated shop does what the person just did: nobody else empties its bin or feeds its line."""
    if step == "reset":
        tell_simulated("empty")
    elif step == "feed":
        tell_simulated(f"feed {fed:.6f}")


@bp.post("/runs/<int:run_id>/clock/<any(start, stop, reset):what>")
def clock(run_id: int, what: str) -> ResponseReturnValue:
    """The clock of the step."""
    if what == "reset":
        runs.reset_clock(session(), run_id)
    else:
        runs.run_clock(session(), run_id, on=what == "start")
    return _after(run_id)


@bp.post("/runs/<int:run_id>/<any(begin, pause, resume, spoil, count, abort):what>")
def change(run_id: int, what: str) -> ResponseReturnValue:
    """Begin, leave, go on, mark spoilt with a reason, count again, or give up."""
    why = (request.form.get("why_else", "").strip() or request.form.get("why", "")).strip()
    match what:
        case "begin":
            runs.go_to_step(session(), run_id, 0)
        case "pause" | "resume":
            runs.pause(session(), run_id, on=what == "pause")
        case "spoil":
            runs.spoil(session(), run_id, why or "spoilt")
        case "count":
            runs.spoil(session(), run_id, "")
        case "abort":
            runs.abort(session(), run_id, why)
    if request.form.get("then") == "test" or what == "abort":
        trial, _ = trials.run_state(session(), run_id)
        address = url_for("trials.show", trial_id=trial.id)
        return Response(headers={"HX-Redirect": address}) if request.headers.get("HX-Request") else redirect(address)
    return _after(run_id)


@bp.post("/runs/<int:run_id>/photos")
def add_photo(run_id: int) -> ResponseReturnValue:
    """Keep a photo; one that is none is refused in a sentence."""
    upload = request.files.get("photo")
    try:  # it takes its time, and holds nobody up: nothing of the shop is open yet
        picture = small_jpeg(upload.stream.read() if upload else b"")
    except BadPhotoError as error:
        return _render(run_id, {"photo": str(error)}, 422)
    trials.run_state(session(), run_id)
    runs.add_photo(session(), run_id, picture, request.form.get("words", "").strip())
    return _after(run_id)


@bp.get("/photos/<int:photo_id>.jpg")
def photo(photo_id: int) -> ResponseReturnValue:
    """A photo."""
    return Response(runs.photo_of(session(), photo_id), mimetype="image/jpeg")


@bp.post("/photos/<int:photo_id>/remove")
def remove_photo(photo_id: int) -> ResponseReturnValue:
    """Throw a photo away."""
    return _after(runs.remove_photo(session(), photo_id))


def _view(run_id: int, errors: Mapping[str, str] | None = None) -> RunView:
    trial, state = trials.run_state(session(), run_id)
    bench = trial_bench(session(), trial, workbench(line_state(session(), trial.line_id), unit_system()))
    log_id = trials.logs_of_runs(session(), [run_id]).get(run_id)
    return run_view(trial, state, bench, devices_of(session()), log_id, errors)


def _after(run_id: int) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(run_id)
    return redirect(url_for("trials.run", run_id=run_id))


def _render(run_id: int, errors: Mapping[str, str] | None = None, status: int = 200) -> ResponseReturnValue:
    view = _view(run_id, errors)
    fragment = request.headers.get("HX-Request")
    lines = [] if fragment else line_names(session(), view.trial.line_id)
    template = "trials/_run.html" if fragment else "trials/run.html"
    return render_template(template, view=view, lines=lines, errors=errors or {}), status
