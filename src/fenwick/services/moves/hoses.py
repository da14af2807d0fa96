"""Hoses of the drawer in the place of those that lie there, and hoses cut to what the floor plan takes."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from fenwick.core.arrays import one_value
from fenwick.core.line.rows import bends_of_wall
from fenwick.core.search.changes import SHORTEST, Candidate
from fenwick.core.search.drawer import SAME_BORE
from fenwick.core.search.way.options import WayOption
from fenwick.rig.edits.changes import apply_candidate, candidate_key
from fenwick.rig.edits.routes import route_length
from fenwick.rig.format.elements import HosePart
from fenwick.services.moves.fittings import fit_up
from fenwick.services.moves.move import Move, MoveGround, said
from fenwick.shop.drawer import planned_reach
from fenwick.shop.into_line import put_hose
from fenwick.shop.model import OwnedHose
from fenwick.units.sentence import inside
from fenwick.wording.whatif import action_words

SHORT = 0.1  #: that a hose of the drawer may be shorter than the one it replaces [m]
WORTH_A_CUT = 0.3  #: what a hose must be too long by before it is cut [m]


def hose_moves(ground: MoveGround) -> Iterator[Move]:
    """Of every hose on the line, trunk included."""
    yield from _from_drawer(ground)
    yield from _cut(ground)


def _from_drawer(ground: MoveGround) -> Iterator[Move]:
    shop, line = ground.shop, ground.rig.line
    if shop is None:
        return
    parts = [part for _, branch in line.walk() for part in branch.elements] + list(line.elements)
    hoses = [one for one in parts if isinstance(one, HosePart)]
    laid = {ground.voice.name(one.id).lower() for one in hoses}  # what lies on the line is not in the drawer
    for part in hoses:
        for owned in (one for one in shop.hoses if one.name.lower() not in laid):
            alike = abs(owned.bore_m - part.bore_m) <= SAME_BORE and (owned.wall != "smooth" or part.wall == "smooth")
            if not alike and owned.length_m >= part.length_m - SHORT:
                yield _owned_hose(ground, part, owned)


def _owned_hose(ground: MoveGround, part: HosePart, owned: OwnedHose) -> Move:
    rules = ground.line.rules
    values = {
        "bore": owned.bore_m, "shorter": owned.length_m, "roughness": one_value(rules[f"wall.{owned.wall}"]),
        "bends": one_value(bends_of_wall(owned.wall, rules)),
    }  # fmt: skip
    numbers = [Candidate(kind, part.id, value) for kind, value in values.items()]
    joined, hours = fit_up(ground, part.id, owned.bore_m), one_value(ground.rules["way.hours-hose"])
    option = WayOption(
        f"hose~{part.id}~{owned.id}", part.id, f"size~{part.id}", joined.cost, hours, tuple(numbers),
        (owned.id, *joined.uses),
    )  # fmt: skip
    words = f"{owned.name} from the drawer in the place of {inside(ground.voice.name(part.id))}"
    return Move(option, said(words), partial(put_hose, part=part.id, hose=owned))


def _cut(ground: MoveGround) -> Iterator[Move]:
    """A tool's own first hose cut to what the way to the separator takes on the floor plan."""
    if ground.shop is None:
        return
    for port in ground.ports:
        branch = ground.rig.line.ways[port][0]
        hose = next((one for one in branch.elements if isinstance(one, HosePart)), None)
        reach = planned_reach(ground.rig, branch.id, ground.shop)
        if hose is None or reach is None:
            continue
        over = route_length(ground.rig, branch.id) - reach
        left = round(max(hose.length_m - over, SHORTEST), 2)
        if hose.length_m - left < WORTH_A_CUT:
            continue
        change = Candidate("shorter", hose.id, left)
        hours = one_value(ground.rules["way.hours-hose"])
        option = WayOption(candidate_key(change), hose.id, f"size~{hose.id}", 0.0, hours, (change,))
        yield Move(option, partial(action_words, change), partial(apply_candidate, candidate=change))
