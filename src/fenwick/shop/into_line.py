"""Owned things put into a line: hose for hose, vacuum for vacuum, bin under a separator, a tool with its ports."""

from __future__ import annotations

from typing import Any

from fenwick.core.catalogue.parts import HOSE_BORES
from fenwick.core.line.line import Line
from fenwick.core.search.changes import EXCHANGE, Candidate
from fenwick.rig.edits.changes import apply_candidate
from fenwick.rig.edits.edit import check_change
from fenwick.rig.edits.structure import fresh_id, replace_part
from fenwick.rig.format.elements import HosePart, ReducerPart, WallKind
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.tuning import OF_VACUUM, without_factors
from fenwick.rig.to_core.line import build_line
from fenwick.shop.making import OwnedBin
from fenwick.shop.model import OwnedFitting, OwnedHose, OwnedTool, OwnedVacuum, ShopFile

SOLD_WALLS: tuple[WallKind, ...] = ("smooth", "wire-helix")
OWN_KEYS = {"id", "cord_m", "circuit", "place", "of_shop"}  #: of a vacuum, that a line has no use for


def put_hose(rig: Rig, part: str, hose: OwnedHose, *, turned: bool = False) -> Rig:
    """A rig with an owned hose in the place of a hose; `turned` puts its other end to the tool.

    Raises
    ------
    RigError
    """
    ends = (hose.other_end, hose.one_end) if turned else (hose.one_end, hose.other_end)
    values = {
        "name": hose.name,
        "bore_m": hose.bore_m,
        "length_m": hose.length_m,
        "wall": hose.wall,
        "bends": [bend.model_dump() for bend in _hose(rig, part).bends],
        "tool_end": ends[0].model_dump() if ends[0] else None,
        "vacuum_end": ends[1].model_dump() if ends[1] else None,
    }
    return replace_part(rig, part, "hose", values)


def put_sold_hose(rig: Rig, part: str, bore: float, wall: str) -> Rig:
    """A rig with a bought hose, as long as the one it replaces.

    Raises
    ------
    RigError
    """
    old = _hose(rig, part)
    bends = [bend.model_dump() for bend in old.bends]
    return replace_part(rig, part, "hose", {"bore_m": bore, "length_m": old.length_m, "wall": wall, "bends": bends})


def put_fitting(rig: Rig, part: str, fitting: OwnedFitting) -> Rig:
    """A rig with an owned adapter in the place of one, the way round that fits the bores there better.

    Raises
    ------
    RigError
    """
    old = next((e for e in _elements(rig) if e.id == part), None)
    if not isinstance(old, ReducerPart):
        raise RigError((Problem("", "only an adapter can be exchanged for an adapter"),))
    ways = [(fitting.one_bore_m, fitting.other_bore_m), (fitting.other_bore_m, fitting.one_bore_m)]
    bore_in, bore_out = min(ways, key=lambda way: abs(way[0] - old.bore_in_m) + abs(way[1] - old.bore_out_m))
    values = {"name": fitting.name, "bore_in_m": bore_in, "bore_out_m": bore_out, "length_m": fitting.length_m}
    return replace_part(rig, part, "reducer", values)


def put_vacuum(rig: Rig, vacuum: OwnedVacuum) -> Rig:
    """A rig with an owned vacuum in the place of its own.

    Raises
    ------
    RigError
    """
    document = rig.model_dump(mode="json")
    known = {key: value for key, value in vacuum.model_dump(mode="json").items() if key not in OWN_KEYS}
    document["vacuum"] = {**known, "of_shop": vacuum.id}
    document["guesses"] = [guess for guess in document["guesses"] if guess["part"] != "vacuum"]
    return check_change(rig, document if vacuum.name == rig.vacuum.name else without_factors(document, OF_VACUUM))


def put_bin(rig: Rig, part: str, owned: OwnedBin) -> Rig:
    """A rig with an owned bin under a separator, empty, with nothing of the old one but how its fill is read.

    Raises
    ------
    RigError
        When the rig has no such separator, or it does not go on that bin.
    """
    document = rig.model_dump(mode="json")
    found = next((e for e in document["line"]["elements"] if e["id"] == part and "bin" in e), None)
    if found is None:
        raise RigError((Problem("", "only a separator stands on a bin"),))
    bottom, top = ({"height_m": 0.0, "d_m": owned.bottom_d_m}, {"height_m": owned.height_m, "d_m": owned.top_d_m})
    known = {"wall_m": owned.wall_m, "material": owned.material, "closure": owned.closure}
    values = {**known, "sight": found["bin"]["sight"], "of_shop": owned.id}
    found["bin"] = {"profile": [bottom, top], **{key: value for key, value in values.items() if value is not None}}
    return check_change(rig, document)


