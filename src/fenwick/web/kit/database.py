"""One session for each request, closed when the request ends."""

from __future__ import annotations

from contextlib import ExitStack

from flask import Flask, current_app, g, request
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.database import open_session


def init_app(app: Flask) -> None:
    """Close what a request opened."""
    app.teardown_appcontext(_close)


def session() -> Session:
    """The request's session; a request that may change something is alone from its first reading to its commit."""
    if "session" not in g:
        g.stack = ExitStack()
        shop: Database = current_app.extensions["fenwick-shop"]
        g.session = g.stack.enter_context(open_session(shop.engine, to_write=request.method == "POST"))
    found: Session = g.session
    return found


def let_others_write() -> None:
    """Give the shop free before something that takes long; what this request has read stays read."""
    session().rollback()


def shop_path() -> str:
    """Where the shop lies on disk."""
    shop: Database = current_app.extensions["fenwick-shop"]
    return str(shop.path)


def _close(_error: BaseException | None) -> None:
    stack: ExitStack | None = g.pop("stack", None)
    g.pop("session", None)
    if stack is not None:
        stack.close()
