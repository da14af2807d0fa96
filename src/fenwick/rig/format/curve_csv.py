"""A fan curve out of a table of text: two columns, flow and suction, however a spreadsheet or a logger wrote them.

What is clear is read; of what is not, line and column are named, and nothing is taken.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.formulas.fan import misplaced_point
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.table import cells_of, refused, separator_of, text_of
from fenwick.units import QUANTITIES, BadNumberError, parse_plain, parse_value
from fenwick.units.names import unit_named, units_of
from fenwick.units.read import in_stored_units
from fenwick.units.sentence import inside

MOST_ROWS = 200_000
MOST_POINTS = 60  #: a longer log is averaged down to this many
MOST_PROBLEMS = 8  #: named before the rest is only counted
FLOW_WORDS = ("flow", "q", "air", "cfm", "l/s", "m3", "m³", "litre", "volume")
SUCTION_WORDS = ("suction", "pressure", "p", "dp", "pa", "kpa", "mbar", "vacuum", "water", "inh2o", "mmh2o")


@dataclass(frozen=True)
class CurveFile:
    """What a table holds."""

    points: tuple[tuple[float, float], ...]  #: (flow [m^3/s], suction [Pa]), flow rising
    rows: int  #: rows of figures read

    @property
    def averaged(self) -> bool:
        """Whether rows were put together."""
        return self.rows > len(self.points)


@dataclass(frozen=True)
class _Headings:
    """Which column holds what, and the unit its heading gives it."""

    flow: int
    suction: int
    flow_unit: str  #: empty: none is named
    suction_unit: str


def read_curve(raw: bytes, system: str) -> CurveFile:
    """The curve in a table.

    Parameters
    ----------
    raw : UTF-8 or Latin-1, with or without a byte-order mark; comma, semicolon, tab or bar between columns
    system : units of figures that carry none

    Raises
    ------
    RigError
        With the line and column of everything that cannot be read.
    """
    text = text_of(raw)
    lines = [(number, line) for number, line in enumerate(text.splitlines(), start=1) if line.strip()]
    if not lines:
        raise refused("the file is empty")
    if len(lines) > MOST_ROWS:
        raise refused(f"the file has {len(lines)} rows; at most {MOST_ROWS} are read")
    separator = separator_of([line for _, line in lines[:20]])
    rows = [(number, cells_of(line, separator)) for number, line in lines]
    layout, rows = _layout(rows)
    found = _figures(rows, layout, system)
    if found.problems:
        more = len(found.problems) - MOST_PROBLEMS
        shown = found.problems[:MOST_PROBLEMS]
        if more > 0:
            shown.append(Problem("", f"and {more} more like that"))
        raise RigError(tuple(shown))
    return _curve(found.points, found.places)


def _layout(rows: list[tuple[int, list[str]]]) -> tuple[_Headings, list[tuple[int, list[str]]]]:
    """Columns by their headings, or the first two as flow and suction; and the rows below the heading."""
    number, head = rows[0]
    if any(_is_figure(cell) for cell in head):
        return _Headings(0, 1, "", ""), rows
    flow = _column(head, FLOW_WORDS)
    suction = _column(head, SUCTION_WORDS, but=flow)
    if flow is None or suction is None:
        missing = "flow" if flow is None else "suction"
        raise refused(f"line {number}: no column is headed {missing}; head the columns flow and suction")
    return _Headings(flow, suction, _unit(head[flow], "flow"), _unit(head[suction], "suction")), rows[1:]


def _is_figure(cell: str) -> bool:
    return cell[:1].isdigit() or cell[:2].lstrip("+-.,−")[:1].isdigit()


def _column(head: list[str], words: tuple[str, ...], but: int | None = None) -> int | None:
    for i, cell in enumerate(head):
        names = cell.lower().replace("(", " ").replace("[", " ").replace("_", " ").replace("]", " ").split()
        if i != but and any(name.rstrip(").,:") in words or name.startswith(words[:1]) for name in names):
            return i
    return None


def _unit(heading: str, quantity: str) -> str:
    """The unit that a heading names, in brackets or behind its last word; empty where it names none.

    Raises
    ------
    RigError
        When what stands in brackets is no unit of the column.
    """
    for opening, closing in (("(", ")"), ("[", "]")):
        if opening in heading and closing in heading.split(opening, 1)[1]:
            text = heading.split(opening, 1)[1].split(closing, 1)[0].strip()
            named = unit_named(text, quantity)
            if named is None:
                raise refused(f"“{text[:20]}” is not a unit of a {quantity}; use {', '.join(units_of(quantity))}")
            return named
    return unit_named(heading.replace("_", " ").split()[-1], quantity) or ""


@dataclass(frozen=True)
class _Points:
    """What could be read, and what could not."""

    points: list[tuple[float, float]]  #: flow and suction, SI
    places: list[int]  #: number of the line each stands in
    problems: list[Problem]


def _figures(rows: list[tuple[int, list[str]]], layout: _Headings, system: str) -> _Points:
    read = _Points([], [], [])
    columns = (("flow", layout.flow, layout.flow_unit), ("suction", layout.suction, layout.suction_unit))
    for number, cells in rows:
        pair = []
        for quantity, column, unit in columns:
            try:
                pair.append(_figure(cells, column, unit, quantity, system))
            except BadNumberError as error:
                where = f"line {number}, column {column + 1}"
                read.problems.append(Problem("", f"{where}: {inside(str(error)).rstrip('.')}"))
        if len(pair) == 2:
            read.points.append((pair[0], pair[1]))
            read.places.append(number)
    return read


def _figure(cells: list[str], column: int, unit: str, quantity: str, system: str) -> float:
    text = cells[column] if column < len(cells) else ""
    if not text:
        raise BadNumberError(text, f"there is no {quantity}")
    try:
        bare = parse_plain(text.replace(" ", ""))
    except BadNumberError:
        value = parse_value(text, quantity, system)  # the cell names its unit itself
    else:
        value = in_stored_units(bare, unit or QUANTITIES[quantity].display(system).unit, quantity)
    if value < 0.0:
        raise BadNumberError(text, f"a {quantity} of {text} is below nothing")
    return value


def _curve(found: list[tuple[float, float]], places: list[int]) -> CurveFile:
    if len(found) > MOST_POINTS:
        return CurveFile(_averaged(found), len(found))
    clash = misplaced_point(found)
    if clash is not None:
        raise refused(f"line {places[clash.at]} {clash.rule} line {places[clash.against]}")
    if len(found) < 3:
        raise refused(
            f"a curve takes three points or more; here {'is one' if len(found) == 1 else f'are {len(found)}'}"
        )
    return CurveFile(tuple(sorted(found)), len(found))


def _averaged(found: list[tuple[float, float]]) -> tuple[tuple[float, float], ...]:
    """A long log as a falling curve: means over equal steps of flow, neighbours that rise put together."""
    flow, suction = np.array(found).T
    edges = np.linspace(flow.min(), flow.max(), MOST_POINTS + 1)
    step = np.clip(np.searchsorted(edges, flow, side="right") - 1, 0, MOST_POINTS - 1)
    count = np.bincount(step, minlength=MOST_POINTS)
    held = count > 0
    means = [np.bincount(step, values, MOST_POINTS)[held] / count[held] for values in (flow, suction)]
    pools: list[list[float]] = []  # weight, flow, suction
    for weight, q, p in zip(count[held].tolist(), means[0].tolist(), means[1].tolist(), strict=True):
        pools.append([weight, q, p])
        while len(pools) > 1 and pools[-1][2] >= pools[-2][2]:
            w, q2, p2 = pools.pop()
            w1, q1, p1 = pools[-1]
            pools[-1] = [w1 + w, (w1 * q1 + w * q2) / (w1 + w), (w1 * p1 + w * p2) / (w1 + w)]
    if len(pools) < 3:
        raise refused("the suction does not fall as the flow rises: this is no fan curve")
    return tuple((q, p) for _, q, p in pools)
