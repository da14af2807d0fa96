"""Everything that a way may be made of, for one line in its shop: single changes, the drawer, vacuums, separators."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.parts import ADAPTER_PRICE, HOSE_BORES, hose_price
from fenwick.core.components.elements import Hose
from fenwick.core.components.hood import Enclosure, FloorNozzle
from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.making.tools import missing_tools
from fenwick.core.rules import RuleBook
from fenwick.core.search.changes import KINDS, NARROWER, SHUT, STEP_DOWN, VACUUM, Candidate, candidates
from fenwick.core.search.designs import BOUGHT, MADE, effort
from fenwick.core.search.finder import Limits, search
from fenwick.core.search.way.options import WayOption
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.edits.changes import apply_candidate
from fenwick.rig.edits.design import with_design
from fenwick.rig.edits.kinds import KINDS as SEPARATORS
from fenwick.rig.edits.kinds import kind_of
from fenwick.rig.format.elements import HosePart
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services.making import build_pack
from fenwick.services.shop_stock import asked_of
from fenwick.shop import ShopFile
from fenwick.shop.into_line import put_hose, put_vacuum
from fenwick.shop.model import OwnedHose
from fenwick.units import METRIC
from fenwick.wording.whatif import action_words

DESIGNS = 240  #: that the finder tries of each kind of separator
STEPS_AWAY = 2  #: sizes sold, that another bore may be from the one there is
SHORT = 0.1  #: that an owned hose may be shorter than the one it replaces [m]
SAME_BORE = 0.002  #: bores closer than this are the same [m]
NOT_HERE = (SHUT, "close-in")  #: gates are worked as the work wants them; nobody knows what passes an opening
TIDY = ("clean", "clean-bag", "clean-inline", "empty", "upright")
OF_HOSE = ("bore", "shorter", "smooth", "straight", NARROWER)
AT_PORT = ("nearer", "entry", STEP_DOWN)


@dataclass(frozen=True)
class Move:
    """One change that a way may have, as an edit of the rig."""

    option: WayOption
    words: str
    make: Callable[[Rig], Rig]


def moves_for(rig: Rig, shop: ShopFile | None, ports: Sequence[int]) -> tuple[Move, ...]:
    """Every move at some ports, what makes the line anew first.

    Parameters
    ----------
    ports : places among the leaves [-]
    """
    line = build_line(rig)
    found = [*_vacuums(rig, shop, line), *_separators(rig, shop, line, ports)]
    found += [*_owned_hoses(rig, shop), *_plates(rig, line, ports)]
    found += _singles(rig, line, ports)
    return tuple(sorted(found, key=lambda move: not move.option.apart))


def with_moves(rig: Rig, moves: Sequence[Move]) -> Rig | None:
    """The rig with some moves made, whatever their order; None where they break a rule together."""
    try:
        for move in sorted(moves, key=lambda one: (not one.option.apart, one.option.key)):
            rig = move.make(rig)
    except (RigError, KeyError, CoreError):
        return None
    return rig


def _singles(rig: Rig, line: Line, ports: Sequence[int]) -> Iterator[Move]:
    voice = voice_for(rig, METRIC)
    seen: set[Candidate] = set()
    for port in ports:
        lone = line_alone(line, port)
        for change in candidates(lone, port):
            if change in seen or change.kind in NOT_HERE or (change.kind == "bore" and not _near(line, change)):
                continue
            seen.add(change)
            apart = KINDS[change.kind].apart(lone, change) is not None
            cost, hours = _takes(line, change)
            key = f"{change.kind}~{change.part}~{change.value:.6g}"
            slot = f"{'size' if change.kind in ('bore', NARROWER, STEP_DOWN) else change.kind}~{change.part}"
            option = WayOption(key, change.part, slot, cost, hours, () if apart else (change,))
            yield Move(option, action_words(change, voice), partial(apply_candidate, candidate=change))


def _plates(rig: Rig, line: Line, ports: Sequence[int]) -> Iterator[Move]:
    """A board behind a tool, that turns back what flies past its port."""
    for port in ports:
        name, hood = line.leaves[port].id, line.leaves[port].port.hood
        if (
            hood is None
            or hood.rebound
            or isinstance(hood, Enclosure | FloorNozzle)
            or one_value(hood.thrown_share) <= 0.0
        ):
            continue
        path = f"{path_of(rig.model_dump(mode='json'), name)}.port.hood.rebound"
        option = WayOption(f"plate~{name}", name, f"plate~{name}", 0.0, one_value(line.rules["way.hours-hood"]))
        words = f"A board behind the {voice_for(rig, METRIC).name(name).lower()}, to turn chips back"
        yield Move(option, words, partial(edit_rig, changes={path: True}))


def _near(line: Line, change: Candidate) -> bool:
    """Whether a bore is not many sizes from the one there is."""
    hose = _hoses(line)[change.part]
    sizes = sorted((*HOSE_BORES, one_value(hose.bore)))
    return abs(sizes.index(change.value) - sizes.index(one_value(hose.bore))) <= STEPS_AWAY + 1


def _hoses(line: Line) -> dict[str, Hose]:
    every = [part for leaf in line.leaves for branch in leaf.way for part in branch.elements]
    return {part.id: part for part in (*every, *line.trunk) if isinstance(part, Hose)}


def _takes(line: Line, change: Candidate) -> tuple[float, float]:
    """(money, hours) of a single change."""
    rules, hose = line.rules, _hoses(line).get(change.part)

    def rule(key: str) -> float:
        return one_value(rules[key])

    if change.kind in TIDY:
        return 0.0, rule("way.hours-tidy")
    if change.kind in AT_PORT:
        price = {"entry": rule("price.entry"), STEP_DOWN: ADAPTER_PRICE}.get(change.kind, 0.0)
        return price, rule("way.hours-hood")
    if change.kind == "stiffen":
        return rule("price.ring"), rule("way.hours-ring")
    if change.kind in OF_HOSE:
        return _hose_price(line, change, hose), rule("way.hours-hose")
    if change.kind == "taper":
        return ADAPTER_PRICE, rule("way.hours-hose")
    return rule("price.sealant"), rule("way.hours-joint")  # a leak, a lid


def _hose_price(line: Line, change: Candidate, hose: Hose | None) -> float:
    if change.kind in ("shorter", "straight"):
        return 0.0
    if hose is not None:
        wall = "smooth" if change.kind == "smooth" else hose.wall or "wire-helix"
        return hose_price(change.value if change.kind == "bore" else one_value(hose.bore), one_value(hose.length), wall)
    leaf = next(one for one in line.leaves if one.id == change.part)
    mine = [part for part in leaf.way[0].elements if isinstance(part, Hose)]
    return sum(hose_price(change.value, one_value(one.length), one.wall or "wire-helix") for one in mine)


def _owned_hoses(rig: Rig, shop: ShopFile | None) -> Iterator[Move]:
    """A hose of the drawer in the place of one that is no longer."""
    if shop is None:
        return
    rules, voice = build_line(rig).rules, voice_for(rig, METRIC)
    parts = [part for _, branch in rig.line.walk() for part in branch.elements] + list(rig.line.elements)
    hoses = [one for one in parts if isinstance(one, HosePart)]
    laid = {voice.name(one.id).lower() for one in hoses}  # what lies on the line is not in the drawer
    for part in hoses:
        for owned in (one for one in shop.hoses if one.name.lower() not in laid):
            if abs(owned.bore_m - part.bore_m) <= SAME_BORE or owned.length_m < part.length_m - SHORT:
                continue
            yield _owned_hose(part, owned, rules, voice.name(part.id))


def _owned_hose(part: HosePart, owned: OwnedHose, rules: RuleBook, name: str) -> Move:
    numbers = [Candidate("bore", part.id, owned.bore_m), Candidate("shorter", part.id, owned.length_m)]
    if owned.wall == "smooth" and part.wall != "smooth":
        numbers.append(Candidate("smooth", part.id))
    hours = one_value(rules["way.hours-hose"])
    key = f"hose~{part.id}~{owned.id}"
    option = WayOption(key, part.id, f"size~{part.id}", 0.0, hours, tuple(numbers), (owned.id,))
    return Move(option, f"{owned.name} in the place of {name}", partial(put_hose, part=part.id, hose=owned))


def _vacuums(rig: Rig, shop: ShopFile | None, line: Line) -> Iterator[Move]:
    hours = one_value(line.rules["way.hours-vacuum"])
    for owned in shop.vacuums if shop else ():
        if owned.name != rig.vacuum.name:
            option = WayOption(f"vacuum~{owned.id}", VACUUM, VACUUM, 0.0, hours, uses=(owned.id,))
            yield Move(option, f"{owned.name} in the vacuum's place", partial(put_vacuum, vacuum=owned))


def _separators(rig: Rig, shop: ShopFile | None, line: Line, ports: Sequence[int]) -> Iterator[Move]:
    """The best design of every kind that the finder knows, in the place of the first separator; made or bought."""
    own = next((e for e in rig.line.elements if isinstance(e, SeparatorPart)), None)
    if own is None or line.dust is None or not ports:
        return
    stage = next(one for one in line.separators if one.id == own.id)
    lone = line_alone(line, ports[0])
    for kind in (one for one in SEPARATORS if one not in ("one-body", kind_of(own))):
        *_, found = search(lone, stage, ports[0], Limits((kind,)), count=DESIGNS)
        if not found.designs:
            continue
        design = found.designs[0]
        for how in (MADE, BOUGHT):
            taken = effort(kind, design.separator, how, (1e9, 1e9), line.rules)
            words = f"{SEPARATORS[kind].label}, {how}, in the place of {voice_for(rig, METRIC).name(own.id)}"
            option = WayOption(
                f"separator~{kind}~{how}", own.id, "separator", one_value(taken.cost), one_value(taken.hours),
                tools=_missing(rig, own.id, design, shop) if how == MADE else (), alike=f"separator~{kind}",
            )  # fmt: skip
            yield Move(option, words, partial(with_design, part=own.id, design=design))


def _missing(rig: Rig, part: str, design: object, shop: ShopFile | None) -> tuple[str, ...]:
    asked = asked_of(shop, part)
    try:
        changed = with_design(rig, part, design)  # type: ignore[arg-type]
        return missing_tools(build_pack(changed, asked).steps, asked.workshop)
    except (RigError, CoreError):
        return ()