def put_tool(rig: Rig, branch: str, tool: OwnedTool) -> Rig:
    """A rig with an owned tool at a branch; a tool with several ports gets a junction with a stub for each.

    The dust of the line becomes the tool's where it is the only one.

    Raises
    ------
    RigError
    """
    document = rig.model_dump(mode="json")
    place = _branch(document["line"]["branches"], branch)
    ports = [port.model_dump(mode="json") for port in tool.ports]
    if len(ports) == 1:
        place["port"] = ports[0]
    else:
        place["port"] = None
        place["id"] = fresh_id(rig, "run")
        stubs = [branch, *(f"{branch}-{i}" for i in range(2, len(ports) + 1))]
        place["branches"] = [{"id": stub, "port": port} for stub, port in zip(stubs, ports, strict=True)]
    document["guesses"] = [guess for guess in document["guesses"] if guess["part"] != branch]
    if len(rig.line.ways) == 1:
        document["dust"] = {"kind": tool.dust}
    return check_change(rig, document)


def swap(rig: Rig, part: str, with_what: str, shop: ShopFile) -> Rig:
    """A rig with a part exchanged by a text such as hose:blue, sold:0.05:smooth, vacuum:drum-vac or tool:bandsaw.

    Raises
    ------
    RigError
        When the shop has no such thing, or the part may not be exchanged for it.
    """
    kind, _, name = with_what.partition(":")
    match kind:
        case "hose":
            return put_hose(rig, part, _owned(shop.hoses, name))
        case "sold":
            bore, _, wall = name.partition(":")
            if wall in SOLD_WALLS and bore in {f"{size:g}" for size in HOSE_BORES}:
                return put_sold_hose(rig, part, float(bore), wall)
        case "fitting":
            return put_fitting(rig, part, _owned(shop.fittings, name))
        case "vacuum" if part == "vacuum":
            return put_vacuum(rig, _owned(shop.vacuums, name))
        case "bin":
            return put_bin(rig, part, _owned(shop.bins, name))
        case "tool":
            return put_tool(rig, part, _owned(shop.tools, name))
    raise RigError((Problem("", "that cannot be put here"),))


def apply_change(rig: Rig, candidate: Candidate, shop: ShopFile | None) -> Rig:
    """The rig with a single change made, an owned vacuum in its vacuum's place included.

    Raises
    ------
    RigError
    KeyError
        When the rig has no such part, or the part cannot be changed so.
    """
    if candidate.kind != EXCHANGE:
        return apply_candidate(rig, candidate)
    if shop is None:
        raise KeyError(candidate.part)
    return put_vacuum(rig, _owned(shop.vacuums, candidate.part))


def with_other_vacuums(rig: Rig, shop: ShopFile | None) -> dict[str, Line]:
    """The line with each of the shop's vacuums by its id, but for the one it has."""
    owned = shop.vacuums if shop else ()
    return {one.id: build_line(put_vacuum(rig, one)) for one in owned if one.name != rig.vacuum.name}


def _owned(things: tuple[Any, ...], name: str) -> Any:
    found = next((thing for thing in things if thing.id == name), None)
    if found is None:
        raise RigError((Problem("", "the shop has no such thing any more"),))
    return found


def _hose(rig: Rig, part: str) -> HosePart:
    found = next((e for e in _elements(rig) if e.id == part), None)
    if not isinstance(found, HosePart):
        raise RigError((Problem("", "only a hose can be exchanged for a hose"),))
    return found


def _elements(rig: Rig) -> list[Any]:
    return [e for _, branch in rig.line.walk() for e in branch.elements] + list(rig.line.elements)


def _branch(branches: list[dict[str, Any]], name: str) -> dict[str, Any]:
    for branch in branches:
        if branch["id"] == name:
            return branch
        if branch["branches"]:
            try:
                return _branch(branch["branches"], name)
            except RigError:
                continue
    raise RigError((Problem("", "that is no tool of this line"),))
