"""What joins a hose of another bore to its neighbours: adapters of the drawer first, bought ones else."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from fenwick.core.catalogue.parts import ADAPTER_PRICE
from fenwick.core.search.drawer import SAME_BORE
from fenwick.rig import Rig
from fenwick.rig.format.elements import LeakPart
from fenwick.services.moves.move import MoveGround


@dataclass(frozen=True)
class FitUp:
    """What it takes to fit a bore between its neighbours."""

    cost: float  #: of adapters to buy, in the shop's money
    uses: tuple[str, ...] = ()  #: ids of the drawer's adapters


def fit_up(ground: MoveGround, part: str, bore: float) -> FitUp:
    """Adapters at both ends of a part in another bore; none where one is there already or none is needed.

    Parameters
    ----------
    bore : of the part then [m]
    """
    cost, uses = 0.0, []
    for beside in _bores_beside(ground.rig, part):
        if abs(beside - bore) <= SAME_BORE:
            continue
        owned = next((one for one in _joining(ground, beside, bore) if one not in uses), None)
        if owned is None:
            cost += ADAPTER_PRICE
        else:
            uses.append(owned)
    return FitUp(cost, tuple(uses))


def _joining(ground: MoveGround, one: float, other: float) -> Iterator[str]:
    wanted = sorted((one, other))
    for fitting in ground.shop.fittings if ground.shop is not None else ():
        has = sorted((fitting.one_bore_m, fitting.other_bore_m))
        if all(abs(a - b) <= SAME_BORE for a, b in zip(wanted, has, strict=True)):
            yield fitting.id


def _bores_beside(rig: Rig, part: str) -> list[float]:
    """Bores that a part's two ends meet [m]; an end where none is told is left out."""
    for way in rig.line.ways:
        assert way[0].port is not None
        stops: list[tuple[str, float | None, float | None]] = [(way[0].id, None, way[0].port.bore_m)]
        along = (*(e for branch in way for e in branch.elements), *rig.line.elements)
        stops += [_stop(element) for element in along if not isinstance(element, LeakPart)]
        for at, (own, *_) in enumerate(stops):
            if own == part and at > 0:
                ahead, behind = stops[at - 1][2], stops[at + 1][1] if at + 1 < len(stops) else None
                return [bore for bore in (ahead, behind) if bore is not None]
    return []


def _stop(element: Any) -> tuple[str, float | None, float | None]:
    """(id, bore that the air comes in by, bore that it leaves by)."""
    both = getattr(element, "bore_m", None)
    comes = getattr(element, "bore_in_m", getattr(element, "inlet_bore_m", both))
    leaves = getattr(element, "bore_out_m", getattr(element, "outlet_d_m", both))
    return element.id, comes, leaves
