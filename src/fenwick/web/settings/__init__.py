"""Preferences of this browser."""

from __future__ import annotations

from flask import Blueprint, redirect, request
from flask.typing import ResponseReturnValue

from fenwick.units import METRIC, SYSTEMS
from fenwick.web.kit.own_page import own_page
from fenwick.web.kit.units import COOKIE

bp = Blueprint("settings", __name__)


@bp.post("/units")
def choose_units() -> ResponseReturnValue:
    """Show figures in the chosen units from now on; what is stored does not change."""
    chosen = request.form.get("system", METRIC)
    response = redirect(own_page(request.form.get("next", "")))
    if chosen in SYSTEMS:
        response.set_cookie(COOKIE, chosen, max_age=10 * 365 * 86400, samesite="Lax", httponly=True)
    return response
