"""How the figures of a line come about."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from fenwick.core.errors import CoreError
from fenwick.core.hours.air import USUAL_JOB
from fenwick.core.line.line import Line
from fenwick.core.tuning.fit import Fit, fit
from fenwick.core.tuning.readings import Reading
from fenwick.core.workings.figures import KINDS, FigureAsked, RoomGiven, figures, working
from fenwick.core.workings.sheet import Working
from fenwick.rig import Rig
from fenwick.rig.to_core.line import described_line
from fenwick.rig.to_core.prices import prices_of
from fenwick.rig.working import traced_to
from fenwick.services.air import source_at
from fenwick.services.solving import Solved, solve
from fenwick.shop import ShopFile
from fenwick.shop.work import room_of_shop


def asked_of(
    rig: Rig,
    port: str | None = None,
    shop: ShopFile | None = None,
    readings: Sequence[Reading] = (),
    duration: float = USUAL_JOB,
) -> FigureAsked:
    """What workings are asked of: the line as it stands, at one of its ports.

    Parameters
    ----------
    port : id of the port; None: the first open one
    shop : whose room it is; None: not known
    readings : that it is tuned to
    duration : of the job in that room [s]

    Raises
    ------
    KeyError
        When the line has no such port.
    CoreError
        When it cannot be solved.
    """
    solved = solve(rig)
    return FigureAsked(
        line=solved.line,
        port=_place(solved, port),
        prices=prices_of(rig),
        room=None if shop is None else _room(solved, port, shop, duration),
        fitted=_fitted(described_line(rig), readings),
    )


def _place(solved: Solved, port: str | None) -> int:
    if port is None:
        return solved.first_open
    for i, leaf in enumerate(solved.line.leaves):
        if leaf.id == port:
            return i
    raise KeyError(port)


def _room(solved: Solved, port: str | None, shop: ShopFile, duration: float) -> RoomGiven:
    name = solved.line.leaves[_place(solved, port)].id
    keys = ("height_m", *(("air_changes",) if shop.room.air_changes_per_h is not None else ()))
    room = room_of_shop(shop, solved.line.rules)
    return RoomGiven(room, keys, source_at(solved, name), duration)


def _fitted(line: Line, readings: Sequence[Reading]) -> Fit | None:
    if not readings:
        return None
    try:
        return fit(line, list(readings))
    except CoreError:
        return None


def explained(rig: Rig, asked: FigureAsked, figure: str) -> Working | None:
    """How a figure comes about; None where this input does not allow it.

    Parameters
    ----------
    asked : of this rig
    figure : its kind, and after a colon which one
    """
    found = working(asked, figure)
    return None if found is None else traced_to(rig, found)


@lru_cache(maxsize=32)
def explained_on_page(
    rig: Rig, port: str, shop: ShopFile | None, readings: tuple[Reading, ...], duration: float, figure: str
) -> Working | None:
    """The same, worked out once for each.

    Parameters
    ----------
    duration : of the job [s]
    """
    return explained(rig, asked_of(rig, port, shop, readings, duration), figure)


def all_explained(rig: Rig, asked: FigureAsked) -> dict[str, Working]:
    """Every figure that an input allows, with its working.

    Parameters
    ----------
    asked : of this rig
    """
    return {name: traced_to(rig, found) for name, found in figures(asked).items()}


def title_of(figure: str) -> str:
    """What a figure is called.

    Parameters
    ----------
    figure : its kind, and after a colon which one
    """
    kind, _, one = figure.partition(":")
    return f"{KINDS[kind].title}: {one}" if one else KINDS[kind].title
