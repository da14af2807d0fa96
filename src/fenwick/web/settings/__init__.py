"""Preferences of this browser."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Blueprint, redirect, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.units import METRIC, SYSTEMS
from fenwick.web.kit.units import COOKIE

bp = Blueprint("settings", __name__)


@bp.post("/units")
def choose_units() -> ResponseReturnValue:
    """Show figures in the chosen units from now on; what is stored does not change."""
    chosen = request.form.get("system", METRIC)
    response = redirect(_way_back(request.form.get("next", "")))
    if chosen in SYSTEMS:
        response.set_cookie(COOKIE, chosen, max_age=10 * 365 * 86400, samesite="Lax", httponly=True)
    return response


def _way_back(address: str) -> str:
    """The page the user came from, when it is one of ours."""
    parts = urlsplit(address)
    ours = address.startswith("/") and not address.startswith("//") and not parts.netloc and "\\" not in address
    return address if ours else url_for("line.start")
