"""The schools as cards: both figures, the difference with its band, and what the model makes of it."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.errors import CoreError
from fenwick.core.search.contrast import contrast
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.schools import School, schools
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.wording.contrast import TITLES, UNTOLD, difference, judgement, shift_figure

NOT_MODELLED = "not modelled"
ALWAYS = ("kept", "air")  #: figures that are shown even where nothing moves


@dataclass(frozen=True)
class ShiftRow:
    """One figure of both."""

    title: str
    first: str
    second: str
    difference: str
    told: bool


@dataclass(frozen=True)
class SchoolCard:
    """One question."""

    school: School
    rows: list[ShiftRow]
    judgement: str


def questions(rig: Rig, part: SeparatorPart) -> list[SchoolCard]:
    """Every question that this line can answer both ways, not yet worked out."""
    return [SchoolCard(school, [], "") for school in schools(rig, part.id)]


def school_cards(rig: Rig, part: SeparatorPart, system: str, only: str | None = None) -> list[SchoolCard]:
    """The questions that this line can answer both ways, worked out; all of them, or one."""
    voice = voice_for(rig, system)
    cards = []
    for school in schools(rig, part.id):
        if only is not None and school.id != only:
            continue
        if not school.modelled:
            rows = [ShiftRow(TITLES[figure], *(NOT_MODELLED,) * 3, told=False) for figure in ALWAYS[:1]]
            cards.append(SchoolCard(school, rows, UNTOLD))
            continue
        first, second = (build_line(one) for one in school.rigs)
        port = next((i for i, leaf in enumerate(first.leaves) if leaf.open), 0)
        try:
            shifts = contrast(first, second, port)
        except CoreError:
            continue
        rows = [
            ShiftRow(
                TITLES[s.figure],
                shift_figure(s, s.first, voice),
                shift_figure(s, s.second, voice),
                difference(s, voice),
                s.told,
            )
            for s in shifts
            if s.figure in ALWAYS or s.matters
        ]
        cards.append(SchoolCard(school, rows, judgement(shifts, school.first, school.second)))
    return cards
