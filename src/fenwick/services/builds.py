"""How far a build is: what each part and step stands at, what was cut otherwise, when it is done."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from fenwick.builds.model import BuildFile, MadeFor
from fenwick.core.components.separator import Separator
from fenwick.core.making.as_cut import KEEP, BuiltFigures, Verdict, as_built, built_figures, judge_cut
from fenwick.core.making.changed import SERVES, PartFate, fate_of
from fenwick.core.making.given import PAPER
from fenwick.core.making.parts import BUY, HAVE, MAKE, MadePart, Stock
from fenwick.core.making.rim import rim_leak
from fenwick.core.making.schedule import TimeSlot, Window, schedule
from fenwick.core.making.shopping import ToBuy, sum_of
from fenwick.core.making.steps import Broken, WorkStep, broken_by
from fenwick.core.making.tolerances import Tolerance, design_dims, design_value
from fenwick.rig import Rig, build_line
from fenwick.services.making import BuildAsked, NothingToBuildError, Pack, build_pack, tolerances

#: hours of a day that one has: (weekdays, from, to)
EVENING = ((range(7), 19.0, 21.5),)
WEEKEND = (((4,), 18.0, 21.0), ((5, 6), 9.0, 18.0))
DAYS = ((range(7), 8.0, 17.0),)
MINUTES = ((range(7), 19.0, 19.0 + 1.0 / 3.0),)
HOURS = {"20-minutes": MINUTES, "evening": EVENING, "weekend": WEEKEND, "days": DAYS}
AHEAD = 60  #: days that windows are laid out for

#: keys of the rig that a dimension as built goes to, by the field of the design
RIG_KEYS = {
    "chamber_diameter": "chamber_d_m",
    "chamber_height": "chamber_height_m",
    "outlet_length": "outlet_length_m",
    "slots.width": "slots[0].width_m",
    "shape.body": "body_d_m",
    "shape.cylinder": "cylinder_height_m",
    "shape.outlet_length": "outlet_length_m",
    "shape.dust_outlet": "dust_outlet_d_m",
}


@dataclass(frozen=True)
class Progress:
    """A build as it stands."""

    pack: Pack
    file: BuildFile
    steps: tuple[WorkStep, ...]  #: in the order they are done
    broken: tuple[Broken, ...]  #: what that order breaks
    verdicts: tuple[Verdict, ...]  #: of everything that was measured
    parts: Mapping[str, str]  #: ready, done, cut, next, begun, off, buy, make by the part's id
    limits: Mapping[str, tuple[Tolerance, ...]]
    changed: tuple[PartFate, ...] = ()  #: parts that were made for an earlier design and are not the same now

    @property
    def done(self) -> frozenset[str]:
        """Ids of the steps that are done."""
        return frozenset(one.step for one in self.file.done)

    @property
    def now(self) -> WorkStep | None:
        """The step to do next; None: all are done."""
        return next((step for step in self.steps if step.id not in self.done), None)

    @property
    def open(self) -> tuple[Verdict, ...]:
        """What came out otherwise and nothing was decided about."""
        decided = {(one.part, one.dim) for one in self.file.cut if one.decision}
        return tuple(one for one in self.verdicts if one.do != KEEP and (one.part, one.dim) not in decided)

    @property
    def hands_left(self) -> float:
        """Hands-on time of what is not done [s]."""
        return sum(step.hands for step in self.steps if step.id not in self.done)


def asked_for(file: BuildFile, asked: BuildAsked) -> BuildAsked:
    """What is built, with the choices of its record."""
    return replace(asked, what=file.what, bought=file.bought)


def progress(rig: Rig, file: BuildFile, asked: BuildAsked) -> Progress:
    """How far a build is.

    Raises
    ------
    NothingToBuildError
        When the line has nothing of that name.
    """
    wanted = asked_for(file, asked)
    pack = build_pack(rig, wanted)
    limits = tolerances(rig, wanted)
    steps = in_order(pack.steps, file.order)
    order = [step.id for step in steps]
    verdicts = tuple(_verdicts(pack, file, limits))
    done = frozenset(one.step for one in file.done)
    found = Progress(pack, file, steps, broken_by(order, steps), verdicts, {}, limits)
    states = {part.id: _part_state(part, found, done) for part in pack.parts}
    return Progress(pack, file, steps, found.broken, verdicts, states, limits, tuple(_changed(pack, file)))


@dataclass(frozen=True)
class Curing:
    """A cure that goes on."""

    what: str  #: that is built
    step: WorkStep
    until: datetime  #: UTC


def curing(rig: Rig, file: BuildFile, now: datetime) -> list[Curing]:
    """What of a build cures at a moment (UTC); nothing where the line has no such thing any more."""
    if not file.clocks:
        return []
    try:
        steps = {step.id: step for step in build_pack(rig, asked_for(file, BuildAsked(file.what))).steps}
    except NothingToBuildError:
        return []
    since = {one.step: datetime.fromisoformat(one.since) for one in file.clocks}
    found = (
        Curing(file.what, steps[one], at + timedelta(seconds=steps[one].cure))
        for one, at in since.items()
        if one in steps
    )
    return [one for one in found if one.until > now]


def _changed(pack: Pack, file: BuildFile) -> list[PartFate]:
    fates = (
        fate_of(one.part, one.dims, Stock(one.material, one.thickness_m), pack.part(one.part)) for one in file.made
    )
    return [one for one in fates if one.fate != SERVES]


def made_for(pack: Pack, step: WorkStep) -> list[MadeFor]:
    """The parts that a step begins to make, as they are wanted now."""
    return [
        MadeFor(
            part=part.id, material=part.stock.material, thickness_m=part.stock.thickness,
            dims={key: float(value) for key, value in part.dims.items() if key.endswith("_m")},
        )
        for part in pack.parts
        if part.id in step.parts and part.how == MAKE and part.stock.material != PAPER
    ]  # fmt: skip


def in_order(steps: tuple[WorkStep, ...], order: tuple[str, ...]) -> tuple[WorkStep, ...]:
    """The steps in an order of one's own; those it does not name stay behind the one they followed."""
    by_id = {step.id: step for step in steps}
    names = [name for name in order if name in by_id]
    listed = [step.id for step in steps]
    for i, name in enumerate(listed):
        if name not in names:
            before = next((one for one in reversed(listed[:i]) if one in names), None)
            names.insert(0 if before is None else names.index(before) + 1, name)
    return tuple(by_id[name] for name in names)


