"""Routes of the shop: parse, call, render."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.lines import line_state, readable_lines
from fenwick.data.shops import ShopState, shop_state, the_shop
from fenwick.rig import RigError
from fenwick.rig.edits.routes import lay_hose
from fenwick.services import lines
from fenwick.shop import ShopFile, add_item, duplicate_item, edit_shop, read_shop, remove_item, write_shop
from fenwick.shop.edit import find_item
from fenwick.shop.from_line import filled_from, line_of
from fenwick.shop.plan import lay_floor
from fenwick.web.kit.database import session
from fenwick.web.kit.document_fields import read_changes, sentences_by_path
from fenwick.web.kit.fields import Field
from fenwick.web.kit.history import form_shop, save, save_shop, shop_now, step_shop
from fenwick.web.kit.imports import begins_import
from fenwick.web.kit.numbers import real
from fenwick.web.kit.units import unit_system
from fenwick.web.shop.view import LISTS, Refusal, item_fields, room_fields, shop_view

bp = Blueprint("shop", __name__, url_prefix="/shop")
SEPARATOR = "separator"  #: it has a place in the shop, and no fields
DONE = {"duplicate": "copied", "remove": "removed"}
MOST_LABEL = 200  #: characters of what undo says
SNAP = 20.0  #: places are kept to a twentieth of a metre [1/m]


@bp.get("")
def show() -> ResponseReturnValue:
    """The floor plan and one of the lists."""
    state, item = shop_state(session()), request.args.get("item", "")
    if item and item != SEPARATOR:
        group, _ = _found(state.file, item)
        return _page(state, group, opened=item)
    return _page(state, request.args.get("list"))


@bp.post("/<group>/add")
def add(group: str) -> ResponseReturnValue:
    """One more thing of a list."""
    state = shop_state(session())
    if group not in {one.key for one in LISTS}:
        abort(404)
    try:
        changed, name = add_item(state.file, group)
    except RigError as error:
        return _page(state, group, Refusal({}, {"": _sentence(error)}))
    save_shop(changed, f"{name.replace('-', ' ').capitalize()} added")
    return _after(group, name)


@bp.post("/items/<item>")
def change(item: str) -> ResponseReturnValue:
    """Take the fields of one thing."""
    state = form_shop()
    group, at = _found(state.file, item)
    fields = list(item_fields(state.file, group, at, unit_system()))
    return _take(state, fields, group, fields[0].text or item, item)


@bp.post("/room")
def change_room() -> ResponseReturnValue:
    """Take the fields of the shop itself."""
    state = form_shop()
    return _take(state, list(room_fields(state.file, unit_system())), "room", state.file.name)


@bp.post("/items/<item>/<any(duplicate, remove):action>")
def rearrange(item: str, action: str) -> ResponseReturnValue:
    """Copy a thing, or remove it."""
    state = shop_state(session())
    group, _ = _found(state.file, item)
    changed, shown = (remove_item(state.file, item), "") if action == "remove" else duplicate_item(state.file, item)
    save_shop(changed, f"{item.replace('-', ' ').capitalize()} {DONE[action]}")
    return _after(group, shown)


@bp.post("/place/<item>")
def place(item: str) -> ResponseReturnValue:
    """Put a thing somewhere on the floor, snapped."""
    state = form_shop()
    try:
        x, y = (round(real(request.form[key]) * SNAP) / SNAP for key in ("x_m", "y_m"))
    except (KeyError, ValueError):
        abort(400)
    x, y = min(max(x, 0.0), state.file.room.width_m), min(max(y, 0.0), state.file.room.depth_m)
    return _put(state, item, round(x, 3), round(y, 3))


@bp.post("/spot")
def to_spot() -> ResponseReturnValue:
    """Put the separator where every tool is reached with the shortest hose."""
    state = shop_state(session())
    spot = lay_floor(state.file).spot
    if spot is None:
        abort(404)
    return _put(state, "separator", *spot.place)


def _put(state: ShopState, item: str, x: float, y: float) -> ResponseReturnValue:
    if item == SEPARATOR:
        path = "separator_place"
    else:
        group, at = _found(state.file, item)
        path = f"{group}[{at}].place"
    document = {"x_m": x, "y_m": y}
    try:
        changed = edit_shop(state.file, {path: document})
    except RigError as error:
        return _page(state, request.form.get("list"), Refusal({}, {"": _sentence(error)}))
    if changed != state.file:
        save_shop(changed, f"{item.replace('-', ' ').capitalize()} moved")
    return _after(request.form.get("list"))


@bp.post("/from/<int:line_id>")
def fill(line_id: int) -> ResponseReturnValue:
    """Enter what a line has and the shop does not list."""
    state, line = shop_state(session()), line_state(session(), line_id)
    try:
        filled = filled_from(state.file, line.rig)
    except RigError as error:
        return _page(state, request.form.get("list"), Refusal({}, {"": _sentence(error)}))
    if filled.added:
        save_shop(filled.file, f"From {line.rig.name}: {', '.join(filled.added)}"[:MOST_LABEL])
    return _after(request.form.get("list"))


@bp.post("/line")
def make_line() -> ResponseReturnValue:
    """A line of every tool of the shop, and on to it."""
    state = shop_state(session())
    try:
        rig = line_of(state.file)
    except RigError as error:
        return _page(state, request.form.get("list"), Refusal({}, {"": _sentence(error)}))
    (line_id,) = lines.add(session(), the_shop(session()), rig)
    return redirect(url_for("line.show", line_id=line_id))


@bp.post("/lay/<tool>/<int:line_id>/<branch>")
def lay(tool: str, line_id: int, branch: str) -> ResponseReturnValue:
    """Put the length and bends of a tool's hose into a line."""
    state = shop_state(session())
    found = next((route for route in lay_floor(state.file).routes if route.id == tool), None)
    if found is None:
        abort(404)
    try:
        rig = lay_hose(line_state(session(), line_id).rig, branch, found.length, found.bends)
    except RigError as error:
        return _page(state, request.form.get("list"), Refusal({}, {"": _sentence(error)}))
    save(line_id, rig, "Hose laid as on the floor plan")
    return _after(request.form.get("list"))


