"""Routes of practice: parse, call, render."""

from __future__ import annotations

import secrets

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_names, line_state
from fenwick.rig.voice import voice_for
from fenwick.services.faults import case_of
from fenwick.web.kit.database import session
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.units import unit_system
from fenwick.web.practice.view import practice_view

bp = Blueprint("practice", __name__)
SEEDS = 100_000


@bp.get("/lines/<int:line_id>/practice")
def show(line_id: int) -> ResponseReturnValue:
    """A hidden fault; without a seed a new one is hidden."""
    seed = request.args.get("seed", type=whole)
    if seed is None:
        return redirect(url_for("practice.show", line_id=line_id, seed=secrets.randbelow(SEEDS)))
    state = line_state(session(), line_id)
    view = practice_view(
        case_of(state.rig),
        abs(seed) % SEEDS,
        request.args.getlist("r"),
        request.args.get("named", ""),
        voice_for(state.rig, unit_system()),
    )
    template = "practice/_practice.html" if request.headers.get("HX-Request") else "practice/page.html"
    return render_template(template, view=view, state=state, lines=line_names(session(), line_id))
