"""When was cut, as a person types it: minutes from and to, a cut after the other."""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import pairwise

from fenwick.core.bench.trials.monitor import LONGEST_LOG

MINUTE = 60.0  #: [s]
_END = r"([-−]?[0-9]{1,9}(?:[.,][0-9]{1,9})?)"  #: below nothing where the monitor's clock was set back
_CUT = re.compile(rf"{_END}\s*(?:-|–|to)\s*{_END}")


class BadCutsError(ValueError):
    """Text that names no cuts; says so in a sentence."""


def read_cuts(text: str) -> list[tuple[float, float]]:
    """(start, stop) of each cut [s]; empty for an empty text.

    Raises
    ------
    BadCutsError
    """
    cuts = []
    for part in (one.strip() for one in re.split(r";|\n", text)):
        if not part:
            continue
        found = _CUT.fullmatch(part)
        if found is None:
            raise BadCutsError(f"“{part[:30]}” is no cut: type minutes from and to, as 5–6; 12–13.5.")
        start, stop = (float(end.replace(",", ".").replace("−", "-")) * MINUTE for end in found.groups())
        if max(abs(start), abs(stop)) > LONGEST_LOG:
            raise BadCutsError(f"“{part[:30]}” lies beyond a week: type minutes from the start of the log.")
        if stop <= start:
            raise BadCutsError(f"“{part[:30]}” stops before it starts.")
        cuts.append((start, stop))
    cuts.sort()
    for (_, before), (after, _) in pairwise(cuts):
        if after < before:
            raise BadCutsError("Two cuts lie over each other.")
    return cuts


def write_cuts(cuts: Sequence[tuple[float, float]]) -> str:
    """Cuts as one types them."""
    return "; ".join(f"{_minutes(start)}–{_minutes(stop)}" for start, stop in cuts)


def _minutes(seconds: float) -> str:
    text = f"{seconds / MINUTE:.2f}".rstrip("0").rstrip(".")
    return text or "0"
