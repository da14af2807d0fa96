"""The first line of a newcomer: tool, hose, separator, link hose, vacuum."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.catalogue import parts, tools
from fenwick.core.catalogue.tools import TOOLS, ToolClass
from fenwick.rig.edits.guesswork import Guesswork
from fenwick.rig.edits.kinds import change_kind
from fenwick.rig.format.hood import generic_hood
from fenwick.rig.format.model import FORMAT, VERSION, Rig
from fenwick.rig.format.problems import RigError
from fenwick.rig.format.read import check_rig
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.vacuum import guess_vacuum

CHAMBER_HEIGHT, OUTLET_HANGS, SLOT_WIDTH, SLOT_ARC = 0.12, 0.06, 0.03, 240.0  #: a disc worth beginning with [m], [°]

#: kind of separator by what stands there
STANDING = {"disc": "slotted-disc", "hung": "hung-disc", "cyclone": "cyclone", "elbows": "elbow-lid"}


@dataclass(frozen=True)
class StartedLine:
    """What the answers come to."""

    planned: Rig  #: the line with a separator, theirs or the one to build
    as_found: Rig | None  #: the line as it stands today, where that is another one
    said: tuple[str, ...]  #: what was concluded from the answers


def start_line(answers: Answers) -> StartedLine:
    """The line, or the two lines, that five answers describe.

    Raises
    ------
    RigError
        When answers contradict each other, or a dust is refused; paths are those of the rig file.
    """
    tool = TOOLS[answers.tool or tools.COMMONEST]
    guessed = guess_vacuum(answers)
    vacuum, marks, said = guessed.document, [*guessed.marks], [*guessed.said]
    work = Guesswork("dust")
    dust = work.take("kind", answers.dust, tool.dust if answers.tool else "saw")
    marks += work.marks
    hose = _hose(answers, marks)
    link = _link(answers, hose["bore_m"], marks)
    port = _port(answers, tool, hose["bore_m"], marks)
    # what is only planned is no guess; what stands there and was not measured is
    separator_marks: list[dict[str, Any]] = []
    separator = _separator(answers, hose["bore_m"], link["bore_m"], separator_marks)

    def rig(name: str, trunk: list[dict[str, Any]], guesses: list[dict[str, Any]]) -> Rig:
        named = {part["id"] for part in trunk} | {"vacuum", "dust", "hose", "tool"}
        return check_rig(
            {
                "format": FORMAT,
                "version": VERSION,
                "name": name,
                "vacuum": vacuum,
                "dust": {"kind": dust},
                "line": {"elements": trunk, "branches": [{"id": "tool", "elements": [hose], "port": port}]},
                "guesses": [mark for mark in guesses if mark["part"] in named],
            }
        )

    title = f"{tool.label} line" if answers.tool else "First line"
    kind = STANDING.get(answers.stands or "")
    proposed = answers.stands in ("none", None)
    planned = rig(f"{title} with a disc" if proposed else title, [separator, link], marks + separator_marks)
    if kind is not None and kind != "slotted-disc":
        planned = _of_kind(planned, kind)
    as_found = None
    if answers.stands in ("none", None):
        as_found = rig(f"{title} as it stands", [], marks)
    if answers.stands == "other":
        said.append("Yours is shown as a slotted disc, to begin with: choose its kind on the Separator page.")
    if answers.stands in ("none", None):
        said.append("There is no separator yet, so the one drawn is a proposal for your bin.")
    return StartedLine(planned, as_found, tuple(said))


def _of_kind(rig: Rig, kind: str) -> Rig:
    """The line with its separator of the kind that stands there, every size of it a guess."""
    try:
        changed = change_kind(rig, "sep", kind)
    except RigError:  # the bin as it was answered does not take that kind: the disc stays, to be changed
        return rig
    part = next(element for element in changed.line.elements if element.id == "sep")
    work = Guesswork("sep")
    for key, value in part.model_dump(mode="json").items():
        if key.endswith("_m") and isinstance(value, float):
            work.mark(key, value)
    document = changed.model_dump(mode="json")
    document["guesses"] = [*document["guesses"], *work.marks]
    return check_rig(document)


def _hose(answers: Answers, marks: list[dict[str, Any]]) -> dict[str, Any]:
    work = Guesswork("hose")
    bore = work.take("bore_m", answers.hose_bore, parts.TYPICAL_HOSE_BORE)
    angle, radius = parts.TYPICAL_BEND
    work.mark("bends[0].angle_deg", angle)
    document = {
        "id": "hose",
        "kind": "hose",
        "name": "Tool hose",
        "bore_m": bore,
        "length_m": work.take("length_m", answers.hose_length, parts.TYPICAL_HOSE_LENGTH),
        "wall": work.take("wall", answers.hose_wall, "wire-helix"),
        "bends": [{"angle_deg": angle, "radius_m": round(radius * bore, 3)}],
    }
    marks += work.marks
    return document


def _link(answers: Answers, bore: float, marks: list[dict[str, Any]]) -> dict[str, Any]:
    work = Guesswork("link")
    document = {
        "id": "link",
        "kind": "hose",
        "name": "Link hose",
        "bore_m": work.take("bore_m", answers.link_bore, bore),
        "length_m": work.take("length_m", answers.link_length, parts.TYPICAL_LINK_LENGTH),
        "wall": answers.hose_wall or "wire-helix",
    }
    marks += work.marks
    return document


def _port(answers: Answers, tool: ToolClass, hose_bore: float, marks: list[dict[str, Any]]) -> dict[str, Any]:
    work = Guesswork("tool")
    hood = generic_hood(tool if answers.tool else replace(tool, hood="opening"))  # an unknown tool's can be moved
    hood["thrown_share"] = work.take("port.hood.thrown_share", None, tool.thrown_share)
    if "distance_m" in hood:
        hood["distance_m"] = work.take("port.hood.distance_m", None, tool.distance)
    port: dict[str, Any] = {
        "name": tool.label if answers.tool else "Tool",
        "bore_m": work.take("port.bore_m", None, tool.port_bore if answers.tool else hose_bore),
        "dust_rate_kg_s": work.take("port.dust_rate_kg_s", None, tool.dust_rate),
        "hood": hood,
    }
    if answers.tool and tool.machine:
        port["machine"] = tool.machine
    marks += work.marks
    return port


def _separator(answers: Answers, inlet: float, outlet: float, marks: list[dict[str, Any]]) -> dict[str, Any]:
    work = Guesswork("sep")
    top, bottom, height = parts.TYPICAL_BIN
    top = work.take("bin.profile[1].d_m", answers.bin_top, answers.bin_bottom or top)
    bottom = work.take("bin.profile[0].d_m", answers.bin_bottom, answers.bin_top or bottom)
    height = work.take("bin.profile[1].height_m", answers.bin_height, height)
    material = work.take("bin.material", answers.bin_material, "hdpe")
    wall = work.take("bin.wall_m", None, parts.TYPICAL_WALL.get(material, parts.TYPICAL_PLASTIC_WALL))
    closure = work.take("bin.closure", answers.bin_closure, "clamp-ring")
    if answers.stands in STANDING:
        for key, value in (
            ("chamber_height_m", max(CHAMBER_HEIGHT, inlet)),
            ("outlet_length_m", OUTLET_HANGS),
            ("slots[0].width_m", SLOT_WIDTH),
            ("slots[0].arc_deg", SLOT_ARC),
        ):
            work.mark(key, value)
    marks += work.marks
    return {
        "id": "sep",
        "kind": "separator",
        "name": "Slotted disc",
        "type": "slotted-disc",
        "chamber_d_m": top,
        "chamber_height_m": max(CHAMBER_HEIGHT, inlet),
        "inlet_bore_m": inlet,
        "outlet_d_m": outlet,
        "outlet_length_m": OUTLET_HANGS,
        "slots": [{"width_m": SLOT_WIDTH, "arc_deg": SLOT_ARC}],
        "bin": {
            "profile": [{"height_m": 0.0, "d_m": bottom}, {"height_m": height, "d_m": top}],
            "material": material,
            "wall_m": wall,
            "closure": closure,
        },
    }
