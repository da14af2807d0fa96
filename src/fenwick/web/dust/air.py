"""The card of the room's air: a job, its curves, and what would shorten the time behind a mask."""

from __future__ import annotations

from dataclasses import dataclass, replace

from markupsafe import Markup

from fenwick.core.hours.air import USUAL_JOB, Room, Session, session
from fenwick.core.rules import RuleBook
from fenwick.drawing.air_chart import AirCurve, render_air
from fenwick.rig import Rig
from fenwick.rig.edits.ports import alone
from fenwick.services.air import source_at
from fenwick.services.solving import solve
from fenwick.shop import ShopFile
from fenwick.shop.work import HOUR, room_of_shop
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.wording.air import CAUTIONS, airing_words, dose_row, mask_row
from fenwick.wording.rows import VerdictRow
from fenwick.wording.say import Voice

MINUTES = USUAL_JOB / 60.0  #: of a job, until another is typed
MOST_MINUTES = 600.0
SPAN = 90.0 * 60.0  #: shown after the job, at least [s]


@dataclass(frozen=True)
class Typed:
    """What was typed on the card, as text."""

    minutes: str = ""
    cleaned: str = ""


@dataclass(frozen=True)
class AirCard:
    """The card."""

    fields: tuple[Field, ...]
    chart: Markup | None
    rows: list[VerdictRow]
    ways: list[tuple[str, str]]  #: (what to do, what it changes)
    cautions: tuple[str, ...]
    room: str
    minutes: str  #: of the job
    why_not: str = ""


def air_card(
    rig: Rig, previous: Rig | None, port: str, shop: ShopFile, typed: Typed, voice: Voice, rules: RuleBook
) -> AirCard:
    """The air over a job at one port; `previous` is the line before its last change."""
    fields, duration, cleaned = _read(shop, typed, voice, rules)
    room = room_of_shop(shop, rules)
    size = voice.figure(float(shop.room.volume), "length", unit=False)
    shut = "" if shop.room.air_changes_per_h is not None else " (assumed: shut)"
    changes = f"{float(room.changes) * HOUR:.1f} air changes an hour{shut}"
    unit = "m³" if voice.system == "metric" else ""
    words = f"{size} {unit} room, {changes}" if unit else f"room with {changes}"
    solved = solve(rig)
    source = source_at(solved, port)
    if source is None or any(field.error for field in fields):
        why = "" if source is None else "Mend the field above to see the curve."
        missing = "It takes the dust, the hood and the dust made in a minute at this tool."
        return AirCard(fields, None, [], [], CAUTIONS, words, fields[0].text, why or missing)
    span = duration + SPAN
    now = session(room, source, duration, span, rules)
    curves = [AirCurve("now", "as it is", now)]
    ways = []
    for key, name, other in _airings(room, cleaned, rules, voice):
        then = session(other, source, duration, span, rules)
        curves.append(AirCurve(key, {"filter": "room filter", "door": "door open"}[key], then))
        ways.append((name, airing_words(key, now, then)))
    before = _before(previous, port, room, duration, span, rules)
    if before is not None and abs(before.peak - now.peak) > 0.005 * max(before.peak, now.peak):
        curves.append(AirCurve("before", "before", before))
        turn = "lower" if now.peak < before.peak else "higher"
        change = abs(1.0 - now.peak / before.peak) if before.peak > 0.0 else 1.0
        ways.append(("Your last change", f"made the peak {100.0 * change:.0f} % {turn}"))
    ways.append(("Work outdoors", "nothing builds up; keep the mask on at the tool"))
    return AirCard(
        fields,
        render_air(curves, duration, voice, "air"),
        [mask_row(now, source, rules, voice), dose_row(now, rules, voice)],
        ways,
        CAUTIONS,
        words,
        fields[0].text,
    )


def job_duration(shop: ShopFile, typed: Typed, voice: Voice, rules: RuleBook) -> float:
    """How long the job lasts that the card looks at [s]."""
    return _read(shop, typed, voice, rules)[1]


def _airings(room: Room, cleaned: float, rules: RuleBook, voice: Voice) -> list[tuple[str, str, Room]]:
    door = max(float(rules["room.door-open"]) / HOUR, float(room.changes))
    flow = voice.figure(cleaned, "flow")
    return [
        ("filter", f"A room filter of {flow}", replace(room, cleaned=cleaned)),
        ("door", "A door open", replace(room, changes=door)),
    ]


def _read(shop: ShopFile, typed: Typed, voice: Voice, rules: RuleBook) -> tuple[tuple[Field, ...], float, float]:
    """The two fields, minutes of the job [s], and what a room filter cleans [m^3/s]."""
    usual = shop.room.filter_flow_m3_s or float(rules["room.filter"])
    text = typed.minutes or f"{MINUTES:g}"
    minutes_error = ""
    duration = MINUTES * 60.0
    try:
        given = parse_value(text, "number", voice.system)
        if 0.0 < given <= MOST_MINUTES:
            duration = given * 60.0
        else:
            minutes_error = f"must be above 0 and at most {MOST_MINUTES:.0f} minutes"
    except BadNumberError as error:
        minutes_error = str(error)
    flow_text = typed.cleaned or format_value(usual, "flow", voice.system, field=True)
    cleaned, flow_error = usual, ""
    try:
        cleaned = parse_value(flow_text, "flow", voice.system)
        if not 0.0 <= cleaned <= 5.0:
            cleaned, flow_error = usual, "must be between 0 and what a fan can move"
    except BadNumberError as error:
        flow_error = str(error)
    return (
        (
            Field("minutes", "The tool runs", text, "min", error=minutes_error),
            Field("cleaned", "A room filter of", flow_text, unit_label("flow", voice.system), error=flow_error),
        ),
        duration,
        cleaned,
    )


def _before(
    previous: Rig | None, port: str, room: Room, duration: float, span: float, rules: RuleBook
) -> Session | None:
    """The air over the same job with the line as it was; None where that cannot be told."""
    rig = alone(previous, port) if previous else None
    if rig is None:
        return None
    solved = solve(rig)
    source = source_at(solved, port)
    return None if source is None else session(room, source, duration, span, rules)
