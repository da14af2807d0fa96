"""Readings by telephone: files in, a reading out, with what it comes to on a line."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from fenwick.core.bench.trials.by_hand import BULK_SD
from fenwick.core.rules import RuleBook, rule
from fenwick.phone.found import RefusedError
from fenwick.phone.grey import read_grey
from fenwick.phone.levels import read_depth, read_tube
from fenwick.phone.opened import BadPhotoError, points_of
from fenwick.phone.pitch import read_pitch
from fenwick.phone.reading import DEPTH, GREY, PITCH, SQUARES, TUBE, Overlay, PhoneReading, outline, refusal
from fenwick.phone.several import together
from fenwick.phone.sound import BadSoundError, sound_of
from fenwick.phone.squares import read_squares
from fenwick.rig import Rig, build_line

FORMAT, VERSION = "fenwick-reading", 1
KINDS = (GREY, SQUARES, DEPTH, TUBE, PITCH)
MOST_FILES = 6
ENDS = ("", "_low", "_high")
BAR_MM = 50.0  #: length of the bar on everything that is printed [mm]
OFF_SCALE = "The 50 mm bar measures {bar:.1f} mm: print it again at 100 %, without “fit to page”."


def read_by_phone(kind: str, files: Sequence[bytes], rig: Rig | None = None, bar: float = BAR_MM) -> PhoneReading:
    """A reading off photos or recordings; one that cannot be taken says why.

    Parameters
    ----------
    kind : one of KINDS
    files : as they came
    rig : the line that is measured; its bin says what a depth comes to
    bar : what the printed bar of 50 mm measures by a ruler [mm]
    """
    if kind != PITCH and abs(bar / BAR_MM - 1.0) > rule("phone.off-scale").value:
        return refusal(kind, f"{OFF_SCALE.format(bar=bar)}")
    rules = RuleBook() if rig is None else build_line(rig).rules
    try:
        found = together([_one(kind, raw, rules) for raw in files[:MOST_FILES]])
    except RefusedError as refused:
        marks = tuple(Overlay(outline((one.x, one.y), (one.area / 3.1416) ** 0.5)) for one in refused.marks)
        return refusal(kind, str(refused), marks)
    except (BadPhotoError, BadSoundError) as bad:
        return refusal(kind, str(bad))
    found = _at_scale(found, bar / BAR_MM)
    return found if rig is None or kind != DEPTH else _in_bin(found, rig)


def _at_scale(found: PhoneReading, scale: float) -> PhoneReading:
    """A length as it is where the print came out a little small or large; a share of an area stays what it is."""
    if scale == 1.0 or found.kind not in (DEPTH, TUBE) or found.value is None:
        return found
    ends = [None if one is None else one * scale for one in (found.value, found.low, found.high)]
    seen = dict(found.seen)
    seen |= {key: round(scale * seen[key], 2) for key in ("left_mm", "right_mm", "pa") if key in seen}
    seen["print_scale"] = round(scale, 4)
    return replace(found, value=ends[0], low=ends[1], high=ends[2], seen=seen)


def _one(kind: str, raw: bytes, rules: RuleBook) -> PhoneReading:
    if kind == PITCH:
        return read_pitch(sound_of(raw))
    points = points_of(raw)
    if kind == GREY:
        return read_grey(points, rules)
    if kind == SQUARES:
        return read_squares(points, rules)
    return read_depth(points) if kind == DEPTH else read_tube(points)


def _in_bin(found: PhoneReading, rig: Rig) -> PhoneReading:
    """What a depth of dust in the first bin comes to."""
    line = build_line(rig)
    if not line.separators or found.value is None or found.low is None or found.high is None:
        return found
    bin_, dust = line.separators[0].bin, line.dust
    volume = [float(bin_.volume_to(1e-3 * one)) for one in (found.value, found.low, found.high)]
    seen = {f"litres{end}": round(1e3 * one, 2) for end, one in zip(ENDS, volume, strict=True)}
    if dust is not None and dust.bulk_density is not None:
        off = (1.0, 1.0 - BULK_SD, 1.0 + BULK_SD)  # nobody has weighed how it lies
        masses = [dust.bulk_density * one for one in volume]
        seen |= {f"kg{end}": round(mass * by, 3) for end, mass, by in zip(ENDS, masses, off, strict=True)}
    return replace(found, seen={**found.seen, **seen})


def reading_document(found: PhoneReading) -> dict[str, Any]:
    """The reading as JSON."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "kind": found.kind,
        "value": found.value,
        "low": found.low,
        "high": found.high,
        "unit": found.unit,
        "seen": found.seen,
        "refused": found.refused,
    }
