"""What the figures rest on: every rule of thumb, and the words."""

from __future__ import annotations

from flask import Blueprint, render_template
from flask.typing import ResponseReturnValue

from fenwick.core.components.dust import DUSTS
from fenwick.core.rules import CONTAINMENT_M3_H, RELEASE_VELOCITY, RULES
from fenwick.web.line.words import MACHINE_WORDS, RELEASE_WORDS

bp = Blueprint("reference", __name__)


@bp.get("/assumptions")
def assumptions() -> ResponseReturnValue:
    """Every assumption with its value, range and source."""
    return render_template(
        "reference/assumptions.html",
        rules=RULES,
        dusts=DUSTS.values(),
        releases=[(RELEASE_WORDS[key], *band) for key, band in RELEASE_VELOCITY.items()],
        containment=[(MACHINE_WORDS[key], *band) for key, band in CONTAINMENT_M3_H.items()],
    )


@bp.get("/terms")
def words() -> ResponseReturnValue:
    """The trade words."""
    return render_template("reference/terms.html")
