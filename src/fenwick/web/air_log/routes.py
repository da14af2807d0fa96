"""Routes of the room's air: logs read from files or live, their cuts, what they say."""

from __future__ import annotations

from flask import Blueprint, Response, abort, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.air_log.cuts import BadCutsError, read_cuts, write_cuts
from fenwick.air_log.log_csv import read_log, write_log
from fenwick.core.bench.trials.monitor import close_cuts, monitored, open_cut
from fenwick.data.air_logs import (
    LogState,
    add_rows,
    begin_log,
    end_log,
    log_state,
    logs_of,
    remove_log,
    set_cuts,
)
from fenwick.data.devices import device_state, devices_of
from fenwick.data.lines import line_names, line_state
from fenwick.data.trials import run_state
from fenwick.drawing.log_chart import render_log
from fenwick.rig import RigError
from fenwick.rig.voice import voice_for
from fenwick.web.kit.database import keep, session, while_others_write
from fenwick.web.kit.devices import reader_of
from fenwick.web.kit.imports import begins_import
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.paging import paged
from fenwick.web.kit.recording import record, recordings
from fenwick.web.kit.units import unit_system
from fenwick.wording.air_logs import cut_figures, log_words

bp = Blueprint("air_log", __name__)
ON_A_PAGE = 20  #: logs
A_CUT = 60.0  #: that a simulated shop makes [s]


@bp.get("/lines/<int:line_id>/air")
def show(line_id: int) -> ResponseReturnValue:
    """The newest log of a line, or the one asked for."""
    asked = request.args.get("log", type=whole)
    there = logs_of(session(), line_id)
    log_id = asked if asked is not None else (there[0].id if there else None)
    return _render(line_id, log_id)


@bp.post("/lines/<int:line_id>/air")
def read_file(line_id: int) -> ResponseReturnValue:
    """Take a log from a file; one that is none is refused with the reason."""
    upload = request.files.get("log")
    if upload is None or not upload.filename:
        return _render(line_id, None, 422, upload_error="Choose the monitor's file first.")
    try:
        table = read_log(upload.stream.read())
    except RigError as error:
        return _render(line_id, None, 422, upload_error=f"{upload.filename[:60]} was not read: {error}.")
    if not begins_import():
        return _after(line_id, logs_of(session(), line_id)[0].id)
    log_id = begin_log(session(), line_id, upload.filename, _run(line_id))
    add_rows(session(), log_id, table.rows, table.unreadable)
    end_log(session(), log_id, "; ".join(table.notes))
    return _after(line_id, log_id)


@bp.post("/lines/<int:line_id>/air/record")
def begin(line_id: int) -> ResponseReturnValue:
    """Begin to record a monitor."""
    device = device_state(session(), request.form.get("device", 0, type=whole))
    if device.kind != "monitor":
        abort(404)
    log_id = begin_log(session(), line_id, f"{device.name}, live", _run(line_id))
    keep()  # before the first row comes
    record(log_id, reader_of(device))
    return _after(line_id, log_id)


@bp.post("/air-logs/<int:log_id>/<any(end, cut, stop):what>")
def mark(log_id: int, what: str) -> ResponseReturnValue:
    """A cut starts or stops just now, or the recording ends."""
    state = log_state(session(), log_id)
    recording = recordings().get(log_id)
    if what == "end" or recording is None:
        if recording is not None:
            with while_others_write():  # it writes what is left
                recording.end()
            del recordings()[log_id]
            state = log_state(session(), log_id)
        if state.log.time.size:
            set_cuts(session(), log_id, close_cuts(state.cuts, float(state.log.time[-1])))
        end_log(session(), log_id)
    elif what == "cut":
        recording.reader.say(f"cut {A_CUT:.0f}")  # only a simulated monitor listens: nobody else cuts beside it
        set_cuts(session(), log_id, open_cut(state.cuts, recording.now))
    else:
        set_cuts(session(), log_id, close_cuts(state.cuts, recording.now))
    return _after(state.line_id, log_id)


@bp.post("/air-logs/<int:log_id>/cuts")
def change_cuts(log_id: int) -> ResponseReturnValue:
    """When was cut, as typed."""
    state = log_state(session(), log_id)
    text = request.form.get("cuts", "")
    try:
        set_cuts(session(), log_id, read_cuts(text))
    except BadCutsError as error:
        return _render(state.line_id, log_id, 422, typed=text, cuts_error=str(error))
    return _after(state.line_id, log_id)


@bp.post("/air-logs/<int:log_id>/<any(remove, back):what>")
def remove(log_id: int, what: str) -> ResponseReturnValue:
    """Take a log away, or bring it back."""
    line_id = remove_log(session(), log_id, back=what == "back")
    if what == "back":
        return _after(line_id, log_id)
    return redirect(url_for("air_log.show", line_id=line_id, removed=log_id))


@bp.get("/air-logs/<int:log_id>.<any(csv, json):form>")
def save(log_id: int, form: str) -> ResponseReturnValue:
    """The log as a table, in order; as JSON in SI."""
    log = log_state(session(), log_id).log
    if form == "json":
        return jsonify({"time_s": log.time.tolist(), "dust_kg_m3": log.value.tolist()})
    body = write_log(log)
    response = Response(body, mimetype="text/csv")
    response.headers.set("Content-Disposition", "attachment", filename=f"air-{log_id}.csv")
    return response


@bp.get("/air-logs/<int:log_id>/state")
def progress(log_id: int) -> ResponseReturnValue:
    """How far a recording is."""
    recording = recordings().get(log_id)
    return jsonify(rows=recording.rows if recording else 0, live=recording is not None)


def _run(line_id: int) -> int | None:
    """The run that a log belongs to, where the form names one of this line."""
    run_id = request.form.get("run", type=whole)
    if run_id is None:
        return None
    trial, run = run_state(session(), run_id)
    return run.id if trial.line_id == line_id else None


def _after(line_id: int, log_id: int) -> ResponseReturnValue:
    run_id = request.form.get("run", type=whole)
    if run_id is not None:
        return redirect(url_for("trials.run", run_id=run_id))
    return redirect(url_for("air_log.show", line_id=line_id, log=log_id))


def _render(
    line_id: int,
    log_id: int | None,
    status: int = 200,
    upload_error: str = "",
    typed: str | None = None,
    cuts_error: str = "",
) -> ResponseReturnValue:
    line = line_state(session(), line_id)
    voice = voice_for(line.rig, unit_system())
    state: LogState | None = log_state(session(), log_id) if log_id is not None else None
    if state is not None and state.line_id != line_id:
        abort(404)
    found = monitored(state.log, state.cuts) if state else None
    logs = logs_of(session(), line_id)
    pages = paged(len(logs), ON_A_PAGE, "air_log.show", line_id=line_id)
    return render_template(
        "air_log/page.html",
        state=line,
        log=state,
        recording=state is not None and state.id in recordings(),
        chart=render_log(state.log, found, voice) if state and found else "",
        said=log_words(state.log, found, voice) if state and found else [],
        cuts=[cut_figures(cut, voice) for cut in found.cuts] if found else [],
        typed=typed if typed is not None else (write_cuts(state.cuts) if state else ""),
        cuts_error=cuts_error,
        upload_error=upload_error,
        logs=logs[pages.skip : pages.skip + ON_A_PAGE],
        paging=pages,
        monitors=[device for device in devices_of(session()) if device.kind == "monitor"],
        lines=line_names(session(), line_id),
        removed=request.args.get("removed", type=whole),
    ), status
