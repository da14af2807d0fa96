"""The five questions as fields, and reading them back as answers."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.catalogue.tools import HAZARDS, TOOLS
from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.rig import RigError
from fenwick.rig.start import Answers
from fenwick.rig.start.answers import STANDS, TIMES
from fenwick.units import INCH, METRIC, BadNumberError, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.web.kit.words import CHOICE_WORDS

UNKNOWN = "don't know"
MAINS = {METRIC: 230.0, INCH: 120.0}  #: voltage usual where these units are [V]
Choices = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Question:
    """One of the five."""

    title: str
    help: str
    picture: str  #: which sketch stands beside it
    fields: tuple[Field, ...]


def _choices(words: Mapping[str, str]) -> Choices:
    return tuple(words.items())


#: (title, help, picture, fields as (name of the answer, label, quantity or choices, hint))
QUESTIONS: tuple[tuple[str, str, str, tuple[tuple[str, str, str | Choices, str], ...]], ...] = (
    (
        "Which tool, which dust?",
        "",
        "tool",
        (
            ("tool", "Tool", _choices({key: tool.label for key, tool in TOOLS.items()}), ""),
            ("dust", "Dust it makes", _choices(CHOICE_WORDS["dust.kind"]), ""),
            ("hazard", "Has held, or will hold, also", _choices({key: h[0] for key, h in HAZARDS.items()}), ""),
        ),
    ),
    (
        "Which vacuum?",
        "Peak horsepower says nothing about air; leave it out.",
        "vacuum",
        (
            ("vacuum", "It is a", _choices({key: kind.label for key, kind in VACUUMS.items()}), ""),
            ("sealed_suction", "Suction on the label", "suction", ""),
            ("open_flow", "Air flow on it", "flow", ""),
            ("air_watts", "Air watts", "power", ""),
            ("electrical_power", "Electric power", "power", ""),
            ("current", "or current", "current", ""),
        ),
    ),
    (
        "Which hoses?",
        "The bore is the width inside. The link hose runs from the separator to the vacuum.",
        "hose",
        (
            ("hose_bore", "Tool hose bore", "bore", ""),
            ("hose_length", "its length", "length", ""),
            ("link_bore", "Link hose bore", "bore", ""),
            ("link_length", "its length", "length", ""),
            ("hose_wall", "Inside wall", _choices(CHOICE_WORDS["wall"]), ""),
        ),
    ),
    (
        "Which bin?",
        "Inside, by ruler.",
        "bin",
        (
            ("bin_top", "Width at the top", "bore", ""),
            ("bin_bottom", "At the floor", "bore", ""),
            ("bin_height", "Height", "bore", ""),
            ("bin_material", "Made of", _choices(CHOICE_WORDS["material"]), ""),
            ("bin_closure", "Lid", _choices(CHOICE_WORDS["closure"]), ""),
        ),
    ),
    (
        "How does it stand today?",
        "",
        "today",
        (
            ("stands", "Separator", _choices(STANDS), ""),
            ("time", "Time you have", _choices(TIMES), ""),
        ),
    ),
)

#: field in which a problem of the rig that was made is shown
FIELD_OF_PATH = {
    "vacuum.curve.sealed_suction_pa": "sealed_suction",
    "vacuum.curve.open_flow_m3_s": "open_flow",
    "vacuum.curve.air_watts": "air_watts",
    "vacuum.electrical_power_w": "electrical_power",
    "vacuum.current_a": "current",
    "line.branches[0].elements[0].bore_m": "hose_bore",
    "line.branches[0].elements[0].length_m": "hose_length",
    "line.elements[0].inlet_bore_m": "hose_bore",
    "line.elements[0].outlet_d_m": "link_bore",
    "line.elements[0].chamber_d_m": "bin_top",
    "line.elements[0].slots[0].width_m": "bin_top",
    "line.elements[0].bin.profile[1].d_m": "bin_top",
    "line.elements[0].bin.profile[0].d_m": "bin_bottom",
    "line.elements[0].bin.profile[1].height_m": "bin_height",
    "line.elements[1].bore_m": "link_bore",
    "line.elements[1].length_m": "link_length",
}


def questions(form: Mapping[str, str], errors: Mapping[str, str], system: str) -> list[Question]:
    """The five questions with what was answered so far."""
    asked = []
    for title, help_text, picture, specs in QUESTIONS:
        fields = []
        for name, label, kind, hint in specs:
            choices = kind if isinstance(kind, tuple) else ()
            unit = "" if isinstance(kind, tuple) else unit_label(kind, system)
            unknown = "nothing else" if name == "hazard" else UNKNOWN
            field = Field(name, label, form.get(name, "").strip(), unit, choices, True, unknown=unknown, hint=hint)
            fields.append(replace(field, error=errors.get(name, "")))
        asked.append(Question(title, help_text, picture, tuple(fields)))
    return asked


def read_answers(form: Mapping[str, str], system: str) -> tuple[Answers | None, dict[str, str]]:
    """(answers, errors by field): no answers where something cannot be read, or must stop here."""
    values: dict[str, Any] = {}
    errors: dict[str, str] = {}
    for _, _, _, specs in QUESTIONS:
        for name, _, kind, _ in specs:
            text = form.get(name, "").strip()
            if not text:
                continue
            try:
                values[name] = _read(text, kind, system)
            except BadNumberError as error:
                errors[name] = str(error)
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
        said.setdefault(FIELD_OF_PATH.get(problem.path, ""), f"{sentence[:1].upper()}{sentence[1:]}.")
    answered = {name: sentence for name, sentence in said.items() if form.get(name, "").strip()}
    return answered or said  # what stands at “don't know” only follows from an answer
