"""What a part can be exchanged for: what the shop owns, and what is sold."""

from __future__ import annotations

from fenwick.core.catalogue.parts import HOSE_BORES, hose_price
from fenwick.core.search.changes import Candidate
from fenwick.core.search.drawer import SAME_BORE
from fenwick.rig import Rig
from fenwick.rig.edits.changes import candidate_key
from fenwick.rig.format.elements import HosePart, ReducerPart
from fenwick.rig.format.separator import SeparatorPart
from fenwick.shop import ShopFile
from fenwick.shop.into_line import SOLD_WALLS
from fenwick.units import format_value
from fenwick.web.kit.words import choice_word

Swaps = list[tuple[str, list[tuple[str, str]]]]


def swaps_for(rig: Rig, part: str, shop: ShopFile | None, system: str) -> Swaps:
    """(heading, choices as (value, words)) for a part; empty where there is nothing to exchange it for."""
    if part == "vacuum":
        owned = [(f"vacuum:{v.id}", v.name) for v in shop.vacuums] if shop else []
        return [("From the shop", owned)] if owned else []
    if any(branch.id == part and branch.port for _, branch in rig.line.walk()):
        tools = [(f"tool:{t.id}", t.ports[0].name) for t in shop.tools] if shop else []
        return [("From the shop", tools)] if tools else []
    elements = [e for _, branch in rig.line.walk() for e in branch.elements] + list(rig.line.elements)
    hose = next((e for e in elements if e.id == part), None)
    if isinstance(hose, SeparatorPart) and shop and shop.bins:
        return [("Bins of the shop", [(f"bin:{b.id}", f"{b.name}, {_bore(b.top_d_m, system)}") for b in shop.bins])]
    if isinstance(hose, ReducerPart) and shop and shop.fittings:
        fittings = [
            (f"fitting:{f.id}", f"{f.name}, {_bore(f.one_bore_m, system)} to {_bore(f.other_bore_m, system)}")
            for f in shop.fittings
        ]
        return [("From the drawer", fittings)]
    if not isinstance(hose, HosePart):
        return []
    found: Swaps = []
    if shop and shop.hoses:
        found.append(
            (
                "From the drawer",
                [(f"hose:{h.id}", f"{h.name}, {_size(h.bore_m, h.length_m, system)}") for h in shop.hoses],
            )
        )
    money = shop.money if shop else "€"

    def words(bore: float, wall: str) -> str:
        price = hose_price(bore, hose.length_m, wall)
        return f"{_bore(bore, system)} {choice_word('wall', wall).lower()}, about {price:.0f} {money}"

    sold = [(f"sold:{bore:g}:{wall}", words(bore, wall)) for wall in SOLD_WALLS for bore in HOSE_BORES]
    return [*found, ("Bought, as long as this one", sold)]


def bores_to_try(rig: Rig, part: str, system: str) -> tuple[tuple[str, str], ...]:
    """(key of the change, words) of the bores next to a hose's own; empty for what is no hose."""
    elements = [e for _, branch in rig.line.walk() for e in branch.elements] + list(rig.line.elements)
    hose = next((e for e in elements if e.id == part and isinstance(e, HosePart)), None)
    if hose is None:
        return ()
    narrower = [bore for bore in HOSE_BORES if bore < hose.bore_m - SAME_BORE][-2:]
    wider = [bore for bore in HOSE_BORES if bore > hose.bore_m + SAME_BORE][:2]
    return tuple((candidate_key(Candidate("bore", part, bore)), _bore(bore, system)) for bore in (*narrower, *wider))


def _bore(bore: float, system: str) -> str:
    return format_value(bore, "bore", system, unit=True)


def _size(bore: float, length: float, system: str) -> str:
    return f"{_bore(bore, system)} × {format_value(length, 'length', system, unit=True)}"
