"""Other separators, other bins, other vacuums, and a strap where one would tip over."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.parts import hose_price
from fenwick.core.components.bins import Bin
from fenwick.core.components.separator import Separator
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT
from fenwick.core.judging.standing import standing_checks
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.making.tools import missing_tools
from fenwick.core.search.changes import VACUUM
from fenwick.core.search.designs import BOUGHT, MADE, effort, hose_ends
from fenwick.core.search.finder import Design, Limits, search
from fenwick.core.search.way.options import WayOption
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.edits.design import with_design
from fenwick.rig.edits.kinds import KINDS, kind_of
from fenwick.rig.edits.structure import add_part
from fenwick.rig.format.elements import HosePart
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.services.making import build_pack
from fenwick.services.moves.move import Move, MoveGround, said
from fenwick.services.shop_stock import asked_of
from fenwick.shop.into_line import put_bin, put_vacuum
from fenwick.shop.making import OwnedBin
from fenwick.units.sentence import inside

DESIGNS = 240  #: that the finder tries of each kind of separator
WISHES = {"kept": 1.0, "air": 0.5, "cost": 0.2}  #: what a design is chosen by
NO_SHEET = (1e9, 1e9)  #: every piece fits: what is at hand shows when it is built [m]


def stage_moves(ground: MoveGround) -> Iterator[Move]:
    """Everything but the hoses and the ports."""
    yield from vacuum_moves(ground)
    yield from bin_moves(ground)
    for part in (e for e in ground.rig.line.elements if isinstance(e, SeparatorPart)):
        yield from _straps(ground, part)
    yield from _separators(ground)


def vacuum_moves(ground: MoveGround) -> Iterator[Move]:
    """Every other vacuum of the shop."""
    hours = one_value(ground.rules["way.hours-vacuum"])
    for owned in ground.shop.vacuums if ground.shop else ():
        if owned.name != ground.rig.vacuum.name:
            option = WayOption(f"vacuum~{owned.id}", VACUUM, VACUUM, 0.0, hours, uses=(owned.id,))
            yield Move(option, said(f"{owned.name} in the vacuum's place"), partial(put_vacuum, vacuum=owned))


def bin_moves(ground: MoveGround) -> Iterator[Move]:
    """Every bin of the shop, under every separator."""
    hours = one_value(ground.rules["way.hours-bin"])
    for part in (e for e in ground.rig.line.elements if isinstance(e, SeparatorPart)):
        for owned in ground.shop.bins if ground.shop else ():
            key = f"bin~{part.id}~{owned.id}"
            option = WayOption(key, part.id, f"bin~{part.id}", 0.0, hours, uses=(owned.id,))
            words = f"{owned.name} under the {inside(ground.voice.name(part.id))}"
            yield Move(option, said(words), partial(_other_bin, part=part.id, owned=owned))


def _other_bin(rig: Rig, part: str, owned: OwnedBin) -> Rig:
    """Another bin under the same lid: where its own closure is not known, it leaks as the one before it did."""
    changed = put_bin(rig, part, owned)
    old = next(e for e in rig.line.elements if e.id == part)
    if owned.closure is not None or not isinstance(old, SeparatorPart) or not old.bin.leak_area_m2:
        return changed
    path = path_of(changed.model_dump(mode="json"), part)
    return edit_rig(changed, {f"{path}.bin.leak_area_m2": old.bin.leak_area_m2})


def _straps(ground: MoveGround, part: SeparatorPart) -> Iterator[Move]:
    """What ties a separator where a hose pulls it over."""
    stage = next(one for one in ground.line.separators if one.id == part.id)
    clears = sum(one.id == "tips" and int(one.level[0]) == ACT for one in standing_checks(stage, ground.line))
    if part.stand is not None and clears:
        path = f"{path_of(ground.rig.model_dump(mode='json'), part.id)}.stand.tied"
        hours = one_value(ground.rules["way.hours-hose"])
        option = WayOption(f"tie~{part.id}", part.id, f"tie~{part.id}", 0.0, hours, clears=clears, still=True)
        words = f"{ground.voice.name(part.id)} strapped to the wall or the bench"
        yield Move(option, said(words), partial(edit_rig, changes={path: True}))


def _separators(ground: MoveGround) -> Iterator[Move]:
    """The best design of every kind that the finder knows, in the place of the first separator, or as the first."""
    rig, line = ground.rig, ground.line
    if line.dust is None or not ground.ports or any(isinstance(e, WetStagePart) for e in rig.line.elements):
        return
    own = next((e for e in rig.line.elements if isinstance(e, SeparatorPart)), None)
    spot = _as_first(ground) if own is None else _Spot(rig, own.id, kind_of(own))
    whole = build_line(spot.rig)
    stage, port = next(one for one in whole.separators if one.id == spot.part), _poorest(whole, ground.ports)
    lone = line_alone(whole, port)
    for kind in (one for one in KINDS if one not in ("one-body", spot.kind)):
        *_, found = search(lone, stage, port, Limits((kind,)), WISHES, DESIGNS)
        if found.designs:
            yield from _made_and_bought(ground, spot, kind, found.designs[0], stage)


@dataclass(frozen=True)
class _Spot:
    """Where a separator goes."""

    rig: Rig  #: with one there
    part: str  #: its id
    kind: str = ""  #: that stands there today; empty: none
    cost: float = 0.0  #: of what it takes besides, in the shop's money
    uses: tuple[str, ...] = ()  #: things of the shop


def _as_first(ground: MoveGround) -> _Spot:
    """Ahead of the vacuum, over the largest bin of the shop or one that is bought, with a hose behind it."""
    bins = ground.shop.bins if ground.shop is not None else ()
    owned = max(bins, key=_holds, default=None)
    rig, part = _with_first(ground.rig, owned)
    link = next(e for e in reversed(rig.line.elements) if isinstance(e, HosePart))
    hose = hose_price(link.bore_m, link.length_m, link.wall or "wire-helix")
    if owned is None:
        return _Spot(rig, part, cost=hose + one_value(ground.rules["price.bin"]))
    return _Spot(rig, part, cost=hose, uses=(owned.id,))


def _holds(owned: OwnedBin) -> float:
    """To the brim [m^3]."""
    whole = Bin((0.0, owned.height_m), (owned.bottom_d_m, owned.top_d_m))
    return one_value(whole.volume_to(owned.height_m))


def _with_first(rig: Rig, owned: OwnedBin | None) -> tuple[Rig, str]:
    changed, part = add_part(rig, VACUUM, "separator")
    changed, _ = add_part(changed, VACUUM, "hose")
    return (changed if owned is None else put_bin(changed, part, owned)), part


def _as_first_made(rig: Rig, design: Design, owned: OwnedBin | None) -> Rig:
    changed, part = _with_first(rig, owned)
    return with_design(changed, part, design)


def _poorest(line: Line, ports: Sequence[int]) -> int:
    """The port of whose dust the separator keeps least: it is chosen for that one, and counted for all."""

    def kept(port: int) -> float:
        found = assess(line_alone(line, port)).kept
        return 1.0 if found is None else one_value(found)

    return min(ports, key=kept)


def _made_and_bought(ground: MoveGround, spot: _Spot, kind: str, design: Design, stage: Separator) -> Iterator[Move]:
    owned = next((one for one in ground.shop.bins if one.id in spot.uses), None) if ground.shop else None
    where = f"in the place of {inside(ground.voice.name(spot.part))}" if spot.kind else "over a bin ahead of the vacuum"
    for how in (MADE, BOUGHT):
        taken = effort(kind, design.separator, how, NO_SHEET, ground.rules, hose_ends(stage))
        option = WayOption(
            f"separator~{kind}~{how}", spot.part, "separator", spot.cost + one_value(taken.cost),
            one_value(taken.hours), uses=spot.uses,
            tools=_missing(ground, spot, design) if how == MADE else (), alike=f"separator~{kind}",
            wide=not spot.kind,
        )  # fmt: skip
        make = partial(with_design, part=spot.part, design=design)
        if not spot.kind:
            make = partial(_as_first_made, design=design, owned=owned)
        yield Move(option, said(f"{KINDS[kind].label}, {how}, {where}"), make)


def _missing(ground: MoveGround, spot: _Spot, design: Design) -> tuple[str, ...]:
    asked = asked_of(ground.shop, spot.part)
    try:
        changed: Rig = with_design(spot.rig, spot.part, design)
        return missing_tools(build_pack(changed, asked).steps, asked.workshop)
    except (RigError, CoreError):
        return ()
