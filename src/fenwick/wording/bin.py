"""The bin in words: what it holds, where to mark it, and the marks of a dip rod."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.dust.separation import fill_mark
from fenwick.core.line.line import Line
from fenwick.wording.say import Voice

ROD_MARKS = 6  #: between the floor and where to empty


def bin_words(line: Line, stage: Separator, voice: Voice) -> list[str]:
    """What it holds now and when to empty it, and how wide a hung disc may be."""
    bin_ = stage.bin
    now, brim = float(bin_.volume_to(bin_.fill_height)), float(bin_.volume_to(bin_.height))
    lies = f"{voice.figure(now, 'volume')} lie in it now{_mass(line, now, voice)}."
    said = [f"It holds {voice.figure(brim, 'volume')} to the brim; {lies}"]
    height, volume = fill_mark(stage, line.rules)
    if height > 0.0:
        mark = f"{voice.figure(volume, 'volume')} lie below that mark{_mass(line, volume, voice)}"
        said.append(f"Empty it at {voice.figure(height, 'bore')}: {mark}. Lift with care.")
    else:
        said.append("It is too shallow for its width: whatever lies in it is stirred up.")
    return [*said, *_disc_words(line, stage, voice)] if isinstance(stage, SlottedDisc) else said


def _disc_words(line: Line, stage: SlottedDisc, voice: Voice) -> list[str]:
    """How wide a hung disc may be, and how deep one below an elbow has to stand."""
    said = []
    deep, clear = one_value(stage.chamber_height), stage.clearance(line.rules["swirl.elbow-reach"])
    if stage.hung:
        there, gap = (voice.figure(float(width), "bore") for width in (_width_at(stage, deep), stage.gap))
        said.append(f"Where the disc hangs the bin is {there} wide: a gap of {gap} all round.")
    if clear is not None:
        reach = deep - one_value(clear)
        least = reach + one_value(line.rules["slot.clearance"])
        words = (
            f"Its elbow reaches {voice.figure(reach, 'bore')} down: a disc {voice.figure(least, 'bore')} deep or more"
        )
        wide = f", {voice.figure(_width_at(stage, least), 'bore')} wide or less there" if stage.hung else ""
        said.append(f"{words} is clear of it{wide}.")
    return said


def _width_at(stage: SlottedDisc, deep: float) -> float:
    """What a round disc has to fit, so deep below the rim [m]."""
    return float(stage.bin.narrow_at(max(one_value(stage.bin.height) - deep, 0.0)))


def _mass(line: Line, volume: float, voice: Voice) -> str:
    mass = line.dust.heap_mass(volume) if line.dust else None
    return "" if mass is None else f", about {voice.figure(float(mass), 'heap')} of this dust"


@dataclass(frozen=True)
class DipMark:
    """One mark on a rod or a window."""

    height: str
    volume: str
    mass: str  #: empty where it is not known


def dip_rod(line: Line, stage: Separator, voice: Voice) -> list[DipMark]:
    """Marks at even steps up to where to empty."""
    top, _ = fill_mark(stage, line.rules)
    if top <= 0.0:
        return []
    marks = []
    for height in np.linspace(0.0, top, ROD_MARKS + 1)[1:]:
        volume = float(stage.bin.volume_to(height))
        mass = line.dust.heap_mass(volume) if line.dust else None
        words = "" if mass is None else voice.figure(float(mass), "heap")
        marks.append(DipMark(voice.figure(float(height), "bore"), voice.figure(volume, "volume"), words))
    return marks
