"""The page of the copies."""

from __future__ import annotations

from flask import render_template, request
from flask.typing import ResponseReturnValue

from fenwick.data.backups import backups_of
from fenwick.web.kit.database import shop
from fenwick.web.kit.numbers import whole as whole_number

WHY = {
    "daily": "of the day",
    "by-hand": "by hand",
    "migration": "before a newer Fenwick",
    "import": "before a file was read",
    "restore": "before a copy was put back",
    "brought": "brought from elsewhere",
}


def copies_page(error: str = "", status: int = 200) -> ResponseReturnValue:
    """All copies, with what was just done, or why it was not."""
    copies = backups_of(shop().path)
    by_name = {one.name: one for one in copies}
    told = {key: by_name.get(request.args.get(key, "")) for key in ("made", "restored", "before")}
    counts = {key: request.args.get(key, type=whole_number) for key in ("added", "entries")}
    page = render_template("backups/page.html", copies=copies, why=WHY, error=error, **counts, **told)
    return page, status
