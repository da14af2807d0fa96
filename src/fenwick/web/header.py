"""What the header of every page needs: the line in hand."""

from __future__ import annotations

from typing import Any

from flask import Flask, request
from flask import session as cookie
from sqlalchemy.exc import SQLAlchemyError

from fenwick.data.lines import all_line_ids
from fenwick.web.database import session


def init_app(app: Flask) -> None:
    """Tell every template which line is in hand."""
    app.context_processor(_header)


def _header() -> dict[str, Any]:
    try:
        return {"line_here": line_in_hand()}
    except SQLAlchemyError:  # the page that says so must still come up
        return {"line_here": None}


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
