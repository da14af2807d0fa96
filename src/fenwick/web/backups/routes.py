"""Routes of the copies of a shop: parse, call, render. None of them opens a session while a copy is put back."""

from __future__ import annotations

import tempfile
from datetime import datetime
from pathlib import Path

from flask import Blueprint, abort, redirect, render_template, request, send_file, url_for
from flask.typing import ResponseReturnValue

from fenwick.data import ShopDatabaseError
from fenwick.data.backups import BY_HAND, Backup, back_up, backups_of
from fenwick.services import backups as service
from fenwick.services.whole import add_copy, bring_whole, export_shop, show_copy
from fenwick.web.kit.database import shop
from fenwick.web.kit.numbers import whole as whole_number
from fenwick.web.kit.recording import recordings

bp = Blueprint("backups", __name__, url_prefix="/backups")
WHY = {
    "daily": "of the day",
    "by-hand": "by hand",
    "migration": "before a newer Fenwick",
    "import": "before a file was read",
    "restore": "before a copy was put back",
    "brought": "brought from elsewhere",
}
RECORDING = "A monitor is being recorded: end that first, or its rows would have no log to go to."


@bp.get("")
def show() -> ResponseReturnValue:
    """The copies there are, the newest first."""
    return _show()


@bp.post("")
def make() -> ResponseReturnValue:
    """One more copy."""
    made = back_up(shop(), BY_HAND)
    return redirect(url_for("backups.show", made=made.name))


@bp.post("/bring")
def bring() -> ResponseReturnValue:
    """A copy from elsewhere, laid beside the others; nothing is put back yet."""
    upload = request.files.get("copy")
    if upload is None or not upload.filename:
        return _show("Choose a copy first: a file that ends in .db.", 422)
    with tempfile.TemporaryDirectory(prefix="fenwick-") as folder:
        path = Path(folder) / "brought.db"
        upload.save(path)
        try:
            found = service.bring(shop(), path, datetime.now())
        except ShopDatabaseError as error:
            return _show(str(error).replace("brought.db", upload.filename[:60]), 422)
    return redirect(url_for("backups.look", name=found.name))


@bp.get("/whole.zip")
def whole() -> ResponseReturnValue:
    """The whole shop in one file: JSON, photos, and tables to read beside it."""
    with tempfile.TemporaryDirectory(prefix="fenwick-") as folder:
        path = Path(folder) / "shop.zip"
        export_shop(shop(), path)
        file = path.open("rb")  # it is read to its end although its name is gone by then
    named = f"fenwick-shop-{datetime.now():%Y-%m-%d}.zip"
    return send_file(file, "application/zip", as_attachment=True, download_name=named)


@bp.post("/whole")
def read_whole() -> ResponseReturnValue:
    """A whole shop from such a file, laid beside the copies; nothing is done with it yet."""
    upload = request.files.get("whole")
    if upload is None or not upload.filename:
        return _show("Choose a file first: a whole shop ends in .zip.", 422)
    with tempfile.TemporaryDirectory(prefix="fenwick-") as folder:
        path = Path(folder) / "brought.zip"
        upload.save(path)
        try:
            found = bring_whole(shop(), path, datetime.now())
        except ShopDatabaseError as error:
            return _show(str(error).replace("brought.zip", upload.filename[:60]), 422)
    return redirect(url_for("backups.look", name=found.name))


@bp.post("/<name>/add")
def add(name: str) -> ResponseReturnValue:
    """Add what a copy holds and the shop does not."""
    copy = _found(name)
    try:
        shown, before = add_copy(shop(), copy.path)
    except ShopDatabaseError as error:
        return _show(str(error), 422)
    added = len(shown.adds)
    return redirect(url_for("backups.show", added=added, entries=shown.entries, before=before.name))


@bp.get("/<name>")
def look(name: str) -> ResponseReturnValue:
    """What putting a copy back would change."""
    copy = _found(name)
    try:
        changes, shown = service.what_changes(shop(), copy.path), show_copy(shop(), copy.path)
    except ShopDatabaseError as error:
        return _show(str(error), 422)
    return render_template("backups/look.html", copy=copy, why=WHY, changes=changes, shown=shown)


@bp.get("/<name>/file")
def download(name: str) -> ResponseReturnValue:
    """A copy, to be kept elsewhere."""
    copy = _found(name)
    return send_file(copy.path.absolute(), "application/vnd.sqlite3", as_attachment=True, download_name=copy.name)


@bp.post("/<name>/restore")
def restore(name: str) -> ResponseReturnValue:
    """Put a copy in the place of the shop; the shop as it was is the newest copy then."""
    copy = _found(name)
    if recordings():
        return _show(RECORDING, 409)
    try:
        before = service.restore(shop(), copy.path)
    except ShopDatabaseError as error:
        return _show(str(error), 422)
    return redirect(url_for("backups.show", restored=copy.name, before=before.name))


def _found(name: str) -> Backup:
    found = next((one for one in backups_of(shop().path) if one.name == name), None)
    if found is None:
        abort(404)
    return found


def _show(error: str = "", status: int = 200) -> ResponseReturnValue:
    copies = backups_of(shop().path)
    by_name = {one.name: one for one in copies}
    told = {key: by_name.get(request.args.get(key, "")) for key in ("made", "restored", "before")}
    counts = {key: request.args.get(key, type=whole_number) for key in ("added", "entries")}
    page = render_template("backups/page.html", copies=copies, why=WHY, error=error, **counts, **told)
    return page, status
