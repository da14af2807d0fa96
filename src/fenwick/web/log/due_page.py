"""The page of all that is due."""

from __future__ import annotations

from dataclasses import dataclass

from flask import render_template
from markupsafe import Markup

from fenwick.data.shops import the_shop
from fenwick.services.logbook.due import due_in
from fenwick.services.logbook.today import shop_today
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.due import DueRow, due_rows, on_strip, strip_of


@dataclass(frozen=True)
class DueView:
    """The page."""

    shop: str
    soon: tuple[DueRow, ...]  #: on the strip
    later: tuple[DueRow, ...]
    strip: dict[str, Markup]
    unknown: tuple[str, ...]  #: names of bins and filters of which the log does not say since when they run


def due_page() -> str:
    """All that is due: the coming weeks drawn, the rest told."""
    now = shop_clock()
    rows = due_rows(due_in(session(), now), now)
    soon = tuple(on_strip(rows))
    unknown = tuple(one.holder.name for one in shop_today(session(), now).holders if not one.known)
    view = DueView(
        the_shop(session()).name,
        soon,
        tuple(row for row in rows if row not in soon),
        strip_of(soon),
        tuple(dict.fromkeys(unknown)),
    )
    return render_template("log/due.html", view=view)
