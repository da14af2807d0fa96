"""One place that turns an exception into a sentence on a page, or into a notice where htmx asked."""

from __future__ import annotations

import secrets
from contextlib import suppress
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, current_app, g, make_response, render_template, request
from flask.typing import ResponseReturnValue
from flask_wtf.csrf import CSRFError
from sqlalchemy.exc import DatabaseError
from werkzeug.exceptions import HTTPException

from fenwick.core.errors import CoreError
from fenwick.data.database import ShopDatabaseError, explain
from fenwick.data.lines import NotFoundError, line_names, line_standing
from fenwick.rig import RigError
from fenwick.web.kit.bounds import too_large
from fenwick.web.kit.database import session
from fenwick.web.kit.page import no_header

SENTENCES = {
    404: "There is nothing at this address.",
    405: "This address takes no such request.",
}


def init_app(app: Flask) -> None:
    """Register the handlers."""
    app.register_error_handler(DatabaseError, _database)
    app.register_error_handler(ShopDatabaseError, lambda error: refusal(str(error), 503))
    app.register_error_handler(NotFoundError, lambda error: refusal(str(error), 404))
    app.register_error_handler(CoreError, _unsolved)
    app.register_error_handler(RigError, _unreadable)
    app.register_error_handler(CSRFError, _csrf)
    app.register_error_handler(OverflowError, _overflow)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Exception, _unexpected)


def refusal(sentence: str, status: int = 422) -> ResponseReturnValue:
    """What could not be done and why, with the way back and the step back; a notice where htmx asked."""
    g.no_states = True  # its forms change no line, and to ask for one may be what has just failed
    if request.headers.get("HX-Request"):
        response = make_response(render_template("_notice.html", sentence=sentence), status)
        response.headers["HX-Retarget"] = "#notice"
        response.headers["HX-Reswap"] = "innerHTML"
        return response
    return render_template("error.html", sentence=sentence, back=came_from(), **_undone(status)), status


def came_from() -> str | None:
    """Address of the page of ours that the request came from; None where that is this one, or nobody's."""
    page = urlsplit(request.referrer or "")
    if page.netloc != request.host or page.path == request.path:
        return None
    return f"{page.path}{'?' + page.query if page.query else ''}"


def _undone(status: int) -> dict[str, Any]:
    """The line of this address and its last change, where one can be taken back."""
    line_id = (request.view_args or {}).get("line_id")
    if line_id is None or status in (404, 503):
        return {}
    with suppress(NotFoundError, DatabaseError, ShopDatabaseError):
        return {"line_id": line_id, "standing": line_standing(session(), line_id)}
    return {}


def _unsolved(error: CoreError) -> ResponseReturnValue:
    """A change that cannot be solved is not taken; a line that was stored before says so, and can be left."""
    if request.method == "POST":
        return refusal(f"This line could not be solved, so nothing was saved: {error}.", 422)
    return _instead("This cannot be worked out for the line as it stands", str(error))


def _unreadable(error: RigError) -> ResponseReturnValue:
    """Something stored that cannot be read."""
    if request.blueprint == "shop":
        return _shop_instead(str(error))
    return _instead("What is stored of this line cannot be read", str(error))


def _instead(title: str, sentence: str) -> ResponseReturnValue:
    """In the place of a page: what is wrong with the line, the step back, and the other lines."""
    line_id = (request.view_args or {}).get("line_id")
    if line_id is None or request.headers.get("HX-Request"):
        return refusal(f"{title}: {sentence}.", 422)
    g.pop("form_line", None)
    no_header()
    standing, lines = line_standing(session(), line_id), line_names(session(), line_id)
    page = render_template(
        "cannot.html", title=title, sentence=sentence, line_id=line_id, standing=standing, lines=lines
    )
    return page, 422


def _shop_instead(sentence: str) -> ResponseReturnValue:
    no_header()
    return render_template("cannot_shop.html", sentence=sentence), 422


def _database(error: DatabaseError) -> ResponseReturnValue:
    return refusal(explain(error), 503)


def _csrf(_error: CSRFError) -> ResponseReturnValue:
    return refusal(
        "This page was open for too long, or in another browser. Reload it and try again; nothing changed.", 400
    )


def _http(error: HTTPException) -> ResponseReturnValue:
    status = error.code or 500
    if status == 413:
        return refusal(too_large(request.path), status)
    return refusal(SENTENCES.get(status, error.description or "The request could not be answered."), status)


def _overflow(error: OverflowError) -> ResponseReturnValue:
    """A number beyond what the database can hold names nothing that is there."""
    return refusal(SENTENCES[404], 404) if "SQLite" in str(error) else _unexpected(error)


def _unexpected(_error: Exception) -> ResponseReturnValue:
    reference = secrets.token_hex(4)
    current_app.logger.exception("reference %s", reference)
    return refusal(f"Something went wrong inside Fenwick (reference {reference}); your line is as it was.", 500)