@bp.post("/<any(undo, redo):way>")
def step(way: str) -> ResponseReturnValue:
    """Take the last change of the shop back, or bring it back."""
    step_shop(way)
    return _after(request.form.get("list"))


@bp.get("/shop.json")
def save_file() -> ResponseReturnValue:
    """The shop as a file."""
    response = Response(write_shop(shop_state(session()).file), mimetype="application/json")
    response.headers.set("Content-Disposition", "attachment", filename="shop.json")
    return response


@bp.post("/file")
def open_file() -> ResponseReturnValue:
    """Put an uploaded shop file in the shop's place; one undo brings the old one back."""
    state = shop_state(session())
    upload = request.files.get("shop")
    if upload is None or not upload.filename:
        return _page(state, "room", Refusal({}, {"": "Choose a shop file first."}))
    try:
        changed = read_shop(upload.stream.read())
    except RigError as error:
        return _page(state, "room", Refusal({}, {"": f"{upload.filename[:60]} was not opened. {error}"}))
    begins_import()
    save_shop(changed, f"Opened {upload.filename[:80]}")
    return _after("room")


def _take(
    state: ShopState, fields: list[Field], listed: str, title: str, item: str = ""
) -> ResponseReturnValue:  # fmt: skip
    document = state.file.model_dump(mode="json")
    system = unit_system()
    values, errors = read_changes(ShopFile, document, fields, request.form, system)
    changed: ShopFile | None = None
    if values and not errors:
        try:
            changed = edit_shop(state.file, values)
        except RigError as error:
            errors = sentences_by_path(error.problems, {field.path for field in fields}, system)
    if errors:
        return _page(state, listed, Refusal(dict(request.form), errors))
    if changed is not None and changed != state.file:
        save_shop(changed, f"{title}: {_said(fields, values)}")
    return _after(listed, item)


def _said(fields: list[Field], values: dict[str, Any]) -> str:
    return ", ".join(field.label.lower() for field in fields if field.path in values)


def _found(shop: ShopFile, item: str) -> tuple[str, int]:
    try:
        return find_item(shop, item)
    except RigError:
        abort(404)


def _sentence(error: RigError) -> str:
    sentence = error.problems[0].sentence(unit_system())
    return f"{sentence[:1].upper()}{sentence[1:]}."


def _after(listed: str | None, opened: str = "") -> ResponseReturnValue:
    if request.headers.get("HX-Request"):
        return _page(shop_now(), listed, opened=opened)
    return redirect(url_for("shop.show", item=opened) if opened else url_for("shop.show", list=listed))


def _page(
    state: ShopState, listed: str | None, refused: Refusal | None = None, opened: str = ""
) -> ResponseReturnValue:  # fmt: skip
    readable, unreadable = readable_lines(session())
    view = shop_view(state, listed, readable, unit_system(), refused, tuple(unreadable), opened)
    template = "shop/_shop.html" if request.headers.get("HX-Request") else "shop/page.html"
    return render_template(template, view=view), 422 if refused else 200
