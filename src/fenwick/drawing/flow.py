"""The dust as a stream that divides: from where it is made to where it ends, widths true."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from itertools import pairwise

from markupsafe import Markup

from fenwick.drawing.render import render

WIDTH, FULL = 860.0, 170.0  #: of the picture, and the height of all the dust [px]
COLUMNS = (16.0, 236.0, 466.0, 676.0)  #: where a stage of the way stands [px]
BAR = 12.0  #: width of a node [px]
GAP = 18.0  #: between nodes, room for a label [px]
TOP = 106.0  #: of the stream into the hose; what divides later rises above it [px]
LEAST = 0.0005  #: share of the dust that is still drawn [-]

#: ends by the stage of the way at which the dust gets there: (key, words), from the top down
STAGES: tuple[tuple[tuple[str, str], ...], ...] = (
    (
        ("hood", "left in the hood"),
        ("extra", "extra fan's filter"),
        ("blown", "extra fan's exhaust"),
        ("floor", "floor"),
        ("room_air", "room air"),
    ),
    (("inline", "in-line filter"), ("wet", "under water"), ("bin", "bin")),
    (("exhaust", "exhaust"), ("tank", "vacuum's tank"), ("bag", "bag"), ("paper", "filter")),
)


@dataclass(frozen=True)
class FlowNode:
    """One end, or a place the stream passes."""

    key: str
    words: str
    amount: str
    x: float
    y: float
    height: float
    label_y: float
    end: bool


@dataclass(frozen=True)
class Ribbon:
    """A stream between two nodes, of the same width at both ends."""

    key: str
    x0: float
    y0: float
    x1: float
    y1: float
    height: float


def render_flow(ends: Mapping[str, float], amount: Callable[[float], str], made: str, name: str) -> Markup:
    """The diagram as SVG.

    Parameters
    ----------
    ends : every end to its share of the dust made; they add up to 1
    amount : a share as text
    made : what it all begins as, in words
    name : makes its ids unique on a page
    """
    nodes, ribbons = lay_out_flow(ends, amount, made)
    bottom = max(node.y + node.height for node in nodes)
    top = min(min(node.y, node.label_y - 8.0) for node in nodes) - 6.0
    said = ", ".join(f"{node.words} {node.amount}" for node in nodes if node.end)
    return render(
        "flow.svg.jinja",
        name=name,
        width=WIDTH,
        top=top,
        height=max(bottom, max(node.label_y for node in nodes) + 8.0) + 10.0 - top,
        nodes=nodes,
        ribbons=ribbons,
        bar=BAR,
        description=f"{made}: {said}.",
    )


def lay_out_flow(
    ends: Mapping[str, float], amount: Callable[[float], str], made: str
) -> tuple[list[FlowNode], list[Ribbon]]:
    """Nodes and ribbons; the stream that goes on stands on top of the ends of its stage, and rises for the next."""
    nodes = [FlowNode("made", made, amount(1.0), COLUMNS[0], TOP, FULL, TOP + FULL / 2, False)]
    ribbons: list[Ribbon] = []
    source_y, left = TOP, 1.0
    for stage, (x_from, x) in zip(STAGES, pairwise(COLUMNS), strict=True):
        here = [(key, words, ends.get(key, 0.0)) for key, words in stage if ends.get(key, 0.0) > LEAST]
        on = left - sum(ends.get(key, 0.0) for key, _ in stage)
        last = stage is STAGES[-1]
        if on > LEAST and not last:
            here = [("on", {0: "into the hose", 1: "on to the vacuum"}[STAGES.index(stage)], on), *here]
        y, drawn_from = source_y, source_y
        if STAGES.index(stage) > 0:
            y -= GAP * (len(here) - 1)  # so that no ribbon runs over what lies below
        next_y = y
        for key, words, share in here:
            height = share * FULL
            ribbons.append(Ribbon(key, x_from + BAR, drawn_from, x, y, height))
            label = y - 9.0 if key == "on" and height < 22.0 else y + height / 2
            nodes.append(FlowNode(key, words, amount(share), x, y, height, label, key != "on"))
            if key == "on":
                next_y = y
            drawn_from += height
            y += height + GAP
        source_y, left = next_y, on
        if on <= LEAST:
            break
    return _spread(nodes), ribbons


def _spread(nodes: list[FlowNode]) -> list[FlowNode]:
    """Nodes whose labels keep a line's distance in every column."""
    placed: dict[float, float] = {}
    spread = []
    for node in nodes:
        lowest = placed.get(node.x, -99.0) + 15.0
        label = max(node.label_y, lowest)
        placed[node.x] = label
        spread.append(FlowNode(**{**node.__dict__, "label_y": label}))
    return spread
