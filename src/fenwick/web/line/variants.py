"""Routes for variants of a line: copied and compared."""

from __future__ import annotations

from dataclasses import dataclass

from flask import redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.search.figures import figures_at
from fenwick.data.lines import (
    LineState,
    all_line_ids,
    copy_line,
    free_name,
    line_names,
    line_state,
    set_removed,
)
from fenwick.rig import RigError, edit_rig
from fenwick.rig.compare import Difference, differences
from fenwick.rig.voice import voice_for
from fenwick.services.solving import solve
from fenwick.web.kit.database import session
from fenwick.web.kit.history import form_line, save
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.values import shown_value
from fenwick.web.line.routes import bp
from fenwick.wording.compare import Side, figure_rows


@dataclass(frozen=True)
class Compared:
    """One row of a comparison."""

    part: str
    title: str
    left: str
    right: str


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
        sentence = error.problems[0].sentence(system)
        return render_template("error.html", sentence=f"The name of a line {sentence}. It kept its old one."), 422
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


@bp.get("/lines/<int:line_id>/compare/<int:other_id>")
def compare(line_id: int, other_id: int) -> ResponseReturnValue:
    """Two lines side by side, differences marked."""
    left, right = (line_state(session(), one) for one in (line_id, other_id))
    system = unit_system()
    rows = [_difference(d, left, right, system) for d in differences(left.rig, right.rig)]
    figures = figure_rows(_side(left, system), _side(right, system))
    others = [(i, name) for i, name in line_names(session(), line_id) if i not in (line_id, other_id)]
    return render_template("line/compare.html", left=left, right=right, rows=rows, figures=figures, others=others)


@bp.get("/lines/<int:line_id>/compare")
def compare_with(line_id: int) -> ResponseReturnValue:
    """The line beside the shop's newest other one; how to get one where there is none."""
    state = line_state(session(), line_id)
    others = [i for i, _ in line_names(session(), line_id) if i != line_id]
    if others:
        return redirect(url_for("line.compare", line_id=line_id, other_id=others[-1]))
    return render_template("line/alone.html", state=state)


def _side(state: LineState, system: str) -> Side:
    solved = solve(state.rig)
    line, found, port = solved.line, solved.found, solved.first_open
    return Side(line, found, figures_at(line, found, port), port, voice_for(state.rig, system))


def _difference(difference: Difference, left: LineState, right: LineState, system: str) -> Compared:
    names = {**voice_for(right.rig, system).names, **voice_for(left.rig, system).names}
    part = names.get(difference.part, difference.part.capitalize())
    if any(difference.absent):
        words = tuple("not there" if absent else "there" for absent in difference.absent)
        return Compared(part, "", *words)
    return Compared(
        part, difference.title, *(shown_value(value, difference.quantity, system) for value in difference.values)
    )
