"""What is made of a design: its parts, the order of work, how each edge is cut, what lies on which sheet."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.judging.standing import full_mass
from fenwick.core.line.line import Line
from fenwick.core.making.bending import bend_troubles
from fenwick.core.making.cold import cold_troubles
from fenwick.core.making.cutters import CutSetting, Workshop, cuts_of
from fenwick.core.making.given import Making, MakingChoices, making_of
from fenwick.core.making.hood_box import hood_parts
from fenwick.core.making.joints import GluedJoint, joint_troubles, joints_of
from fenwick.core.making.layout import Layout, SheetStock, lay_out
from fenwick.core.making.pack import parts_of
from fenwick.core.making.parts import MadePart, MadeParts, Trouble
from fenwick.core.making.segments import with_segments
from fenwick.core.making.shopping import ToBuy, shopping
from fenwick.core.making.stand import stand_parts
from fenwick.core.making.steps import WorkStep
from fenwick.core.making.stock import BinStock, TubeStock, with_bins, with_tubes
from fenwick.core.making.tolerances import Tolerance, tolerances_of
from fenwick.core.making.work import hood_work, stand_work, work_of
from fenwick.core.rules import RuleBook
from fenwick.core.search.designs import BOUGHT, effort
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.kinds import kind_of
from fenwick.rig.format.hood import EnclosurePart
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.rig.to_core.making import build_choices

HOOD, STAND = "hood:", "stand"


class NothingToBuildError(LookupError):
    """There is nothing of that name to build; the message is a sentence."""


@dataclass(frozen=True)
class BuildAsked:
    """What is to be built, and with what."""

    what: str | None = None  #: id of a separator, hood:PORT, stand; None: the first separator with its stand
    swirl: str | None = None
    bought: bool = False
    workshop: Workshop = field(default_factory=Workshop)
    sheets: tuple[SheetStock, ...] = ()
    tubes: tuple[TubeStock, ...] = ()
    bins: tuple[BinStock, ...] = ()
    prices: tuple[tuple[str, float], ...] = ()  #: what the shop pays, by the rule that it knows better than
    money: str = "€"


@dataclass(frozen=True)
class Pack:
    """Everything for the bench."""

    rig: str  #: name of the line
    of: str  #: id of the separator, hood:PORT, or stand
    title: str  #: what the user calls it
    making: Making
    parts: tuple[MadePart, ...]
    steps: tuple[WorkStep, ...]
    cuts: Mapping[str, tuple[CutSetting, ...]]  #: by part
    layout: Layout
    joints: tuple[GluedJoint, ...]
    troubles: tuple[Trouble, ...]
    hours: float  #: hands-on [h]
    to_buy: tuple[ToBuy, ...]  #: what is not there
    money: str  #: that prices are in

    def part(self, name: str) -> MadePart | None:
        """The part of that id."""
        return next((part for part in self.parts if part.id == name), None)

    @property
    def waiting(self) -> float:
        """Time that cures take, hands off [s]."""
        return sum(step.cure for step in self.steps)


@lru_cache(maxsize=64)
def build_pack(rig: Rig, asked: BuildAsked) -> Pack:
    """What is made of a design.

    Raises
    ------
    NothingToBuildError
        When the line has nothing of that name.
    """
    line = build_line(rig)
    what = asked.what or first_separator(rig)
    if what.startswith(HOOD):
        return _hood(rig, line, what, asked)
    of = first_separator(rig) if what == STAND else what
    part = next((e for e in rig.line.elements if e.id == of), None)
    if not isinstance(part, SeparatorPart | WetStagePart):
        raise NothingToBuildError(f"The line has no separator called “{of[:40]}”; it has {_named(rig)}.")
    stage = next(e for e in line.trunk if e.id == of)
    assert isinstance(stage, Separator | WetStage)
    rules = line.rules.with_values(dict(asked.prices))
    making = making_of(build_choices(part, swirl=asked.swirl, bought=asked.bought), rules)
    parts, hours = MadeParts(()), 0.0
    steps: tuple[WorkStep, ...] = ()
    if what != STAND:
        parts = _made(stage, making, asked.sheets)
        hours = hours_of(part, making)
        steps = work_of(stage, parts, making, hours)
    with_stand = what == STAND or (asked.what is None and isinstance(stage, Separator) and stage.stand is not None)
    if with_stand:
        if not isinstance(stage, Separator):
            raise NothingToBuildError("A wet stage has no stand of its own to build.")
        under = stand_parts(stage, making, full_mass(stage, line))
        more = one_value(making.rules["make.hours-stand"])
        steps = (*steps, *_after(steps, stand_work(under, making, more)))
        parts, hours = MadeParts((*parts.parts, *under.parts), (*parts.troubles, *under.troubles)), hours + more
    title = part.name or of
    whole = (
        price_whole(part, stage, rules) if isinstance(part, SeparatorPart) and isinstance(stage, Separator) else None
    )
    bin_material = None if isinstance(stage, WetStage) else stage.bin.material
    draft = _Draft(f"Stand of {title}" if what == STAND else title, making, parts, steps, hours, bin_material, whole)
    return _packed(rig, what, draft, asked)


def _made(stage: Separator | WetStage, making: Making, sheets: tuple[SheetStock, ...]) -> MadeParts:
    whole = parts_of(stage, making)
    found = replace(whole, parts=with_segments(whole.parts, sheets, making))
    round_ = isinstance(stage, WetStage) or stage.bin.is_round
    return found if round_ else replace(found, troubles=(*found.troubles, Trouble("not-round", "lid")))


def hours_of(part: SeparatorPart | WetStagePart, making: Making) -> float:
    """Hands-on time of a separator, as the finder counts it [h]."""
    if isinstance(part, WetStagePart):
        return one_value(making.rules["make.hours-wet"])
    return one_value(making.rules["make.hours-fit" if making.chosen.bought else f"make.hours-{kind_of(part)}"])


def price_whole(part: SeparatorPart, stage: Separator, rules: RuleBook) -> float:
    """What a separator costs that is bought, in the shop's money; what the line says of it goes before the rule."""
    if part.price is not None:
        return part.price
    return one_value(effort(kind_of(part), stage, BOUGHT, (1.0, 1.0), rules).cost)


