"""The tools of a first line and the hose, or the hoses, that they share."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any

from fenwick.core.catalogue import parts
from fenwick.core.catalogue.tools import COMMONEST, HAZARDS, TOOLS, ToolClass
from fenwick.core.components.dust import GLOWING
from fenwick.rig.edits.guesswork import Guesswork
from fenwick.rig.format.hood import generic_hood
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.start.answers import Answers

HOSE, TOOL = "hose", "tool"  #: ids of the hose and of the tool on a line with one


@dataclass
class StartedTools:
    """The branches of a first line."""

    title: str
    dust: str
    hose_bore: float  #: of the hose that leads to the separator [m]
    use: str = "gates"
    branches: list[dict[str, Any]] = field(default_factory=list)
    shared: list[dict[str, Any]] = field(default_factory=list)  #: ahead of the separator, of all tools
    marks: list[dict[str, Any]] = field(default_factory=list)

    @property
    def ids(self) -> set[str]:
        """Of tools and hoses."""
        return {b["id"] for b in self.branches} | {e["id"] for b in self.branches for e in b["elements"]}


def start_tools(answers: Answers) -> StartedTools:
    """The branches that answers tell of: one tool at its hose, several moving one hose or each with a gate.

    Raises
    ------
    RigError
        When what the tools make must never meet.
    """
    kinds = [TOOLS[key] for key in answers.tools] or [TOOLS[COMMONEST]]
    known = bool(answers.tools)
    _no_sparks_in_wood(kinds)
    dust = Guesswork("dust")
    usual = dust.take("kind", answers.dust, kinds[0].dust if known else "saw")
    started = StartedTools(_title(kinds) if known else "First line", usual, 0.0, marks=[*dust.marks])
    if len(kinds) == 1:
        hose = usual_hose(answers, HOSE, "Tool hose", started.marks)
        started.hose_bore = hose["bore_m"]
        port = _port(answers, kinds[0], TOOL, hose["bore_m"], started.marks)
        started.branches = [{"id": TOOL, "elements": [hose], "port": port}]
        return started
    return _several(answers, kinds, started)


def _no_sparks_in_wood(kinds: list[ToolClass]) -> None:
    glowing = sum(kind.dust in GLOWING for kind in kinds)
    if 0 < glowing < len(kinds):
        raise RigError((Problem("tools", HAZARDS["sparks"][1].rstrip(".")),))


def _several(answers: Answers, kinds: list[ToolClass], started: StartedTools) -> StartedTools:
    moved = answers.share != "gates"
    started.use = "swap" if moved else "gates"
    if moved:
        started.shared = [usual_hose(answers, HOSE, "Tool hose", started.marks)]
        started.hose_bore = started.shared[0]["bore_m"]
    for place, kind in enumerate(kinds):
        hoses = [] if moved else [usual_hose(answers, f"{kind.key}-hose", f"{kind.label} hose", started.marks)]
        started.hose_bore = hoses[0]["bore_m"] if hoses else started.hose_bore
        port = _port(answers, kind, kind.key, started.hose_bore, started.marks)
        if answers.dust is None and kind.dust != started.dust:
            port["dust"] = kind.dust
        gate = {"opening": 1.0 if place == 0 else 0.0}
        started.branches.append({"id": kind.key, "elements": hoses, "port": port, "gate": gate})
    return started


def _title(kinds: list[ToolClass]) -> str:
    """What the line is called: by its tools, as long as they are few."""
    labels = [kind.label for kind in kinds]
    if len(labels) == 1:
        return f"{labels[0]} line"
    if len(labels) <= 3:
        return f"{', '.join([labels[0], *(one.lower() for one in labels[1:-1])])} and {labels[-1].lower()}"
    return f"Line of {len(labels)} tools"


def usual_hose(answers: Answers, name: str, title: str, marks: list[dict[str, Any]]) -> dict[str, Any]:
    """A hose as the rig file has it: what was not answered is usual, and joins the marks of what is guessed."""
    work = Guesswork(name)
    bore = work.take("bore_m", answers.hose_bore, parts.TYPICAL_HOSE_BORE)
    angle, radius = parts.TYPICAL_BEND
    work.mark("bends[0].angle_deg", angle)
    document = {
        "id": name,
        "kind": "hose",
        "name": title,
        "bore_m": bore,
        "length_m": work.take("length_m", answers.hose_length, parts.TYPICAL_HOSE_LENGTH),
        "wall": work.take("wall", answers.hose_wall, "wire-helix"),
        "bends": [{"angle_deg": angle, "radius_m": round(radius * bore, 3)}],
    }
    marks += work.marks
    return document


def _port(
    answers: Answers, tool: ToolClass, name: str, hose_bore: float, marks: list[dict[str, Any]]
) -> dict[str, Any]:  # fmt: skip
    work, known = Guesswork(name), bool(answers.tools)
    hood = generic_hood(tool if known else replace(tool, hood="opening"))  # an unknown tool's can be moved
    hood["thrown_share"] = work.take("port.hood.thrown_share", None, tool.thrown_share)
    if "distance_m" in hood:
        hood["distance_m"] = work.take("port.hood.distance_m", None, tool.distance)
    port: dict[str, Any] = {
        "name": tool.label if known else "Tool",
        "bore_m": work.take("port.bore_m", None, tool.port_bore if known else hose_bore),
        "dust_rate_kg_s": work.take("port.dust_rate_kg_s", None, tool.dust_rate),
        "hood": hood,
    }
    if known and tool.machine:
        port["machine"] = tool.machine
    marks += work.marks
    return port
