"""Routes of two lines side by side."""

from __future__ import annotations

from flask import redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_names, line_state
from fenwick.services.heard import last_heard
from fenwick.web.kit.database import session
from fenwick.web.kit.units import unit_system
from fenwick.web.line.compare_view import compare_view
from fenwick.web.line.routes import bp
from fenwick.wording.heard import heard_words


@bp.get("/lines/<int:line_id>/compare/<int:other_id>")
def compare(line_id: int, other_id: int) -> ResponseReturnValue:
    """Two lines side by side, differences marked."""
    left, right = (line_state(session(), one) for one in (line_id, other_id))
    others = [(i, name) for i, name in line_names(session(), line_id) if i not in (line_id, other_id)]
    heard = [last_heard(session(), one) for one in (line_id, other_id)]
    words = heard_words(left.rig.name, right.rig.name, *heard)
    return render_template("line/compare.html", view=compare_view(left, right, unit_system(), words), others=others)


@bp.get("/lines/<int:line_id>/compare")
def compare_with(line_id: int) -> ResponseReturnValue:
    """The line beside the shop's newest other one; how to get one where there is none."""
    state = line_state(session(), line_id)
    others = [i for i, _ in line_names(session(), line_id) if i != line_id]
    if others:
        return redirect(url_for("line.compare", line_id=line_id, other_id=others[-1]))
    return render_template("line/alone.html", state=state)
