"""The single changes of a line as moves, with what each takes."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.parts import ADAPTER_PRICE, HOSE_BORES, hose_price
from fenwick.core.components.elements import Hose
from fenwick.core.line.ports import line_alone
from fenwick.core.search.changes import KINDS, NARROWER, SHUT, STEP_DOWN, Candidate, candidates
from fenwick.core.search.way.options import WayOption
from fenwick.rig.edits.changes import apply_candidate, candidate_key
from fenwick.services.moves.fittings import FitUp, fit_up
from fenwick.services.moves.move import Move, MoveGround
from fenwick.wording.whatif import action_words

STEPS_AWAY = 2  #: sizes sold, that another bore may be from the one there is
#: gates are worked as the work wants them; how far a hose may be cut the floor plan tells; boxes are moves of hoods
NOT_HERE = (SHUT, "close-in", "shorter")
TIDY = ("clean", "clean-bag", "clean-inline", "empty", "upright")
OF_HOSE = ("bore", "smooth", "straight", NARROWER)
AT_PORT = ("nearer", "entry", STEP_DOWN)
SIZES = ("bore", NARROWER, STEP_DOWN)


def single_moves(ground: MoveGround) -> Iterator[Move]:
    """Every sensible single change at the ports that are worked at, each once."""
    seen: set[Candidate] = set()
    for port in ground.ports:
        lone = line_alone(ground.line, port)
        for change in candidates(lone, port):
            if change in seen or change.kind in NOT_HERE or (change.kind == "bore" and not _near(ground, change)):
                continue
            seen.add(change)
            apart = KINDS[change.kind].apart(lone, change) is not None
            cost, hours, uses = _takes(ground, change)
            slot = f"{'size' if change.kind in SIZES else change.kind}~{change.part}"
            option = WayOption(
                candidate_key(change), change.part, slot, cost, hours, () if apart else (change,), uses
            )  # fmt: skip
            yield Move(option, partial(action_words, change), partial(apply_candidate, candidate=change))


def hoses_of(ground: MoveGround) -> dict[str, Hose]:
    """Every hose of the line by its id."""
    every = [part for leaf in ground.line.leaves for branch in leaf.way for part in branch.elements]
    return {part.id: part for part in (*every, *ground.line.trunk) if isinstance(part, Hose)}


def _near(ground: MoveGround, change: Candidate) -> bool:
    """Whether a bore is not many sizes from the one there is."""
    hose = hoses_of(ground)[change.part]
    sizes = sorted({*HOSE_BORES, one_value(hose.bore)})
    return abs(sizes.index(change.value) - sizes.index(one_value(hose.bore))) <= STEPS_AWAY


def _takes(ground: MoveGround, change: Candidate) -> tuple[float, float, tuple[str, ...]]:
    """(money, hours, things of the drawer) of a single change."""

    def rule(key: str) -> float:
        return one_value(ground.rules[key])

    if change.kind in TIDY:
        return 0.0, rule("way.hours-tidy"), ()
    if change.kind in AT_PORT:
        price = {"entry": rule("price.entry"), STEP_DOWN: ADAPTER_PRICE}.get(change.kind, 0.0)
        return price, rule("way.hours-hood"), ()
    if change.kind == "stiffen":
        return rule("price.ring"), rule("way.hours-ring"), ()
    if change.kind in OF_HOSE:
        joined = fit_up(ground, change.part, change.value) if change.kind == "bore" else FitUp(0.0)
        return joined.cost + _hose_price(ground, change), rule("way.hours-hose"), joined.uses
    if change.kind == "taper":
        return ADAPTER_PRICE, rule("way.hours-hose"), ()
    return rule("price.sealant"), rule("way.hours-joint"), ()  # a leak, a lid


def _hose_price(ground: MoveGround, change: Candidate) -> float:
    hose = hoses_of(ground).get(change.part)
    if change.kind == "straight":
        return 0.0
    if hose is not None:
        wall = "smooth" if change.kind == "smooth" else hose.wall or "wire-helix"
        return hose_price(change.value if change.kind == "bore" else one_value(hose.bore), one_value(hose.length), wall)
    leaf = next(one for one in ground.line.leaves if one.id == change.part)
    mine = [part for part in leaf.way[0].elements if isinstance(part, Hose)]
    return sum(hose_price(change.value, one_value(one.length), one.wall or "wire-helix") for one in mine)
