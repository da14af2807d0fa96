"""Photos of the inside of a bin, each pinned to its height, beside what the model keeps with dust up to there."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache

import numpy as np
from sqlmodel import Session

from fenwick.core.arrays import Array
from fenwick.core.errors import CoreError
from fenwick.core.tuning.filling import kept_when_filled
from fenwick.data.logbook import LogWanted, entries_of, photos_of
from fenwick.rig import Rig, build_line

MOST = 12  #: photos that are shown


@dataclass(frozen=True)
class PinnedPhoto:
    """A photo of the inside of a bin."""

    entry: int
    photo: int | None  #: None: it was thrown away since
    height: float  #: over the bin's floor [m]
    at: datetime
    words: str


@dataclass(frozen=True)
class KeptByHeight:
    """What is kept with dust up to a height, from the floor to the rim."""

    heights: Array  #: shape (k,) [m]
    widths: Array  #: of the bin there [m]
    kept: Array  #: of what enters [-]

    def at(self, height: float) -> float:
        """Share kept with dust up to a height [-].

        Parameters
        ----------
        height : over the floor [m]
        """
        return float(np.interp(height, self.heights, self.kept))

    def thrown_back(self, height: float) -> float:
        """Of what enters, what is thrown back with dust up to a height that an empty bin keeps [-].

        Parameters
        ----------
        height : over the floor [m]
        """
        return max(self.empty - self.at(height), 0.0)

    @property
    def empty(self) -> float:
        """Share kept by the empty bin [-]."""
        return float(self.kept[0])


@lru_cache(maxsize=32)
def kept_by_height(rig: Rig) -> KeptByHeight | None:
    """What the first bin of a line keeps at every height of the dust; None without one, or for unknown dust."""
    try:
        line = build_line(rig)
        found = kept_when_filled(line)
    except CoreError:
        return None
    if found is None:
        return None
    heights, kept = found
    widths = np.asarray(line.separators[0].bin.diameter_at(heights), dtype=float)
    return KeptByHeight(heights, np.broadcast_to(widths, heights.shape), kept)


def pinned_photos(session: Session, line_id: int) -> list[PinnedPhoto]:
    """The photos of the inside of a line's bin, the newest first."""
    entries = entries_of(session, LogWanted(kinds=("inside",), line=line_id), most=MOST)
    photos = photos_of(session, [one.id for one in entries if one.id is not None])
    return [
        PinnedPhoto(one.id, next(iter(photos.get(one.id, [])), None), one.level, one.at, one.words)
        for one in entries
        if one.id is not None and one.level is not None
    ]
