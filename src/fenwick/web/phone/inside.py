"""The inside of the bin: photos pinned to their heights, beside what the model keeps with dust up to there."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from fenwick.data.lines import LineState, line_names, line_state
from fenwick.data.logbook import add_entries, add_log_photo
from fenwick.drawing.bin_pins import Pin, render_bin_pins
from fenwick.logged import Logged
from fenwick.logged.check import problems_of
from fenwick.phone.words import MEANS
from fenwick.rig.voice import voice_for
from fenwick.services.inside import KeptByHeight, PinnedPhoto, kept_by_height, pinned_photos
from fenwick.services.logbook.holders import first_separator, over_bin
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.photos import BadPhotoError, small_jpeg
from fenwick.web.kit.units import unit_system
from fenwick.wording.say import Voice

bp = Blueprint("inside", __name__)


@dataclass(frozen=True)
class ShownPhoto:
    """One photo in words."""

    number: int
    entry: int
    photo: int | None
    height: str
    day: str
    words: str
    says: str  #: the model, of dust up to there


@bp.get("/lines/<int:line_id>/phone/inside")
def show(line_id: int) -> ResponseReturnValue:
    """The bin with its photos."""
    return _page(line_state(session(), line_id))


@bp.post("/lines/<int:line_id>/phone/inside")
def pin(line_id: int) -> ResponseReturnValue:
    """Pin a photo to its height; it is an entry of the log."""
    upload = request.files.get("photo")
    try:  # it takes its time, and holds nobody up: nothing of the shop is open yet
        picture = small_jpeg(upload.stream.read() if upload else b"")
    except BadPhotoError as bad:
        return _page(line_state(session(), line_id), photo_error=str(bad)), 422
    state = line_state(session(), line_id)
    entry, error = _entry(state)
    if entry is None:
        return _page(state, height_error=error), 422
    (added,) = add_entries(session(), [entry], "Photo of the inside of the bin")
    add_log_photo(session(), added, picture)
    flash("Pinned, and in the log; Undo there takes it back.")
    return redirect(url_for("phone.inside.show", line_id=line_id))


def _entry(state: LineState) -> tuple[Logged | None, str]:
    """(the entry, what is wrong with its height); None where something is."""
    text = request.form.get("height", "").strip()
    try:
        height = parse_value(text, "bore", unit_system())
    except BadNumberError as bad:
        return None, f"{str(bad)[:1].upper()}{str(bad)[1:]}" if text else "Type how high over the floor it was taken."
    words = request.form.get("words", "").strip()[:300]
    at = shop_clock().replace(second=0, microsecond=0)
    entry = Logged("inside", at, state.id, words=words, level=height)
    wrong = next(iter(problems_of(entry, shop_clock())), None)
    if wrong is not None or over_bin(entry, state.rig) is not None:
        rim = _rim(state)
        top = "" if rim is None else f", which is {format_value(rim, 'bore', unit_system(), unit=True)} up"
        return None, f"Between the floor and the rim of the bin{top}."
    return entry, ""


def _rim(state: LineState) -> float | None:
    part = first_separator(state.rig)
    return None if part is None else part.bin.profile[-1].height_m


def _page(state: LineState, photo_error: str = "", height_error: str = "") -> str:
    voice = voice_for(state.rig, unit_system())
    found, pinned = kept_by_height(state.rig), pinned_photos(session(), state.id)
    label = unit_label("bore", unit_system())
    height = Field("height", "How high over the floor", request.form.get("height", ""), label, error=height_error)
    return render_template(
        "phone/inside.html",
        state=state,
        lines=line_names(session(), state.id),
        means=MEANS,
        has_bin=_rim(state) is not None,
        drawn=_drawn(state, found, pinned, voice),
        photos=[_shown(i, one, found, voice) for i, one in enumerate(pinned, start=1)],
        height=height,
        words=request.form.get("words", ""),
        photo_error=photo_error,
    )


def _drawn(state: LineState, found: KeptByHeight | None, pinned: list[PinnedPhoto], voice: Voice) -> Markup:
    if found is None:
        return Markup()
    part = first_separator(state.rig)
    fill = None if part is None else part.bin.fill_height_m
    pins = [Pin(i, one.height) for i, one in enumerate(pinned, start=1)]
    return render_bin_pins(found.heights, found.widths, found.kept, pins, fill, voice)


def _shown(number: int, one: PinnedPhoto, found: KeptByHeight | None, voice: Voice) -> ShownPhoto:
    return ShownPhoto(
        number,
        one.entry,
        one.photo,
        voice.figure(one.height, "bore"),
        f"{one.at.day} {one.at:%B %Y}",
        one.words,
        "" if found is None else _says(one.height, found, voice),
    )


def _says(height: float, found: KeptByHeight, voice: Voice) -> str:
    """What the model says is kept, and thrown back, with dust up to a height."""
    back = found.thrown_back(height)
    told = f"With dust up to there the model keeps {voice.figure(found.at(height), 'share')}"
    if back < 0.005:
        return f"{told}: no more is thrown back than from an empty bin."
    return f"{told}; {100.0 * back:.0f} of 100 parts are thrown back that an empty bin keeps."
