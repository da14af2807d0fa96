"""Values of a rig that nobody has measured: marked in the file, until a measurement takes their place."""

from __future__ import annotations

from collections.abc import Collection
from typing import Any

from pydantic import Field

from fenwick.rig.format import fields as f
from fenwick.rig.format.places import document_value, path_of
from fenwick.rig.format.problems import Problem


class GuessPart(f.Part):
    """A value that is a guess, with the range it is believed to lie in, in the key's own unit."""

    part: f.Id
    key: str = Field(min_length=1, max_length=80)
    low: float | None = None
    high: float | None = None
    others: tuple[str, ...] = Field((), max_length=20)


def guess_path(document: dict[str, Any], guess: dict[str, Any]) -> str:
    """Path of the value that a guess marks.

    Raises
    ------
    KeyError
        When the line has no such part, or the part no such value.
    """
    path = f"{path_of(document, guess['part'])}.{guess['key']}"
    document_value(document, path)
    return path


def guess_problems(document: dict[str, Any]) -> list[Problem]:
    """What is wrong with the marks of a file whose keys are all in order."""
    found = []
    for i, guess in enumerate(document.get("guesses") or ()):
        try:
            path_of(document, guess["part"])
        except KeyError:
            found.append(Problem(f"guesses[{i}].part", "names no part of this line"))
            continue
        try:
            value = document_value(document, guess_path(document, guess))
        except KeyError:
            found.append(Problem(f"guesses[{i}].key", "is not a key of that part"))
            continue
        if isinstance(value, dict | list):
            found.append(Problem(f"guesses[{i}].key", "must lead to a single value"))
    return found


def prune_guesses(document: dict[str, Any], measured: Collection[str] = ()) -> None:
    """Drop the marks of values that are gone, or that have been measured: paths of the file before the change."""
    kept = []
    for guess in document.get("guesses") or ():
        try:
            path = guess_path(document, guess)
        except KeyError:
            continue
        if path not in measured:
            kept.append(guess)
    document["guesses"] = kept


def copy_guesses(document: dict[str, Any], part: str, twin: str) -> None:
    """Mark the copy of a part as the part is marked."""
    marks = document.get("guesses") or []
    document["guesses"] = [*marks, *({**guess, "part": twin} for guess in marks if guess["part"] == part)]
