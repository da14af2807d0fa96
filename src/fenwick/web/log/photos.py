"""Photos of entries."""

from __future__ import annotations

from flask import Blueprint, Response, redirect, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.logbook import add_log_photo, log_photo, remove_log_photo
from fenwick.web.kit.database import session
from fenwick.web.kit.photos import BadPhotoError, small_jpeg
from fenwick.web.log.entry_page import entry_page

bp = Blueprint("photos", __name__)


@bp.post("/log/<int:entry_id>/photos")
def add(entry_id: int) -> ResponseReturnValue:
    """Keep a photo of an entry; one that is none is refused in a sentence."""
    upload = request.files.get("photo")
    try:  # it takes its time, and holds nobody up: nothing of the shop is open yet
        picture = small_jpeg(upload.stream.read() if upload else b"")
    except BadPhotoError as bad:
        return entry_page(entry_id, photo_error=str(bad)), 422
    add_log_photo(session(), entry_id, picture)
    return redirect(url_for("log.edit", entry_id=entry_id))


@bp.get("/log/photos/<int:photo_id>.jpg")
def show(photo_id: int) -> ResponseReturnValue:
    """A photo."""
    return Response(log_photo(session(), photo_id), mimetype="image/jpeg")


@bp.post("/log/photos/<int:photo_id>/remove")
def remove(photo_id: int) -> ResponseReturnValue:
    """Throw a photo away."""
    return redirect(url_for("log.edit", entry_id=remove_log_photo(session(), photo_id)))
