"""The form of an entry: what its kind asks for, in the user's units, as it was typed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Any

from fenwick.core.logbook.entries import (
    BIN,
    BOUNDS,
    COUNT,
    FINDINGS,
    GRADE,
    GRADED_AT,
    GRADES,
    HOURS,
    KINDS,
    MONEY,
    PIECE,
    PIECES,
    QUANTITIES,
    SHOP,
    SPENT_ON,
    TOOL,
    EntryKind,
)
from fenwick.logged import Logged
from fenwick.logged.check import problems_of
from fenwick.rig import Rig
from fenwick.services.logbook.holders import height_of_share, over_bin
from fenwick.services.logbook.work import JobDone
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.fields import Field

AT = "%Y-%m-%dT%H:%M"
APART = "|"  #: between the line and the tool in the value of one choice
FILLS = {"1": "to its line", "0.75": "three quarters", "0.5": "half", "0.25": "a quarter"}
LABELS = {
    "level": "Dust stood at", "volume": "Emptied out", "mass": "It weighed", "hours": "Hours", "count": "How many",
    "money": "It cost", "suction": "Suction", "kept": "Kept", "grade": "The wipe shows",
    "pitch": "Pitch, Hz", "quiet": "Loudness, dB below full",
}  # fmt: skip


@dataclass(frozen=True)
class LogShop:
    """What entries can be about."""

    lines: Sequence[tuple[int, Rig]]
    jobs: Mapping[str, JobDone] = field(default_factory=dict)  #: by its name
    money: str = "€"

    def rig(self, line: int | None) -> Rig | None:
        """That of a line."""
        return next((rig for number, rig in self.lines if number == line), None)


@dataclass(frozen=True)
class EntryForm:
    """The form, as it was typed."""

    kind: str
    fields: tuple[Field, ...]
    when: str
    words: str
    errors: Mapping[str, str] = field(default_factory=dict)  #: of when and words, and of the entry as a whole

    @property
    def wrong(self) -> bool:
        """Whether something in it is."""
        return bool(self.errors) or any(one.error for one in self.fields)

    @property
    def told(self) -> EntryKind:
        """The kind of entry that it asks for."""
        return KINDS[self.kind]


def form_of(kind: str, shop: LogShop, typed: Mapping[str, str], system: str, now: datetime) -> EntryForm:
    """The form of a kind of entry with what was typed in it."""
    told = KINDS[kind]
    fields = [*_about(told, shop, typed), *_figures(told, shop, typed, system)]
    if told.findings:
        label = "Was it time?" if told.findings == "time" else "It was"
        choices = tuple(FINDINGS[told.findings].items())
        fields.append(
            Field("finding", label, typed.get("finding", ""), choices=choices, optional=True, unknown="not said")
        )
    return EntryForm(kind, tuple(fields), typed.get("at", now.strftime(AT)), typed.get("words", ""))


def typed_of(entry: Logged, system: str) -> dict[str, str]:
    """What a form shows of an entry that is there."""
    found = {"at": entry.at.strftime(AT), "words": entry.words, "finding": entry.finding, "job": entry.job}
    found["line"] = "" if entry.line is None else str(entry.line)
    found["thing"] = entry.thing
    if KINDS[entry.kind].about == TOOL:
        found["where"] = f"{found['line']}{APART}{entry.thing}"
    for key in BOUNDS:
        value = getattr(entry, key)
        if value is not None:
            whole = key == GRADE
            found[key] = f"{value:.0f}" if whole else format_value(value, QUANTITIES[key], system, field=True)
    return found


def read_entry(form: EntryForm, shop: LogShop, system: str, now: datetime) -> tuple[Logged | None, EntryForm]:
    """(the entry, the form with what is wrong beside its fields); None where something is."""
    given = {one.path: one.text.strip() for one in form.fields}
    errors: dict[str, str] = {}
    at = _when(form.when, errors)
    amounts = _amounts(form, given, system, errors)
    line, thing = _place(form.told, given, shop, errors)
    job = given.get("job", "")
    if job and HOURS in form.told.amounts and amounts.get(HOURS) is None:
        done = shop.jobs.get(job)
        if done is not None:
            amounts[HOURS] = done.hours * (amounts.get(COUNT) or 1.0)
    if given.get("fill", "") not in ("", *FILLS):
        errors["fill"] = "Choose how full it was."
    elif given.get("fill") and amounts.get("level") is None:
        rig = shop.rig(line)
        amounts["level"] = None if rig is None else height_of_share(rig, float(given["fill"]))
    if errors:
        return None, _wrong(form, errors)
    found = Logged(form.kind, at, line, thing, job, given.get("finding", ""), form.words.strip())
    told: dict[str, Any] = amounts
    found = replace(found, **told)
    over = over_bin(found, shop.rig(line))
    for problem in (*problems_of(found, now), *([] if over is None else [over])):
        sentence = problem.sentence(system)
        errors.setdefault(problem.path, f"{_named(problem.path)} {sentence}.")
    return (None, _wrong(form, errors)) if errors else (found, form)


def _named(path: str) -> str:
    return {"at": "This", "words": "The words", "hours": "The time"}.get(path, "It")


def _about(told: EntryKind, shop: LogShop, typed: Mapping[str, str]) -> list[Field]:
    lines = tuple((str(number), rig.name) for number, rig in shop.lines)
    if told.about == TOOL:
        tools = tuple(
            (f"{number}{APART}{name}", f"{name} · {rig.name}") for number, rig in shop.lines for name in tools_of(rig)
        )
        fields = [Field("where", "At", typed.get("where", ""), choices=tools, optional=not tools)]
        jobs = tuple((name, name) for name in shop.jobs)
        if jobs:
            fields.append(
                Field("job", "Job", typed.get("job", ""), choices=jobs, optional=True, unknown="no job of the week")
            )
        return fields
    fields = []
    if told.about == PIECE:
        fields.append(Field("thing", "What", typed.get("thing", ""), choices=tuple(PIECES.items())))
    elif told.about == SHOP and MONEY in told.amounts:
        fields.append(Field("thing", "For", typed.get("thing", ""), choices=tuple(SPENT_ON.items())))
    elif told.amounts == (GRADE,):
        fields.append(Field("thing", "Where", typed.get("thing") or "tank", choices=tuple(GRADED_AT.items())))
    elif told.amounts in (("suction",), ("kept",)):
        fields.append(
            Field(
                "thing",
                "Measured at",
                typed.get("thing", ""),
                optional=True,
                free_text=True,
                unknown="always the same place",
            )
        )
    optional = told.about == SHOP
    fields.append(
        Field("line", "Line", typed.get("line", ""), choices=lines, optional=optional or not lines, unknown="the shop")
    )
    return fields


def tools_of(rig: Rig) -> list[str]:
    """Names of a line's tool ports, each once."""
    ports = (way[0].port for way in rig.line.ways)
    return list(dict.fromkeys(port.name for port in ports if port is not None))


