"""Routes of measuring with a telephone: parse, call, render."""

from __future__ import annotations

import secrets
import threading
from functools import lru_cache

from flask import Blueprint, Response, abort, current_app, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.logbook.entries import BOUNDS, GRADED_AT, QUIET
from fenwick.data.lines import line_names, line_state
from fenwick.data.logbook import add_entries, add_log_photo
from fenwick.logged import Logged
from fenwick.logged.check import problems_of
from fenwick.phone.drawn import drawn_over
from fenwick.phone.opened import BadPhotoError
from fenwick.phone.reading import DEPTH, GREY, PITCH, TUBE, WATER_MM, PhoneReading
from fenwick.phone.scenes import scene
from fenwick.phone.words import MEANS, band_words, fact_words, value_words, words_for_log
from fenwick.rig import Rig
from fenwick.services.logbook.holders import first_separator, over_bin
from fenwick.services.phone import BAR_MM, MOST_FILES, read_by_phone
from fenwick.sheets.phone_targets import write_targets
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session, while_others_write
from fenwick.web.kit.fields import Field
from fenwick.web.kit.units import unit_system
from fenwick.web.phone.held import HeldReading, HeldReadings
from fenwick.web.phone.track import track_drawing

bp = Blueprint("phone", __name__)
EXAMPLE_SEED = 7
_ONE_AT_A_TIME = threading.Lock()
TOO_HIGH = "That is higher than the bin of this line: is it the right line, and the strip on the floor of its bin?"


@bp.get("/lines/<int:line_id>/phone")
def show(line_id: int) -> ResponseReturnValue:
    """The ways of measuring, and how one is done."""
    return _page(line_id, _kind(request.args.get("kind", GREY)))


@bp.post("/lines/<int:line_id>/phone/<kind>")
def read(line_id: int, kind: str) -> ResponseReturnValue:
    """Read what was sent; nothing of it is kept yet."""
    state = line_state(session(), line_id)
    files = [raw for one in request.files.getlist("files") if (raw := one.stream.read())]
    truth = None
    if request.form.get("stand_in"):
        drawn = scene(_kind(kind), secrets.randbelow(1_000_000))
        files, truth = [drawn.data], float(drawn.truth["value"])
    if not files:
        return _page(line_id, _kind(kind), f"Choose a {'recording' if kind == PITCH else 'photo'} first."), 422
    bar, wrong_bar = _bar()
    if wrong_bar:
        return _page(line_id, _kind(kind), bar_error=wrong_bar), 422
    if len(files) > MOST_FILES:
        return _page(line_id, _kind(kind), f"At most {MOST_FILES} at once: {len(files)} were sent, none is read."), 422
    with while_others_write(), _ONE_AT_A_TIME:  # it takes its time, and memory
        found = read_by_phone(_kind(kind), files, state.rig, bar)
        picture = _picture(found, files[-1])
    place = request.form.get("place", "")
    held = HeldReading(line_id, found, picture, place if place in GRADED_AT else "tank", truth)
    name = _held().hold(held)
    return redirect(url_for("phone.result", line_id=line_id, name=name))


@bp.get("/lines/<int:line_id>/phone/read/<name>")
def result(line_id: int, name: str) -> ResponseReturnValue:
    """What was read, with the picture; or why it could not be."""
    held = _of(line_id, name)
    status = 200 if held.found.refused is None else 422
    return _page(line_id, held.found.kind, held=held, name=name), status


@bp.get("/lines/<int:line_id>/phone/read/<name>.jpg")
def photo(line_id: int, name: str) -> ResponseReturnValue:
    """The picture, with what was seen drawn over it."""
    held = _of(line_id, name)
    if held.picture is None:
        abort(404)
    return Response(held.picture, mimetype="image/jpeg")


@bp.post("/lines/<int:line_id>/phone/read/<name>/keep")
def keep(line_id: int, name: str) -> ResponseReturnValue:
    """Log it, with its picture; the page that comes lets everything be corrected."""
    held = _of(line_id, name)
    if held.found.refused is not None:
        abort(404)
    rig = line_state(session(), line_id).rig
    entry = _entry(held, rig)
    if over_bin(entry, rig) is not None:
        return _page(line_id, held.found.kind, held=held, name=name, wrong=TOO_HIGH), 422
    (added,) = add_entries(session(), [entry], f"{MEANS[held.found.kind].title}, by telephone")
    if held.picture is not None:
        add_log_photo(session(), added, held.picture)
    flash("Logged. What is not right can be changed here; Undo in the log takes it back.")
    return redirect(url_for("log.edit", entry_id=added, just=1))


