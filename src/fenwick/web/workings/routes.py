"""Routes of workings: parse, call, render."""

from __future__ import annotations

import json

from flask import Blueprint, Response, abort, render_template, request
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_names, line_state
from fenwick.data.readings import readings_of
from fenwick.rig.working import working_document
from fenwick.web.kit.database import session
from fenwick.web.kit.units import unit_system
from fenwick.web.workings.view import WorkingAsked, figure_list, found_working, sheet_view

bp = Blueprint("workings", __name__)


@bp.get("/lines/<int:line_id>/workings")
def all_figures(line_id: int) -> ResponseReturnValue:
    """Every figure of the line that shows how it comes about."""
    view = figure_list(line_state(session(), line_id), _asked(line_id), unit_system())
    return render_template("workings/list.html", view=view, lines=line_names(session(), line_id))


@bp.get("/lines/<int:line_id>/workings/<figure>")
def show(line_id: int, figure: str) -> ResponseReturnValue:
    """How one figure comes about."""
    state, asked = line_state(session(), line_id), _asked(line_id)
    view = sheet_view(state, asked, figure, unit_system())
    status = 200 if view.sections else 404
    return render_template("workings/sheet.html", view=view, lines=line_names(session(), line_id)), status


@bp.get("/lines/<int:line_id>/workings/<figure>.json")
def document(line_id: int, figure: str) -> ResponseReturnValue:
    """The same as a file, for doing it again elsewhere."""
    found = found_working(line_state(session(), line_id), _asked(line_id), figure)
    if found is None:
        abort(404)
    text = json.dumps(working_document(found), indent=2, ensure_ascii=False)
    name = figure.replace(":", "-").replace(">", "-")
    headers = {"Content-Disposition": f'attachment; filename="working-{name}.json"'}
    return Response(text, mimetype="application/json", headers=headers)


def _asked(line_id: int) -> WorkingAsked:
    get = request.args.get
    taken = tuple(one.reading for one in readings_of(session(), line_id) if not one.left_out)
    return WorkingAsked(get("port"), get("alone") == "1", get("minutes", "").strip(), taken)
