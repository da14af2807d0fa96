"""What would help a line at a tool port: single changes, other vacuums of the shop; ranked once for each line."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.search.changes import candidates
from fenwick.core.search.figures import figures_at
from fenwick.core.search.whatif import ChangeOutcome, Picked, pick, try_all
from fenwick.rig import Rig
from fenwick.services.solving import solve
from fenwick.shop import ShopFile
from fenwick.shop.into_line import with_other_vacuums


@lru_cache(maxsize=64)
def changes_for(rig: Rig, shop: ShopFile | None, port: int) -> tuple[ChangeOutcome, ...]:
    """Every single change that gains something at a port, the best first; of one kind at one part only the best.

    Nothing where the port is shut.
    """
    solved = solve(rig)
    line = solved.line
    if not line.leaves[port].open:
        return ()
    now = figures_at(line, solved.found, port)
    best: dict[tuple[str, str], ChangeOutcome] = {}
    for outcome in try_all(line, port, candidates(line, port), now, with_other_vacuums(rig, shop)):
        best.setdefault((outcome.candidate.kind, outcome.candidate.part), outcome)
    return tuple(best.values())


def advice_for(rig: Rig, shop: ShopFile | None, port: int, most: int) -> Picked:
    """The single changes to show at a port: the best, and what helps every figure that is to act on.

    Parameters
    ----------
    port : its place among the leaves [-]
    most : that are shown for being the best [-]
    """
    solved = solve(rig)
    if not solved.line.leaves[port].open:
        return Picked((), (), ())
    acting = figures_at(solved.line, solved.found, port).to_act_on()
    return pick(changes_for(rig, shop, port), acting, most)


@lru_cache(maxsize=64)
def smaller_vacuums(rig: Rig, shop: ShopFile | None, port: int) -> tuple[str, ...]:
    """Ids of the shop's vacuums with a smaller tank than the line's that would do as well at a port."""
    solved = solve(rig)
    if not solved.line.leaves[port].open:
        return ()
    now = figures_at(solved.line, solved.found, port)
    outcomes = try_all(solved.line, port, (), now, with_other_vacuums(rig, shop))
    return tuple(one.candidate.part for one in outcomes if one.spares_room)
