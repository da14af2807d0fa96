"""Symbols of tools, each of its own kind, drawn in a box of 60 by 72 that stands on its lower edge."""

from __future__ import annotations

from fenwick.rig.format.elements import PortPart

WIDE, HIGH = 60.0, 72.0  #: of the box
OUTLET = (58.0, 48.0)  #: where a hose leaves it, if nothing else is said
#: how far below the top of the box it leaves some of them
STUBS = {
    "bandsaw": 50.0, "table-saw": 52.0, "planer": 30.0, "router-table": 35.0, "drum-sander": 30.0, "mitre-saw": 34.0,
    "lathe": 24.0, "hand-held-sander": 44.0, "drill-press": 43.0, "spindle-sander": 57.0, "bench": 38.0,
}  # fmt: skip

#: machines that have a symbol under their own key
SYMBOLS = (
    "bandsaw", "table-saw", "planer", "router-table", "drum-sander", "mitre-saw", "lathe", "hand-held-sander",
    "floor-pick-up", "drill-press", "grinder", "spindle-sander", "bench",
)  # fmt: skip

#: parts of a name that tell the kind where no machine is named
TOLD_BY_NAME = (
    ("drill", "drill-press"), ("grind", "grinder"), ("spindle", "spindle-sander"), ("bobbin", "spindle-sander"),
    ("drum", "drum-sander"), ("sander", "hand-held-sander"), ("lathe", "lathe"), ("mitre", "mitre-saw"),
    ("miter", "mitre-saw"), ("band", "bandsaw"), ("planer", "planer"), ("thicknesser", "planer"),
    ("jointer", "planer"), ("router", "router-table"), ("saw", "table-saw"), ("sweep", "floor-pick-up"),
    ("floor", "floor-pick-up"),
)  # fmt: skip


#: kinds of tools that are known by another symbol
OF_KIND = {"bench-grinder": "grinder", "floor-sweep": "floor-pick-up"}


def symbol_of(port: PortPart, kind: str | None = None) -> str:
    """The symbol of the tool that a port belongs to: by its kind or machine, else by its name, else a bench."""
    if kind is not None and OF_KIND.get(kind, kind) in SYMBOLS:
        return OF_KIND.get(kind, kind)
    if port.machine in SYMBOLS:
        return str(port.machine)
    name = f"{port.tool or ''} {port.name}".lower()
    return next((symbol for part, symbol in TOLD_BY_NAME if part in name), "bench")
