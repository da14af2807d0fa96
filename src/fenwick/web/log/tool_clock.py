"""The clock at a tool: started as one begins, stopped as one ends, and the time between is logged."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for
from flask import session as cookie
from flask.typing import ResponseReturnValue

from fenwick.data.logbook import add_entries
from fenwick.logged import Logged
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.log.entry_page import log_shop
from fenwick.web.log.form import APART, tools_of
from fenwick.wording.upkeep import hours as hours_words

bp = Blueprint("tool_clock", __name__)
KEY = "tool_clock"  #: in the browser's own cookie: whoever started it stops it
MOST_HOURS = 12.0  #: beyond, somebody forgot to stop it, and is asked [h]


@dataclass(frozen=True)
class ToolClock:
    """A clock that runs."""

    line: int
    tool: str
    since: datetime


def running() -> ToolClock | None:
    """The clock that this browser started; None where none runs."""
    told: Any = cookie.get(KEY)
    try:
        return ToolClock(int(told["line"]), str(told["tool"]), datetime.fromisoformat(told["since"]))
    except (TypeError, KeyError, ValueError):
        return None


@bp.post("/log/clock/start")
def start() -> ResponseReturnValue:
    """Start the clock at a tool of a line."""
    line, _, tool = request.form.get("where", "").partition(APART)
    rig = next((rig for number, rig in log_shop().lines if str(number) == line), None)
    if rig is None or tool not in tools_of(rig):
        abort(404)
    cookie[KEY] = {"line": int(line), "tool": tool, "since": shop_clock().isoformat(timespec="seconds")}
    return redirect(url_for("log.show"))


@bp.post("/log/clock/<any(stop, forget):way>")
def end(way: str) -> ResponseReturnValue:
    """Log what the clock says, or forget that it was started."""
    clock, now = running(), shop_clock()
    cookie.pop(KEY, None)
    if clock is None or way == "forget":
        return redirect(url_for("log.show"))
    hours = max((now - clock.since) / timedelta(hours=1), 0.0)
    where = f"{clock.line}{APART}{clock.tool}"
    if hours > MOST_HOURS or all(number != clock.line for number, _ in log_shop().lines):
        flash(f"The clock ran for {hours:.0f} hours. How long was it really?")
        return redirect(url_for("log.ask", kind="worked", where=where))
    entry = Logged("worked", now.replace(second=0, microsecond=0), clock.line, clock.tool, hours=hours)
    add_entries(session(), [entry], f"Worked at the {clock.tool}")
    flash(f"Logged: {hours_words(hours)} at the {clock.tool}.")
    return redirect(url_for("log.show"))
