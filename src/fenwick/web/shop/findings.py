"""What the shop's page says of the floor plan, the cords and what was salvaged."""

from __future__ import annotations

from fenwick.core.judging.check import LEVEL_WORDS, Check
from fenwick.core.site.checks import SnaggingHose, floor_checks
from fenwick.shop import ShopFile
from fenwick.shop.plan import FloorPlan
from fenwick.units import format_value
from fenwick.units.sentence import inside
from fenwick.wording.checks import check_sentence
from fenwick.wording.salvage import salvage_sentence
from fenwick.wording.say import Voice


def shop_findings(shop: ShopFile, plan: FloorPlan, system: str) -> list[tuple[str, str]]:
    """(level, sentence) of what the floor plan, the cords and the salvaged parts of a shop say."""

    def metres(value: float) -> str:
        return format_value(value, "length", system, unit=True)

    said: list[tuple[str, str]] = []
    if plan.spot and plan.longest is not None:
        where = f"{metres(plan.spot.place[0])} from the left and {metres(plan.spot.place[1])} from the front"
        gain = plan.longest - plan.spot.length
        if gain > 0.05:
            said.append(
                (
                    "watch",
                    f"From {where} one hose of {metres(plan.spot.length)} reaches every tool; where the separator "
                    f"stands it takes {metres(plan.longest)}.",
                )
            )
        else:
            said.append(("ok", f"The separator stands where one hose of {metres(plan.longest)} reaches every tool."))
    elif plan.spot:
        said.append(("", f"One hose of {metres(plan.spot.length)} reaches every tool from the marked spot."))
    voice = Voice(system, {})
    said += _snags(shop, plan, voice)
    said += _salvaged(shop)
    names = {v.id: v.name for v in shop.vacuums} | {c.id: c.name for c in shop.circuits}
    for cord in plan.cords:
        way = f"{metres(cord.needed)} along the walls to {names[cord.outlet]}"
        for check in floor_checks((), cord.crossing):
            level, sentence = _told(check, voice)
            said.append((level, f"{names[cord.vacuum]}: {inside(sentence)}"))
        if cord.reaches:
            said.append(("ok", f"{names[cord.vacuum]}: its cord of {metres(cord.length)} reaches, {way}."))
        else:
            said.append(
                (
                    "act",
                    f"{names[cord.vacuum]}: its cord of {metres(cord.length)} does not reach, {way}. Move it nearer.",
                )
            )
    return said


def _salvaged(shop: ShopFile) -> list[tuple[str, str]]:
    said = []
    for one in shop.salvaged:
        looks = {"cord_fine": one.cord_fine, "brushes_fine": one.brushes_fine, "no_cracks": one.no_cracks}
        said.append(salvage_sentence(one.name, one.kind, looks, one.last_held))
    return said


def _snags(shop: ShopFile, plan: FloorPlan, voice: Voice) -> list[tuple[str, str]]:
    """As the checks of the lines say it."""
    names = {tool.id: tool.ports[0].name for tool in shop.tools}
    hoses = [SnaggingHose("", names[one.hose], names[one.tool], one.side) for one in plan.snags]
    return [_told(check, voice) for check in floor_checks(hoses, None)]


def _told(check: Check, voice: Voice) -> tuple[str, str]:
    return LEVEL_WORDS[int(check.level[0])], check_sentence(check, voice)
