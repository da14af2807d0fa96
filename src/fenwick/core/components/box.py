"""A box round a tool: its sizes, what the work goes through, its doors; what it is open by follows from them."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.components.hood import Opening

SIDES = ("front", "back", "left", "right", "top")
SHUT = "doors shut"


@dataclass(frozen=True)
class Passage:
    """A rectangle in one of a box's sides that stays open."""

    side: str  #: of SIDES
    width: float  #: [m]
    height: float  #: [m]


@dataclass(frozen=True)
class BoxDoor:
    """A door in one of a box's sides."""

    name: str
    side: str  #: of SIDES
    width: float  #: [m]
    height: float  #: [m]
    share: float = 0.0  #: how often it stands open, against working with all doors shut [-]


@dataclass(frozen=True)
class HoodBox:
    """A box round a tool."""

    width: float  #: inside, from left to right [m]
    depth: float  #: inside, from front to back [m]
    height: float  #: inside [m]
    passages: tuple[Passage, ...]
    doors: tuple[BoxDoor, ...] = ()
    gap: float = 0.0  #: round every door that is shut [m]

    def face(self, side: str) -> tuple[float, float]:
        """Width and height of one of its sides [m]."""
        if side == "top":
            return self.width, self.depth
        return (self.depth if side in ("left", "right") else self.width), self.height

    def ways(self) -> tuple[Opening, ...]:
        """Its ways of working: every door shut, and each door open by itself."""
        always = sum(one.width * one.height for one in self.passages)
        gaps = [2.0 * (door.width + door.height) * self.gap for door in self.doors]
        shut = always + sum(gaps)
        ways = [Opening(SHUT if self.doors else "", shut, 1.0)]
        for door, gap in zip(self.doors, gaps, strict=True):
            if door.share > 0.0:
                ways.append(Opening(door.name, shut - gap + door.width * door.height, door.share))
        return tuple(ways)
