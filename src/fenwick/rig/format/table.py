"""A table of text, however a spreadsheet or a logger wrote it: its encoding, its separator, its cells."""

from __future__ import annotations

import csv
import re

from fenwick.rig.format.problems import Problem, RigError

LONGEST_CELL = 32_767  #: characters, as spreadsheets have it
#: what a spreadsheet takes for the beginning of a formula
FORMULAS = ("=", "+", "-", "@", "\t", "\r")
NUMBER = re.compile(r"[+-]?[0-9]+(?:[.,][0-9]+)?(?:[eE][+-]?[0-9]+)?")
SEPARATORS = (";", "\t", "|", ",")


def text_of(raw: bytes) -> str:
    """The text of a file, by its byte-order mark, else as UTF-8, else as Latin-1.

    Raises
    ------
    RigError
        When it is no text.
    """
    for encoding in ("utf-16",) if raw[:2] in (b"\xff\xfe", b"\xfe\xff") else ("utf-8-sig", "latin-1"):
        try:
            text = raw.decode(encoding)
        except UnicodeDecodeError:
            continue
        if "\x00" not in text:
            return text
    raise refused("the file is not a table of text")


def separator_of(lines: list[str]) -> str:
    """The separator that stands in every line; a comma only where nothing else does, since it may be a decimal's."""
    for candidate in SEPARATORS:
        if all(candidate in line for line in lines):
            return candidate
    return max(SEPARATORS, key=lambda candidate: sum(candidate in line for line in lines))


def cells_of(line: str, separator: str) -> list[str]:
    """The cells of a line, quotes taken off.

    Raises
    ------
    RigError
        When a cell holds more than a spreadsheet could.
    """
    try:
        cells = next(csv.reader([line], delimiter=separator), [])
    except csv.Error:  # beyond what the reader holds
        cells = [line]
    if max(map(len, cells), default=0) > LONGEST_CELL:
        raise refused(f"a cell of the table holds more than {LONGEST_CELL} characters")
    return [cell.strip() for cell in cells]


def guarded(text: str) -> str:
    """Words as a cell that no spreadsheet takes for a formula; a number stays a number."""
    return f"'{text}" if text[:1] in FORMULAS and not NUMBER.fullmatch(text) else text


def unguarded(text: str) -> str:
    """What such a cell says."""
    return text[1:] if text[:1] == "'" and text[1:2] in FORMULAS else text


def refused(rule: str) -> RigError:
    """A table that is not taken, with the rule it breaks."""
    return RigError((Problem("", rule),))
