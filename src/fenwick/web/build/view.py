"""What the page of a build shows."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from flask import url_for
from markupsafe import Markup

from fenwick.core.making.as_cut import Verdict
from fenwick.core.making.given import Making
from fenwick.core.making.joints import GluedJoint
from fenwick.core.making.parts import BUY, HAVE, MAKE, MadePart
from fenwick.core.making.steps import WorkStep
from fenwick.core.making.tools import missing_tools
from fenwick.drawing.exploded import Shown, render_exploded
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services.builds import cost_of, planned, stage_of
from fenwick.services.making import STAND
from fenwick.services.making_files import page_count, reasons, step_name, warnings_of
from fenwick.units.sentence import inside
from fenwick.web.build.hand import InHand, Thing
from fenwick.web.build.made_from import made_from_editor
from fenwick.web.build.plan_view import plan_picture, plan_words
from fenwick.web.build.shopping import ShoppingView, shopping_view
from fenwick.web.kit.editor import Editor
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.words import choice_word
from fenwick.wording.making.facts import duration, size_words, stock_words
from fenwick.wording.making.figures import step_figures
from fenwick.wording.making.names import HANDS, MATERIALS, SEALANTS, TOOLS, part_name
from fenwick.wording.making.progress import (
    ASKS,
    broken_sentence,
    changed_sentence,
    off_words,
    part_state_words,
    verdict_sentences,
    verdict_title,
)
from fenwick.wording.making.work import CAUTIONS, HOLDS, LAST
from fenwick.wording.say import Voice

LABEL_WIDE = 15  #: letters beside a balloon
HOURS_WORDS = {
    "20-minutes": "20 minutes an evening",
    "evening": "evenings",
    "weekend": "weekends",
    "days": "whole days",
}


@dataclass(frozen=True)
class BuildPartRow:
    """A part in the table."""

    id: str
    number: int
    title: str
    of: str
    size: str
    how: str
    state: str  #: word
    level: str
    can_get: bool
    there: bool
    href: str


@dataclass(frozen=True)
class NowCard:
    """What to do next."""

    title: str
    place: str  #: step 7 of 15
    figure: str  #: by how much something is off; empty
    lines: tuple[str, ...]
    hold: str
    cautions: tuple[str, ...]
    step: str  #: to tick; empty: something was cut otherwise
    verdict: Verdict | None
    asks: tuple[tuple[str, str], ...]  #: (decision, word)
    time: str
    href: str


@dataclass(frozen=True)
class BuildView:
    """All that the page says."""

    hand: InHand
    things: tuple[Thing, ...]
    headline: str
    picture: Markup
    rows: tuple[BuildPartRow, ...]
    summary: str
    now: NowCard | None
    timeline: Markup | None
    plan_words: str
    hours: str
    hours_choices: dict[str, str]
    sheets: str
    pages: int
    joint_words: str
    settings: int
    warnings: tuple[str, ...]
    broken: tuple[str, ...]
    changed: tuple[tuple[str, str], ...]  #: (part, what has become of it)
    bought: bool
    made_from: Editor | None
    made_from_words: str
    is_separator: bool
    shopping: ShoppingView


def build_view(hand: InHand, now: datetime, editor: Editor | None = None) -> BuildView:
    """The page of what is in hand.

    Parameters
    ----------
    now : local time
    editor : what was typed of what it is made from, where that was refused
    """
    found = hand.found
    voice = voice_for(hand.state.rig, unit_system())
    pack = found.pack
    slots = planned(found, now)
    warnings = warnings_of(pack, voice)
    is_separator = stage_of(hand.state.rig, hand.what) is not None
    return BuildView(
        hand=hand,
        things=hand.things,
        headline=_headline(hand),
        picture=_picture(hand, voice),
        rows=tuple(_row(hand, i, part, voice) for i, part in enumerate(pack.parts, start=1)),
        summary=_summary(hand),
        now=_now(hand, voice),
        timeline=plan_picture(hand, slots, now) if slots else None,
        plan_words=plan_words(slots, now),
        hours=found.file.hours,
        hours_choices=HOURS_WORDS,
        sheets=_sheet_words(hand),
        pages=page_count(pack, now.date().isoformat(), "a4", voice),
        joint_words=_joint_words(pack.joints),
        settings=sum(len(cuts) for cuts in pack.cuts.values()),
        warnings=warnings,
        changed=tuple((one.part, changed_sentence(one, voice)) for one in found.changed),
        broken=tuple(broken_sentence(one) for one in found.broken),
        made_from=editor or made_from_editor(hand.state.rig, hand.what, pack.making, voice.system),
        made_from_words=_stand_words(hand) if hand.what == STAND else _made_from(pack.making, voice),
        bought=found.file.bought,
        is_separator=is_separator,
        shopping=shopping_view(hand, voice, separator=is_separator),
    )


def address(hand: InHand, endpoint: str, **values: Any) -> str:
    """Address of a page about what is in hand."""
    return url_for(f"build.{endpoint}", line_id=hand.state.id, what=hand.what, **values)


def _headline(hand: InHand) -> str:
    found = hand.found
    made = [part for part in found.pack.parts if part.how == MAKE and part.stock.material != "paper"]
    finished = sum(found.parts[part.id] in ("done", "cut") for part in made)
    left = duration(found.hands_left) if found.hands_left > 0.0 else "nothing"
    return f"{finished} of {len(made)} cut, {left} of work left"


def _picture(hand: InHand, voice: Voice) -> Markup:
    shown = {}
    for part in hand.found.pack.parts:
        _, level = part_state_words(part, hand.found.parts[part.id])
        label = [*short_label(size_words(part, voice) or part_name(part.id)), _off(hand, part, voice)]
        shown[part.id] = Shown(part_name(part.id), tuple(one for one in label if one), level)
    return render_exploded(
        hand.found.pack.parts, shown, lambda part: address(hand, "show_part", part=part), "taken-apart"
    )


def short_label(text: str) -> list[str]:
    """A size in lines that stand beside a balloon."""
    first = text.split(", ")[0]
    lines = [""]
    for word in first.replace(" mm", "").split(" "):
        joined = f"{lines[-1]} {word}".strip()
        if len(joined) > LABEL_WIDE and lines[-1]:
            lines.append(word)
        else:
            lines[-1] = joined
    return lines


def _off(hand: InHand, part: MadePart, voice: Voice) -> str:
    one = next((v for v in hand.found.open if v.part == part.id), None)
    return "" if one is None else f"{off_words(one, voice)} {_unit(voice)}"


def _unit(voice: Voice) -> str:
    return voice.cut(0.0).split()[-1]


def _row(hand: InHand, number: int, part: MadePart, voice: Voice) -> BuildPartRow:
    state = hand.found.parts[part.id]
    word, level = part_state_words(part, state)
    off = _off(hand, part, voice)
    return BuildPartRow(
        part.id, number, part_name(part.id) + (f" × {part.count}" if part.count > 1 else ""), stock_words(part, voice),
        size_words(part, voice), part.how, off or word, level, part.how == BUY, state == "ready",
        address(hand, "show_part", part=part.id),
    )  # fmt: skip


def _summary(hand: InHand) -> str:
    pack, got = hand.found.pack, hand.found.file.got
    have = sum(part.how == HAVE or part.id in got for part in pack.parts)
    missing = missing_tools(pack.steps, hand.asked.workshop)
    tools = f" Not in the shop: {', '.join(TOOLS[one] for one in missing)}." if missing else ""
    return f"There already: {have} of {len(pack.parts)} parts.{tools}"


def _now(hand: InHand, voice: Voice) -> NowCard | None:
    found = hand.found
    if found.open:
        return _off_card(hand, found.open[0], voice)
    step = found.now
    return None if step is None else step_card(hand, step)


def step_card(hand: InHand, step: WorkStep) -> NowCard:
    """A step as it is told: what for, how long, what must hold before going on."""
    found = hand.found
    place = [one.id for one in found.steps].index(step.id) + 1
    wait = f", then {duration(step.cure)} of waiting" if step.cure > 0.0 else ""
    voice = voice_for(hand.state.rig, unit_system())
    lines = [LAST[step.last]] if step.last else []
    lines = [*step_figures(step, found.pack.parts, found.pack.cuts, voice), *lines]
    parts = ", ".join(part_name(one).lower() for one in step.parts)
    if parts:
        lines.insert(0, f"For: {parts}.")
    return NowCard(
        step_name(step), f"step {place} of {len(found.steps)}", "", tuple(lines), HOLDS[step.hold] if step.hold else "",
        tuple(CAUTIONS[key] for key in step.cautions), step.id, None, (), f"{duration(step.hands)}{wait}",
        address(hand, "show_step", step=step.id),
    )  # fmt: skip


def step_reasons(hand: InHand, step: WorkStep) -> tuple[str, ...]:
    """What comes before a step, and why."""
    return reasons(step, hand.found.steps)


def _off_card(hand: InHand, verdict: Verdict, voice: Voice) -> NowCard:
    said = verdict_sentences(verdict, cost_of(hand.state.rig, verdict, hand.what), voice)
    first = ASKS[verdict.do]
    others = [(key, ASKS[key]) for key in ("recut", "keep") if key != verdict.do]
    return NowCard(
        verdict_title(verdict), "cut otherwise than drawn", f"{off_words(verdict, voice)} {_unit(voice)}", tuple(said),
        "", (CAUTIONS["unplug"], CAUTIONS["small-piece"]), "", verdict, ((verdict.do, first), *others), "",
        address(hand, "show_part", part=verdict.part),
    )  # fmt: skip


def _made_from(making: Making, voice: Voice) -> str:
    """The sheets, the tube and the sealant in one line."""
    plate = f"{MATERIALS[making.plate.material]} {voice.cut(making.plate.thickness)}"
    tube = f"tubes of {MATERIALS[making.tube.material]}"
    return f"{plate}, {tube}, {SEALANTS[making.sealant]}; the air turns {HANDS[making.swirl]}"


def _stand_words(hand: InHand) -> str:
    """What it stands on."""
    own = next(e for e in hand.state.rig.line.elements if isinstance(e, SeparatorPart))
    return inside(choice_word("stands_on", "floor" if own.stand is None else own.stand.stands_on))


def _joint_words(joints: tuple[GluedJoint, ...]) -> str:
    if not joints:
        return "nothing is sealed"
    bad = sum(bool(joint.bond.because) for joint in joints)
    return f"{bad} of {len(joints)} to look at" if bad else f"{len(joints)} joints, all hold"


def _sheet_words(hand: InHand) -> str:
    sheets = hand.found.pack.layout.sheets
    if not sheets:
        return "nothing is cut from sheet"
    buy = sum(not sheet.at_hand for sheet in sheets)
    return f"{len(sheets)} sheet{'s' if len(sheets) > 1 else ''}, {buy} to buy" if buy else "all from what is there"
