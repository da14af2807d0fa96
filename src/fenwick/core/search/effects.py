"""What each thing about a separator and its bin costs or would gain, one at a time, and the way there."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, batches, one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.elements import Element
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.doubt.doubts import behind, doubted
from fenwick.core.dust.cakes import without_cakes
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.rows import bin_leak_reading

SWEEP_POINTS = 41
MOST_TILT = np.pi / 2.0  #: [rad]
MOST_LEAK_SHARE = 0.15  #: of the flow, up to which a leak is followed [-]
LEAK_STEPS = np.array([0.0, 1.0, 2.0, 4.0, 7.0, 11.0, 16.0, 23.0, 32.0, 45.0, 62.0, 85.0, 115.0, 155.0, 210.0, 280.0])
NARROWER, WIDER = 0.7, 1.4  #: of the size it has
TALLER = 0.15  #: more bin [m]


@dataclass(frozen=True)
class Effect:
    """What the line keeps as it stands, and with one thing otherwise."""

    id: str
    kept: float  #: with it otherwise [-]
    gain: float  #: against the line as it stands [-]
    value: float  #: what the thing would be; its meaning goes with the id


def with_stage(line: Line, stage: Separator) -> Line:
    """The line with a separator in the place of the one of the same id; put under a head, it loses its link."""
    trunk: tuple[Element, ...] = tuple(stage if part.id == stage.id else part for part in line.trunk)
    before = next(part for part in line.trunk if part.id == stage.id)
    if isinstance(stage, OneBody) and not isinstance(before, OneBody):
        gone = {part.id for part in behind(stage, line)}
        trunk = tuple(part for part in trunk if part.id not in gone)
    return without_cakes(replace(line, trunk=trunk))


@dataclass(frozen=True)
class Otherwise:
    """A separator with one thing otherwise."""

    id: str
    value: float  #: what the thing would be; its meaning goes with the id
    stage: Separator


def put_right(stage: Separator) -> Iterator[Otherwise]:
    """The separator with each fault of the bin put right."""
    bin_ = stage.bin
    if np.max(bin_.fill_height) > 0.0:
        yield Otherwise("empty", 0.0, stage.changed(bin=replace(bin_, fill_height=0.0)))
    if bin_.leak_area is None or np.max(bin_.leak_area) > 0.0:
        yield Otherwise("seal", 0.0, stage.changed(bin=replace(bin_, leak_area=0.0)))
    if np.max(stage.tilt) > 0.0:
        yield Otherwise("upright", 0.0, stage.changed(tilt=0.0))
    if bin_.ledges:
        yield Otherwise("smooth", 0.0, stage.changed(bin=replace(bin_, ledges=())))
    if stage.swapped:
        yield Otherwise("swap-back", 0.0, stage.changed(swapped=False))


def made_otherwise(stage: Separator) -> Iterator[Otherwise]:
    """The separator with each size that is easily made otherwise."""
    taller = replace(stage.bin, heights=(*stage.bin.heights[:-1], stage.bin.height + TALLER))
    yield Otherwise("deeper-bin", stage.bin.height + TALLER, stage.changed(bin=taller))
    if isinstance(stage, SlottedDisc):
        for name, share in (("slot-narrower", NARROWER), ("slot-wider", WIDER)):
            slots = tuple(replace(slot, width=share * slot.width) for slot in stage.slots)
            yield Otherwise(name, one_value(slots[0].width), stage.changed(slots=slots))
        for name, share in (("arc-shorter", NARROWER), ("arc-longer", WIDER)):
            slots = tuple(replace(slot, arc=share * slot.arc) for slot in stage.slots)
            if sum(one_value(slot.arc) for slot in slots) <= 2.0 * np.pi:
                yield Otherwise(name, one_value(slots[0].arc), stage.changed(slots=slots))
        hangs = one_value(stage.outlet_length)
        for name, length in (("outlet-shorter", 0.5 * hangs), ("outlet-longer", 1.5 * hangs)):
            if length < one_value(stage.chamber_height):
                yield Otherwise(name, length, stage.changed(outlet_length=length))


def effects(line: Line, stage: Separator) -> tuple[tuple[Effect, ...], tuple[Effect, ...]]:
    """(what each fault costs, the worst first; what other sizes would gain or lose, the best first).

    Parameters
    ----------
    line : a single variant, its dust known
    stage : one of its separators
    """
    faults = list(put_right(stage))
    # nothing is told that another page would warn of
    sizes = [other for other in made_otherwise(stage) if not np.any(doubted(other.stage, line.rules))]
    shares = _kept_of_each([line, *(with_stage(line, other.stage) for other in (*faults, *sizes))])
    now = shares[0]
    found = [
        Effect(other.id, kept, kept - now, other.value)
        for other, kept in zip((*faults, *sizes), shares[1:], strict=True)
    ]
    by_gain = sorted(found, key=lambda effect: -effect.gain)
    names = {fault.id for fault in faults}
    return tuple(e for e in by_gain if e.id in names), tuple(e for e in by_gain if e.id not in names)


def _kept_of_each(lines: list[Line]) -> list[float]:
    """What all stages keep, of single lines that may differ in anything."""
    shares = [0.0] * len(lines)
    for batch in batches(lines):
        kept = _known(assess(batch.together).kept)
        for place, share in zip(batch.places, np.broadcast_to(kept, (len(batch.places),)), strict=True):
            shares[place] = float(share)
    return shares


@dataclass(frozen=True)
class Sweep:
    """What is kept as one thing runs through its range."""

    id: str  #: fill, tilt or leak
    value: Array  #: height [m], angle [rad], or share of the flow [-]; shape (k,)
    kept: Array  #: [-], shape (k,)
    now: float  #: where the line stands


def sweeps(line: Line, stage: Separator) -> tuple[Sweep, ...]:
    """Against the bin's fill, the separator's tilt and the leak below it.

    Parameters
    ----------
    line : a single variant, its dust known
    stage : one of its separators
    """
    own = {"fill": stage.bin.fill_height, "tilt": stage.tilt, "leak": bin_leak_reading(stage, line.rules)}
    through = {
        "fill": np.linspace(0.0, stage.bin.height, SWEEP_POINTS),
        "tilt": np.linspace(0.0, MOST_TILT, SWEEP_POINTS),
        "leak": LEAK_STEPS * 1e-5 * max(one_value(stage.hose_bore) / 0.05, 0.2) ** 2,
    }
    # one batch: the line as it stands, then one thing after the other through its range
    count = 1 + sum(values.size for values in through.values())
    columns = {key: np.full(count, one_value(value)) for key, value in own.items()}
    runs, start = {}, 1
    for key, values in through.items():
        runs[key] = slice(start, start + values.size)
        columns[key][runs[key]] = values
        start += values.size
    bins = replace(stage.bin, fill_height=columns["fill"], leak_area=columns["leak"])
    found = assess(with_stage(line, stage.changed(tilt=columns["tilt"], bin=bins)))
    kept = _known(found.kept)
    share = next(one.leak_share for one in found.separations if one.id == stage.id)
    followed = share[runs["leak"]] <= MOST_LEAK_SHARE
    return (
        Sweep("fill", through["fill"], kept[runs["fill"]], one_value(own["fill"])),
        Sweep("tilt", through["tilt"], kept[runs["tilt"]], one_value(own["tilt"])),
        Sweep("leak", share[runs["leak"]][followed], kept[runs["leak"]][followed], float(share[0])),
    )


def _known(kept: Array | None) -> Array:
    assert kept is not None, "the dust is known"
    return kept
