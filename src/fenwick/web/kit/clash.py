"""Two changes that do not go together, side by side: what was, what stands there now, what was typed here."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, make_response, render_template, request
from flask.typing import ResponseReturnValue

from fenwick.rig import Rig
from fenwick.rig.format.describe import describe
from fenwick.rig.format.merge import NOTHING, Clash
from fenwick.services.together import ClashError, MovedOnError
from fenwick.shop import ShopFile
from fenwick.web.kit.history import SEEN
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.values import shown_value

OURS = ("csrf_token", SEEN)  #: fields that the form gets anew


@dataclass(frozen=True)
class ClashRow:
    """One place that both have changed."""

    what: str
    was: str
    theirs: str
    mine: str


@dataclass(frozen=True)
class ClashView:
    """What is shown, and what is sent again if mine is to go in."""

    rows: tuple[ClashRow, ...]
    label: str  #: what was done meanwhile
    sentence: str  #: what forbids both together, where it is no single place
    address: str
    target: str  #: what the form renews; empty: the page
    typed: tuple[tuple[str, str], ...]
    seen: int
    back: str  #: the page as it is now


def init_app(app: Flask) -> None:
    """Register the handlers."""
    app.register_error_handler(ClashError, _side_by_side)
    app.register_error_handler(MovedOnError, _moved_on)


def _side_by_side(error: ClashError) -> ResponseReturnValue:
    return _beside("_clash.html", view=_view(error))


def _moved_on(error: MovedOnError) -> ResponseReturnValue:
    return _beside("_moved_on.html", label=str(error), back=_back())


def _beside(template: str, **context: Any) -> ResponseReturnValue:
    """At the head of the page at hand, which keeps what was typed; a page of its own without htmx."""
    if not request.headers.get("HX-Request"):
        return render_template("clash.html", piece=template, **context), 409
    response = make_response(render_template(template, **context), 409)
    response.headers["HX-Retarget"] = "#notice"
    response.headers["HX-Reswap"] = "innerHTML show:top"
    return response


def _view(error: ClashError) -> ClashView:
    root = Rig if "line" in error.mine else ShopFile
    target = request.headers.get("HX-Target", "")
    return ClashView(
        tuple(_row(clash, root, error) for clash in error.clashes),
        error.label,
        error.sentence,
        request.full_path.rstrip("?"),
        f"#{target}" if target else "",
        tuple((name, text) for name, text in request.form.items(multi=True) if name not in OURS),
        error.now,
        _back(),
    )


def _back() -> str:
    """Address of the page that the change was made on."""
    page = urlsplit(request.headers.get("HX-Current-URL") or request.referrer or "/")
    return f"{page.path or '/'}{'?' + page.query if page.query else ''}"


def _row(clash: Clash, root: type[Rig] | type[ShopFile], error: ClashError) -> ClashRow:
    gone = clash.mine is NOTHING
    document = error.theirs if gone else error.mine
    facts = None if isinstance(clash.mine, dict | list) else describe(root, clash.path, document)
    title = facts.title if facts else _last(clash.path)
    name = _name(document, clash.part)
    texts = (
        _text(value, facts.quantity if facts else None, clash.path) for value in (clash.was, clash.theirs, clash.mine)
    )
    return ClashRow(f"{name}: {title.lower()}" if name and name != title else title, *texts)


def _last(path: str) -> str:
    return path.rpartition(".")[2].partition("[")[0].replace("_", " ").capitalize()


def _text(value: Any, quantity: str | None, path: str) -> str:
    if value is NOTHING:
        return "not there"
    if isinstance(value, list):
        return "1 row" if len(value) == 1 else f"{len(value)} rows"
    if isinstance(value, dict):
        return str(value.get("name") or value.get("kind") or "described").replace("-", " ")
    return shown_value(value, quantity, unit_system(), path)


def _name(document: Any, part: str) -> str:
    """What a thing is called: its name, that of its port, or its id in words."""
    found = _thing(document, part) if part else None
    if found is None:
        return ""
    named = found.get("name") or (found.get("port") or {}).get("name")
    return str(named or part.replace("-", " ").replace("_", " ").capitalize())


def _thing(within: Any, part: str) -> dict[str, Any] | None:
    if isinstance(within, dict):
        if within.get("id") == part:
            return within
        within = list(within.values())
    if not isinstance(within, list):
        return None
    return next((found for one in within if (found := _thing(one, part)) is not None), None)
