"""The sizes of the dust on a filter: what reaches it while it is clean, behind upright, tight, empty separators."""

from __future__ import annotations

import numpy as np

from fenwick.core.components.elements import InlineFilter
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.cakes import as_it_should_be
from fenwick.core.formulas.sizes import SIZE_COUNT
from fenwick.core.line.filters import INLINE, OWN
from fenwick.core.line.line import Line
from fenwick.core.workings.dusts import Grains, grains_of
from fenwick.core.workings.filters import clean_passes, drops
from fenwick.core.workings.in_bin import AirInside
from fenwick.core.workings.room_air import room_density
from fenwick.core.workings.separation import kept_by_stage
from fenwick.core.workings.sheet import Input, Sheet, WorkedStep

LAID = "laid-down."


def cake_sizes(sheet: Sheet, line: Line, name: str, medium: FilterMedium, place: str) -> WorkedStep | None:
    """Mass by size of the dust on a medium, any unit; None where it holds none, or its dust is not known.

    Parameters
    ----------
    name : of the medium in the rig
    place : where it stands
    """
    dust = line.usual_dust or line.dust
    if dust is None or medium.cake is not None or medium.sizes is None:
        return None
    with sheet.section("Dust on the filter"):
        laid = line.alike(dust=dust, trunk=tuple(as_it_should_be(part) for part in line.trunk))
        open_flow = sheet.given("vacuum.curve.open_flow_m3_s", "Q_0", "Open flow", line.vacuum.curve.open_flow, "m³/s")
        flow = sheet.step(
            f"{LAID}flow", "Q", "Air at which the filter took what it holds", "s * Q", "m³/s", "our estimate",
            s=sheet.rule("filter.laid-down", "s_laid"), Q=open_flow
        )  # fmt: skip
        grains = grains_of(sheet, dust, "dust" if dust is line.dust else "usual-dust")
        air = AirInside(flow, room_density(sheet, line), 0.0, 0.0)
        parts: dict[str, Input] = {"w": grains.weights}
        ahead = any(part.id == name for part in laid.trunk) or place != INLINE
        for part in laid.trunk if ahead else ():
            if isinstance(part, InlineFilter):
                if part.id == name:
                    break
                parts[f"p{len(parts)}"] = clean_passes(sheet, part.medium.kind, grains.sizes, f"{LAID}{part.id}.passes")
            if isinstance(part, Separator | WetStage):
                kept = kept_by_stage(sheet, laid, part, grains, air, LAID)
                told = "Of each class, past it"
                parts[f"p{len(parts)}"] = sheet.step(f"{LAID}{part.id}.past", "1−η", told, "1 - k", "-", k=kept)
        if ahead:
            parts |= _held_there(sheet, line, name, medium, place, grains)
        told = "Dust on it by class, per dust made"
        mass = sheet.step(f"{name}.laid-down", "m_i", told, " * ".join(parts), "-", **parts)
        return _by_size(sheet, name, mass if np.sum(mass.value) > 0.0 else grains.weights)


def _held_there(
    sheet: Sheet, line: Line, name: str, medium: FilterMedium, place: str, grains: Grains
) -> dict[str, Input]:
    """Of each class, what comes past the vacuum's tank or bag, where it is ahead, and stays on the medium."""
    parts: dict[str, Input] = {}
    if place == OWN and line.vacuum.bag is not None:
        parts["b"] = clean_passes(sheet, "bag", grains.sizes, f"{LAID}bag.passes")
    elif place == OWN:
        told, dropped = "Of each class, past the tank", drops(sheet, grains.sizes)
        parts["b"] = sheet.step(f"{LAID}tank.past", "1−t", told, "1 - t", "-", t=dropped)
    passes = clean_passes(sheet, medium.kind, grains.sizes, f"{LAID}{name}.passes")
    told = "Of each class, held by it"
    parts["h"] = sheet.step(f"{LAID}{name}.holds", "1−P", told, "1 - P", "-", P=passes)
    return parts


def _by_size(sheet: Sheet, name: str, mass: WorkedStep) -> WorkedStep:
    count = np.size(mass.value)
    if count == SIZE_COUNT:
        return mass
    assert isinstance(mass.value, np.ndarray)
    parts = {f"m{k}": mass.value[k * SIZE_COUNT : (k + 1) * SIZE_COUNT] for k in range(count // SIZE_COUNT)}
    return sheet.step(f"{name}.by-size", "m_i", "Likewise by size", " + ".join(parts), "-", **parts)
