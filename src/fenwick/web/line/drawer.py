"""Routes of “best line from the drawer”: what the owned hoses and fittings make, free and for some money."""

from __future__ import annotations

from dataclasses import dataclass, replace

from flask import abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.search.drawer import Task
from fenwick.core.search.figures import Figures, figures_at
from fenwick.data.lines import LineState, free_name, line_state
from fenwick.data.shops import the_shop
from fenwick.rig import RigError, build_line, edit_rig
from fenwick.rig.voice import voice_for
from fenwick.services import lines, solving
from fenwick.services.checks import acts_of
from fenwick.services.drawer import from_drawer
from fenwick.shop.drawer import FoundLine, task_for
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.database import session
from fenwick.web.kit.errors import refusal
from fenwick.web.kit.fields import Field
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.pieces import BeforeAfter
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.words import choice_word
from fenwick.web.line.routes import bp
from fenwick.wording.hookup import HookUp, hook_up
from fenwick.wording.say import Voice

USUAL_SPEND = 40.0  #: tried first, in the shop's money
MOST_SPEND = 10_000.0
MOST_LENGTH = 50.0  #: [m]


@dataclass(frozen=True)
class Card:
    """One line from the drawer."""

    index: int
    paid: bool
    title: str
    figures: list[BeforeAfter]  #: today, and with it
    buy: list[str]
    hook_up: HookUp


@dataclass(frozen=True)
class DrawerAsked:
    """What was asked for, as typed and as read."""

    port: str
    fields: tuple[Field, ...]
    task: Task | None  #: None where something could not be read


@bp.get("/lines/<int:line_id>/drawer")
def drawer(line_id: int) -> ResponseReturnValue:
    """The best three at no cost, and the best for the money allowed."""
    state = line_state(session(), line_id)
    if state.owned is None:
        return refusal("What the shop owns cannot be read: its page says why.")
    ask = _ask(state)
    if ask.task is None:
        return _page(state, ask, [], ""), 422
    try:
        cards, note = _cards(state, ask)
    except (RigError, ValueError) as error:
        return _page(state, ask, [], f"This drawer cannot be tried: {error}."), 422
    return _page(state, ask, cards, note)


@bp.post("/lines/<int:line_id>/drawer")
def make_variant(line_id: int) -> ResponseReturnValue:
    """Keep one of them as a line of its own."""
    state = line_state(session(), line_id)
    if state.owned is None:
        abort(400)
    ask = _ask(state)
    if ask.task is None:
        abort(400)
    made = from_drawer(state.rig, ask.port, state.owned, ask.task)
    found = made.paid if request.values.get("paid") else made.free
    index = request.form.get("index", -1, type=whole)
    if not 0 <= index < len(found):
        abort(404)
    rig = edit_rig(found[index].rig, {"name": free_name(session(), line_id, "From the drawer")})
    (new,) = lines.add(session(), the_shop(session()), rig)
    return redirect(url_for("line.show", line_id=new, panel="hookup"))


def _ask(state: LineState) -> DrawerAsked:
    ids = [way[0].id for way in state.rig.line.ways]
    asked = request.values.get("port")
    port = asked if asked in ids else ids[0]
    assert state.owned is not None
    usual = task_for(state.rig, port, state.owned, USUAL_SPEND)
    system = unit_system()
    specs = (
        ("reach", "Tool to separator", "length", usual.reach, MOST_LENGTH),
        ("link", "Separator to vacuum", "length", usual.link_reach, MOST_LENGTH),
        ("spend", f"Spend at most, {state.owned.money}", "number", usual.spend, MOST_SPEND),
    )
    fields, values = [], []
    for name, label, quantity, value, most in specs:
        text = request.values.get(name, "").strip() or format_value(value, quantity, system, field=True)
        field = Field(name, label, text, unit_label(quantity, system))
        try:
            read = parse_value(text, quantity, system)
            if not 0.0 <= read <= most:
                raise BadNumberError(text, f"Must be between 0 and {format_value(most, quantity, system, unit=True)}.")
            values.append(read)
        except BadNumberError as error:
            field = replace(field, error=str(error))
        fields.append(field)
    return DrawerAsked(port, tuple(fields), Task(*values) if len(values) == len(specs) else None)


def _cards(state: LineState, ask: DrawerAsked) -> tuple[list[Card], str]:
    assert ask.task is not None
    assert state.owned is not None
    system = unit_system()
    solved = solving.solve(state.rig)
    at = [leaf.id for leaf in solved.line.leaves].index(ask.port)
    today = figures_at(solved.line, solved.found, at)
    made = from_drawer(state.rig, ask.port, state.owned, ask.task)
    free = made.free
    cards = [_card(i, found, today, state, system, paid=False) for i, found in enumerate(free)]
    cards += [_card(i, found, today, state, system, paid=True) for i, found in enumerate(made.paid)]
    note = ""
    if not free:
        longest = max((h.length_m for h in state.owned.hoses), default=0.0)
        shown = format_value(longest, "length", system, unit=True)
        note = f"Nothing in the drawer reaches and joins up at no cost; its longest hose has {shown}."
    return cards, note


def _card(index: int, found: FoundLine, today: Figures, state: LineState, system: str, *, paid: bool) -> Card:
    voice = voice_for(found.rig, system)
    line = build_line(found.rig)
    chosen = found.line.assignment
    assert state.owned is not None
    owned = {hose.id: hose.name for hose in state.owned.hoses}
    names = [owned.get(h.id, "a new hose") for h in (*chosen.run, *([chosen.link] if chosen.link else []))]
    acts = (acts_of(state.rig, state.owned), acts_of(found.rig, state.owned))
    return Card(
        index=index,
        paid=paid,
        title=f"{', '.join(names)}; {found.rig.vacuum.name}",
        figures=_figures(today, found.figures, voice, acts),
        buy=_buy(found, state.owned.money, system),
        hook_up=hook_up(line, 0, voice),
    )


def _figures(today: Figures, new: Figures, voice: Voice, acts: tuple[int, int]) -> list[BeforeAfter]:
    rows = [BeforeAfter("Air at the tool", _figure(today.flow[0], "flow", voice), _figure(new.flow[0], "flow", voice))]
    for what, quantity, before, after in (
        ("Slowest speed", "speed", today.speed, new.speed),
        ("Kept in the bin", "share", today.kept, new.kept),
    ):
        if before is not None and after is not None:
            rows.append(BeforeAfter(what, _figure(before[0], quantity, voice), _figure(after[0], quantity, voice)))
    rows.append(BeforeAfter("Checks to act on", str(acts[0]), str(acts[1])))
    return rows


def _figure(value: float, quantity: str, voice: Voice) -> str:
    return voice.figure(float(value), quantity)


def _buy(found: FoundLine, money: str, system: str) -> list[str]:
    said = []
    for item in found.buy:
        if item == "adapter":
            said.append("an adapter")
            continue
        _, bore, wall, length = item.split(":")
        size = format_value(float(bore), "bore", system, unit=True)
        metres = format_value(float(length), "length", system, unit=True)
        said.append(f"{metres} of {size} hose, {choice_word('wall', wall).lower()}")
    if said:
        said[-1] += f": about {found.line.assignment.price:.0f} {money} in all"
    return said


def _page(state: LineState, ask: DrawerAsked, cards: list[Card], note: str) -> str:
    ports = [(way[0].id, way[0].port.name) for way in state.rig.line.ways if way[0].port]
    return render_template("line/drawer.html", state=state, ask=ask, cards=cards, note=note, ports=ports)
