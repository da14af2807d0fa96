"""The week's work at the tool ports of a line: what a separator, or a whole way, is chosen for."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class PortWork:
    """What is done at one tool port in a week."""

    port: int  #: its place among the leaves
    mass: float  #: of dust made [kg]
