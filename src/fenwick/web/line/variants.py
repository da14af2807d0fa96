"""Routes for variants of a line: copied, renamed, removed and brought back."""

from __future__ import annotations

from flask import redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import (
    all_line_ids,
    copy_line,
    free_name,
    line_state,
    set_removed,
)
from fenwick.rig import RigError, edit_rig
from fenwick.web.kit.database import session
from fenwick.web.kit.errors import refusal
from fenwick.web.kit.history import form_line, save
from fenwick.web.kit.units import unit_system
from fenwick.web.line.routes import bp


@bp.post("/lines/<int:line_id>/copy")
def copy(line_id: int) -> ResponseReturnValue:
    """Make a variant of a line and go there."""
    state = line_state(session(), line_id)
    name = free_name(session(), line_id, state.rig.name[:100])
    return redirect(url_for("line.show", line_id=copy_line(session(), line_id, name)))


@bp.post("/lines/<int:line_id>/name")
def rename(line_id: int) -> ResponseReturnValue:
    """Give a line another name."""
    state, system = form_line(line_id), unit_system()
    name = request.form.get("name", "").strip()
    try:
        rig = edit_rig(state.rig, {"name": name})
    except RigError as error:
        return refusal(f"The name of a line {error.problems[0].sentence(system)}. It kept its old one.")
    if rig != state.rig:
        save(line_id, rig, f"{state.rig.name} renamed {rig.name}")
    return redirect(url_for("line.show", line_id=line_id))


@bp.post("/lines/<int:line_id>/remove")
def remove(line_id: int) -> ResponseReturnValue:
    """Take a line away; the next page can bring it back."""
    set_removed(session(), line_id, removed=True)
    return redirect(url_for("line.removed", line_id=line_id))


@bp.get("/lines/<int:line_id>/removed")
def removed(line_id: int) -> ResponseReturnValue:
    """Says what was removed, and offers to bring it back."""
    state = line_state(session(), line_id)
    return render_template(
        "line/removed.html", state=state, others=[i for i in all_line_ids(session()) if i != line_id]
    )


@bp.post("/lines/<int:line_id>/restore")
def restore(line_id: int) -> ResponseReturnValue:
    """Bring a removed line back, with all its history."""
    set_removed(session(), line_id, removed=False)
    return redirect(url_for("line.show", line_id=line_id))
