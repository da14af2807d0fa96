"""The shop's drawer as stock for the best line, and a found line as a rig of its own."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.parts import HOSE_BORES, TYPICAL_LINK_LENGTH, hose_price
from fenwick.core.components.joint import End
from fenwick.core.line.joints import TROUBLE, Joint, fit_joint
from fenwick.core.line.rows import bends_of_wall
from fenwick.core.rules import RuleBook
from fenwick.core.search.drawer import SAME_BORE, DrawerLine, StockFitting, StockHose, Task, best_lines
from fenwick.core.search.figures import Figures, figures_of_each
from fenwick.rig.edits.routes import route_length
from fenwick.rig.format.elements import HosePart
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.read import check_rig
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.to_core.line import build_line, build_separator
from fenwick.shop.into_line import SOLD_WALLS, put_vacuum
from fenwick.shop.model import OwnedHose, ShopFile
from fenwick.shop.plan import lay_floor

OWN_VACUUM = "the line's own"  #: name of the vacuum that stands in the line and not in the drawer
SHORTFALL = 0.5  #: how much shorter than today's a hose may be where no plan says what it must reach [m]


@dataclass(frozen=True)
class FoundLine:
    """A line from the drawer, as a rig and with what to buy for it."""

    rig: Rig
    line: DrawerLine
    figures: Figures  #: of that rig
    buy: tuple[str, ...]  #: ids such as sold:0.05:smooth, and “adapter” for each adapter


def planned_reach(rig: Rig, port: str, shop: ShopFile) -> float | None:
    """What the hose of a tool port must reach on the floor plan [m]; None where the tool does not stand on it."""
    name = next(way[0].port.name for way in rig.line.ways if way[0].id == port and way[0].port)
    ids = {tool.id for tool in shop.tools if tool.ports[0].name.lower() == name.lower()}
    return next((route.length for route in lay_floor(shop).routes if route.id in ids), None)


def task_for(rig: Rig, port: str, shop: ShopFile, spend: float = 0.0) -> Task:
    """What a line must reach: by the floor plan where the tool stands on it, else nearly what it reaches today."""
    planned = planned_reach(rig, port, shop)
    reach = planned if planned is not None else max(1.0, route_length(rig, port) - SHORTFALL)
    links = _behind_separator(rig)
    link = max(0.5, sum(h.length_m for h in links) - SHORTFALL) if links else TYPICAL_LINK_LENGTH
    return Task(round(reach, 2), round(link, 2), spend)


def _behind_separator(rig: Rig) -> list[HosePart]:
    at = next((i for i, e in enumerate(rig.line.elements) if isinstance(e, SeparatorPart)), None)
    return [] if at is None else [e for e in rig.line.elements[at:] if isinstance(e, HosePart)]


@dataclass(frozen=True)
class FromDrawer:
    """The lines a drawer makes for a tool, the best first and no two with the same hoses in the same places."""

    free: tuple[FoundLine, ...]  #: of what is owned
    paid: tuple[FoundLine, ...]  #: the best where something is bought


def lines_from_drawer(rig: Rig, port: str, shop: ShopFile, task: Task) -> FromDrawer:
    """The lines the drawer makes for a tool at no cost, and for what may be spent.

    Raises
    ------
    ValueError
        When the drawer allows more assignments than are tried.
    """
    line = build_line(rig)
    at = [leaf.id for leaf in line.leaves].index(port)
    hoses = [_stock(hose, line.rules) for hose in shop.hoses]
    if task.spend > 0.0:
        hoses += _sold(task, line.rules)
    fittings = [StockFitting(f.id, f.one_bore_m, f.other_bore_m, f.length_m) for f in shop.fittings]
    lines = {v.id: build_line(put_vacuum(rig, v)) for v in shop.vacuums} or {OWN_VACUUM: line}
    found = best_lines(lines, at, hoses, fittings, task)
    free = _distinct([one for one in found if one.assignment.price == 0.0])
    paid = [one for one in found[:1] if _to_buy(one)]
    rigs = [_as_rig(rig, port, shop, one) for one in (*free, *paid)]
    figures = figures_of_each([build_line(made) for made in rigs], 0)
    told = [
        FoundLine(made, one, own, _to_buy(one)) for made, one, own in zip(rigs, (*free, *paid), figures, strict=True)
    ]
    return FromDrawer(tuple(told[: len(free)]), tuple(told[len(free) :]))


def _distinct(found: list[DrawerLine], most: int = 3) -> list[DrawerLine]:
    kept: list[DrawerLine] = []
    for one in found:
        if all(_hoses(one) != _hoses(other) for other in kept):
            kept.append(one)
        if len(kept) == most:
            break
    return kept


def _hoses(found: DrawerLine) -> tuple[frozenset[str], str]:
    """The hoses of a line, whichever of two comes first."""
    chosen = found.assignment
    return frozenset(hose.id for hose in chosen.run), chosen.link.id if chosen.link else ""


def _stock(hose: OwnedHose, rules: RuleBook) -> StockHose:
    return _with_wall(StockHose(hose.id, hose.bore_m, hose.length_m, 0.0), hose.wall, rules)


def _with_wall(hose: StockHose, wall: str, rules: RuleBook) -> StockHose:
    return replace(hose, roughness=one_value(rules[f"wall.{wall}"]), bend_factor=one_value(bends_of_wall(wall, rules)))


def _sold(task: Task, rules: RuleBook) -> list[StockHose]:
    """Hoses to buy, in the lengths the line asks for."""
    return [
        _with_wall(
            StockHose(
                f"sold:{bore:g}:{wall}:{length:g}", bore, length, 0.0, price=round(hose_price(bore, length, wall), 2)
            ),
            wall,
            rules,
        )
        for wall in SOLD_WALLS
        for bore in HOSE_BORES
        for length in {task.reach, task.link_reach}
    ]


def _to_buy(found: DrawerLine) -> tuple[str, ...]:
    chosen = found.assignment
    hoses = [h.id for h in (*chosen.run, *([chosen.link] if chosen.link else [])) if h.price > 0.0]
    return (*hoses, *(["adapter"] * chosen.bought))


def _as_rig(rig: Rig, port: str, shop: ShopFile, found: DrawerLine) -> Rig:
    """The rig of a found line: the tool alone, the separator as it is, and the parts from the drawer between."""
    chosen = found.assignment
    vacuum = next((v for v in shop.vacuums if v.id == chosen.vacuum), None)
    document = (rig if vacuum is None else put_vacuum(rig, vacuum)).model_dump(mode="json")
    branch = next(b for _, b in rig.line.walk() if b.id == port)
    assert branch.port is not None
    separator = next((e for e in rig.line.elements if isinstance(e, SeparatorPart)), None)
    builder = _Builder(shop)
    elements: list[dict[str, Any]] = []
    joints = list(chosen.joints)
    end = branch.port.end
    bore = branch.port.bore_m
    for hose in chosen.run:
        elements += builder.joint(joints.pop(0), bore, hose.bore)
        elements.append(builder.hose(hose, end, bends=hose is chosen.run[0]))
        end, bore = None, hose.bore
    trunk: list[dict[str, Any]] = []
    if separator is not None and chosen.link is not None:
        built = build_separator(separator)
        elements += builder.joint(joints.pop(0), bore, float(built.hose_bore))
        trunk = [
            separator.model_dump(mode="json"),
            *builder.joint(joints.pop(0), float(built.outlet_bore), chosen.link.bore),
            builder.hose(chosen.link, None),
        ]
        bore = chosen.link.bore
    inlet = document["vacuum"]["inlet_bore_m"]
    if inlet is not None:
        trunk += builder.joint(joints.pop(0), bore, inlet)
    document["line"] = {
        "elements": trunk,
        "branches": [{"id": port, "elements": elements, "port": branch.port.model_dump(mode="json")}],
    }
    kept = {port, "dust", *([separator.id] if separator else [])}
    document["guesses"] = [guess for guess in document["guesses"] if guess["part"] in kept]
    return check_rig(document)


class _Builder:
    """Makes elements with ids of their own."""

    def __init__(self, shop: ShopFile) -> None:
        self.owned = {hose.id: hose for hose in shop.hoses}
        self.fittings = {fitting.id: fitting for fitting in shop.fittings}
        self.count = 0

    def hose(self, stock: StockHose, before: EndPart | None, *, bends: bool = False) -> dict[str, Any]:
        """A hose from the drawer, the end that fits better towards the tool, or one to buy."""
        self.count += 1
        owned = self.owned.get(stock.id)
        bend = [{"angle_deg": 90.0, "radius_m": round(4.0 * stock.bore, 3)}] if bends else []
        shape = {
            "id": f"hose-{self.count}",
            "kind": "hose",
            "bore_m": stock.bore,
            "length_m": stock.length,
            "bends": bend,
        }
        if owned is None:
            return {**shape, "name": "New hose", "wall": stock.id.split(":")[2]}
        ends = [owned.one_end, owned.other_end]
        if before is not None and all(ends) and _trouble(before, ends[1]) < _trouble(before, ends[0]):
            ends.reverse()
        tool_end, vacuum_end = (end.model_dump() if end else None for end in ends)
        return {**shape, "name": owned.name, "wall": owned.wall, "tool_end": tool_end, "vacuum_end": vacuum_end}

    def joint(self, stock: StockFitting | None, before: float, after: float) -> list[dict[str, Any]]:
        """The adapter between two bores; nothing where they go on one another, a bought one where none is owned."""
        if stock is None and abs(before - after) <= SAME_BORE:
            return []
        self.count += 1
        name = self.fittings[stock.id].name if stock else "New adapter"
        length = stock.length if stock else 0.0
        return [
            {
                "id": f"fitting-{self.count}",
                "kind": "reducer",
                "name": name,
                "bore_in_m": before,
                "bore_out_m": after,
                "length_m": length,
            }
        ]


def _trouble(one: EndPart, other: EndPart | None) -> int:
    if other is None:
        return len(TROUBLE)
    ends = (End(e.inside_d_m, e.outside_d_m, e.fit, e.plastic) for e in (one, other))
    return TROUBLE.index(fit_joint(Joint("a", "b", *ends), RuleBook()).fix)
