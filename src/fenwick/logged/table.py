"""The log as a table: a row for each entry, a column for each figure with its unit in the heading; both ways."""

from __future__ import annotations

import csv
from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime
from io import StringIO

import numpy as np

from fenwick.core.logbook.entries import BOUNDS, QUANTITIES
from fenwick.logged.check import problems_of
from fenwick.logged.entry import Logged
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.table import guarded, refused, separator_of, text_of, unguarded
from fenwick.units import BadNumberError, parse_value, unit_label
from fenwick.units.convert import to_display
from fenwick.units.sentence import inside

MOST_ROWS, MOST_PROBLEMS = 60_000, 8
MOST_BYTES = 20_000_000
DIGITS = 7  #: of a figure in a table: read again, it is the same
WHEN = "%Y-%m-%d %H:%M"
WHENS = (WHEN, "%Y-%m-%dT%H:%M", "%Y-%m-%d %H:%M:%S", "%Y-%m-%dT%H:%M:%S", "%Y-%m-%d", "%d.%m.%Y", "%d.%m.%Y %H:%M")
WORDS = ("about", "job", "finding", "words")  #: columns of words, in the order they stand behind the figures
FIELD_OF = {"about": "thing"}


def write_log(entries: Iterable[Logged], lines: Mapping[int, str], system: str) -> str:
    """The table, in one system of units.

    Parameters
    ----------
    entries : in the order they are to stand
    lines : names by number
    system : of units
    """
    out = StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["when", "entry", "line", *(_heading(key, system) for key in BOUNDS), *WORDS])
    for entry in entries:
        figures = [_figure(entry, key, system) for key in BOUNDS]
        words = [guarded(getattr(entry, FIELD_OF.get(column, column))) for column in WORDS]
        line = "" if entry.line is None else guarded(lines.get(entry.line, f"line {entry.line}"))
        writer.writerow([entry.at.strftime(WHEN), entry.kind, line, *figures, *words])
    return out.getvalue()


def _figure(entry: Logged, key: str, system: str) -> str:
    value = getattr(entry, key)
    if value is None:
        return ""
    shown = to_display(value, QUANTITIES[key], system)
    return np.format_float_positional(shown, precision=DIGITS, unique=False, fractional=False, trim="-")


def _heading(key: str, system: str) -> str:
    unit = unit_label(QUANTITIES[key], system)
    return f"{key} ({unit})" if unit else key


def parse_log(raw: bytes, lines: Mapping[str, int], now: datetime, system: str) -> list[Logged]:
    """The entries in a table.

    Parameters
    ----------
    raw : text with comma, semicolon or tab between its columns
    lines : numbers by name
    now : by the shop's clock
    system : units of figures whose heading names none

    Raises
    ------
    RigError
        With the row and column of what cannot be read; nothing is taken then.
    """
    if len(raw) > MOST_BYTES:
        raise refused(f"the table is larger than {MOST_BYTES // 1_000_000} MB")
    rows = _rows(text_of(raw))
    if len(rows) < 2:
        raise refused("a log takes a heading and a row or more")
    if len(rows) > MOST_ROWS + 1:
        raise refused(f"the table has {len(rows) - 1} rows; at most {MOST_ROWS} are read")
    head = [cell.strip().lower() for cell in rows[0]]
    places = {name: _place(head, name) for name in ("when", "entry", "line", *BOUNDS, *WORDS)}
    missing = [name for name in ("when", "entry") if places[name] is None]
    if missing:
        hint = "only one column was found: is another separator in use?" if len(head) < 2 else "see the CSV of this log"
        raise refused(f"no column is headed {', '.join(missing)}: {hint}")
    reader = _RowReader(head, places, {name.casefold(): number for name, number in lines.items()}, now, system)
    found, problems = [], []
    for number, cells in enumerate(rows[1:], start=2):
        entry, wrong = reader.entry(cells)
        problems += [Problem("", f"row {number}, {where}") for where in wrong]
        if len(problems) > MOST_PROBLEMS:  # a table of a hundred thousand bad rows is not read to its end
            break
        if entry is not None:
            found.append(entry)
    if problems:
        raise RigError(tuple(problems[:MOST_PROBLEMS]))
    return found


def _rows(text: str) -> list[list[str]]:
    first = [line for line in text.splitlines()[:20] if line.strip()]
    if not first:
        return []
    try:
        return [row for row in csv.reader(StringIO(text), delimiter=separator_of(first[:1])) if any(row)]
    except csv.Error as error:
        raise refused("a cell of the table holds more than a spreadsheet could") from error


def _place(head: Sequence[str], name: str) -> int | None:
    return next((i for i, cell in enumerate(head) if cell.split("(")[0].strip() == name), None)


class _RowReader:
    """Reads the rows of one table."""

    def __init__(
        self, head: list[str], places: Mapping[str, int | None], lines: Mapping[str, int], now: datetime, system: str
    ) -> None:
        self._places, self._lines, self._now, self._system = places, lines, now, system
        self._units = {name: _unit(head[at]) for name, at in places.items() if at is not None}

    def entry(self, cells: Sequence[str]) -> tuple[Logged | None, list[str]]:
        """(the entry of a row, what is wrong with it, column by column)."""
        wrong: list[str] = []
        at = _when(self._cell(cells, "when"))
        if at is None:
            return None, [f"“when”: “{self._cell(cells, 'when')[:30]}” is no date such as 2026-11-28 17:30"]
        line = self._line(cells, wrong)
        amounts = {key: self._amount(cells, key, wrong) for key in BOUNDS}
        words = {FIELD_OF.get(column, column): unguarded(self._cell(cells, column)) for column in WORDS}
        entry = Logged(self._cell(cells, "entry").lower(), at, line, **words, **amounts)  # type: ignore[arg-type]
        wrong += [f"“{one.path}”: {one.sentence(self._system)}" for one in problems_of(entry, self._now)]
        return entry, wrong

    def _line(self, cells: Sequence[str], wrong: list[str]) -> int | None:
        name = unguarded(self._cell(cells, "line"))
        if name and name.casefold() not in self._lines:
            wrong.append(f"“line”: there is no line “{name[:40]}” in this shop")
        return self._lines.get(name.casefold())

    def _amount(self, cells: Sequence[str], key: str, wrong: list[str]) -> float | None:
        text = unguarded(self._cell(cells, key))
        if not text:
            return None
        try:
            return parse_value(f"{text} {self._units[key]}".strip(), QUANTITIES[key], self._system)
        except BadNumberError as error:
            wrong.append(f"“{key}”: {inside(str(error).rstrip('.'))}")
            return None

    def _cell(self, cells: Sequence[str], name: str) -> str:
        at = self._places[name]
        return cells[at].strip() if at is not None and at < len(cells) else ""


def _unit(heading: str) -> str:
    return heading.split("(", 1)[1].split(")")[0].strip() if "(" in heading else ""


def _when(text: str) -> datetime | None:
    for form in WHENS:
        try:
            return datetime.strptime(text, form)
        except ValueError:
            continue
    return None
