"""The sheets with the parts on them, and the setting for every round edge."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.drawing.sheet_plan import render_sheet
from fenwick.rig.voice import voice_for
from fenwick.web.build.hand import InHand
from fenwick.web.build.view import address
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.facts import CutRow, cut_words, sheet_size
from fenwick.wording.making.names import part_name
from fenwick.wording.making.troubles import trouble_sentence


@dataclass(frozen=True)
class SheetRow:
    """One sheet."""

    title: str
    at_hand: bool
    used: str
    picture: Markup


@dataclass(frozen=True)
class PartCuts:
    """The settings of one part."""

    title: str
    href: str
    rows: tuple[CutRow, ...]


@dataclass(frozen=True)
class SheetsView:
    """All that the page says."""

    sheets: tuple[SheetRow, ...]
    cuts: tuple[PartCuts, ...]
    troubles: tuple[str, ...]


def sheets_view(hand: InHand) -> SheetsView:
    """The page of what is in hand."""
    pack, voice = hand.found.pack, voice_for(hand.state.rig, unit_system())
    names = {part.id: part_name(part.id) for part in pack.parts}
    layout = pack.layout
    sheets = tuple(
        SheetRow(
            sheet_size(sheet, voice),
            sheet.at_hand,
            voice.figure(layout.used(i, pack.parts), "share"),
            render_sheet(layout, i, pack.parts, names, f"sheet-{i}"),
        )
        for i, sheet in enumerate(layout.sheets)
    )
    cuts = tuple(
        PartCuts(names[part], address(hand, "show_part", part=part), tuple(cut_words(cut, voice) for cut in found))
        for part, found in pack.cuts.items()
    )
    told = tuple(trouble_sentence(one, voice) for one in layout.troubles)
    return SheetsView(sheets, cuts, told)
