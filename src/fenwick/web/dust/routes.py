"""Routes of the dust: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_names, line_state
from fenwick.web.dust.air import Typed
from fenwick.web.dust.view import dust_bands, dust_view
from fenwick.web.kit.database import session
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.units import unit_system

bp = Blueprint("dust", __name__)


@bp.get("/dust")
def start() -> ResponseReturnValue:
    """The dust of the line in hand; the five questions where there is none."""
    line_id = line_in_hand()
    return redirect(url_for("dust.show", line_id=line_id) if line_id else url_for("start.ask"))


@bp.get("/lines/<int:line_id>/dust")
def show(line_id: int) -> ResponseReturnValue:
    """Where the dust of one tool, or of the week, ends up."""
    state = line_state(session(), line_id)
    typed = Typed(request.args.get("minutes", "").strip(), request.args.get("cleaned", "").strip())
    view = dust_view(state, request.args.get("of"), typed, unit_system())
    bad = view.air is not None and any(field.error for field in view.air.fields)
    template = "dust/_dust.html" if request.headers.get("HX-Request") else "dust/page.html"
    return render_template(template, view=view, lines=line_names(session(), line_id)), 422 if bad else 200


@bp.get("/lines/<int:line_id>/dust/bands")
def bands(line_id: int) -> ResponseReturnValue:
    """What is believable of the room's air: slower than the eye, it follows by itself."""
    state = line_state(session(), line_id)
    typed = Typed(request.args.get("minutes", "").strip(), "")
    words = dust_bands(state, request.args.get("of"), typed, unit_system())
    return render_template("_believable.html", believable=words)