@bp.get("/phone/card.pdf")
def card() -> ResponseReturnValue:
    """Card, sheet and strip, to be printed 1:1."""
    paper = "letter" if unit_system() == "inch" else "a4"
    headers = {"Content-Disposition": 'inline; filename="fenwick-card.pdf"'}
    return Response(write_targets(paper), mimetype="application/pdf", headers=headers)


@bp.get("/phone/example/<kind>.jpg")
def example(kind: str) -> ResponseReturnValue:
    """How such a photo looks: a stand-in."""
    if kind not in MEANS or MEANS[kind].sound:
        abort(404)
    return Response(_example(kind), mimetype="image/jpeg", headers={"Cache-Control": "public, max-age=86400"})


@lru_cache(maxsize=8)
def _example(kind: str) -> bytes:
    return drawn_over(scene(kind, EXAMPLE_SEED).data, ())


def _bar() -> tuple[float, str]:
    """(what the printed bar of 50 mm measures [mm], what is wrong with what was typed)."""
    text = request.form.get("bar", "").strip()
    if not text:
        return BAR_MM, ""
    try:
        value = 1e3 * parse_value(text, "bore", unit_system())
    except BadNumberError as bad:
        return BAR_MM, f"{str(bad)[:1].upper()}{str(bad)[1:]}"
    low, high = (format_value(1e-3 * BAR_MM * by, "bore", unit_system(), field=True) for by in (0.2, 5.0))
    unit = unit_label("bore", unit_system())
    return (value, "") if 0.2 * BAR_MM <= value <= 5.0 * BAR_MM else (BAR_MM, f"From {low} to {high} {unit}.")


def _kind(kind: str) -> str:
    if kind not in MEANS:
        abort(404)
    return kind


def _held() -> HeldReadings:
    found: HeldReadings = current_app.extensions["fenwick-held-readings"]
    return found


def _of(line_id: int, name: str) -> HeldReading:
    held = _held().get(name)
    if held is None or held.line != line_id:
        abort(404)
    return held


def _picture(found: PhoneReading, raw: bytes) -> bytes | None:
    """The picture with what was seen drawn over it; None where there is none that can be shown."""
    if found.kind == PITCH:
        return None
    try:
        return drawn_over(raw, found.drawn)
    except BadPhotoError:
        return None


def _entry(held: HeldReading, rig: Rig) -> Logged:
    """The reading as an entry: by itself where the log has such a figure, else as a remark."""
    found, at = held.found, shop_clock().replace(second=0, microsecond=0)
    words = words_for_log(found, unit_system())
    entry = Logged("remark", at, held.line, words=f"{MEANS[found.kind].title}: {words}")
    assert found.value is not None
    if found.kind == GREY:
        entry = Logged("wiped", at, held.line, held.place, words=words, grade=float(round(found.value)))
    elif found.kind == DEPTH and first_separator(rig) is not None:
        entry = Logged("looked", at, held.line, words=words, level=1e-3 * found.value)
    elif found.kind == TUBE:
        entry = Logged("suction", at, held.line, words=words, suction=WATER_MM * found.value)
    elif found.kind == PITCH:
        quiet = min(max(-float(found.seen["loudness_db"]), 0.0), BOUNDS[QUIET][1])
        entry = Logged("heard", at, held.line, words=words, pitch=round(found.value, 2), quiet=round(quiet, 1))
    assert not problems_of(entry, shop_clock())
    return entry


def _bar_field(error: str) -> Field:
    usual = format_value(1e-3 * BAR_MM, "bore", unit_system(), field=True)
    text = request.form.get("bar", usual)
    return Field("bar", "The printed 50 mm bar measures", text, unit_label("bore", unit_system()), error=error)


def _page(
    line_id: int,
    kind: str,
    error: str = "",
    *,
    held: HeldReading | None = None,
    name: str = "",
    wrong: str = "",
    bar_error: str = "",
) -> str:
    state, system = line_state(session(), line_id), unit_system()
    told = held.found if held is not None and held.found.refused is None else None
    return render_template(
        "phone/page.html",
        state=state,
        lines=line_names(session(), line_id),
        means=MEANS,
        kind=kind,
        error=error,
        held=held,
        name=name,
        wrong=wrong,
        value=value_words(told, system) if told else "",
        band=band_words(told, system) if told else "",
        facts=fact_words(told, system) if told else [],
        track=track_drawing(told) if told and told.kind == PITCH else "",
        places=GRADED_AT,
        bar=_bar_field(bar_error),
        most=MOST_FILES,
    )
