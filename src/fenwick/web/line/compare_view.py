"""Everything the page of two lines side by side shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

import numpy as np
from flask import url_for
from markupsafe import Markup

from fenwick.core.search.apart import FigureApart
from fenwick.data.lines import LineState
from fenwick.drawing import Scene, TreeScene, lay_out_scene, lay_out_tree, render_line, render_tree
from fenwick.drawing.band_pair import render_band_pair
from fenwick.drawing.canvas import NARROW, Canvas
from fenwick.rig.compare import Difference, differences
from fenwick.rig.voice import voice_for
from fenwick.services.side_by_side import side_by_side
from fenwick.services.solving import alone_of, solve
from fenwick.web.kit.values import shown_value
from fenwick.wording.compare import PORT_TITLES, WHOLE_TITLES, ComparedWords, compared_words, tally_words
from fenwick.wording.say import Voice

HALF = Canvas(600.0, 250.0, True)  #: half a page wide
LARGEST = 1000.0  #: any scale is smaller [px/m]
EASY = 0.9  #: of the largest scale that fits: half a page leaves less room for words


@dataclass(frozen=True)
class ComparedCell:
    """A figure of both lines, with its picture."""

    words: ComparedWords
    bars: Markup
    differs: bool


@dataclass(frozen=True)
class ComparedRow:
    """A tool port of both lines."""

    name: str
    only: str  #: name of the line that alone has it; empty where both do
    cells: tuple[ComparedCell | None, ...]  #: in the order of `PORT_TITLES`


@dataclass(frozen=True)
class ValueRow:
    """A value that differs."""

    title: str
    left: str
    right: str


@dataclass(frozen=True)
class DifferingPart:
    """A part in which the lines differ."""

    number: int
    name: str
    rows: tuple[ValueRow, ...]


@dataclass(frozen=True)
class CompareView:
    """The page."""

    left: LineState
    right: LineState
    summary: str
    pictures: Mapping[str, tuple[Markup, Markup]]  #: wide and narrow, left and right
    titles: tuple[str, ...]
    ports: tuple[ComparedRow, ...]
    whole: tuple[ComparedCell, ...]
    parts: tuple[DifferingPart, ...]
    quiet: tuple[DifferingPart, ...]  #: where they differ in what changes no figure
    heard: str  #: how loud they are to one telephone; empty: not both were heard


def compare_view(left: LineState, right: LineState, system: str, heard: str = "") -> CompareView:
    """Two lines of a shop side by side.

    Parameters
    ----------
    heard : how loud they are to one telephone, in words; empty: not both were heard

    Raises
    ------
    CoreError
        When one of them cannot be solved.
    """
    found = side_by_side(left.rig, right.rig, left.owned)
    voice, other = voice_for(left.rig, system), voice_for(right.rig, system)
    money = left.owned.money if left.owned else "€"
    parts, quiet = _differing(differences(left.rig, right.rig), {**other.names, **voice.names}, left, right, system)
    marks = {part: shown.number for part, shown in parts.items()}
    rows = tuple(
        ComparedRow(
            port.name,
            left.rig.name if port.right is None else right.rig.name if port.left is None else "",
            tuple(_cell(name, port.figures.get(name), voice, money) for name in PORT_TITLES),
        )
        for port in found.ports
    )
    whole = (_cell(name, found.whole.get(name), voice, money) for name in WHOLE_TITLES)
    return CompareView(
        left=left,
        right=right,
        summary=tally_words(found.tally, right.rig.name),
        pictures=_pictures((left, right), (voice, other), marks),
        titles=tuple(one.title for one in PORT_TITLES.values()),
        ports=rows,
        whole=tuple(cell for cell in whole if cell is not None),
        parts=tuple(parts.values()),
        quiet=tuple(quiet.values()),
        heard=heard,
    )


def _cell(name: str, found: FigureApart | None, voice: Voice, money: str) -> ComparedCell | None:
    if found is None:
        return None
    words = compared_words(name, found, voice, money)
    return ComparedCell(words, render_band_pair(found), words.left != words.right)


Differing = dict[str, DifferingPart]


def _differing(
    found: list[Difference], names: Mapping[str, str], left: LineState, right: LineState, system: str
) -> tuple[Differing, Differing]:
    """Parts with what differs of them, numbered; then with what changes no figure."""
    sides: tuple[Differing, Differing] = ({}, {})
    for one in found:
        parts = sides[one.quiet]
        name = names.get(one.part) or one.part.capitalize()
        part = parts.setdefault(one.part, DifferingPart(len(parts) + 1, name, ()))
        parts[one.part] = replace(part, rows=(*part.rows, _value_row(one, left, right, system)))
    return sides


def _value_row(one: Difference, left: LineState, right: LineState, system: str) -> ValueRow:
    if any(one.absent):
        only = right.rig.name if one.absent[0] else left.rig.name
        words = tuple("not there" if absent else "there" for absent in one.absent)
        return ValueRow(f"only in {only}", *words)
    return ValueRow(one.title, *(shown_value(value, one.quantity, system, one.key) for value in one.values))


LayOut = Callable[[float], Scene | TreeScene]


def _pictures(
    states: tuple[LineState, LineState], voices: tuple[Voice, Voice], marks: Mapping[str, int]
) -> dict[str, tuple[Markup, Markup]]:
    """Both lines on one scale: that of the larger."""
    found = {}
    for width in ("wide", "narrow"):
        layouts = [_layout(state, voice, width) for state, voice in zip(states, voices, strict=True)]
        scale = EASY * min(layout(LARGEST).scale for layout in layouts)
        left, right = (
            _drawn(_marked(layout(scale), marks), f"{side}-{width}")
            for side, layout in zip(("left", "right"), layouts, strict=True)
        )
        found[width] = (left, right)
    return found


def _layout(state: LineState, voice: Voice, width: str) -> LayOut:
    rig, solved = state.rig, solve(state.rig)
    several = len(rig.line.ways) > 1

    def link(part: str) -> str:
        return url_for("line.show", line_id=state.id, part=part)

    if not several:
        canvas = HALF if width == "wide" else NARROW
        return lambda most: lay_out_scene(
            rig, solved.found, voice, canvas, link, None, solved.first_open, most_scale=most
        )
    alone = np.asarray(alone_of(rig).flow)
    return lambda most: lay_out_tree(
        rig, solved.found, voice, alone, link, None, solved.first_open,
        upright=width == "narrow", width=HALF.width, most_scale=most,
    )  # fmt: skip


def _marked(scene: Scene | TreeScene, marks: Mapping[str, int]) -> Scene | TreeScene:
    """Numbered where it differs; what does not is named only where it says what stands there."""
    places = {part.id for part in scene.parts if part.kind in ("tool", "separator", "vacuum")}
    labels = tuple(one for one in scene.labels if one.part in places or one.part in marks)
    return replace(scene, marks=marks, labels=labels)


def _drawn(scene: Scene | TreeScene, name: str) -> Markup:
    return render_tree(scene, name) if isinstance(scene, TreeScene) else render_line(scene, name)
