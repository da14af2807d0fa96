"""The form of a new reading: what was read, where, and how surely."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from fenwick.core.components.dust import DUSTS
from fenwick.core.line.line import Line
from fenwick.core.tuning.readings import BLOCKED, FLOW, KEPT, KINDS, SUCTION, Reading, can_be, usual_sd
from fenwick.units import BadNumberError, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.wording.say import Voice
from fenwick.wording.tuning import READING_WORDS, stations


@dataclass(frozen=True)
class ReadingForm:
    """The form, as it was typed."""

    fields: tuple[Field, ...]

    @property
    def wrong(self) -> bool:
        """Whether something in it is."""
        return any(field.error for field in self.fields)


def reading_form(line: Line, voice: Voice, kinds: Mapping[str, str], typed: Mapping[str, str]) -> ReadingForm:
    """The form with what was typed in it."""
    kind = typed.get("kind", SUCTION)
    quantity = KINDS.get(kind, "suction")
    unit = unit_label(quantity, voice.system)
    places = stations(kinds, voice)
    ports = tuple((leaf.id, leaf.port.name) for leaf in line.leaves)
    dusts = tuple((key, dust.label) for key, dust in DUSTS.items())
    fields = [
        Field("kind", "What was read", kind, choices=tuple(READING_WORDS.items())),
        Field("value", "Reading", typed.get("value", ""), unit),
        Field("sd", "Give or take", typed.get("sd", ""), unit, optional=True, unknown="usual"),
    ]
    if kind in (SUCTION, BLOCKED):
        fields.append(Field("station", "Where", typed.get("station", ""), choices=places))
    if kind != "sealed":
        fields.append(Field("port", "Port open", typed.get("port", ports[0][0]), choices=ports))
    if kind == KEPT:
        fields.append(
            Field("dust", "Dust fed", typed.get("dust", ""), choices=dusts, optional=True, unknown="that of the line")
        )
    fields.append(Field("note", "Note", typed.get("note", ""), optional=True, free_text=True, unknown="none"))
    return ReadingForm(tuple(fields))


def read_form(form: ReadingForm, system: str) -> tuple[Reading | None, ReadingForm]:
    """(the reading, the form with what is wrong beside its fields); None where something is."""
    given = {field.path: field.text.strip() for field in form.fields}
    kind = given["kind"]
    if kind not in KINDS:
        return None, _wrong(form, {"kind": "Choose what was read."})
    quantity, errors = KINDS[kind], {}
    numbers: dict[str, float] = {}
    for key in ("value", "sd"):
        if key == "sd" and not given[key]:
            continue
        try:
            numbers[key] = parse_value(given[key], quantity, system)
        except BadNumberError as error:
            errors[key] = f"{str(error)[:1].upper()}{str(error)[1:]}" if given[key] else "Type what was read."
    value = numbers.get("value")
    if value is not None and not can_be(kind, value):
        errors["value"] = "Below 0, or more than can be: check the figure and its unit."
    if "sd" in numbers and not (numbers["sd"] > 0.0 and can_be(kind, numbers["sd"])):
        errors["sd"] = "Must be above 0."
    if kind in (SUCTION, BLOCKED) and given.get("station") not in {c for f in form.fields for c, _ in f.choices}:
        errors["station"] = "Say behind which part it was read."
    if errors or value is None:
        return None, _wrong(form, errors)
    sd = numbers.get("sd", usual_sd(kind, value))
    where = "" if kind in (FLOW, KEPT) else given.get("station", "")
    return Reading(kind, value, sd, given.get("port", ""), where, given.get("dust", "")), form


def _wrong(form: ReadingForm, errors: Mapping[str, str]) -> ReadingForm:
    return ReadingForm(tuple(replace(field, error=errors.get(field.path, "")) for field in form.fields))
