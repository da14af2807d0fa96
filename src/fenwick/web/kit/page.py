"""What the header of every page needs: the line in hand, and how many of its checks are open."""

from __future__ import annotations

from typing import Any

from flask import Flask, Response, g, render_template, request
from flask import session as cookie
from sqlalchemy.exc import SQLAlchemyError

from fenwick.core.errors import CoreError
from fenwick.data.by_log import shows_by_log
from fenwick.data.lines import NotFoundError, all_line_ids, line_state
from fenwick.rig import RigError
from fenwick.services.checks import Tally, checked, tally
from fenwick.services.logbook.due import due_in
from fenwick.services.logbook.today import shop_today
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session

NOTHING = {
    "line_here": None,
    "open_checks": None,
    "line_tuned": False,
    "line_by_log": False,
    "overdue": 0,
    "oob_pill": False,
}


def init_app(app: Flask) -> None:
    """Tell every template which line is in hand and what is open there; renew that after every change."""
    app.context_processor(_header)
    app.after_request(_renew)


def no_header() -> None:
    """The answer at hand has no header: nothing is worked out for a stranger."""
    g.header = NOTHING


def pill_follows() -> None:
    """The answer at hand brings the pill of the header in a second fragment."""
    g.pill_follows = True


def _header() -> dict[str, Any]:
    """Worked out once in a request, however many templates it renders; not at all for a fragment without it."""
    if g.get("pill_follows"):
        return NOTHING
    if "header" not in g:
        g.header = _read_header()
    return dict(g.header)


def _read_header() -> dict[str, Any]:
    try:
        here = line_in_hand()
        if here is None:
            return NOTHING
        told = {"line_here": here, "open_checks": _open(here), "line_tuned": _tuned(here), "oob_pill": False}
        return {**told, "line_by_log": _by_log(here), "overdue": _overdue()}
    except SQLAlchemyError:  # the page that says so must still come up
        return NOTHING


def _tuned(line_id: int) -> bool:
    """Whether the line in hand predicts by its readings."""
    try:
        tuning = line_state(session(), line_id).rig.tuning
    except (RigError, NotFoundError):
        return False
    return tuning is not None and tuning.on


def _by_log(line_id: int) -> bool:
    """Whether the line in hand shows what the log says of today."""
    try:
        known = any(one.known for one in shop_today(session(), shop_clock()).of_line(line_id))
        return known and shows_by_log(session(), line_id)
    except (CoreError, RigError, NotFoundError):
        return False


def _overdue() -> int:
    """How many things are overdue; a fragment has no header to say so."""
    if request.headers.get("HX-Request"):
        return 0
    try:
        return sum(item.overdue for item in due_in(session(), shop_clock()))
    except (CoreError, RigError):  # the line's own page says what is wrong with it
        return 0


def _open(line_id: int) -> Tally | None:
    try:
        return tally(checked(session(), line_state(session(), line_id)))
    except (CoreError, RigError, NotFoundError):  # the page says what is wrong with the line
        return None


def _renew(response: Response) -> Response:
    """Behind the fragment of a change, the pill of the header as it is now."""
    answered = response.status_code == 200 and not g.get("pill_follows")
    changed = request.method == "POST" and request.headers.get("HX-Request") and answered
    if changed and response.mimetype == "text/html" and not response.direct_passthrough and response.data:
        pill = render_template("_checks_pill.html", oob_pill=True)
        response.data = response.get_data() + pill.encode()
    return response


def line_in_hand() -> int | None:
    """The line of this page, else the one looked at last, else the shop's first; None in an empty shop."""
    there = all_line_ids(session())
    asked = (request.view_args or {}).get("line_id")
    if asked in there:
        if cookie.get("line") != asked:
            cookie["line"] = asked
        return int(asked)
    seen = cookie.get("line")
    return seen if seen in there else (there[0] if there else None)
