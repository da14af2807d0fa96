"""Everything the Line page shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from flask import url_for
from markupsafe import Markup

from fenwick.core.components.wet import WET_DUSTS
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import Assessment
from fenwick.core.line.line import Line
from fenwick.data.lines import LineState
from fenwick.drawing import (
    NARROW,
    WIDE,
    TreeScene,
    lay_out_scene,
    lay_out_tree,
)
from fenwick.drawing.fate import fate_ends
from fenwick.drawing.states import worst_part
from fenwick.rig import Rig
from fenwick.rig.edits.structure import ADDABLE, ON_TRUNK
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.rig.voice import voice_for
from fenwick.services.air import masked_for
from fenwick.services.solving import alone_of, solve
from fenwick.web.kit.editor import Editor
from fenwick.web.kit.voice import voice_of
from fenwick.web.line.form import open_editor
from fenwick.web.line.late import Late, late_of
from fenwick.web.line.panels import PART, Panel, PanelChoice, open_panel
from fenwick.web.line.pictures import (
    PartRow,
    drawings,
    fate_title,
    key_of,
    ladder_head,
    ladder_unit,
    parts_of,
    parts_of_tree,
    plan_of,
    status_of,
)
from fenwick.web.line.swaps import bores_to_try, swaps_for
from fenwick.wording import VerdictRow, check_sentence, least_certain, verdict, warnings
from fenwick.wording.air import minutes
from fenwick.wording.say import Voice

IN_VERDICT = {
    "air-at-tool",
    "containment",
    "caught",
    "kept",
    "settling",
    "bin-collapse",
}  #: checks the verdict shows already


@dataclass(frozen=True)
class Note:
    """A check or warning that is not in the verdict."""

    level: str
    sentence: str


@dataclass(frozen=True)
class Tried:
    """A change that is shown and not made."""

    words: str
    keep: str  #: address that makes it
    late: str  #: address of what follows by itself
    back: str | None = None  #: address to go back to; None: the line
    fields: tuple[tuple[str, str], ...] = ()  #: of the form that makes it
    part: str | None = None  #: id of the part that it is made to


@dataclass(frozen=True)
class Attempt:
    """What was tried and is not saved: an editor with errors in it, a file that was refused, or a change on trial."""

    editor: Editor | None = None
    upload_error: str = ""
    trial: Tried | None = None
    panel: PanelChoice | None = None  #: the strip to open; None: that of the picked part


@dataclass(frozen=True)
class Chip:
    """A tool port in the bar."""

    id: str
    name: str
    flow: str  #: as the gates stand; alone when its gate is shut
    open: bool
    here: bool


@dataclass(frozen=True)
class EndWords:
    """Where some of the dust goes."""

    key: str
    words: str
    grams: str
    said: bool  #: whether the wide bar says it already


@dataclass(frozen=True)
class LineView:
    """The Line page."""

    state: LineState
    rig: Rig
    port_name: str
    port_id: str | None  #: of the port looked at; None where there is only one
    chips: list[Chip]
    status: str
    drawings: dict[str, Markup]
    ladder_head: str
    ladder_doubt: str
    ladder_unit: str  #: of its axis, and how to read it with a tube of water
    fate_title: str
    fate_words: list[EndWords]
    rows: list[VerdictRow]
    before: dict[str, str]  #: figures of the verdict before the last change
    notes: list[Note]
    key: list[PartRow]  #: parts the drawing has no room to label
    tree: bool  #: whether the line is drawn whole
    sheet: bool  #: whether a part was picked: on a phone its fields lie over the drawing then
    bores: tuple[tuple[str, str], ...]  #: what a hose can be tried in: (key of the change, words)
    parts: list[PartRow]
    editor: Editor | None
    plan: tuple[Markup, str] | None  #: picture beside the fields, and its caption
    addable: dict[str, str]  #: kinds of part that can be added
    joins: dict[str, str]  #: what can be added to where branches join
    swaps: list[tuple[str, list[tuple[str, str]]]]  #: what it can be exchanged for: (heading, (value, words))
    late: Late | None  #: what is slower than the eye; None: it follows by itself
    trial: Tried | None
    panel: Panel
    upload_error: str = ""


def line_view(
    state: LineState,
    system: str,
    part: str | None,
    port: str | None = None,
    attempt: Attempt | None = None,
    *,
    whole: bool = True,
) -> LineView:
    """Solve a line and prepare its page.

    Parameters
    ----------
    state : the line as stored
    system : unit system
    part : id of the part being edited; None picks the worst one
    port : id of the tool port to look at; None picks that of the part, or the first open one
    attempt : what was just tried and has not been saved
    whole : with what is slower than the eye; else that follows
    """
    attempt = attempt or Attempt()
    rig = state.rig
    voice = voice_of(state, system)
    solved = solve(rig)
    line, found = solved.line, solved.found
    at = port_index(line, port, part)
    leaf = line.leaves[at]
    picked = bool(part and part in voice.names)
    part = part if part and picked else (worst_part(found) or leaf.id)
    editor = None if attempt.trial else attempt.editor or open_editor(rig, part, voice.name(part), system)

    ports = [one.id for one in line.leaves]

    def link(name: str) -> str:
        looks_at = name if name in ports else leaf.id
        return url_for("line.show", line_id=state.id, part=name, port=looks_at if len(ports) > 1 else None)

    whole_line = len(ports) > 1  # drawn as a tree; the ladder takes its places from the way that is looked at
    scenes = {
        name: lay_out_scene(rig, found, voice, canvas, link, part, at, named=not whole_line)
        for name, canvas in (("wide", WIDE), ("narrow", NARROW))
    }
    trees = _trees(rig, found, voice, link, part, at) if whole_line else {}
    rows = verdict(line, found, None, voice, at, _mask(masked_for(solved, leaf.id, state.owned)))
    panel = open_panel(attempt.panel or PanelChoice(), state, line, at, voice)
    notes = _notes(found, voice) + [Note("", sentence) for sentence in warnings(line, found, voice)]
    return LineView(
        state=state,
        rig=rig,
        port_name=leaf.port.name,
        port_id=leaf.id if len(line.leaves) > 1 else None,
        chips=_chips(rig, line, found, voice, at),
        status=status_of(rig, scenes["wide"], system),
        drawings=drawings(scenes, trees, found, voice),
        ladder_head=ladder_head(found, voice),
        ladder_unit=ladder_unit(system),
        ladder_doubt=least_certain(line, voice) or "",
        fate_title=fate_title(rig),
        fate_words=[EndWords(e.key, e.words, e.grams, e.fits or e.slight) for e in fate_ends(found.fate, 690.0)]
        if found.fate
        else [],
        rows=rows,
        before=_before(state, system, leaf.id),
        notes=notes,
        key=key_of(trees["wide"] if trees else scenes["wide"]),
        parts=parts_of_tree(trees["narrow"], rig, found, voice) if trees else parts_of(scenes["wide"]),
        tree=bool(trees),
        sheet=picked and editor is not None and panel.key == PART,
        bores=bores_to_try(rig, part, system),
        editor=editor,
        plan=plan_of(rig, line, found, voice, part),
        late=late_of(state, at, voice, trying=attempt.trial is not None) if whole else None,
        trial=attempt.trial,
        addable=_addable(rig, part),
        panel=panel,
        joins=_joins(rig, part),
        swaps=swaps_for(rig, part, state.owned, system),
        upload_error=attempt.upload_error,
    )


def _trees(
    rig: Rig, found: Assessment, voice: Voice, link: Callable[[str], str], part: str, at: int
) -> dict[str, TreeScene]:
    """The whole line, for a wide page and for a narrow one."""
    alone = np.asarray(alone_of(rig).flow)
    return {
        name: lay_out_tree(rig, found, voice, alone, link, part, at, upright=name == "narrow")
        for name in ("wide", "narrow")
    }


def _mask(seconds: float | None) -> str | None:
    return None if seconds is None else minutes(seconds)


def _addable(rig: Rig, part: str) -> dict[str, str]:
    """Kinds of part that can stand behind a part."""
    on_trunk = part == "vacuum" or any(element.id == part for element in rig.line.elements)
    refused = set() if rig.dust and rig.dust.kind in WET_DUSTS else {"wet-stage"}
    return {k: word for k, word in ADDABLE.items() if (on_trunk or k not in ON_TRUNK) and k not in refused}


def _joins(rig: Rig, part: str) -> dict[str, str]:
    """What can be added at a part besides further parts."""
    branch = next((branch for _, branch in rig.line.walk() if branch.id == part), None)
    if part == "vacuum" or any(e.id == part and isinstance(e, SeparatorPart | WetStagePart) for e in rig.line.elements):
        return {}
    if branch is None:
        return {"tool": "A tool that joins here"}
    return {"tool": "Another tool beside it", **({} if branch.gate else {"gate-here": "Gate where it joins"})}


def port_index(line: Line, port: str | None, part: str | None) -> int:
    """Which leaf to look at: the one asked for, else one whose way holds the part, else the first open one."""
    ids = [leaf.id for leaf in line.leaves]
    if port in ids:
        return ids.index(port)
    for i, leaf in enumerate(line.leaves):
        if part and (part == leaf.id or part in leaf.parts):
            return i
    return next((i for i, leaf in enumerate(line.leaves) if leaf.open), 0)


def _chips(rig: Rig, line: Line, found: Assessment, voice: Voice, at: int) -> list[Chip]:
    several = len(line.leaves) > 1
    alone = alone_of(rig).flow if several else found.point.port_flow[:, 0]
    return [
        Chip(
            leaf.id,
            leaf.port.name,
            voice.figure(found.point.port_flow[i, 0] if leaf.open else alone[i], "flow"),
            leaf.open,
            i == at,
        )
        for i, leaf in enumerate(line.leaves)
    ]


def _before(state: LineState, system: str, port: str) -> dict[str, str]:
    """The verdict's figures before the last change; empty without one, or when the old line cannot be solved."""
    if state.previous is None:
        return {}
    voice = voice_for(state.previous, system)
    try:
        solved = solve(state.previous)
        at = [leaf.id for leaf in solved.line.leaves].index(port)
        old = verdict(solved.line, solved.found, None, voice, at)
    except (CoreError, ValueError):  # it could not be solved, or had no such port
        return {}
    return {row.id: f"{row.value} {row.unit}".strip() for row in old}


def _notes(found: Assessment, voice: Voice) -> list[Note]:
    words = {1: "watch", 2: "act"}
    told = {(c.id, c.part) for c in found.checks if c.id in IN_VERDICT and (c.id, c.part) != ("kept", None)}
    bad = [c for c in found.checks if (c.id, c.part) not in told and int(c.level[0]) > 0]
    return [Note(words[int(c.level[0])], check_sentence(c, voice)) for c in sorted(bad, key=lambda c: -int(c.level[0]))]
