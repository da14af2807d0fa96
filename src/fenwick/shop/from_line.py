"""A shop filled from a line, and a line made of a shop: on request, with nothing that is there already touched."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.components.dust import DUSTS
from fenwick.rig.format.elements import HosePart, PortPart, ReducerPart
from fenwick.rig.format.model import FORMAT as RIG_FORMAT
from fenwick.rig.format.model import VERSION as RIG_VERSION
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.read import check_rig
from fenwick.rig.start import Answers
from fenwick.rig.start.tools import HOSE, usual_hose
from fenwick.rig.start.vacuum import guess_vacuum
from fenwick.rig.voice import part_names
from fenwick.shop.edit import add_item
from fenwick.shop.into_line import OWN_KEYS
from fenwick.shop.model import OwnedTool, ShopFile

KIND_OF_MACHINE = {tool.machine: tool.key for tool in TOOLS.values() if tool.machine}


@dataclass(frozen=True)
class FilledShop:
    """A shop with what a line has and it had not."""

    file: ShopFile
    added: tuple[str, ...]  #: names of it, in the order of the shop's lists


def filled_from(shop: ShopFile, rig: Rig) -> FilledShop:
    """The shop with the vacuum, tools, hoses and adapters of a line that it does not have by their names.

    What lies on a line is told from what lies in the drawer by its name; a bin under a separator is no spare one.

    Raises
    ------
    RigError
        When the shop holds no more.
    """
    missing = _missing(shop, rig)
    for group, _, values in missing:
        shop, _ = add_item(shop, group, **values)
    return FilledShop(shop, tuple(name for _, name, _ in missing))


def not_listed(shop: ShopFile, rig: Rig) -> tuple[str, ...]:
    """Names of what a line has and the shop does not list."""
    return tuple(name for _, name, _ in _missing(shop, rig))


def _missing(shop: ShopFile, rig: Rig) -> list[tuple[str, str, dict[str, Any]]]:
    """Things of a line that the shop does not have by their names, each once."""
    known = {group: _names(shop, group) for group in ("vacuums", "tools", "hoses", "fittings")}
    found = []
    for group, name, values in _things(rig):
        if name.casefold() not in known[group]:
            known[group].add(name.casefold())
            found.append((group, name, values))
    return found


def _things(rig: Rig) -> list[tuple[str, str, dict[str, Any]]]:
    """(list, name, values) of everything on a line that a shop can own."""
    names = part_names(rig)
    found = [("vacuums", rig.vacuum.name, rig.vacuum.model_dump(mode="json"))]
    found += [("tools", name, _tool(ports, rig)) for name, ports in _tools(rig).items()]
    elements = [part for _, branch in rig.line.walk() for part in branch.elements] + list(rig.line.elements)
    for part in elements:
        name = names[part.id]
        if isinstance(part, HosePart):
            values = part.model_dump(mode="json")
            kept = {key: values[key] for key in ("bore_m", "length_m", "wall")}
            ends = {"one_end": values["tool_end"], "other_end": values["vacuum_end"]}
            found.append(("hoses", name, {"name": name, **kept, **ends}))
        elif isinstance(part, ReducerPart):
            bores = {"one_bore_m": part.bore_in_m, "other_bore_m": part.bore_out_m, "length_m": part.length_m}
            found.append(("fittings", name, {"name": name, **bores}))
    return found


def _tools(rig: Rig) -> dict[str, list[PortPart]]:
    """Ports by what the tool is called: that of which they are part, else their own name."""
    found: dict[str, list[PortPart]] = {}
    for way in rig.line.ways:
        port = way[0].port
        if port is not None:
            found.setdefault(port.tool or port.name, []).append(port)
    return found


def _tool(ports: list[PortPart], rig: Rig) -> dict[str, Any]:
    kind = _kind(ports[0])
    usual = TOOLS[kind].dust if kind else "saw"
    on_line = rig.dust.kind if rig.dust is not None and rig.dust.kind in DUSTS else usual
    named = [port.model_dump(mode="json") for port in ports[:4]]
    return {
        "kind": kind,
        "dust": ports[0].dust or on_line,
        "current_a": TOOLS[kind].current if kind else None,
        "ports": named,
    }


def _kind(port: PortPart) -> str | None:
    """The kind of tool that a port belongs to: by its machine, else by what it is called."""
    if port.machine in KIND_OF_MACHINE:
        return KIND_OF_MACHINE[port.machine]
    called = (port.tool or port.name).casefold()
    return next((key for key, tool in TOOLS.items() if tool.label.casefold() == called), None)


def _names(shop: ShopFile, group: str) -> set[str]:
    items = getattr(shop, group)
    if group == "tools":
        ports = [port for tool in items for port in tool.ports]
        return {name.casefold() for port in ports for name in (port.tool, port.name) if name}
    return {item.name.casefold() for item in items}


def line_of(shop: ShopFile) -> Rig:
    """A line of the shop's tools: its first vacuum, its longest hose moved from tool to tool; no separator yet.

    What the shop does not have is usual and marked as a guess.

    Raises
    ------
    RigError
        When the shop has no tool, or its tools do not go on one line.
    """
    if not shop.tools:
        raise RigError((Problem("", "the shop has no tool yet: a line begins at one"),))
    marks: list[dict[str, Any]] = []
    first = shop.tools[0]
    branches = [_branch(tool, first, opening=1.0 if tool is first else 0.0) for tool in shop.tools]
    return check_rig(
        {
            "format": RIG_FORMAT,
            "version": RIG_VERSION,
            "name": f"Every tool of {shop.name}"[:120],
            "site": shop.site.model_dump(mode="json"),
            "vacuum": _vacuum(shop, marks),
            "dust": {"kind": first.dust},
            "line": {"elements": [_longest(shop, marks)], "branches": branches, "use": "swap"},
            "guesses": marks,
        }
    )


def _vacuum(shop: ShopFile, marks: list[dict[str, Any]]) -> dict[str, Any]:
    if shop.vacuums:
        document = shop.vacuums[0].model_dump(mode="json")
        return {key: value for key, value in document.items() if key not in OWN_KEYS}
    guessed = guess_vacuum(Answers())
    marks += guessed.marks
    return guessed.document


def _longest(shop: ShopFile, marks: list[dict[str, Any]]) -> dict[str, Any]:
    """The hose that is moved from tool to tool."""
    owned = max(shop.hoses, key=lambda hose: hose.length_m, default=None)
    if owned is None:
        return usual_hose(Answers(), HOSE, "Tool hose", marks)
    ends = {"tool_end": owned.one_end, "vacuum_end": owned.other_end}
    described = {key: end.model_dump(mode="json") for key, end in ends.items() if end is not None}
    sizes = {"bore_m": owned.bore_m, "length_m": owned.length_m, "wall": owned.wall}
    return {"id": HOSE, "kind": "hose", "name": owned.name, **sizes, **described}


def _branch(tool: OwnedTool, first: OwnedTool, *, opening: float) -> dict[str, Any]:
    ports = [port.model_dump(mode="json") for port in tool.ports]
    for port in ports:
        if tool.dust != first.dust and port["dust"] is None:
            port["dust"] = tool.dust
    name = f"tool-{tool.id}"  # an id of the shop may be a word that a line keeps for itself
    gate = {"opening": opening}
    if len(ports) == 1:
        return {"id": name, "gate": gate, "port": ports[0]}
    stubs = [{"id": f"{name}-{i}", "port": port} for i, port in enumerate(ports, start=1)]
    return {"id": name, "gate": gate, "branches": stubs}
