"""The first line of a newcomer: tools, hose, separator, link hose, vacuum."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.catalogue import parts
from fenwick.rig.edits.guesswork import Guesswork
from fenwick.rig.edits.kinds import change_kind
from fenwick.rig.format.model import FORMAT, VERSION, Rig
from fenwick.rig.format.places import part_places
from fenwick.rig.format.problems import RigError
from fenwick.rig.format.read import check_rig
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.bin import BinGuess, guess_bin
from fenwick.rig.start.conclusion import Conclusion
from fenwick.rig.start.limits import check_answers
from fenwick.rig.start.tools import start_tools
from fenwick.rig.start.vacuum import guess_vacuum

CHAMBER_HEIGHT, OUTLET_HANGS, SLOT_WIDTH, SLOT_ARC = 0.12, 0.06, 0.03, 240.0  #: a disc worth beginning with [m], [°]

#: kind of separator by what stands there
STANDING = {"disc": "slotted-disc", "hung": "hung-disc", "cyclone": "cyclone", "elbows": "elbow-lid"}


@dataclass(frozen=True)
class StartedLine:
    """What the answers come to."""

    planned: Rig  #: the line with a separator, theirs or the one to build
    as_found: Rig | None  #: the line as it stands today, where that is another one
    said: tuple[Conclusion, ...]  #: what was concluded from the answers


def start_line(answers: Answers) -> StartedLine:
    """The line, or the two lines, that five answers describe.

    Raises
    ------
    RigError
        When answers contradict each other, or a dust is refused; paths are names of answers, or begin with
        the id of the part.
    """
    check_answers(answers)
    guessed, bin_ = guess_vacuum(answers), guess_bin(answers)
    said = [*guessed.said, *bin_.said]
    tools = start_tools(answers)
    link_marks: list[dict[str, Any]] = []
    link = _link(answers, tools.hose_bore, link_marks)
    marks = [*guessed.marks, *tools.marks, *link_marks]
    # what is only planned is no guess; what stands there and was not measured is
    separator_marks = [*bin_.marks, *_unmeasured(answers, tools.hose_bore)]
    separator = _separator(bin_, tools.hose_bore, link["bore_m"])

    def rig(name: str, trunk: list[dict[str, Any]], guesses: list[dict[str, Any]]) -> Rig:
        trunk = [*tools.shared, *trunk]
        named = {part["id"] for part in trunk} | {"vacuum", "dust"} | tools.ids
        line = {"elements": trunk, "branches": [*tools.branches], "use": tools.use}
        return _checked(
            {
                "format": FORMAT,
                "version": VERSION,
                "name": name,
                "vacuum": guessed.document,
                "dust": {"kind": tools.dust},
                "line": line,
                "guesses": [mark for mark in guesses if mark["part"] in named],
            }
        )

    title = tools.title
    kind = STANDING.get(answers.stands or "")
    proposed = answers.stands in ("none", None)
    planned = rig(f"{title} with a disc" if proposed else title, [separator, link], marks + separator_marks)
    if kind is not None and kind != "slotted-disc":
        planned = _of_kind(planned, kind)
    as_found = None
    if answers.stands in ("none", None):
        as_found = rig(f"{title} as it stands", [], marks)
    if answers.stands == "other":
        said.append(
            Conclusion("Yours is shown as a slotted disc, to begin with: choose its kind on the Separator page.")
        )
    if answers.stands in ("none", None):
        said.append(Conclusion("There is no separator yet, so the one drawn is a proposal for your bin."))
    return StartedLine(planned, as_found, tuple(said))


def _checked(document: dict[str, Any]) -> Rig:
    """The line; what is wrong is told by the part it is wrong with, wherever that stands on the line."""
    try:
        return check_rig(document)
    except RigError as error:
        problems = [replace(problem, path=_by_part(problem.path, document)) for problem in error.problems]
        raise RigError(tuple(problems)) from error


def _by_part(path: str, document: dict[str, Any]) -> str:
    found = next(((part, at) for part, at in part_places(document) if path.startswith(f"{at}.")), None)
    return path if found is None else f"{found[0]}.{path.removeprefix(found[1]).lstrip('.')}"


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


def _unmeasured(answers: Answers, inlet: float) -> list[dict[str, Any]]:
    """Marks of the separator's own sizes, where one stands there."""
    work = Guesswork("sep")
    if answers.stands in STANDING:
        for key, value in (
            ("chamber_height_m", max(CHAMBER_HEIGHT, inlet)),
            ("outlet_length_m", OUTLET_HANGS),
            ("slots[0].width_m", SLOT_WIDTH),
            ("slots[0].arc_deg", SLOT_ARC),
        ):
            work.mark(key, value)
    return work.marks


def _separator(bin_: BinGuess, inlet: float, outlet: float) -> dict[str, Any]:
    return {
        "id": "sep",
        "kind": "separator",
        "name": "Slotted disc",
        "type": "slotted-disc",
        "chamber_d_m": bin_.top,
        "chamber_height_m": max(CHAMBER_HEIGHT, inlet),
        "inlet_bore_m": inlet,
        "outlet_d_m": outlet,
        "outlet_length_m": OUTLET_HANGS,
        "slots": [{"width_m": SLOT_WIDTH, "arc_deg": SLOT_ARC}],
        "bin": bin_.document,
    }
