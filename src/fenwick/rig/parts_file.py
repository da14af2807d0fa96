"""The file of parts: what `fenwick build` writes beside the templates."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from fenwick.core.making.cutters import CutSetting
from fenwick.core.making.parts import MadePart
from fenwick.core.making.shopping import ToBuy
from fenwick.core.making.steps import WorkStep
from fenwick.core.making.tolerances import Tolerance
from fenwick.wording.making.names import COSTS, EDGES, TOOLS, part_name
from fenwick.wording.making.work import CAUTIONS, HOLDS, LAST, step_title

FORMAT, VERSION = "fenwick-parts", 1
DIGITS = 9  #: of a length in metres: a nanometre


def parts_document(
    rig: str,
    separator: str,
    parts: Sequence[MadePart],
    steps: Sequence[WorkStep],
    cuts: Mapping[str, Sequence[CutSetting]],
    warnings: Sequence[str],
    tolerances: Mapping[str, Sequence[Tolerance]],
    to_buy: Sequence[ToBuy],
) -> dict[str, Any]:
    """The whole file as plain values in SI.

    Parameters
    ----------
    cuts, tolerances : by the part's id
    """
    return {
        "format": FORMAT,
        "version": VERSION,
        "rig": rig,
        "separator": separator,
        "parts": [_part(part, cuts.get(part.id, ()), tolerances.get(part.id, ())) for part in parts],
        "steps": [_step(step) for step in steps],
        "to_buy": [{"key": one.key, "count": one.count, "price": _price(one)} for one in to_buy],
        "warnings": list(warnings),
    }  # fmt: skip


def _part(part: MadePart, cuts: Sequence[CutSetting], tolerances: Sequence[Tolerance]) -> dict[str, Any]:
    found: dict[str, Any] = {"id": part.id, "name": part_name(part.id), "kind": part.kind, "count": part.count}
    if part.swirl is not None:
        found["swirl"] = part.swirl
    found |= {"material": part.stock.material, "thickness_m": round(part.stock.thickness, DIGITS), "how": part.how}
    if part.side is not None:
        found["side"] = part.side
    found["dims"] = {key: round(float(value), DIGITS) for key, value in part.dims.items()}
    if part.kind == "tube":
        found |= {key: found["dims"][key] for key in ("length_m", "outer_d_m")}
    if part.outline:
        found["outline_m"] = [_loop(loop) for loop in part.outline]
    if part.creases:
        found["creases_m"] = [_loop(line) for line in part.creases]
    if part.drills:
        found["drills"] = [
            {"x_m": round(d.x, DIGITS), "y_m": round(d.y, DIGITS), "d_m": round(d.d, DIGITS), "for": d.purpose}
            for d in part.drills
        ]
    if tolerances:
        found["tolerances"] = [_tolerance(one) for one in tolerances]
    if cuts:
        found["cuts"] = [_cut(cut) for cut in cuts]
    return found


def _price(line: ToBuy) -> float | None:
    return None if line.price is None else round(line.price, 2)


def _tolerance(one: Tolerance) -> dict[str, Any]:
    return {"dim": one.dim, "low_m": round(one.low, 6), "high_m": round(one.high, 6), "costs": COSTS[one.costs]}


def _loop(loop: Any) -> list[list[float]]:
    return [[float(x), float(y)] for x, y in np.round(loop, DIGITS)]


def _cut(cut: CutSetting) -> dict[str, Any]:
    found: dict[str, Any] = {"tool": TOOLS[cut.tool], "edge": EDGES[cut.edge], "radius_m": round(cut.radius, DIGITS)}
    if cut.pivot is not None:
        found["pivot_m"] = round(cut.pivot, DIGITS)
    if cut.cutter > 0.0:
        found["cutter_m"] = round(cut.cutter, DIGITS)
    if cut.depth is not None:
        found["depth_m"] = round(cut.depth, DIGITS)
    if cut.plug:
        found["plug"] = True
    return {**found, "waste": cut.waste}


def _step(step: WorkStep) -> dict[str, Any]:
    name = step_title(step.id)
    found: dict[str, Any] = {"id": step.id, "name": name, "after": list(step.after), "parts": list(step.parts)}
    found |= {"hands_s": round(step.hands, 1), "cure_s": round(step.cure, 1)}
    found["hold"] = None if step.hold is None else HOLDS[step.hold]
    if step.last is not None:
        found["last"] = LAST[step.last]
    found["cautions"] = [CAUTIONS[key] for key in step.cautions]
    return found
