"""Lines that several tests build."""

from __future__ import annotations

from dataclasses import replace
from math import pi, radians
from typing import Any

import numpy as np
from hypothesis import strategies as st

from fenwick.core.components.bins import Bin
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import (
    Bend,
    Branch,
    Elbow,
    Element,
    FixedLoss,
    Gate,
    Hose,
    Leak,
    Port,
    Reducer,
)
from fenwick.core.components.hood import OpenHood
from fenwick.core.components.separator import Slot, SlottedDisc
from fenwick.core.components.vacuum import FilterMedium, Nameplate, Vacuum
from fenwick.core.line.line import Line


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
    port = Port(
        "Sander",
        0.05,
        "plain",
        OpenHood(distance=pick("distance", 0.05), release="active", thrown_share=0.6),
        pick("rate", 4e-5),
    )
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
    kind = draw(st.sampled_from(["hose", "hose", "reducer", "loss", "gate", "elbow", "leak"]))
    if kind == "hose":
        bends = draw(st.lists(st.builds(Bend, st.floats(0.2, pi), st.floats(0.05, 0.6)), max_size=3))
        return Hose(name, bore, draw(st.floats(0.05, 12.0)), draw(WALLS), tuple(bends))
    if kind == "reducer":
        return Reducer(name, bore, draw(BORES), draw(st.sampled_from([0.0, 0.05, 0.2])))
    if kind == "loss":
        return FixedLoss(name, bore, draw(st.floats(0.0, 5.0)))
    if kind == "gate":
        return Gate(name, bore, draw(st.floats(0.0, 1.0)))
    if kind == "elbow":
        return Elbow(name, bore, draw(st.floats(0.2, pi / 2)), draw(st.sampled_from(["long-sweep", "short", "mitre"])))
    return Leak(name, draw(st.floats(0.0, 0.01)))


ENTRIES = st.sampled_from(["plain", "flanged", "tapered", "bellmouth", "crevice", "brush"])
CURVES = st.builds(Nameplate, st.floats(1e3, 46e3), st.floats(0.01, 0.3), st.sampled_from([0.5, 1.0, 1.0, 3.0]))


@st.composite
def lines(draw: st.DrawFn) -> Line:
    """Any one-branch line, with bores 8 to 120 mm, leaks to 100 cm² and fans to 46 kPa."""
    curve, entry = draw(CURVES), draw(ENTRIES)
    drawn = [replace(part, id=f"e{i}") for i, part in enumerate(draw(st.lists(elements(), max_size=12)))]
    split = draw(st.integers(0, len(drawn)))
    branch, trunk = Branch("tool", Port("Tool", draw(BORES), entry), tuple(drawn[:split])), drawn[split:]
    if draw(st.booleans()):
        trunk.insert(len(trunk) // 2, disc_line(leak=draw(st.floats(0, 1e-3))).separators[0])
    return Line(Vacuum(curve, draw(st.none() | BORES)), DUSTS["saw"], (branch,), tuple(trunk))


@st.composite
def trees(draw: st.DrawFn) -> Line:
    """Any tree of 2 to 8 tool ports and up to 40 elements, branches of branches and gates included."""
    left = 40

    def run(most: int) -> tuple[Element, ...]:
        nonlocal left
        drawn = draw(st.lists(elements(), max_size=min(most, left)))
        left -= len(drawn)
        return tuple(replace(part, id=f"e{left + i}") for i, part in enumerate(drawn))

    def branch(name: str, ports: int) -> Branch:
        gate, angle = draw(st.none() | st.sampled_from([0.0, 0.3, 1.0])), radians(draw(st.floats(15.0, 90.0)))
        if ports == 1:
            return Branch(name, Port(name, draw(BORES), draw(ENTRIES)), run(8), gate, angle)
        return Branch(name, None, run(5), gate, angle, split(name, ports))

    def split(name: str, ports: int) -> tuple[Branch, ...]:
        first = draw(st.integers(1, ports - 1))
        return branch(f"{name}a", first), branch(f"{name}b", ports - first)

    return Line(Vacuum(draw(CURVES), draw(st.none() | BORES)), None, split("b", draw(st.integers(2, 8))), run(8))
