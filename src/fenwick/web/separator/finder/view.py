"""What the finder found, prepared as plain values."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from flask import url_for
from markupsafe import Markup

from fenwick.core.arrays import one_value
from fenwick.core.line.line import Line
from fenwick.core.search.finder import Design, InTheWay, Search
from fenwick.core.search.on_the_line import evaluate
from fenwick.core.search.work import PortWork
from fenwick.drawing.stages import size_of
from fenwick.drawing.tradeoff import FRAMES, SHAPES, render_tradeoff
from fenwick.rig import Rig, RigError, build_line
from fenwick.rig.edits.design import with_design
from fenwick.rig.edits.kinds import KINDS, kind_of
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.web.separator.fields import separator_of
from fenwick.web.separator.view import picture_of
from fenwick.wording.say import Voice

#: (title, figure, whether more is better): the cards that stand beside the best by all wishes
PICKS = (
    ("Keeps most", "kept", True),
    ("Most air", "air", True),
    ("Lowest", "height", False),
    ("Cheapest", "cost", False),
)
IN_THE_WAY = {
    "height": ("the height", "bore"),
    "suction": ("the suction it may cost", "suction"),
    "largest_hole": ("the largest hole you can cut", "bore"),
    "cutter_reach": ("how deep your cutters reach", "bore"),
    "sheet": ("the size of the sheet", "share"),
    "cost": ("the money", "number"),
    "hours": ("the hours", "number"),
}


@dataclass(frozen=True)
class DesignRow:
    """One design beside today's."""

    title: str
    kind: str
    kept: str
    air: str
    suction: str
    cut: str
    height: str
    cost: str
    hours: str
    link: str
    bought: str = ""  #: what one like it costs to buy; empty where that is what is asked
    picked: bool = False
    worst: str = ""  #: kept of the dust of which least is kept, and whose it is; empty with one tool
    score: str = ""  #: by the wishes, of 100


@dataclass(frozen=True)
class KindMark:
    """A kind of separator on the plot."""

    key: str
    label: str
    mark: str  #: as an SVG path


@dataclass(frozen=True)
class FinderView:
    """A finished search."""

    plots: dict[str, Markup]  #: wide and narrow
    kinds: list[KindMark]  #: of what was found
    rows: list[DesignRow]  #: today's first
    section: Markup | None  #: of the picked design
    picked: int
    picked_row: DesignRow
    feasible: int
    tried: int


def found_view(
    rig: Rig, part: SeparatorPart, port: int, works: Sequence[PortWork], search: Search, job: str, line_id: int,
    pick: int | None, system: str,
) -> FinderView | None:  # fmt: skip
    """The plot, the cards and the picked design; None where nothing was found."""
    if not search.designs:
        return None
    line, voice = build_line(rig), voice_for(rig, system)
    stage = next(one for one in line.separators if one.id == part.id)
    now = evaluate(line, stage, port, works)
    kept, suction = one_value(now.kept), one_value(now.suction)
    air, cut = voice.figure(one_value(now.air), "flow"), voice.figure(one_value(now.cut_size), "grain")
    picked = pick if pick is not None and 0 <= pick < len(search.designs) else 0

    def link(i: int) -> str:
        return url_for("finder.show", line_id=line_id, part=part.id, job=job, pick=i)

    high = size_of(part)[0]
    today = DesignRow(
        f"Today: {voice.name(part.id)}", kind_of(part), voice.figure(kept, "share"), air,
        voice.figure(suction, "suction"), cut, voice.figure(high, "bore"), "", "", "",
        worst=_worst(one_value(now.worst), int(now.worst_port[0]), line, voice) if works else "",
    )  # fmt: skip
    labels = {key: kind.label for key, kind in KINDS.items()}
    shown = _shown(search.designs)
    if picked not in dict(shown).values():
        shown.append(("Picked on the plot", picked))
    rows = [_row(title, search.designs[i], link(i), voice, picked=i == picked) for title, i in shown]
    if works:
        told = [_worst(search.designs[i].worst, search.designs[i].worst_port, line, voice) for _, i in shown]
        rows = [replace(row, worst=words) for row, words in zip(rows, told, strict=True)]
    return FinderView(
        {
            width: render_tradeoff(search.designs, (kept, suction), picked, link, voice, labels, frame)
            for width, frame in FRAMES.items()
        },
        [KindMark(key, labels[key], SHAPES[key]) for key in SHAPES if any(d.kind == key for d in search.designs)],
        [today, *rows],
        _section(rig, part.id, search.designs[picked], voice),
        picked,
        next(row for row in rows if row.picked),
        search.feasible,
        search.tried,
    )


def _shown(designs: tuple[Design, ...]) -> list[tuple[str, int]]:
    """(title, place) of the designs worth a row: the best by all wishes, and the best in each single one."""
    found: list[tuple[str, int]] = [("Best by your wishes", 0)]
    for title, figure, more in PICKS:
        sign = 1.0 if more else -1.0
        best = max(range(len(designs)), key=lambda i: (sign * getattr(designs[i], figure), designs[i].score))
        if best not in [place for _, place in found]:
            found.append((title, best))
    return found


def _row(title: str, design: Design, link: str, voice: Voice, *, picked: bool) -> DesignRow:
    return DesignRow(
        title=title,
        kind=KINDS[design.kind].label,
        kept=voice.figure(design.kept, "share"),
        air=voice.figure(design.air, "flow"),
        suction=voice.figure(design.suction, "suction"),
        cut=voice.figure(design.cut_size, "grain"),
        height=voice.figure(design.height, "bore"),
        cost=f"{design.cost:.0f}",
        hours=f"{design.hours:g} h",
        link=link,
        bought="" if design.bought is None else f"{design.bought:.0f}",
        picked=picked,
        score=f"{100.0 * design.score:.0f}",
    )


def _worst(kept: float, port: int, line: Line, voice: Voice) -> str:
    return f"{voice.figure(kept, 'share')} {voice.name(line.leaves[port].id)}"


def _section(rig: Rig, part: str, design: Design, voice: Voice) -> Markup | None:
    try:
        changed = with_design(rig, part, design)
    except RigError:
        return None
    found = separator_of(changed, part)
    return None if found is None else picture_of(changed, found, voice.system, bands=False).section


def way_sentences(ways: tuple[InTheWay, ...], money: str, voice: Voice) -> list[str]:
    """What stands in the way, and by how much."""
    said = []
    for way in ways:
        what, quantity = IN_THE_WAY[way.limit]

        def figure(value: float, way: InTheWay = way, quantity: str = quantity) -> str:
            if way.limit == "cost":
                return f"{value:.0f} {money}"
            return f"{value:.2g} h" if way.limit == "hours" else voice.figure(value, quantity)

        if way.limit == "sheet":
            said.append(f"The sheet is too small: the smallest pieces are {100 * way.least:.0f} % of what it takes.")
            continue
        more = figure(way.least - way.allowed)
        end = "nothing else stands in the way." if way.alone else "and it is not the only limit in the way."
        said.append(
            f"{what[:1].upper()}{what[1:]}: {figure(way.allowed)} is allowed and the nearest design takes "
            f"{figure(way.least)}, {more} more; {end}"
        )
    return said or ["No single limit is to blame: several of them together leave nothing. Widen one or two."]
