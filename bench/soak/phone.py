"""Stand-ins of photos and recordings by the hundred: how well they are read, and whether what is broken is refused."""

from __future__ import annotations

import time
from dataclasses import dataclass, field

from fenwick.phone.scenes import broken_ways, scene
from fenwick.services.phone import KINDS, read_by_phone

FROM_SEED = 100_000  #: that nothing was fitted to
#: (in the reading's own unit; of its value [-]) that 95 of 100 keep
WITHIN = {"grey": (0.3, 0.0), "squares": (0.0, 0.02), "depth": (2.0, 0.0), "tube": (1.5, 0.0), "pitch": (0.0, 0.005)}
#: what must be refused; a shadow off the strip is no harm
MUST = ("no-card", "cut", "blur", "dark", "two", "scale", "silent", "clipped", "noise", "short")


@dataclass
class PhoneSoak:
    """How a kind of reading did."""

    kind: str
    read: int = 0
    within: int = 0
    held: int = 0  #: whose band holds the truth
    light: int = 0  #: of greys, within 2 L*
    refused_wrongly: int = 0
    broken: int = 0
    guessed: list[tuple[str, int]] = field(default_factory=list)
    slowest: float = 0.0  #: [s]

    @property
    def good(self) -> bool:
        """Whether it keeps to what is asked of it."""
        count = self.read + self.refused_wrongly
        light = self.kind != "grey" or self.light >= 0.95 * count
        return self.within >= 0.95 * count and light and len(self.guessed) <= 0.01 * self.broken


def soak_phone(kind: str, count: int) -> PhoneSoak:
    """Read so many scenes of a kind, and a third as many that are broken."""
    found = PhoneSoak(kind)
    near, share = WITHIN[kind]
    for seed in range(FROM_SEED, FROM_SEED + count):
        drawn = scene(kind, seed)
        began = time.perf_counter()
        told = read_by_phone(kind, [drawn.data])
        found.slowest = max(found.slowest, time.perf_counter() - began)
        if told.value is None or told.low is None or told.high is None:
            found.refused_wrongly += 1
            continue
        truth = float(drawn.truth["value"])
        found.read += 1
        found.within += abs(told.value - truth) <= near + share * truth
        found.held += told.low - 1e-9 <= truth <= told.high + 1e-9
        found.light += kind == "grey" and abs(told.seen["L"] - drawn.truth["L"]) <= 2.0
    ways = [way for way in broken_ways(kind) if way in MUST]
    for i in range(max(count // 3, len(ways))):
        way = ways[i % len(ways)]
        found.broken += 1
        if read_by_phone(kind, [scene(kind, FROM_SEED + i, way).data]).value is not None:
            found.guessed.append((way, FROM_SEED + i))
    return found


def soak_all(count: int) -> tuple[bool, str]:
    """Every kind; (whether all keep to what is asked, what came of each)."""
    several = [soak_phone(kind, count) for kind in KINDS]
    words = "; ".join(
        f"{one.kind}: {one.within} of {one.read} within, {one.held} in the band, {one.refused_wrongly} refused, "
        f"{len(one.guessed)} of {one.broken} broken guessed {one.guessed[:3] or ''} slowest {one.slowest:.1f} s"
        for one in several
    )
    return all(one.good for one in several), words
