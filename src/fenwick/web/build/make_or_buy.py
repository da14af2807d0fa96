"""Made against bought: a table of every kind, and taking one of them."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, abort, redirect, render_template, request
from flask.typing import ResponseReturnValue

from fenwick.builds.edit import choose
from fenwick.core.search.designs import BOUGHT, MADE
from fenwick.data.builds import build_state, change_build
from fenwick.data.lines import line_names
from fenwick.rig.edits.kinds import KINDS, change_kind
from fenwick.rig.voice import voice_for
from fenwick.services.make_or_buy import TIMES, MakeOrBuy, make_or_buy_of
from fenwick.web.build.hand import InHand, in_hand
from fenwick.web.build.view import address
from fenwick.web.kit.database import session
from fenwick.web.kit.history import form_line, save
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.facts import duration
from fenwick.wording.making.names import TOOLS
from fenwick.wording.say import Voice

bp = Blueprint("make_or_buy", __name__)
TIME_WORDS = {"20-minutes": "20 minutes", "evening": "an evening", "weekend": "a weekend"}
HOW_WORDS = {MADE: "made", BOUGHT: "bought"}


@dataclass(frozen=True)
class MakeOrBuyRow:
    """A row of the table."""

    kind: str
    how: str
    title: str
    how_words: str
    here: bool
    kept: str
    money: str
    hours: str
    ready: str
    missing: str


@bp.get("/lines/<int:line_id>/build/make-or-buy")
def show_make_or_buy(line_id: int) -> ResponseReturnValue:
    """Every kind, made and bought, within the time and with the tools one has."""
    hand = in_hand(line_id)
    time = request.args.get("time", "")
    time = time if time in TIMES else ""
    tools = request.args.get("tools") == "1"
    ways = make_or_buy_of(hand.state.rig, hand.what, hand.asked)
    voice = voice_for(hand.state.rig, unit_system())
    rows = [_row(way, hand, voice) for way in ways if way.within(time or None, tools=tools)]
    return render_template(
        "build/make_or_buy.html", hand=hand, rows=rows, time=time, tools=tools, times=TIME_WORDS, all=len(ways),
        known=hand.asked.workshop.known, lines=line_names(session(), line_id),
    )  # fmt: skip


@bp.post("/lines/<int:line_id>/build/make-or-buy/<kind>/<how>")
def take_make_or_buy(line_id: int, kind: str, how: str) -> ResponseReturnValue:
    """Put a kind on the line, to be made or bought."""
    hand, state = in_hand(line_id), form_line(line_id)
    if kind not in KINDS or how not in HOW_WORDS:
        abort(404)
    here = next((way.here for way in make_or_buy_of(state.rig, hand.what, hand.asked) if way.kind == kind), None)
    if here is None:
        abort(404)
    if not here:
        save(line_id, change_kind(state.rig, hand.what, kind), f"{KINDS[kind].label} in place of {hand.title}")
    build = build_state(session(), line_id, hand.what).file
    changed = choose(build, bought=how == BOUGHT)
    if changed != build:
        change_build(session(), line_id, hand.what, changed, f"{KINDS[kind].label}, {HOW_WORDS[how]}")
    return redirect(address(hand, "show"))


def _row(way: MakeOrBuy, hand: InHand, voice: Voice) -> MakeOrBuyRow:
    money = hand.state.owned.money if hand.state.owned is not None else "€"
    return MakeOrBuyRow(
        way.kind, way.how, KINDS[way.kind].label, HOW_WORDS[way.how],
        way.here and hand.found.file.bought == (way.how == BOUGHT),
        "not known" if way.kept is None else voice.figure(way.kept, "share"), f"{way.money:.0f} {money}",
        duration(way.hours * 3600.0), duration(way.ready), ", ".join(TOOLS[one] for one in way.missing),
    )  # fmt: skip
