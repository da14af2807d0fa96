"""One page that shows every piece of the interface, in every state."""

from __future__ import annotations

from flask import Blueprint, render_template
from flask.typing import ResponseReturnValue

from fenwick.web.kit.fields import Field
from fenwick.wording import VerdictRow

bp = Blueprint("pieces", __name__)


@bp.get("/pieces")
def show() -> ResponseReturnValue:
    """The pieces, with sample content that is nobody's line."""
    rows = [
        VerdictRow(
            f"sample-{level or 'none'}", f"A figure: {level or 'not judged'}", "12.3", "L/s", level, filled, mark, why
        )
        for level, filled, mark, why in (
            ("ok", 0.8, 0.66, "Past its mark."),
            ("watch", 0.6, 0.66, "Just short of its mark."),
            ("act", 0.2, 0.66, "Far short of its mark."),
            ("", None, None, "Nothing to judge by; it says so."),
        )
    ]
    fields = [
        Field("sample.bore_m", "Bore", "38", "mm"),
        Field("sample.wall", "Wall", "smooth", choices=(("smooth", "Smooth bore"), ("pipe", "Rigid pipe"))),
        Field("sample.length_m", "Length", "−3", "m", error="must be above 0 m (got -3 m)"),
        Field("sample.leak", "Measured leak", "", "mm²", optional=True),
    ]
    return render_template("pieces/show.html", rows=rows, fields=fields)
