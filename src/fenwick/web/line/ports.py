"""Routes of the table of tool ports: each alone, the combinations really used, and how they share the line."""

from __future__ import annotations

import csv
import json
from collections.abc import Sequence
from dataclasses import replace
from io import StringIO

from flask import Response, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from fenwick.core.dust.fate import Fate
from fenwick.data.lines import LineState, line_names, line_state
from fenwick.drawing.fate import render_small_fate
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.format.table import guarded
from fenwick.rig.voice import voice_for
from fenwick.services.ports import PortStudy, port_studies, together_studies
from fenwick.web.kit.database import session
from fenwick.web.kit.history import form_line, save
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.voice import voice_of
from fenwick.web.line.routes import bp
from fenwick.wording.hood import gain_words, option_words
from fenwick.wording.ports import PortRow, TogetherRow, port_row, together_row
from fenwick.wording.ports_table import Cell, port_cells, together_cells
from fenwick.wording.say import Voice

BAR = 250.0  #: width of a row's bar [px]


@bp.get("/lines/<int:line_id>/ports")
def ports(line_id: int) -> ResponseReturnValue:
    """Every tool port alone, as a table to print."""
    return _page(line_state(session(), line_id))


def _page(state: LineState, error: str = "") -> str:
    rig = state.rig
    return render_template(
        "line/ports.html",
        state=state,
        rows=[(row, _bar(study.found.fate)) for row, study in zip(_rows(state), _studies(state), strict=True)],
        together=[(row, _bar(s.found.fate)) for row, s in zip(_together(rig), together_studies(rig), strict=True)],
        error=error,
        lines=line_names(session(), state.id),
        hoods={leaf.id: leaf.port.hood is not None for leaf in build_line(rig).leaves},
    )


def _bar(fate: Fate | None) -> Markup | None:
    return render_small_fate(fate, BAR) if fate else None


def _studies(state: LineState) -> tuple[PortStudy, ...]:
    return port_studies(state.rig, state.owned)


def _rows(state: LineState) -> list[PortRow]:
    voice = voice_of(state, unit_system())
    return [_helped(port_row(s.line, s.found, s.port, s.best, voice), s, voice) for s in _studies(state)]


def _helped(row: PortRow, study: PortStudy, voice: Voice) -> PortRow:
    """A row that no change of the line would help, with what helps most at its hood."""
    if study.hood is None:
        return row
    words, _ = option_words(study.hood.id, study.hood.value, voice)
    return replace(row, helps=f"{words}: {gain_words(study.hood.gain)}")


def _together(rig: Rig) -> list[TogetherRow]:
    voice = voice_for(rig, unit_system())
    return [together_row(study.line, study.found, study.ports, voice) for study in together_studies(rig)]


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
    state = form_line(line_id)
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


@bp.get("/lines/<int:line_id>/ports.<any(csv, json):form>")
def ports_table(line_id: int, form: str) -> ResponseReturnValue:
    """The same as numbers: for a spreadsheet, or for a program."""
    state = line_state(session(), line_id)
    voice = voice_of(state, unit_system())
    cells = [
        port_cells(study.line, study.found, study.port, row.helps, voice)
        for study, row in zip(_studies(state), _rows(state), strict=True)
    ]
    return _table(cells, "ports", form)


@bp.get("/lines/<int:line_id>/used-together.<any(csv, json):form>")
def together_table(line_id: int, form: str) -> ResponseReturnValue:
    """The combinations really used, as numbers."""
    state = line_state(session(), line_id)
    voice = voice_for(state.rig, unit_system())
    return _table([together_cells(s.line, s.found, s.ports, voice) for s in together_studies(state.rig)],
                  "used-together", form)  # fmt: skip


def _table(rows: Sequence[dict[str, Cell]], name: str, form: str) -> Response:
    """Rows by their headings; what a row does not know is empty, or null."""
    headings = list(dict.fromkeys(heading for row in rows for heading in row))
    if form == "json":
        body = json.dumps([{heading: row.get(heading) for heading in headings} for row in rows], ensure_ascii=False)
        response = Response(body, mimetype="application/json")
    else:
        out = StringIO()
        table = csv.writer(out)
        table.writerow([guarded(heading) for heading in headings])
        table.writerows([_cell(row.get(heading)) for heading in headings] for row in rows)
        response = Response(out.getvalue(), mimetype="text/csv")
    response.headers.set("Content-Disposition", "attachment", filename=f"{name}.{form}")
    return response


def _cell(value: Cell) -> str | float:
    if value is None:
        return ""
    return guarded(value) if isinstance(value, str) else value
