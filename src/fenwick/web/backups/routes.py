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
from fenwick.services.whole import add_copy, show_copy
from fenwick.web.backups import whole
from fenwick.web.backups.page import WHY, copies_page
from fenwick.web.kit.database import shop
from fenwick.web.kit.recording import recordings

bp = Blueprint("backups", __name__, url_prefix="/backups")
bp.register_blueprint(whole.bp)
RECORDING = "A monitor is being recorded: end that first, or its rows would have no log to go to."


@bp.get("")
def show() -> ResponseReturnValue:
    """The copies there are, the newest first."""
    return copies_page()


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
        return copies_page("Choose a copy first: a file that ends in .db.", 422)
    with tempfile.TemporaryDirectory(prefix="fenwick-") as folder:
        path = Path(folder) / "brought.db"
        upload.save(path)
        try:
            found = service.bring(shop(), path, datetime.now())
        except ShopDatabaseError as error:
            return copies_page(str(error).replace("brought.db", upload.filename[:60]), 422)
    return redirect(url_for("backups.look", name=found.name))


@bp.post("/<name>/add")
def add(name: str) -> ResponseReturnValue:
    """Add what a copy holds and the shop does not."""
    copy = _found(name)
    try:
        shown, before = add_copy(shop(), copy.path)
    except ShopDatabaseError as error:
        return copies_page(str(error), 422)
    added = len(shown.adds)
    return redirect(url_for("backups.show", added=added, entries=shown.entries, before=before.name))


@bp.get("/<name>")
def look(name: str) -> ResponseReturnValue:
    """What putting a copy back would change."""
    copy = _found(name)
    try:
        changes, shown = service.what_changes(shop(), copy.path), show_copy(shop(), copy.path)
    except ShopDatabaseError as error:
        return copies_page(str(error), 422)
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
        return copies_page(RECORDING, 409)
    try:
        before = service.restore(shop(), copy.path)
    except ShopDatabaseError as error:
        return copies_page(str(error), 422)
    return redirect(url_for("backups.show", restored=copy.name, before=before.name))


def _found(name: str) -> Backup:
    found = next((one for one in backups_of(shop().path) if one.name == name), None)
    if found is None:
        abort(404)
    return found
