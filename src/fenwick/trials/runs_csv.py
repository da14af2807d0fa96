"""Runs of a test as a table: a row for each, a column for each figure, its unit in the heading."""

from __future__ import annotations

import csv
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from io import StringIO

from fenwick.core.bench.trials.plan import WAYS, Ask, Plan
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.table import cells_of, guarded, refused, separator_of, text_of, unguarded
from fenwick.trials.values import value_of
from fenwick.units import BadNumberError, format_value, parse_plain, unit_label
from fenwick.units.sentence import inside

MOST_ROWS, MOST_PROBLEMS = 500, 8


@dataclass(frozen=True)
class RunRow:
    """One run of a table."""

    variant: int
    texts: Mapping[str, str]  #: by the keys of the way's asks, in the units of the table's reader
    note: str = ""
    spoilt: str = ""
    state: str = "done"


def write_runs(plan: Plan, rows: Sequence[RunRow], system: str) -> str:
    """The table, in one system of units."""
    asks = _columns(plan)
    out = StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["run", "state", *(_heading(ask, system) for ask in asks), "stands", "spoilt", "note"])
    for number, row in enumerate(rows, start=1):
        figures = [guarded(row.texts.get(ask.key, "")) for ask in asks]
        words = [row.state, guarded(row.spoilt), guarded(row.note)]
        writer.writerow([number, guarded(plan.variants[row.variant]), *figures, *words])
    return out.getvalue()


def runs_table(plan: Plan, rows: Sequence[RunRow], system: str) -> list[dict[str, str | float | None]]:
    """The same with figures as numbers; None: not read."""
    found = []
    for number, row in enumerate(rows, start=1):
        figures = {_heading(ask, system): _number(row.texts.get(ask.key, ""), ask) for ask in _columns(plan)}
        words = {"stands": row.state, "spoilt": row.spoilt, "note": row.note}
        found.append({"run": number, "state": plan.variants[row.variant], **figures, **words})
    return found


def _number(text: str, ask: Ask) -> str | float | None:
    return text or None if ask.choices or not text else parse_plain(text)


def _columns(plan: Plan) -> list[Ask]:
    return [ask for ask in WAYS[plan.way].asks if ask.key != "log"]


def _heading(ask: Ask, system: str) -> str:
    unit = "" if ask.choices else unit_label(ask.quantity, system)
    return f"{ask.key} ({unit})" if unit else ask.key


def parse_runs(raw: bytes, plan: Plan, system: str) -> list[RunRow]:
    """The runs in a table.

    Parameters
    ----------
    raw : text with comma, semicolon or tab between its columns
    plan : of the test they belong to
    system : units of figures whose heading names none

    Raises
    ------
    RigError
        With the line and column of everything that cannot be read; nothing is taken then.
    """
    lines = [(number, line) for number, line in enumerate(text_of(raw).splitlines(), start=1) if line.strip()]
    if len(lines) < 2:
        raise refused("a table of runs takes a heading and a row or more")
    if len(lines) > MOST_ROWS:
        raise refused(f"the table has {len(lines)} rows; at most {MOST_ROWS} are read")
    separator = separator_of([line for _, line in lines[:20]])
    head = [cell.lower() for cell in cells_of(lines[0][1], separator)]
    asks = _columns(plan)
    places = {ask.key: _place(head, ask.key) for ask in asks}
    missing = [ask.key for ask in asks if ask.needed and places[ask.key] is None]
    if missing:
        one_column = len(head) < 2
        hint = "only one column was found: is another separator in use?" if one_column else "see the CSV of this test"
        raise refused(f"no column is headed {', '.join(missing[:3])}: {hint}")
    problems: list[Problem] = []
    rows = [_row(number, cells_of(line, separator), head, places, plan, system, problems) for number, line in lines[1:]]
    if problems:
        raise RigError(tuple(problems[:MOST_PROBLEMS]))
    return rows


def _place(head: list[str], key: str) -> int | None:
    return next((i for i, cell in enumerate(head) if cell.split("(")[0].strip() == key), None)


def _unit(heading: str) -> str:
    return heading.split("(", 1)[1].split(")")[0].strip() if "(" in heading else ""


def _row(
    number: int,
    cells: list[str],
    head: list[str],
    places: Mapping[str, int | None],
    plan: Plan,
    system: str,
    problems: list[Problem],
) -> RunRow:
    def cell(place: int | None) -> str:
        return cells[place] if place is not None and place < len(cells) else ""

    names = [name.lower() for name in plan.variants]
    state = unguarded(cell(_place(head, "state"))).lower()
    if state and state not in names:
        problems.append(Problem("", f"line {number}: there is no state “{state[:30]}”; there are {', '.join(names)}"))
    texts = {}
    for ask in _columns(plan):
        place = places[ask.key]
        text = unguarded(cell(place))
        if place is None or not text:
            continue
        try:
            value = value_of(text if ask.choices else f"{text} {_unit(head[place])}".strip(), ask, system)
        except BadNumberError as error:
            words = str(error).rstrip(".")
            problems.append(Problem("", f"line {number}, column {place + 1}: {inside(words)}"))
            continue
        texts[ask.key] = text if ask.choices else format_value(value, ask.quantity, system, field=True)
    variant = names.index(state) if state in names else 0
    note, spoilt = (unguarded(cell(_place(head, name))) for name in ("note", "spoilt"))
    return RunRow(variant, texts, note, spoilt)
