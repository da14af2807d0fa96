"""Generic tools: the port they come with, the dust they make, and how it leaves."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class ToolClass:
    """A kind of tool."""

    key: str
    label: str
    dust: str  #: key of DUSTS
    port_bore: float  #: [m]
    distance: float  #: from the port to where the dust is made [m]
    release: str  #: still, slow, active or fast
    thrown_share: float  #: of the flying dust that the tool aims at the port [-]
    dust_rate: float  #: while it works [kg/s]
    machine: str | None = None  #: key of the containment flows; None: none is published
    current: float | None = None  #: drawn at 230 V [A]
    hood: str = "opening"  #: built-in, opening, enclosure or floor
    open_area: float | None = None  #: of an enclosure [m^2]


TOOLS: dict[str, ToolClass] = {
    tool.key: tool
    for tool in (
        ToolClass("bandsaw", "Bandsaw", "bandsaw", 0.100, 0.06, "active", 0.5, 5e-4, "bandsaw", 4.5, "built-in"),
        ToolClass("table-saw", "Table saw", "saw", 0.100, 0.10, "fast", 0.6, 1e-3, "table-saw", 7.5, "built-in"),
        ToolClass("planer", "Planer", "planer", 0.100, 0.08, "fast", 0.8, 4e-3, "planer", 8.0, "built-in"),
        ToolClass("router-table", "Router table", "router", 0.063, 0.05, "fast", 0.5, 6e-4, "router-table", 6.0),
        ToolClass(
            "drum-sander",
            "Drum sander",
            "sanding-p120",
            0.063,
            0.055,
            "active",
            0.6,
            4e-5,
            "drum-sander",
            5.0,
            "built-in",
        ),
        ToolClass("mitre-saw", "Mitre saw", "saw", 0.035, 0.08, "fast", 0.4, 6e-4, "mitre-saw", 7.0),
        ToolClass("lathe", "Lathe", "router", 0.100, 0.15, "active", 0.2, 5e-4, "lathe", 3.5),
        ToolClass(
            "hand-held-sander",
            "Hand-held sander",
            "sanding-p120",
            0.027,
            0.01,
            "active",
            0.7,
            4e-5,
            "hand-held-sander",
            1.5,
            "built-in",
        ),
        ToolClass(
            "spindle-sander", "Bench-top spindle sander", "sanding-p80", 0.038, 0.05, "active", 0.5, 5e-5, None, 2.5
        ),
        ToolClass("floor-sweep", "Floor sweep", "saw", 0.050, 0.05, "still", 0.9, 1e-3, "floor-pick-up", None, "floor"),
        ToolClass("drill-press", "Drill press", "router", 0.050, 0.10, "active", 0.2, 1e-4, None, 2.5),
        ToolClass(
            "bench-grinder",
            "Bench grinder",
            "steel-grinding",
            0.050,
            0.05,
            "fast",
            0.6,
            3e-5,
            None,
            3.0,
            "enclosure",
            0.004,
        ),
    )
}

#: machines that are moved over the work: no box stands round them, no board behind them
IN_HAND = ("hand-held-sander", "floor-pick-up")

#: taken when the tool is not known, with a port as wide as the hose
COMMONEST = "bandsaw"

#: what must never share a line with wood dust, or must not be taken up at all: (label, why)
HAZARDS: dict[str, tuple[str, str]] = {
    "sparks": (
        "Sparks or hot metal, with wood",
        "Sparks and wood dust in one line are a fire. Keep a separate vacuum for metal, emptied and cleaned first.",
    ),
    "embers": (
        "Ash or embers",
        "Embers glow for hours and set fire to a bin of dust. Ash takes a metal container of its own, outdoors.",
    ),
    "masonry": (
        "Masonry, concrete or stone",
        "Dust of masonry holds silica, which destroys lungs. It takes licensed work and certified extraction.",
    ),
    "lead": (
        "Old paint",
        "Old paint may hold lead. Have it tested; its removal is licensed work, not for this vacuum.",
    ),
    "asbestos": ("Old boards or lagging", "They may hold asbestos. Leave them alone: removal is licensed work."),
    "light-metal": (
        "Aluminium, magnesium or titanium fines",
        "Fines of light metals burn, and release hydrogen with water. They take equipment made for them.",
    ),
}
