"""Fields for any value of a checked document, and reading back what was typed into them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from pydantic import BaseModel

from fenwick.rig.format.describe import YES_NO, FieldFacts, describe
from fenwick.rig.format.places import document_value
from fenwick.rig.format.problems import Problem
from fenwick.units import BadNumberError, format_value, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.web.kit.words import choice_word


def facts_at(root: type[BaseModel], path: str, document: Any) -> FieldFacts:
    """What stands at a path that is known to exist."""
    facts = describe(root, path, document)
    assert facts is not None, path
    return facts


def value_or_none(document: Any, path: str) -> Any:
    """The value at a path; None also where what it belongs to was never described."""
    try:
        return document_value(document, path)
    except KeyError:
        return None


def document_field(root: type[BaseModel], document: Any, path: str, system: str, label: str = "") -> Field:
    """The field of one value of a document, as it stands."""
    facts, value = facts_at(root, path, document), value_or_none(document, path)
    label = label or facts.title
    if facts.choices:
        choices = tuple((choice, choice_word(path, choice)) for choice in facts.choices)
        text = YES_NO[bool(value)] if facts.flag and value is not None else value or ""
        return Field(path, label, text, choices=choices, optional=facts.optional)
    if facts.quantity is None:
        return Field(path, label, value or "", optional=facts.optional, free_text=True)
    text = "" if value is None else format_value(value, facts.quantity, system, field=True)
    return Field(path, label, text, unit_label(facts.quantity, system), optional=facts.optional)


def read_changes(
    root: type[BaseModel], document: Any, fields: list[Field], form: Mapping[str, str], system: str
) -> tuple[dict[str, Any], dict[str, str]]:
    """(new value by path, error by path) of the fields whose text was changed."""
    values: dict[str, Any] = {}
    errors: dict[str, str] = {}
    for field in fields:
        text = form.get(field.path, field.text).strip()
        if text == field.text:
            continue
        try:
            values[field.path] = typed_value(field, text, facts_at(root, field.path, document), system)
        except BadNumberError as error:
            errors[field.path] = str(error)
    return values, errors


def typed_value(field: Field, text: str, facts: FieldFacts, system: str) -> float | str | None:
    """What was typed as a stored value.

    Raises
    ------
    BadNumberError
    """
    if not text and field.optional:
        return None
    if facts.flag:
        return text == YES_NO[True]
    if field.choices or field.free_text:
        return text
    number = parse_value(text, facts.quantity or "number", system)
    return int(number) if facts.whole and number == int(number) else number


def sentences_by_path(problems: tuple[Problem, ...], known: set[str], system: str) -> dict[str, str]:
    """What is wrong, beside the fields it belongs to; what belongs to none under the empty path."""
    said: dict[str, str] = {}
    for problem in problems:
        sentence = problem.sentence(system)
        said[problem.path if problem.path in known else ""] = sentence[:1].upper() + sentence[1:] + "."
    return said
