"""What the page of one part shows: its drawing with its dimensions, what it may be off, what was cut."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.making.as_cut import Verdict
from fenwick.core.making.parts import MadePart
from fenwick.drawing.part_sheet import render_part
from fenwick.rig.voice import voice_for
from fenwick.services.builds import cost_of
from fenwick.services.making_files import step_name
from fenwick.units import format_value, unit_label
from fenwick.web.build.hand import InHand
from fenwick.web.build.view import address
from fenwick.web.kit.fields import Field
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.facts import CutRow, cut_words, sheet_lines, size_words, stock_words
from fenwick.wording.making.names import FURTHER, part_name
from fenwick.wording.making.progress import ASKS, DECISIONS, dim_name, off_words, verdict_sentences, verdict_title
from fenwick.wording.making.troubles import trouble_sentence
from fenwick.wording.say import Voice

LENGTH = "bore"


@dataclass(frozen=True)
class DimRow:
    """A dimension, what it may be off, and what was cut."""

    dim: str
    title: str
    wanted: str
    between: str  #: what it may be; empty: nothing hangs on it
    costs: str
    field: Field


@dataclass(frozen=True)
class VerdictCard:
    """What to do about a dimension that came out otherwise."""

    verdict: Verdict
    title: str
    figure: str
    lines: tuple[str, ...]
    decided: str
    asks: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class PartView:
    """All that the page says."""

    part: MadePart
    title: str
    facts: tuple[str, ...]
    picture: Markup | None
    rows: tuple[DimRow, ...]
    verdicts: tuple[VerdictCard, ...]
    cuts: tuple[CutRow, ...]
    drills: tuple[str, ...]
    steps: tuple[tuple[str, str], ...]  #: (name, address)
    troubles: tuple[str, ...]
    has_template: bool


def part_view(hand: InHand, name: str, errors: dict[str, str], typed: dict[str, str]) -> PartView | None:
    """The page of a part; None where there is none of that name.

    Parameters
    ----------
    errors, typed : by the dimension's name
    """
    pack = hand.found.pack
    part = pack.part(name)
    if part is None:
        return None
    voice = voice_for(hand.state.rig, unit_system())
    rows = tuple(_row(hand, part, dim, errors, typed, voice) for dim in part.dims if dim.endswith("_m"))
    return PartView(
        part=part,
        title=part_name(name),
        facts=tuple(one for one in (stock_words(part, voice), size_words(part, voice), *_hand(part)) if one),
        picture=render_part(part, voice, "part-sheet") if part.outline else None,
        rows=rows,
        verdicts=tuple(_verdict(hand, one, voice) for one in hand.found.verdicts if one.part == name),
        cuts=tuple(cut_words(cut, voice) for cut in pack.cuts.get(name, ())),
        drills=tuple(sheet_lines(part, "", "", "", voice)[-1:]) if part.drills else (),
        steps=tuple(
            (step_name(step), address(hand, "show_step", step=step.id))
            for step in hand.found.steps
            if name in step.parts
        ),
        troubles=tuple(dict.fromkeys(trouble_sentence(one, voice) for one in pack.troubles if one.part == name)),
        has_template=bool(part.outline),
    )


def _hand(part: MadePart) -> tuple[str, ...]:
    found = []
    if part.swirl is not None:
        found.append(f"{part.swirl} hand")
    if part.side is not None:
        found.append(f"{part.side} side")
    return tuple(found)


def _row(hand: InHand, part: MadePart, dim: str, errors: dict[str, str], typed: dict[str, str], voice: Voice) -> DimRow:
    limit = next((one for one in hand.found.limits.get(part.id, ()) if one.dim == dim), None)
    cut = next((one for one in hand.build.file.cut if (one.part, one.dim) == (part.id, dim)), None)
    text = "" if cut is None else format_value(cut.value_m, LENGTH, voice.system, field=True)
    field = Field(
        dim, f"{dim_name(dim).capitalize()}, as cut", typed.get(dim, text), unit_label(LENGTH, voice.system),
        optional=True, error=errors.get(dim, ""), unknown="not measured",
    )  # fmt: skip
    between, costs = "", ""
    if limit is not None:
        low, high = (voice.cut(one, unit=False) for one in (limit.low, limit.high))
        between, costs = f"{low} to {high}", FURTHER[limit.costs]
    return DimRow(dim, dim_name(dim), voice.cut(part.dims[dim]), between, costs, field)


def _verdict(hand: InHand, verdict: Verdict, voice: Voice) -> VerdictCard:
    cut = next(one for one in hand.build.file.cut if (one.part, one.dim) == (verdict.part, verdict.dim))
    said = verdict_sentences(verdict, cost_of(hand.state.rig, verdict, hand.what), voice)
    asks = (
        ()
        if verdict.do == "keep"
        else ((verdict.do, ASKS[verdict.do]), ("recut", ASKS["recut"]), ("keep", ASKS["keep"]))
    )
    return VerdictCard(
        verdict, verdict_title(verdict), off_words(verdict, voice), tuple(said),
        DECISIONS[cut.decision] if cut.decision else "", tuple(dict.fromkeys(asks)),
    )  # fmt: skip
