"""Routes of the vacuum's own page: four ways to say what its fan does."""

from __future__ import annotations

from flask import abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.data.lines import line_names, line_state
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.format.curve_csv import CurveFile as Read
from fenwick.rig.format.curve_csv import read_curve
from fenwick.rig.start.classes import take_class
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import read_editor
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.units import unit_system
from fenwick.web.line.curve_table import HOLES, POINTS, read_table
from fenwick.web.line.form import LABEL, open_editor
from fenwick.web.line.routes import bp
from fenwick.web.line.vacuum_view import VacuumAttempt, VacuumView, vacuum_view

MOST_PASTED = 100_000  #: characters of a refused paste that are given back


@bp.get("/lines/<int:line_id>/vacuum")
def vacuum(line_id: int) -> ResponseReturnValue:
    """The fan's curve, where each tool runs on it, and how it is known."""
    return _render(vacuum_view(line_state(session(), line_id), unit_system(), request.args.get("way")))


@bp.post("/lines/<int:line_id>/vacuum/label")
def vacuum_label(line_id: int) -> ResponseReturnValue:
    """Take the fields of the label."""
    state, system = form_line(line_id), unit_system()
    editor = open_editor(state.rig, LABEL, state.rig.vacuum.name, system)
    assert editor is not None
    change = read_editor(state.rig, editor, request.form, system)
    if change.rig is None and change.editor != editor:
        return _render(vacuum_view(state, system, "label", VacuumAttempt(editor=change.editor)), 422)
    if change.rig is not None:
        save(line_id, change.rig, change.label)
    return _after(line_id, "label")


@bp.post("/lines/<int:line_id>/vacuum/nameplate")
def vacuum_nameplate(line_id: int) -> ResponseReturnValue:
    """Go back from a measured curve to a label: its ends become the figures to begin with."""
    state = line_state(session(), line_id)
    if state.rig.vacuum.curve.kind == "nameplate":
        return _after(line_id, "label")
    save(line_id, _as_label(state.rig), f"{state.rig.vacuum.name}: curve by its label")
    return _after(line_id, "label")


def _as_label(rig: Rig) -> Rig:
    ends = build_line(edit_rig(rig, {"vacuum.motor_speed": None})).vacuum.curve
    suction, flow = float(f"{ends.sealed_suction:.3g}"), float(f"{ends.open_flow:.3g}")
    return edit_rig(rig, {"vacuum.curve": {"kind": "nameplate", "sealed_suction_pa": suction, "open_flow_m3_s": flow}})


#: what is put in where there was none
NEW_MEDIA: dict[str, dict[str, object]] = {
    "filter": {"kind": "paper", "area_m2": 0.5, "held_kg": 0.0},
    "bag": {"area_m2": 0.3, "held_kg": 0.0},
}


@bp.post("/lines/<int:line_id>/vacuum/<any(filter, bag):medium>")
def vacuum_medium(line_id: int, medium: str) -> ResponseReturnValue:
    """Put a filter or a bag in, or take it out."""
    state = line_state(session(), line_id)
    there = getattr(state.rig.vacuum, medium) is not None
    rig = edit_rig(state.rig, {f"vacuum.{medium}": None if there else NEW_MEDIA[medium]})
    save(line_id, rig, f"{medium.capitalize()} {'taken out' if there else 'put in'}")
    return _after(line_id, "label")


@bp.post("/lines/<int:line_id>/vacuum/table/<kind>")
def vacuum_table(line_id: int, kind: str) -> ResponseReturnValue:
    """Take a table of measurements, or only show what the rows so far come to."""
    if kind not in (POINTS, HOLES):
        abort(404)
    state, system = form_line(line_id), unit_system()
    table = read_table(state.rig, kind, request.form, system)
    if "use" not in request.form:
        return _render(vacuum_view(state, system, kind, VacuumAttempt(table=table)))
    if table.rig is None:
        error = "" if table.filled >= 3 else "A curve takes three rows or more."
        return _render(vacuum_view(state, system, kind, VacuumAttempt(table=table, error=error)), 422)
    if table.rig != state.rig:
        how = "hole-plate test" if kind == HOLES else "measured points"
        save(line_id, table.rig, f"{state.rig.vacuum.name}: curve by {how}, {table.filled} rows")
    return _after(line_id, kind)


@bp.post("/lines/<int:line_id>/vacuum/csv")
def vacuum_csv(line_id: int) -> ResponseReturnValue:
    """Take a curve from a file or a paste; all of it or none."""
    state, system = line_state(session(), line_id), unit_system()
    upload = request.files.get("file")
    pasted = request.form.get("pasted", "")
    raw = upload.stream.read() if upload is not None and upload.filename else pasted.encode()
    try:
        read = read_curve(raw, system)
        rig = edit_rig(state.rig, {"vacuum.curve": _points(read)})
    except RigError as error:
        sentence = "Nothing was taken. " + "; ".join(str(problem) for problem in error.problems) + "."
        attempt = VacuumAttempt(error=sentence, pasted=pasted[:MOST_PASTED])
        return _render(vacuum_view(state, system, POINTS, attempt), 422)
    how = f"{read.rows} rows averaged into {len(read.points)} points" if read.averaged else f"{read.rows} points"
    save(line_id, rig, f"{state.rig.vacuum.name}: curve from a table, {how}")
    return _after(line_id, POINTS)


def _points(read: Read) -> dict[str, object]:
    return {"kind": "points", "points": [{"flow_m3_s": q, "suction_pa": p} for q, p in read.points]}


@bp.post("/lines/<int:line_id>/vacuum/class/<key>")
def vacuum_class(line_id: int, key: str) -> ResponseReturnValue:
    """Put a generic class in the vacuum's place."""
    if key not in VACUUMS:
        abort(404)
    state = line_state(session(), line_id)
    save(line_id, take_class(state.rig, key), f"Vacuum taken for a {VACUUMS[key].label.lower()}")
    return _after(line_id, "label")


def _after(line_id: int, way: str) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(vacuum_view(line_now(line_id), unit_system(), way))
    return redirect(url_for("line.vacuum", line_id=line_id, way=way))


def _render(view: VacuumView, status: int = 200) -> ResponseReturnValue:
    template = "line/_vacuum.html" if request.headers.get("HX-Request") else "line/vacuum.html"
    return render_template(template, view=view, lines=line_names(session(), view.state.id)), status
