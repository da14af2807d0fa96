"""What a request is about: the line, what is built for it, and how far that is."""

from __future__ import annotations

from dataclasses import dataclass

from flask import request

from fenwick.data.builds import BuildState, build_state
from fenwick.data.lines import LineState, line_state
from fenwick.rig.format.hood import EnclosurePart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.services.builds import Progress, progress
from fenwick.services.making import HOOD, STAND, BuildAsked, NothingToBuildError
from fenwick.services.shop_stock import asked_of
from fenwick.web.kit.database import session


@dataclass(frozen=True)
class Thing:
    """Something of a line that can be built."""

    what: str
    title: str


@dataclass(frozen=True)
class InHand:
    """What a page of Build shows."""

    state: LineState
    things: tuple[Thing, ...]
    what: str
    build: BuildState
    found: Progress
    asked: BuildAsked  #: what the shop has

    @property
    def title(self) -> str:
        """What is built."""
        return self.found.pack.title


def things_of(rig: Rig) -> tuple[Thing, ...]:
    """Everything of a line that can be built: separators, a stand, boxes round tools."""
    found = [
        Thing(e.id, e.name or e.id.capitalize())
        for e in rig.line.elements
        if isinstance(e, SeparatorPart | WetStagePart)
    ]
    if any(isinstance(e, SeparatorPart) for e in rig.line.elements):
        found.append(Thing(STAND, "Its stand"))
    for _, branch in rig.line.walk():
        port = branch.port
        if port is not None and isinstance(port.hood, EnclosurePart) and port.hood.box is not None:
            found.append(Thing(f"{HOOD}{branch.id}", f"Hood of {port.name}"))
    return tuple(found)


def in_hand(line_id: int) -> InHand:
    """What the request is about.

    Raises
    ------
    NotFoundError
    NothingToBuildError
        When the line has nothing to build, or nothing of the name asked for.
    """
    state = line_state(session(), line_id)
    things = things_of(state.rig)
    if not things:
        raise NothingToBuildError("The line has no separator to build yet.")
    what = request.values.get("what", "") or things[0].what
    if what not in {thing.what for thing in things}:
        raise NothingToBuildError("The line has nothing of that name to build.")
    build = build_state(session(), line_id, what)
    asked = asked_of(state.owned, what)
    return InHand(state, things, what, build, progress(state.rig, build.file, asked), asked)
