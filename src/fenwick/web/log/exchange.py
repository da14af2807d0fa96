"""The log as a table: taken out, and read in as one step that can be taken back."""

from __future__ import annotations

from flask import Blueprint, Response, flash, jsonify, redirect, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import readable_lines
from fenwick.data.logbook import LogWanted, add_entries, entries_of
from fenwick.logged.table import parse_log, write_log
from fenwick.rig import RigError
from fenwick.services.logbook.document import log_document
from fenwick.services.logbook.holders import over_bin
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.errors import refusal
from fenwick.web.kit.imports import begins_import
from fenwick.web.kit.units import unit_system

bp = Blueprint("exchange", __name__)


@bp.get("/log.<any(csv, json):form>")
def table(form: str) -> ResponseReturnValue:
    """The whole log, the newest entry first."""
    if form == "json":
        return jsonify(log_document(session(), shop_clock()))
    lines = {number: rig.name for number, rig in readable_lines(session())[0]}
    text = write_log(entries_of(session(), LogWanted()), lines, unit_system())
    headers = {"Content-Disposition": 'attachment; filename="log.csv"'}
    return Response(text, mimetype="text/csv", headers=headers)


@bp.post("/log/read")
def read() -> ResponseReturnValue:
    """Read a table in; nothing of it is kept where something cannot be read."""
    upload = request.files.get("table")
    raw = upload.stream.read() if upload else b""
    rigs = dict(readable_lines(session())[0])
    lines = {rig.name: number for number, rig in rigs.items()}
    try:
        entries = parse_log(raw, lines, shop_clock(), unit_system())
        over = (over_bin(entry, rigs.get(entry.line or 0)) for entry in entries)
        wrong = tuple(problem for problem in over if problem is not None)
        if wrong:
            raise RigError(wrong[:1])
    except RigError as error:
        sentences = "; ".join(problem.sentence(unit_system()) for problem in error.problems)
        return refusal(f"Nothing was read in: {sentences}.")
    if begins_import():
        add_entries(session(), entries, f"Read in: {len(entries)} entries")
        flash(f"Read in: {len(entries)} entries. Undo takes them out again.")
    return redirect(url_for("log.show"))
