"""Routes of the tour: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, redirect, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import readable_lines
from fenwick.rig import Rig
from fenwick.rig.format.separator import CyclonePart
from fenwick.services.logbook.holders import first_separator
from fenwick.web.kit.database import session
from fenwick.web.kit.own_page import own_page
from fenwick.web.kit.page import line_in_hand
from fenwick.web.kit.tour import COOKIE, MADE, STOPS, TOOLS, TourStop, tour_stop

bp = Blueprint("tour", __name__)
LEFT, YEAR = "left", 365 * 86400  #: Home offers it no more to who has left it [s]
BY = {"next": 1, "back": -1, "here": 0}


@bp.post("/tour")
def begin() -> ResponseReturnValue:
    """Begin at the first stop."""
    return _at(0)


@bp.post("/tour/<any('next', 'back', 'here'):way>")
def go(way: str) -> ResponseReturnValue:
    """A stop on or back, or to the page of this one."""
    at = tour_stop()
    return _at(0 if at is None else min(max(at + BY[way], 0), len(STOPS) - 1))


@bp.post("/tour/leave")
def leave() -> ResponseReturnValue:
    """The page that one is on, without the tour."""
    response = redirect(own_page(request.form.get("next", "")))
    response.set_cookie(COOKIE, LEFT, max_age=YEAR, samesite="Lax", httponly=True)
    return response


def _at(number: int) -> ResponseReturnValue:
    response = redirect(_address(STOPS[number]))
    response.set_cookie(COOKIE, str(number), samesite="Lax", httponly=True)
    return response


def _address(stop: TourStop) -> str:
    """Its page; of a line's pages the one with most to show there."""
    if not stop.line:
        return url_for(stop.endpoint)
    rigs = readable_lines(session())[0]
    ranked = sorted(rigs, key=lambda one: _rank(stop.line, one[1]), reverse=True)
    line_id = ranked[0][0] if ranked else line_in_hand()
    return url_for("start.ask") if line_id is None else url_for(stop.endpoint, line_id=line_id)


def _rank(wanted: str, rig: Rig) -> int:
    if wanted == MADE:
        return 0 if first_separator(rig) is None else 1 + isinstance(first_separator(rig), CyclonePart)
    assert wanted == TOOLS
    return len(rig.line.ways)
