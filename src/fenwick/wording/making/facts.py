"""A part, a setting, a step in the user's units."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.making.cutters import CutSetting
from fenwick.core.making.layout import SheetStock
from fenwick.core.making.parts import MadePart
from fenwick.core.making.shopping import ToBuy, sum_of
from fenwick.wording.making.names import EDGES, HANDS, HOW, MATERIALS, SEALANTS, SIDES, TOOLS, part_name
from fenwick.wording.say import Voice

PENNIES = 1.0  #: below which a price is not told apart, in the shop's money


def stock_words(part: MadePart, voice: Voice) -> str:
    """Material and thickness."""
    name = MATERIALS.get(part.stock.material, part.stock.material)
    if part.stock.thickness <= 0.0:
        return name
    return f"{name} {voice.cut(part.stock.thickness)}"


def size_words(part: MadePart, voice: Voice) -> str:
    """The measures by which one knows a part; empty where it has none."""

    def say(key: str, *, unit: bool = False) -> str:
        return voice.cut(part.dims[key], unit=unit)

    if part.kind in ("disc", "ring"):
        inner = f" / {say('inner_d_m')}" if "inner_d_m" in part.dims else ""
        return f"⌀ {say('d_m')}{inner}"
    if part.kind == "tube":
        return f"⌀ {say('outer_d_m')}, {say('length_m', unit=True)} long"
    if part.kind == "wrap":
        return f"{say('wrap_m')} + {say('overlap_m')} × {say('height_m')}"
    if part.kind == "cone":
        return f"R {say('outer_radius_m')} / {say('inner_radius_m')}, {part.dims['sector_deg']:.1f}°"
    if part.kind == "block":
        return f"{say('length_m')} × {say('width_m')} × {say('height_m')}"
    if part.kind == "panel":
        wide = "width_m" if "height_m" in part.dims else "length_m"
        return f"{say(wide)} × {say('height_m' if 'height_m' in part.dims else 'width_m')}"
    return _bought_size(part, voice)


def _bought_size(part: MadePart, voice: Voice) -> str:
    for key, pattern in (("rim_d_m", "⌀ {} at the rim"), ("d_m", "⌀ {}"), ("body_d_m", "⌀ {}"), ("bore_m", "bore {}")):
        if key in part.dims:
            said = pattern.format(voice.cut(part.dims[key]))
            return f"{said}, {voice.cut(part.dims['length_m'])} long" if "length_m" in part.dims else said
    if "length_m" in part.dims:
        return f"{voice.figure(part.dims['length_m'], 'length')} long"
    if "bears_kg" in part.dims:
        return f"each bears {voice.figure(part.dims['bears_kg'], 'heap')}"
    return ""


def sheet_lines(part: MadePart, line: str, of: str, date: str, voice: Voice) -> list[str]:
    """What is written on the template of a part."""
    count = f", {part.count} pieces" if part.count > 1 else ""
    lines = [
        f"{part_name(part.id)}{count}",
        f"{of} · {line} · {date}",
        f"{stock_words(part, voice)}: {size_words(part, voice)}",
    ]
    if part.swirl is not None:
        lines.append(f"{part.swirl.capitalize()} hand: air turns {HANDS[part.swirl]} from above")
    if part.side is not None:
        lines.append(SIDES[part.side].capitalize())
    if "bevel_deg" in part.dims:
        lines.append(f"Slot ends bevelled {part.dims['bevel_deg']:.0f}° from upright, down the way of the air")
    if part.kind in ("wrap", "cone"):
        lines.append("Outside up; the dashed line is where the seam laps")
    if part.stands_for is not None and part.stock.material == "paper":
        lines.append(f"Wrapped round the outside of the {part_name(part.stands_for).lower()}")
    if part.drills:
        sizes = sorted({(d.d, d.purpose) for d in part.drills})
        lines += [f"{sum(d.d == s for d in part.drills)} holes ⌀ {voice.cut(s)} for {what}" for s, what in sizes]
    return lines


@dataclass(frozen=True)
class CutRow:
    """A row of the cutter table."""

    edge: str
    tool: str
    setting: str
    remark: str


def cut_words(cut: CutSetting, voice: Voice) -> CutRow:
    """A setting in words."""
    radius = f"radius {voice.cut(cut.radius)}"
    tool = TOOLS[cut.tool]
    if cut.cutter > 0.0:
        tool = f"{tool}, {voice.cut(cut.cutter)}"
    setting = "" if cut.pivot is None else f"pivot to the cutter's middle {voice.cut(cut.pivot)}"
    if cut.pivot is not None and cut.cutter > 0.0:
        near = cut.pivot - cut.cutter / 2.0
        setting += f", to its near edge {voice.cut(near)}"
    remarks = [f"waste {cut.waste}"]
    if cut.depth is not None:
        remarks.append(f"{voice.cut(cut.depth)} deep")
    if cut.plug:
        remarks.append("a plug gives back the centre")
    return CutRow(f"{EDGES[cut.edge]}, {radius}", tool, setting, ", ".join(remarks))


def sheet_title(sheet: SheetStock, voice: Voice) -> str:
    """A sheet, and whether it is at hand."""
    return f"{sheet_size(sheet, voice)}, {'at hand' if sheet.at_hand else 'to buy'}"


def sheet_size(sheet: SheetStock, voice: Voice) -> str:
    """A sheet by its material and size."""
    size = f"{voice.cut(sheet.width)} × {voice.cut(sheet.height)}"
    name = MATERIALS.get(sheet.material, sheet.material)
    return f"{name} {voice.cut(sheet.thickness)}, {size}"


def buy_words(line: ToBuy, voice: Voice) -> str:
    """A line of the shopping list, but for its price."""
    count = f"{line.count} × " if line.count > 1 else ""
    if line.part is None:
        words = SEALANTS[line.sealant] if line.sheet is None else sheet_size(line.sheet, voice)
        return count + words if count else f"{words[:1].upper()}{words[1:]}"
    facts = ", ".join(one for one in (stock_words(line.part, voice), size_words(line.part, voice)) if one)
    return f"{count}{part_name(line.part.id)}{': ' + facts if facts else ''}"


def price_words(price: float | None, money: str) -> str:
    """About what something costs."""
    if price is None:
        return "price not known"
    return f"about {price:.0f} {money}" if price >= PENNIES else f"under {PENNIES:.0f} {money}"


def to_buy(lines: Sequence[ToBuy], money: str, voice: Voice) -> list[str]:
    """The shopping list, a thing a line, and what it comes to."""
    found = [f"{buy_words(line, voice)}, {price_words(line.price, money)}" for line in lines]
    return [*found, f"together {price_words(sum_of(lines), money)}"] if lines else []


def how_words(part: MadePart) -> str:
    """Make, buy or have."""
    return HOW[part.how]


def duration(seconds: float) -> str:
    """A time as one says it: 25 min, 4 h 20, 1 day 3 h."""
    minutes = round(seconds / 60.0)
    if minutes < 60:
        return f"{minutes} min"
    hours, rest = divmod(minutes, 60)
    if hours < 24:
        return f"{hours} h {rest:02d}" if rest else f"{hours} h"
    days, hours = divmod(round(minutes / 60.0), 24)
    return f"{days} day{'s' if days > 1 else ''}{f' {hours} h' if hours else ''}"
