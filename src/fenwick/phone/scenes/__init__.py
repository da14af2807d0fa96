"""Stand-ins for photos and recordings, drawn with a known truth: for the demo, the tests, and whoever has no phone."""

from __future__ import annotations

from fenwick.phone.reading import GREY, PITCH
from fenwick.phone.scenes.photos import BROKEN, PHOTOS, StandIn
from fenwick.phone.scenes.sounds import BROKEN_SOUNDS, pitch_scene

__all__ = ["StandIn", "broken_ways", "scene"]


def scene(kind: str, seed: int, broken: str = "") -> StandIn:
    """A stand-in of a kind.

    Parameters
    ----------
    kind : of a reading
    seed : of all that is drawn [-]
    broken : one of `broken_ways`; empty: as it should be
    """
    return pitch_scene(seed, broken) if kind == PITCH else PHOTOS[kind](seed, broken)


def broken_ways(kind: str) -> tuple[str, ...]:
    """What may be wrong with a stand-in of a kind."""
    if kind == PITCH:
        return BROKEN_SOUNDS
    return BROKEN if kind == GREY else tuple(one for one in BROKEN if one != "scale")