def _figures(told: EntryKind, shop: LogShop, typed: Mapping[str, str], system: str) -> list[Field]:
    found = []
    if told.about == BIN:
        fills = tuple(FILLS.items())
        found.append(
            Field(
                "fill", "It was full", typed.get("fill", ""), choices=fills, optional=True, unknown="not said, or below"
            )
        )
    for key in told.amounts:
        if key == GRADE:
            choices = tuple((str(i), word) for i, word in enumerate(GRADES))
            found.append(Field(key, LABELS[key], typed.get(key, ""), choices=choices))
            continue
        unit = shop.money if key == MONEY else "h" if key == HOURS else unit_label(QUANTITIES[key], system)
        optional = key != told.needs
        found.append(Field(key, LABELS[key], typed.get(key, ""), unit, optional=optional, unknown="not said"))
    return found


def _when(text: str, errors: dict[str, str]) -> datetime:
    try:
        return datetime.fromisoformat(text).replace(tzinfo=None)
    except ValueError:
        errors["at"] = "Say when: a date and a time."
        return datetime.min


def _amounts(form: EntryForm, given: Mapping[str, str], system: str, errors: dict[str, str]) -> dict[str, float | None]:
    found: dict[str, float | None] = {}
    for key in form.told.amounts:
        if not given.get(key):
            continue
        try:
            found[key] = parse_value(given[key], QUANTITIES[key], system)
        except BadNumberError as error:
            errors[key] = str(error)
    return found


def _place(told: EntryKind, given: Mapping[str, str], shop: LogShop, errors: dict[str, str]) -> tuple[int | None, str]:
    """(line, thing) that an entry is about."""
    line_text, thing = given.get("line", ""), given.get("thing", "")
    if told.about == TOOL:
        line_text, _, thing = given.get("where", "").partition(APART)
    numbers = {str(number): number for number, _ in shop.lines}
    if line_text and line_text not in numbers:
        errors["where" if told.about == TOOL else "line"] = "There is no such line in this shop any more."
    line = numbers.get(line_text)
    if told.about == PIECE and thing not in PIECES:
        errors["thing"] = "Choose what it was."
    rig = shop.rig(line)
    if told.about == TOOL and rig is not None and thing not in tools_of(rig):
        errors["where"] = "There is no such tool on that line any more."
    return line, thing


def _wrong(form: EntryForm, errors: Mapping[str, str]) -> EntryForm:
    paths = {one.path for one in form.fields}
    fields = tuple(replace(one, error=errors.get(one.path, "")) for one in form.fields)
    others = {path: sentence for path, sentence in errors.items() if path not in paths}
    return replace(form, fields=fields, errors=others)
