"""What stands at a path of the rig file: its title, what it measures, its choices. Read off the models themselves."""

from __future__ import annotations

import types
import typing
from dataclasses import dataclass
from functools import cache
from typing import Any

from pydantic import BaseModel

from fenwick.rig.format.fields import Measure
from fenwick.rig.format.problems import split_path

YES_NO = ("no", "yes")  #: what a flag's choices are called


@dataclass(frozen=True)
class FieldFacts:
    """A leaf of the rig file."""

    title: str
    quantity: str | None  #: key of QUANTITIES; None for text and choices
    choices: tuple[str, ...]  #: empty when free
    optional: bool  #: may be null
    whole: bool = False  #: a whole number
    flag: bool = False  #: yes or no


def describe(root: type[BaseModel], path: str, document: Any) -> FieldFacts | None:
    """Facts about the leaf at `path` of a parsed file; None where the models know no such leaf."""
    models: tuple[type[BaseModel], ...] = (root,)
    here: Any = document
    facts: FieldFacts | None = None
    for item in split_path(path):
        if isinstance(item, int):
            here = here[item] if isinstance(here, list | tuple) and item < len(here) else None
            continue
        model = _matching(models, here)
        if model is None or item not in model.model_fields:
            return None
        facts, models = _facts(model, item)
        here = here.get(item) if isinstance(here, dict) else None
    return facts


def _matching(models: tuple[type[BaseModel], ...], value: Any) -> type[BaseModel] | None:
    """Of a union, the model whose kind, and type, the value names."""
    if len(models) == 1:
        return models[0]
    if not isinstance(value, dict):
        return None
    return next((m for m in models if all(_says(m, tag, value.get(tag)) for tag in ("kind", "type"))), None)


def _says(model: type[BaseModel], tag: str, value: Any) -> bool:
    """Whether a tag names a model; a model without that tag does not mind."""
    return tag not in model.model_fields or value in _literals(model.model_fields[tag].annotation)


@cache
def _facts(model: type[BaseModel], key: str) -> tuple[FieldFacts, tuple[type[BaseModel], ...]]:
    info = model.model_fields[key]
    hints = typing.get_type_hints(model, include_extras=True)[key]
    found = list(_leaves(hints))
    quantity = next((m.quantity for m in _metadata(hints) if isinstance(m, Measure)), None)
    extra = info.json_schema_extra
    choices = tuple(str(c) for leaf in found for c in _literals(leaf))
    if not choices and isinstance(extra, dict):
        choices = tuple(str(c) for c in typing.cast(list[str], extra.get("enum", [])))
    if bool in found:
        choices = YES_NO
    nested = tuple(leaf for leaf in found if isinstance(leaf, type) and issubclass(leaf, BaseModel))
    title = info.title or key.replace("_", " ").capitalize()
    return FieldFacts(title, quantity, choices, type(None) in found, int in found, bool in found), nested


def _leaves(hint: Any) -> typing.Iterator[Any]:
    """Plain types inside Annotated, unions and tuples."""
    origin = typing.get_origin(hint)
    if origin is typing.Annotated:
        yield from _leaves(typing.get_args(hint)[0])
    elif origin in (typing.Union, types.UnionType, tuple):
        for part in typing.get_args(hint):
            if part is not Ellipsis:
                yield from _leaves(part)
    else:
        yield hint


def _metadata(hint: Any) -> typing.Iterator[Any]:
    if typing.get_origin(hint) is typing.Annotated:
        yield from typing.get_args(hint)[1:]
        yield from _metadata(typing.get_args(hint)[0])
    elif typing.get_origin(hint) in (typing.Union, types.UnionType, tuple):
        for part in typing.get_args(hint):
            yield from _metadata(part)


def _literals(hint: Any) -> tuple[Any, ...]:
    return typing.get_args(hint) if typing.get_origin(hint) is typing.Literal else ()
