"""One session for each request: what it changes is on disk before it is answered, or nothing of it is."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from flask import Flask, current_app, g, request
from flask.typing import ResponseReturnValue
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.lines import show_lines_by
from fenwick.services.logbook.shown import as_the_log_has_it
from fenwick.web.kit.clock import shop_clock


class ServedShop(Flask):
    """A Flask application that answers a change only when it is kept."""

    def dispatch_request(self) -> ResponseReturnValue:
        """What the view answers, once what it changed is on disk; an error takes all of it back."""
        answer = super().dispatch_request()
        if request.method == "POST" and "session" in g:
            session().commit()
        return answer


def init_app(app: Flask) -> None:
    """Close what a request opened."""
    app.teardown_appcontext(_close)


def session() -> Session:
    """The request's session; a request that may change something is alone from its first reading to its answer."""
    if "session" not in g:
        g.session = shop().open_session(to_write=request.method == "POST")
        show_lines_by(g.session, as_the_log_has_it(shop_clock))
    found: Session = g.session
    return found


def keep() -> None:
    """Put what this request has changed so far on disk, before others are to find it there."""
    session().commit()
    shop().take_turn(session())


def read_enough() -> None:
    """Let go of the shop before an answer that takes long to be sent."""
    session().rollback()


@contextmanager
def while_others_write() -> Iterator[None]:
    """Give the shop free for something that takes long; what this request changes afterwards rests on new readings."""
    session().rollback()
    yield
    shop().take_turn(session())


def shop() -> Database:
    """The shop that is served."""
    found: Database = current_app.extensions["fenwick-shop"]
    return found


def _close(_error: BaseException | None) -> None:
    opened: Session | None = g.pop("session", None)
    if opened is not None:
        opened.close()
