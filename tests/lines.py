"""Lines that several tests build."""

from __future__ import annotations

from dataclasses import replace
from math import pi, radians
from typing import Any

import numpy as np
from hypothesis import strategies as st

from fenwick.core.components.bins import Bin
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Bend, Branch, Element, FixedLoss, Hood, Hose, Leak, Port, Reducer
from fenwick.core.components.separator import Slot, SlottedDisc
from fenwick.core.components.vacuum import FilterMedium, Nameplate, Vacuum
from fenwick.core.system.line import Line


def plain_line(suction: Any, flow: Any, bore: Any, length: Any, roughness: Any, **vacuum: Any) -> Line:
    """One open port and one hose with two bends of radius four bores."""
    bends = tuple(Bend(pi / 2, 4 * np.asarray(bore)) for _ in range(2))
    wall = "wire-helix" if np.all(np.asarray(roughness) > 5e-4) else "smooth"
    hose = Hose("hose", bore, length, wall, bends, roughness)
    return Line(
        Vacuum(Nameplate(suction, flow), **vacuum), DUSTS["saw"], (Branch("tool", Port("Tool", bore)),), (hose,)
    )


def disc_line(**changes: Any) -> Line:
    """A drum sander, a hose, a slotted disc over a bin, a link hose; `changes` go to the parts that know the name."""

    def pick(name: str, default: Any) -> Any:
        return changes.get(name, default)

    box = Bin(
        (0.0, 0.45),
        (0.34, 0.34),
        wall=0.002,
        material="hdpe",
        fill_height=pick("fill", 0.1),
        leak_area=pick("leak", 5e-6),
        stiffeners=pick("stiffeners", ()),
    )
    disc = SlottedDisc("sep", 0.34, 0.12, 0.05, 0.063, 0.06, (Slot(0.03, radians(240.0)),), box, tilt=pick("tilt", 0.0))
    hose = Hose("hose", pick("bore", 0.038), pick("length", 2.5), pick("wall", "wire-helix"))
    port = Port("Sander", 0.05, "plain", Hood(pick("distance", 0.05), "active", 0.6), pick("rate", 4e-5))
    return Line(
        Vacuum(Nameplate(pick("suction", 18e3), 0.062, pick("exponent", 1.0)), None, pick("filter", _paper())),
        DUSTS[pick("dust", "sanding-p120")],
        (Branch("tool", port, (hose,)),),
        (disc, Hose("link", 0.05, 1.2)),
    )


def _paper() -> FilterMedium:
    return FilterMedium("paper", 0.6, 0.0)


BORES = st.floats(0.008, 0.12)
WALLS = st.sampled_from(["smooth", "light-rib", "wire-helix", "corrugated", "pipe"])


@st.composite
def elements(draw: st.DrawFn) -> Element:
    """Any element but a separator."""
    name = "part"  # made unique when the line is put together
    bore = draw(BORES)
    kind = draw(st.sampled_from(["hose", "hose", "reducer", "loss", "leak"]))
    if kind == "hose":
        bends = draw(st.lists(st.builds(Bend, st.floats(0.2, pi), st.floats(0.05, 0.6)), max_size=3))
        return Hose(name, bore, draw(st.floats(0.05, 12.0)), draw(WALLS), tuple(bends))
    if kind == "reducer":
        return Reducer(name, bore, draw(BORES), draw(st.sampled_from([0.0, 0.05, 0.2])))
    if kind == "loss":
        return FixedLoss(name, bore, draw(st.floats(0.0, 5.0)))
    return Leak(name, draw(st.floats(0.0, 0.01)))


@st.composite
def lines(draw: st.DrawFn) -> Line:
    """Any one-branch line, with bores 8 to 120 mm, leaks to 100 cm² and fans to 46 kPa."""
    curve = Nameplate(
        draw(st.floats(1e3, 46e3)), draw(st.floats(0.01, 0.3)), draw(st.sampled_from([0.5, 1.0, 1.0, 3.0]))
    )
    entry = draw(st.sampled_from(["plain", "flanged", "tapered", "bellmouth", "crevice", "brush"]))
    drawn = [replace(part, id=f"e{i}") for i, part in enumerate(draw(st.lists(elements(), max_size=12)))]
    split = draw(st.integers(0, len(drawn)))
    branch, trunk = Branch("tool", Port("Tool", draw(BORES), entry), tuple(drawn[:split])), drawn[split:]
    if draw(st.booleans()):
        trunk.insert(len(trunk) // 2, disc_line(leak=draw(st.floats(0, 1e-3))).separators[0])
    return Line(Vacuum(curve, draw(st.none() | BORES)), DUSTS["saw"], (branch,), tuple(trunk))