def _verdicts(pack: Pack, file: BuildFile, limits: Mapping[str, tuple[Tolerance, ...]]) -> list[Verdict]:
    found = []
    for one in file.cut:
        part = pack.part(one.part)
        if part is not None and one.dim in part.dims:
            limit = next((t for t in limits.get(part.id, ()) if t.dim == one.dim), None)
            found.append(judge_cut(part, one.dim, one.value_m, limit, pack.parts))
    return found


def _part_state(part: MadePart, found: Progress, done: frozenset[str]) -> str:
    if any(one.part == part.id for one in found.open):
        return "off"
    if part.how == HAVE or part.id in found.file.got:
        return "ready"
    if part.how == BUY:
        return "buy"
    mine = [step for step in found.steps if part.id in step.parts]
    shaping = [step for step in mine if step.cure == 0.0 and not step.id.startswith(("dry-", "seat-", "check-"))]
    if mine and all(step.id in done for step in mine):
        return "done"
    if shaping and all(step.id in done for step in shaping):
        return "cut"
    now = found.now
    if now is not None and part.id in now.parts:
        return "next"
    return "begun" if any(step.id in done for step in mine) else "make"


def stage_of(rig: Rig, what: str) -> Separator | None:
    """The separator that is built; None: something else is."""
    found = next((e for e in build_line(rig).trunk if e.id == what), None)
    return found if isinstance(found, Separator) else None


def cost_of(rig: Rig, verdict: Verdict, what: str) -> BuiltFigures | None:
    """What the line does as drawn and as it was cut; None where the model does not know that dimension."""
    stage = stage_of(rig, what)
    changed = None if stage is None else as_built(stage, verdict.part, verdict.dim, verdict.off)
    return None if stage is None or changed is None else built_figures(build_line(rig), stage, changed)


def as_built_edits(rig: Rig, found: Progress) -> dict[str, float]:
    """Changes of the rig, by the key of its separator, that make it what was built."""
    stage = stage_of(rig, found.pack.of)
    if stage is None:
        return {}
    edits = {}
    for one in found.verdicts:
        known = design_dims(stage).get((one.part, one.dim))
        if known is not None and abs(one.off) > 1e-9:
            edits[RIG_KEYS[known.at]] = round(design_value(stage, known) + one.off * known.share, 6)
    return edits


def felt_leak(rig: Rig, what: str, gap: float, length: float) -> float | None:
    """Leak of a separator's rim as it was felt [m^2]; None for something else.

    Parameters
    ----------
    gap : thickness of the gauge that went in [m]
    length : along the rim over which it did [m]
    """
    stage = stage_of(rig, what)
    return None if stage is None else rim_leak(stage.bin, gap, length, build_line(rig).rules)


def to_pay(rig: Rig, file: BuildFile, asked: BuildAsked) -> float:
    """What has to be bought costs together, but for what is there by now, in the shop's money.

    Raises
    ------
    NothingToBuildError
        When the line has nothing of that name.
    """
    return sum_of(still_to_buy(build_pack(rig, asked_for(file, asked)), file))


def still_to_buy(pack: Pack, file: BuildFile) -> tuple[ToBuy, ...]:
    """What has to be bought, but for what is there by now."""
    return tuple(line for line in pack.to_buy if line.key not in file.got)


def windows(hours: str, now: datetime) -> list[Window]:
    """The hours that one has from now on, counted from the midnight before now [s].

    Parameters
    ----------
    hours : key of HOURS
    now : local time
    """
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    since = (now - midnight).total_seconds()
    found = []
    for day in range(AHEAD):
        weekday = (midnight + timedelta(days=day)).weekday()
        for days, begin, end in HOURS[hours]:
            if weekday in days:
                start, stop = (day * 24.0 + begin) * 3600.0, (day * 24.0 + end) * 3600.0
                if stop > since:
                    found.append(Window(max(start, since), stop))
    return found


def planned(found: Progress, now: datetime) -> tuple[TimeSlot, ...]:
    """When each step that is left is done, counted from the midnight before now [s].

    Parameters
    ----------
    now : local time
    """
    return schedule(found.steps, windows(found.file.hours, now), found.done)
