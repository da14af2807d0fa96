"""Two lines side by side as a document: what `fenwick compare` prints."""

from __future__ import annotations

from typing import Any

from fenwick.core.search.apart import DrawnFigure, FigureApart
from fenwick.rig import Rig
from fenwick.rig.compare import differences
from fenwick.services.side_by_side import SideBySide

FORMAT, VERSION = "fenwick-comparison", 1
#: the key of each figure, with its unit
KEYS = {
    "flow": "flow_m3_s",
    "speed": "slowest_m_s",
    "cut_size": "cut_size_m",
    "folding": "collapse",
    "mark": "fill_mark_m3",
    "height": "height_m",
    "loudness": "loudness_dba",
}


def comparison_document(left: Rig, right: Rig, found: SideBySide) -> dict[str, Any]:
    """Plain values in SI; better and worse are said of the right line."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "left": left.name,
        "right": right.name,
        "tally": {word.replace(" ", "_"): count for word, count in found.tally.items()},
        "ports": [
            {
                "name": port.name,
                "left": None if port.left is None else left.line.ways[port.left][0].id,
                "right": None if port.right is None else right.line.ways[port.right][0].id,
                "figures": {KEYS.get(name, name): _apart(one) for name, one in port.figures.items()},
            }
            for port in found.ports
        ],
        "whole": {KEYS.get(name, name): _apart(one) for name, one in found.whole.items()},
        "differences": [
            {
                "part": one.part,
                "key": one.key or None,
                "what": one.title,
                "left": None if one.absent[0] else one.values[0],
                "right": None if one.absent[1] else one.values[1],
                "absent": list(one.absent),
                "moves_figures": not one.quiet,
            }
            for one in differences(left, right)
        ],
    }


def _apart(found: FigureApart) -> dict[str, Any]:
    return {
        "left": _drawn(found.left),
        "right": _drawn(found.right),
        "verdict": found.verdict,
        "surely": found.surely,
    }


def _drawn(one: DrawnFigure | None) -> dict[str, float] | None:
    return None if one is None else {"now": one.now, "low": one.low, "high": one.high}
