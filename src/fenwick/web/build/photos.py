"""Photos of a build's steps."""

from __future__ import annotations

from flask import Blueprint, Response, abort, redirect, request
from flask.typing import ResponseReturnValue

from fenwick.data.builds import add_build_photo, build_photo, remove_build_photo
from fenwick.web.build.hand import in_hand
from fenwick.web.build.step_page import step_page
from fenwick.web.build.view import address
from fenwick.web.kit.database import session
from fenwick.web.kit.photos import BadPhotoError, small_jpeg

bp = Blueprint("photos", __name__)


@bp.post("/lines/<int:line_id>/build/photos")
def add(line_id: int) -> ResponseReturnValue:
    """Keep a photo of a step; one that is none is refused in a sentence."""
    upload = request.files.get("photo")
    picture, error = b"", ""
    try:  # it takes its time, and holds nobody up: nothing of the shop is open yet
        picture = small_jpeg(upload.stream.read() if upload else b"")
    except BadPhotoError as bad:
        error = str(bad)
    hand, step = in_hand(line_id), request.form.get("step", "")
    if step not in {one.id for one in hand.found.steps}:
        abort(404)
    if error:
        return step_page(hand, step, photo_error=error), 422
    add_build_photo(session(), line_id, hand.what, step, picture)
    return redirect(address(hand, "show_step", step=step))


@bp.get("/lines/<int:line_id>/build/photos/<int:photo_id>.jpg")
def show(line_id: int, photo_id: int) -> ResponseReturnValue:
    """A photo."""
    return Response(build_photo(session(), line_id, photo_id).picture, mimetype="image/jpeg")


@bp.post("/lines/<int:line_id>/build/photos/<int:photo_id>/remove")
def remove(line_id: int, photo_id: int) -> ResponseReturnValue:
    """Throw a photo away."""
    hand = in_hand(line_id)
    return redirect(address(hand, "show_step", step=remove_build_photo(session(), line_id, photo_id)))
