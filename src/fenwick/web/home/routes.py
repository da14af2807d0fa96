"""Routes of Home: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import all_line_ids
from fenwick.web.home.view import best_change, home_view, money_card
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.quick import ASKED
from fenwick.web.kit.units import unit_system

bp = Blueprint("home", __name__)


@bp.get("/")
def show() -> ResponseReturnValue:
    """The shop at a glance; the five questions where it has no line yet."""
    if not all_line_ids(session()):
        return redirect(url_for("start.ask"))
    return render_template(
        "home/page.html", view=home_view(session(), shop_clock(), unit_system()), asked=ASKED, line=None
    )


@bp.get("/home/change")
def change() -> ResponseReturnValue:
    """The next best change of the line that needs it most: slower than the eye, it follows by itself."""
    return render_template("home/_change.html", change=best_change(session(), shop_clock(), unit_system()))


@bp.get("/home/money")
def money() -> ResponseReturnValue:
    """What filters and bags cost, and what they would have cost without a separator: it follows by itself, too."""
    return render_template("home/_money.html", money=money_card(session(), shop_clock()))
