"""Routes of the table of tool ports: each alone, the combinations really used, and how they share the line."""

from __future__ import annotations

import csv
from collections.abc import Sequence
from dataclasses import astuple, fields, replace
from io import StringIO
from typing import TypeVar

from flask import Response, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from fenwick.core.dust.fate import Fate
from fenwick.core.judging.assess import assess
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.drawing.fate import render_small_fate
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.edits.hood_options import hood_options
from fenwick.rig.edits.ports import alone
from fenwick.rig.voice import voice_for
from fenwick.web.kit.database import session
from fenwick.web.kit.history import save
from fenwick.web.kit.units import unit_system
from fenwick.web.line.routes import bp
from fenwick.wording.hood import option_words
from fenwick.wording.ports import PortRow, TogetherRow, port_rows, together_rows
from fenwick.wording.say import Voice

BAR = 250.0  #: width of a row's bar [px]
Row = TypeVar("Row", PortRow, TogetherRow)


@bp.get("/lines/<int:line_id>/ports")
def ports(line_id: int) -> ResponseReturnValue:
    """Every tool port alone, as a table to print."""
    return _page(line_state(session(), line_id))


def _page(state: LineState, error: str = "") -> str:
    line, voice = build_line(state.rig), voice_for(state.rig, unit_system())
    together = together_rows(line, [c.ports for c in state.rig.line.combinations], voice)
    return render_template(
        "line/ports.html",
        state=state,
        rows=[(_helped(row, state.rig, voice), bar) for row, bar in _with_bars(port_rows(line, voice))],
        together=_with_bars(together),
        error=error,
        lines=line_names(session(), state.id),
        hoods={leaf.id: leaf.port.hood is not None for leaf in line.leaves},
    )


def _helped(row: PortRow, rig: Rig, voice: Voice) -> PortRow:
    """A row that no change of the line would help, with what helps most at its hood."""
    lone = alone(rig, row.id)
    if row.helps or lone is None:
        return row
    options = hood_options(lone, row.id, assess(build_line(lone)))
    best = next((option for option in options if option.id != "outdoors"), None)
    if best is None:
        return row
    words, _ = option_words(best.id, best.value, voice)
    return replace(row, helps=f"{words}: {100.0 * best.gain:.0f} g of 100 less in the room")


def _with_bars(rows: Sequence[tuple[Row, Fate | None]]) -> list[tuple[Row, Markup | None]]:
    return [(row, render_small_fate(fate, BAR) if fate else None) for row, fate in rows]


@bp.post("/lines/<int:line_id>/combinations")
def add_combination(line_id: int) -> ResponseReturnValue:
    """Name some tools that are used at the same time."""
    state = line_state(session(), line_id)
    chosen = request.form.getlist("port")
    if len(chosen) < 2:
        return _page(state, "Tick two tools or more."), 422
    known = [{"ports": list(c.ports)} for c in state.rig.line.combinations]
    if sorted(chosen) in [sorted(c["ports"]) for c in known]:
        return _page(state, "These are in the table already."), 422
    try:
        rig = edit_rig(state.rig, {"line.combinations": [*known, {"ports": chosen}]})
    except RigError as error:
        return _page(state, error.problems[0].sentence(unit_system()).capitalize() + "."), 422
    save(line_id, rig, "Tools used together named")
    return redirect(url_for("line.ports", line_id=line_id))


@bp.post("/lines/<int:line_id>/combinations/<int:index>/remove")
def drop_combination(line_id: int, index: int) -> ResponseReturnValue:
    """Forget a combination."""
    state = line_state(session(), line_id)
    known = [{"ports": list(c.ports)} for c in state.rig.line.combinations]
    if index >= len(known):
        abort(404)
    save(line_id, edit_rig(state.rig, {"line.combinations": known[:index] + known[index + 1 :]}), "Combination removed")
    return redirect(url_for("line.ports", line_id=line_id))


@bp.post("/lines/<int:line_id>/use")
def choose_use(line_id: int) -> ResponseReturnValue:
    """Say how the tools share the line: plumbed with gates, or by one hose that is moved."""
    state, use = line_state(session(), line_id), request.form.get("use", "")
    try:
        rig = edit_rig(state.rig, {"line.use": use})
    except RigError:
        abort(400)
    if rig != state.rig:
        save(line_id, rig, "One hose, moved from tool to tool" if use == "swap" else "Plumbed, with gates")
    return redirect(url_for("line.ports", line_id=line_id))


@bp.get("/lines/<int:line_id>/ports.csv")
def ports_csv(line_id: int) -> ResponseReturnValue:
    """The same as CSV, figures with their units."""
    state = line_state(session(), line_id)
    rows = port_rows(build_line(state.rig), voice_for(state.rig, unit_system()))
    return _csv([row for row, _ in rows], PortRow, "ports.csv")


@bp.get("/lines/<int:line_id>/used-together.csv")
def together_csv(line_id: int) -> ResponseReturnValue:
    """The combinations really used as CSV."""
    state = line_state(session(), line_id)
    ports = [c.ports for c in state.rig.line.combinations]
    rows = together_rows(build_line(state.rig), ports, voice_for(state.rig, unit_system()))
    return _csv([row for row, _ in rows], TogetherRow, "used-together.csv")


def _csv(rows: Sequence[PortRow | TogetherRow], kind: type[PortRow | TogetherRow], name: str) -> Response:
    out = StringIO()
    table = csv.writer(out)
    table.writerow([field.name for field in fields(kind)])
    table.writerows([_plain_cell(cell) for cell in astuple(row)] for row in rows)
    response = Response(out.getvalue(), mimetype="text/csv")
    response.headers.set("Content-Disposition", "attachment", filename=name)
    return response


def _plain_cell(text: str) -> str:
    """Text that a spreadsheet will not take for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@") else text
