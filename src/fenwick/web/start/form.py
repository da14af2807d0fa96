"""The five questions as fields, and reading them back as answers."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from markupsafe import Markup
from werkzeug.datastructures import MultiDict

from fenwick.core.catalogue.tools import HAZARDS, TOOLS
from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.drawing.tool_symbol import render_tool
from fenwick.rig import RigError
from fenwick.rig.start import Answers
from fenwick.rig.start.answers import SHARING, STANDS, TIMES
from fenwick.rig.start.limits import LIMITS
from fenwick.units import INCH, METRIC, BadNumberError, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.web.kit.words import CHOICE_WORDS

UNKNOWN, TOOL = "don't know", "tool"
MOST_TOOLS = 6  #: of a first line; more are added on it
BIN_RULED = ("bin_top", "bin_bottom", "bin_height")
MAINS = {METRIC: 230.0, INCH: 120.0}  #: voltage usual where these units are [V]
Choices = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Question:
    """One of the five."""

    title: str
    help: str
    picture: str  #: which sketch stands beside it
    fields: tuple[Field, ...]
    picks: tuple[ToolPick, ...] = ()


@dataclass(frozen=True)
class ToolPick:
    """A tool that can be picked."""

    key: str
    label: str
    picture: Markup
    picked: bool


def _choices(words: Mapping[str, str]) -> Choices:
    return tuple(words.items())


@dataclass(frozen=True)
class Asked:
    """One thing that is asked."""

    name: str  #: of the answer
    label: str
    kind: str | Choices  #: quantity of a figure, or what can be chosen


@dataclass(frozen=True)
class Topic:
    """One question and all that belongs to it."""

    title: str
    help: str
    picture: str
    asks: tuple[Asked, ...]


UNKNOWN_WORDS = {"hazard": "nothing else", "spend": "not said"}  #: what an empty answer is called

TOPICS = (
    Topic(
        "Which tools, which dust?",
        "",
        TOOL,
        (
            Asked("share", "Several tools share", _choices(SHARING)),
            Asked("dust", "Dust it makes", _choices(CHOICE_WORDS["dust.kind"])),
            Asked("hazard", "Has held, or will hold, also", _choices({key: h[0] for key, h in HAZARDS.items()})),
        ),
    ),
    Topic(
        "Which vacuum?",
        "Peak horsepower says nothing about air; leave it out.",
        "vacuum",
        (
            Asked("vacuum", "It is a", _choices({key: kind.label for key, kind in VACUUMS.items()})),
            Asked("sealed_suction", "Suction on the label", "suction"),
            Asked("open_flow", "Air flow on it", "flow"),
            Asked("air_watts", "Air watts", "power"),
            Asked("electrical_power", "Electric power", "power"),
            Asked("current", "or current", "current"),
        ),
    ),
    Topic(
        "Which hoses?",
        "The bore is the width inside. The link hose runs from the separator to the vacuum.",
        "hose",
        (
            Asked("hose_bore", "Tool hose bore", "bore"),
            Asked("hose_length", "its length", "length"),
            Asked("link_bore", "Link hose bore", "bore"),
            Asked("link_length", "its length", "length"),
            Asked("hose_wall", "Inside wall", _choices(CHOICE_WORDS["wall"])),
        ),
    ),
    Topic(
        "Which bin?",
        "Inside, by ruler; or how many litres it says, or takes by the pail.",
        "bin",
        (
            Asked("bin_top", "Width at the top", "bore"),
            Asked("bin_bottom", "At the floor", "bore"),
            Asked("bin_height", "Height", "bore"),
            Asked("bin_volume", "or it holds", "volume"),
            Asked("bin_material", "Made of", _choices(CHOICE_WORDS["material"])),
            Asked("bin_closure", "Lid", _choices(CHOICE_WORDS["closure"])),
        ),
    ),
    Topic(
        "How does it stand, what do you have?",
        "",
        "today",
        (
            Asked("stands", "Separator", _choices(STANDS)),
            Asked("time", "Time you have", _choices(TIMES)),
            Asked("spend", "Money you have", "number"),
        ),
    ),
)

#: field in which a problem of the rig that was made is shown
FIELD_OF_PATH = {
    **{name: name for name in LIMITS},
    "tools": TOOL,
    "vacuum.curve.sealed_suction_pa": "sealed_suction",
    "vacuum.curve.open_flow_m3_s": "open_flow",
    "vacuum.curve.air_watts": "air_watts",
    "vacuum.electrical_power_w": "electrical_power",
    "vacuum.current_a": "current",
    "hose.bore_m": "hose_bore",
    "hose.length_m": "hose_length",
    "sep.inlet_bore_m": "hose_bore",
    "sep.outlet_d_m": "link_bore",
    "sep.chamber_d_m": "bin_top",
    "sep.slots[0].width_m": "bin_top",
    "sep.bin.profile[1].d_m": "bin_top",
    "sep.bin.profile[0].d_m": "bin_bottom",
    "sep.bin.profile[1].height_m": "bin_height",
    "link.bore_m": "link_bore",
    "link.length_m": "link_length",
}


def questions(form: MultiDict[str, str], errors: Mapping[str, str], system: str) -> list[Question]:
    """The five questions with what was answered so far."""
    asked = []
    for topic in TOPICS:
        fields = tuple(_field(one, form, errors, system) for one in topic.asks)
        picks = _picks(form.getlist(TOOL)) if topic.picture == TOOL else ()
        asked.append(Question(topic.title, topic.help, topic.picture, fields, picks))
    return asked


def _picks(picked: list[str]) -> tuple[ToolPick, ...]:
    return tuple(ToolPick(key, tool.label, render_tool(key), key in picked) for key, tool in TOOLS.items())


def _field(asked: Asked, form: Mapping[str, str], errors: Mapping[str, str], system: str) -> Field:
    text, error = form.get(asked.name, "").strip(), errors.get(asked.name, "")
    unknown = UNKNOWN_WORDS.get(asked.name, UNKNOWN)
    if isinstance(asked.kind, tuple):
        return Field(asked.name, asked.label, text, "", asked.kind, True, unknown=unknown, error=error)
    return Field(asked.name, asked.label, text, unit_label(asked.kind, system), (), True, unknown=unknown, error=error)


def read_answers(form: MultiDict[str, str], system: str) -> tuple[Answers | None, dict[str, str]]:
    """(answers, errors by field): no answers where something cannot be read, or must stop here."""
    values: dict[str, Any] = {}
    errors: dict[str, str] = {}
    for asked in (one for topic in TOPICS for one in topic.asks):
        text = form.get(asked.name, "").strip()
        if not text:
            continue
        try:
            values[asked.name] = _read(text, asked.kind, system)
        except BadNumberError as error:
            errors[asked.name] = str(error)
    values["tools"] = tuple(dict.fromkeys(form.getlist(TOOL)))
    if not set(values["tools"]) <= set(TOOLS):
        errors[TOOL] = "Pick tools of those that are drawn."
    if len(values["tools"]) > MOST_TOOLS:
        errors[TOOL] = f"Pick {MOST_TOOLS} at most to begin with; more join on the line's drawing."
    if values.get("spend", 0.0) < 0.0:
        errors["spend"] = "Money at hand is nothing or more."
    values["mains"] = MAINS[system]  # only to read amperes as power
    hazard = values.pop("hazard", None)
    if hazard is not None:
        errors["hazard"] = HAZARDS[hazard][1]
    return (None if errors else Answers(**values)), errors


def _read(text: str, kind: str | Choices, system: str) -> Any:
    if isinstance(kind, str):
        return parse_value(text, kind, system)
    if text not in dict(kind):
        raise BadNumberError(text, "Pick one of the list.")
    return text


def problems_by_field(error: RigError, form: Mapping[str, str], system: str) -> dict[str, str]:
    """What is wrong with the line the answers make, beside the question it comes from."""
    said: dict[str, str] = {}
    for problem in error.problems:
        sentence = problem.sentence(system)
        said.setdefault(_field_of(problem.path, form), f"{sentence[:1].upper()}{sentence[1:]}.")
    answered = {name: sentence for name, sentence in said.items() if form.get(name, "").strip()}
    return answered or said  # what stands at “don't know” only follows from an answer


def _field_of(path: str, form: Mapping[str, str]) -> str:
    """The field that a value of the line came from; a bin of so many litres has no widths of its own."""
    part, _, key = path.partition(".")
    field = FIELD_OF_PATH.get(f"hose.{key}" if part.endswith("-hose") else path, "")
    by_pail = field in BIN_RULED and not form.get(field, "").strip()
    return "bin_volume" if by_pail and form.get("bin_volume", "").strip() else field
