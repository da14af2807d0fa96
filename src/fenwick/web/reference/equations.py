"""The equations of the model, as their own functions tell them."""

from __future__ import annotations

import inspect
import re
from dataclasses import dataclass
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from fenwick.core import formulas

SECTION = "Notes\n-----\n"
TOPICS = {
    "air": "Air", "bed": "Dust that lies in a run", "bin": "Bin", "capture": "Capture", "choice": "Choosing",
    "cyclone": "Cyclones", "fan": "Fan", "filtering": "Filter and bag", "fittings": "Fittings", "friction": "Friction",
    "joint": "Joints", "metrology": "Measuring", "orifice": "Gaps and holes", "pattern": "Flat patterns",
    "room": "The room's air", "route": "Ways on the floor", "shell": "Walls and lids", "sizes": "Grain sizes",
    "stand": "Standing", "swirl": "Swirl", "unrolled": "Unrolled walls", "wet": "Wet stage", "work": "Boards and cuts",
}  # fmt: skip


@dataclass(frozen=True)
class EquationRow:
    """One equation."""

    topic: str
    meaning: str
    formula: str  #: with its source; empty: it stands in the meaning


@cache
def equations() -> tuple[EquationRow, ...]:
    """Every equation of the model, by its topic."""
    found = []
    for module in iter_modules(formulas.__path__):
        there = import_module(f"{formulas.__name__}.{module.name}")
        for name, function in vars(there).items():
            if inspect.isfunction(function) and function.__module__ == there.__name__ and not name.startswith("_"):
                told = inspect.getdoc(function) or ""
                found.append(EquationRow(TOPICS[module.name], _plain(_first(told)), _plain(_notes(told))))
    return tuple(found)


def _first(told: str) -> str:
    return told.split("\n\n", 1)[0]


def _notes(told: str) -> str:
    if SECTION not in told:
        return ""
    return re.split(r"\n\n\w+\n-+\n", told.split(SECTION, 1)[1])[0]


def _plain(text: str) -> str:
    """Without line ends, and the marks of code."""
    return " ".join(text.replace("`", "").replace("*smaller*", "smaller").split())
