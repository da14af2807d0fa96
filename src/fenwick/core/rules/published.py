"""Published tables that the rules stand beside: entries, air speeds wanted, flows that contain fine dust."""

from __future__ import annotations

#: K of an entry on the port's velocity head [-]; published (ventilation practice) but for the last two
ENTRY_LOSS: dict[str, float | str] = {
    "plain": 0.93,
    "flanged": 0.49,
    "tapered": 0.25,
    "bellmouth": 0.04,
    "crevice": "entry.crevice",
    "brush": "entry.brush",
}

#: air speed needed at the dust by how it is released, (low, high) [m/s]; industrial ventilation practice
RELEASE_VELOCITY: dict[str, tuple[float, float]] = {
    "still": (0.25, 0.5),
    "slow": (0.5, 1.0),
    "active": (1.0, 2.5),
    "fast": (2.5, 10.0),
}

#: flow that contains fine dust at a machine, (low, high) [m^3/h]; industrial ventilation practice
CONTAINMENT_M3_H: dict[str, tuple[float, float]] = {
    "bandsaw": (600, 750),
    "table-saw": (600, 900),
    "planer": (700, 1000),
    "router-table": (350, 600),
    "drum-sander": (600, 1000),
    "mitre-saw": (700, 1000),
    "lathe": (700, 700),
    "hand-held-sander": (100, 150),
    "floor-pick-up": (600, 600),
}