def _after(before: tuple[WorkStep, ...], steps: tuple[WorkStep, ...]) -> tuple[WorkStep, ...]:
    """The steps of a stand beside those of the separator; an id that both have is told apart."""
    taken = {step.id for step in before}
    new = {step.id: f"stand-{step.id}" if step.id in taken else step.id for step in steps}
    return tuple(replace(s, id=new[s.id], after={new[one]: why for one, why in s.after.items()}) for s in steps)


def _hood(rig: Rig, line: Line, what: str, asked: BuildAsked) -> Pack:
    name = what.removeprefix(HOOD)
    port = next((b.port for _, b in rig.line.walk() if b.id == name and b.port is not None), None)
    if port is None:
        raise NothingToBuildError(f"The line has no port called “{name[:40]}”.")
    if not isinstance(port.hood, EnclosurePart) or port.hood.box is None:
        raise NothingToBuildError(f"The hood of {port.name} is no box with sizes: give it width, depth and height.")
    making = making_of(MakingChoices(swirl=asked.swirl), line.rules.with_values(dict(asked.prices)))
    parts = hood_parts(port.hood.box.build(), port.bore_m, making)
    hours = one_value(line.rules["make.hours-hood"])
    steps = hood_work(parts, making, hours)
    return _packed(rig, what, _Draft(f"Hood of {port.name}", making, parts, steps, hours), asked)


@dataclass(frozen=True)
class _Draft:
    """What is to be built, before sheets, cutters and joints are looked at."""

    title: str
    making: Making
    parts: MadeParts
    steps: tuple[WorkStep, ...]
    hours: float
    bin_material: str | None = None
    whole: float | None = None  #: price of the separator itself, bought


def _packed(rig: Rig, of: str, draft: _Draft, asked: BuildAsked) -> Pack:
    making = draft.making
    parts = with_bins(with_tubes(draft.parts.parts, asked.tubes), asked.bins)
    troubles = [*draft.parts.troubles]
    cuts: dict[str, tuple[CutSetting, ...]] = {}
    for part in parts:
        troubles += bend_troubles(part, making.rules)
        found, amiss = cuts_of(part, asked.workshop, making)
        troubles += amiss
        if found:
            cuts[part.id] = found
    layout = lay_out(parts, asked.sheets, making)
    joints = joints_of(parts, draft.bin_material, making)
    troubles += cold_troubles(build_line(rig).site, making.rules)
    return Pack(
        rig.name, of, draft.title, making, parts, draft.steps, cuts, layout, joints,
        (*troubles, *layout.troubles, *joint_troubles(joints)), draft.hours,
        shopping(parts, layout.sheets, _glues(joints, draft.steps), making.rules, draft.whole), asked.money,
    )  # fmt: skip


def _glues(joints: tuple[GluedJoint, ...], steps: tuple[WorkStep, ...]) -> list[str]:
    """Every sealant and glue that is used."""
    return [*(joint.sealant for joint in joints), *(step.glue for step in steps if step.glue is not None)]


@lru_cache(maxsize=64)
def tolerances(rig: Rig, asked: BuildAsked) -> Mapping[str, tuple[Tolerance, ...]]:
    """How far off the dimensions of a separator's parts may be, by part; nothing for what the model does not know.

    Raises
    ------
    NothingToBuildError
        When the line has nothing of that name.
    """
    pack = build_pack(rig, asked)
    line = build_line(rig)
    stage = next((e for e in line.trunk if e.id == (asked.what or pack.of)), None)
    if not isinstance(stage, Separator) or asked.bought:
        return {}
    found = tolerances_of(line, stage, pack.parts, pack.making)
    return {name: tuple(ones) for name, ones in found.items()}


def first_separator(rig: Rig) -> str:
    """Id of the first separator of a line.

    Raises
    ------
    NothingToBuildError
        When it has none.
    """
    found = next((e.id for e in rig.line.elements if isinstance(e, SeparatorPart)), None)
    if found is None:
        raise NothingToBuildError("The line has no separator to build: add one, or name a hood with --what hood:PORT.")
    return found


def _named(rig: Rig) -> str:
    names = [e.id for e in rig.line.elements if isinstance(e, SeparatorPart | WetStagePart)]
    return ", ".join(names) if names else "none"
