"""The history of a line and of the shop, as a request changes it.

A form says which state it was made of. What it changes is put together with what was changed since; what it leaves
alone stays as it is now, whatever the form still shows.
"""

from __future__ import annotations

from flask import flash, g, request
from sqlalchemy.exc import SQLAlchemyError

from fenwick.data.lines import LineState, line_as_of, line_state
from fenwick.data.shops import ShopState, shop_as_of, shop_state
from fenwick.rig import Rig, RigError
from fenwick.services import lines
from fenwick.services.shop_file import step_shop_file, store_shop
from fenwick.services.together import MadeFrom
from fenwick.shop import ShopFile
from fenwick.web.kit.database import session
from fenwick.web.kit.numbers import whole

LINE_STATE, SHOP_STATE = "line_state", "shop_state"  #: names of the fields of a form that say what it was made of
SEEN = "seen_state"  #: of the field that says which other state was shown beside it


def form_line(line_id: int) -> LineState:
    """The line as the form at hand showed it; as it stands where the form does not say.

    Raises
    ------
    NotFoundError
    """
    state = line_as_of(session(), line_id, _asked(LINE_STATE))
    g.form_line = state
    return state


def line_now(line_id: int) -> LineState:
    """The line as it stands, which the forms of the page at hand are made of again.

    Raises
    ------
    NotFoundError
    """
    g.pop("form_line", None)
    return line_state(session(), line_id)


def shop_now() -> ShopState:
    """The shop as it stands, which the forms of the page at hand are made of again."""
    g.pop("form_shop", None)
    return shop_state(session())


def form_shop() -> ShopState:
    """The shop as the form at hand showed it; as it stands where the form does not say."""
    state = shop_as_of(session(), _asked(SHOP_STATE))
    g.form_shop = state
    return state


def save(line_id: int, rig: Rig, label: str) -> None:
    """Put a rig in force that can be solved; one that cannot raises CoreError and leaves the line as it is.

    Raises
    ------
    ClashError
        When it does not go with what was changed since the form was made.
    """
    shown: LineState | None = g.get("form_line")
    made_from = MadeFrom(shown.revision, _asked(SEEN)) if shown is not None and shown.id == line_id else None
    if lines.store(session(), line_id, rig, label, made_from):
        flash("That is an entry of the log: Undo on the log's page takes it back.")
    g.pop("form_line", None)


def save_shop(file: ShopFile, label: str) -> None:
    """Put a shop's file in force.

    Raises
    ------
    ClashError
        When it does not go with what was changed since the form was made.
    """
    shown: ShopState | None = g.get("form_shop")
    store_shop(session(), file, label, MadeFrom(shown.revision, _asked(SEEN)) if shown is not None else None)
    g.pop("form_shop", None)


def step(line_id: int, way: str) -> None:
    """Take the last change of a line back (undo), or bring it again (redo).

    Raises
    ------
    MovedOnError
        When it is no longer the one that the page shows.
    """
    lines.step(session(), line_id, -1 if way == "undo" else +1, _shown(LINE_STATE))


def step_shop(way: str) -> None:
    """Take the last change of the shop back (undo), or bring it again (redo).

    Raises
    ------
    MovedOnError
        When it is no longer the one that the page shows.
    """
    step_shop_file(session(), -1 if way == "undo" else +1, _shown(SHOP_STATE))


def states() -> dict[str, int]:
    """What the forms of the page at hand are made of, by the names of their fields."""
    if g.get("no_states"):
        return {}
    found: dict[str, int | None] = {}
    line_id = (request.view_args or {}).get("line_id")
    if line_id is not None:
        found[LINE_STATE] = _of_line(line_id)
    if request.blueprint == "shop":
        found[SHOP_STATE] = _of_shop()
    return {name: revision for name, revision in found.items() if revision is not None}


def _of_line(line_id: int) -> int | None:
    shown: LineState | None = g.get("form_line")
    try:
        return (shown if shown is not None and shown.id == line_id else line_state(session(), line_id)).revision
    except (LookupError, RigError, SQLAlchemyError):  # the page says what is wrong with the line
        return None


def _of_shop() -> int | None:
    shown: ShopState | None = g.get("form_shop")
    try:
        return (shown or shop_state(session())).revision
    except (RigError, SQLAlchemyError):  # the page says what is wrong with the shop
        return None


def _shown(name: str) -> MadeFrom | None:
    asked = _asked(name)
    return MadeFrom(asked) if asked is not None else None


def _asked(name: str) -> int | None:
    return request.form.get(name, type=whole)
