"""Routes of ageing: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import LineState, line_names, line_state
from fenwick.web.ageing.view import AgeingAsked, ageing_bands, ageing_editor, ageing_view
from fenwick.web.kit.database import session
from fenwick.web.kit.editor import Editor, read_editor
from fenwick.web.kit.history import form_line, line_now, save
from fenwick.web.kit.history import step as step_history
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.units import unit_system

bp = Blueprint("ageing", __name__)


@bp.get("/ageing")
def start() -> ResponseReturnValue:
    """The line in hand over its hours; the five questions where there is none."""
    line_id = line_in_hand()
    return redirect(url_for("ageing.show", line_id=line_id) if line_id else url_for("start.ask"))


@bp.get("/lines/<int:line_id>/ageing")
def show(line_id: int) -> ResponseReturnValue:
    """The line over its working hours."""
    return _render(line_state(session(), line_id))


@bp.get("/lines/<int:line_id>/ageing/bands")
def bands(line_id: int) -> ResponseReturnValue:
    """What is believable of its figures: slower than the eye, it follows by itself."""
    words = ageing_bands(line_state(session(), line_id), _asked())
    return render_template("_believable.html", believable=words)


@bp.post("/lines/<int:line_id>/ageing")
def change(line_id: int) -> ResponseReturnValue:
    """Take the fields; what is wrong comes back beside what was typed."""
    state, system = form_line(line_id), unit_system()
    changed = read_editor(state.rig, ageing_editor(state.rig, system), request.form, system)
    if changed.editor.error or any(field.error for field in changed.editor.fields):
        return _render(state, changed.editor, 422)
    if changed.rig is not None:
        save(line_id, changed.rig, changed.label)
    return _after(line_id)


@bp.post("/lines/<int:line_id>/ageing/<any(undo, redo):way>")
def step(line_id: int, way: str) -> ResponseReturnValue:
    """Take the last change back, or bring it again."""
    step_history(line_id, way)
    return _after(line_id)


def _asked() -> AgeingAsked:
    get = request.values.get
    return AgeingAsked(get("port"), get("figure", "flow"), get("wanted", "").strip())


def _after(line_id: int) -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _render(line_now(line_id))
    return redirect(url_for("ageing.show", line_id=line_id, port=request.values.get("port")))


def _render(state: LineState, editor: Editor | None = None, status: int = 200) -> ResponseReturnValue:
    view = ageing_view(state, _asked(), unit_system(), editor)
    template = "ageing/_ageing.html" if request.headers.get("HX-Request") else "ageing/page.html"
    return render_template(template, view=view, lines=line_names(session(), state.id)), (
        422 if view.wanted.error else status
    )
