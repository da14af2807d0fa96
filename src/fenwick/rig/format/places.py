"""Where a part of a line stands in its rig file."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from fenwick.rig.format.problems import split_path

TOP_PARTS = ("vacuum", "site", "dust")  #: parts that are keys of the file itself


def part_places(document: dict[str, Any]) -> Iterator[tuple[str, str]]:
    """(id, path) of everything in a parsed file that has fields of its own, the vacuum, site and dust included."""
    yield from ((name, name) for name in TOP_PARTS if document.get(name) is not None)
    line = document["line"]
    yield from _elements(line, "line")
    yield from _branches(line, "line")


def _branches(owner: dict[str, Any], root: str) -> Iterator[tuple[str, str]]:
    for b, branch in enumerate(owner.get("branches") or ()):
        path = f"{root}.branches[{b}]"
        yield branch["id"], path
        yield from _elements(branch, path)
        yield from _branches(branch, path)


def _elements(owner: dict[str, Any], root: str) -> Iterator[tuple[str, str]]:
    for e, element in enumerate(owner.get("elements") or ()):
        yield element["id"], f"{root}.elements[{e}]"


def path_of(document: dict[str, Any], part: str) -> str:
    """Path of a part.

    Raises
    ------
    KeyError
        When the line has no such part.
    """
    for name, path in part_places(document):
        if name == part:
            return path
    raise KeyError(part)


def document_value(document: Any, path: str) -> Any:
    """The value at a path of a parsed file.

    Raises
    ------
    KeyError
        When there is none.
    """
    here = document
    for item in split_path(path):
        try:
            here = here[item]
        except (KeyError, IndexError, TypeError):
            raise KeyError(path) from None
    return here
