"""A measured fan curve as a table of text: points typed in, or the rows of a hole-plate test."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.format.curve import HolesPart, PointsPart
from fenwick.rig.format.problems import split_path
from fenwick.units import BadNumberError, format_value, parse_value, unit_label

POINTS, HOLES = "points", "holes"


@dataclass(frozen=True)
class Column:
    """A column of a table."""

    key: str  #: in the rig file
    heading: str
    quantity: str


#: of each table
COLUMNS = {
    POINTS: (Column("flow_m3_s", "Air flow", "flow"), Column("suction_pa", "Suction", "suction")),
    HOLES: (
        Column("hole_diameter_m", "Hole", "bore"),
        Column("holes", "How many", "number"),
        Column("suction_pa", "Suction read", "suction"),
    ),
}
LISTS = {POINTS: "points", HOLES: "rows"}
SPARE_ROWS = 2
LEAST_ROWS = 4  #: shown even when nothing is known yet


@dataclass(frozen=True)
class Cell:
    """One cell."""

    name: str
    label: str
    text: str
    error: str = ""


@dataclass(frozen=True)
class CurveTable:
    """The table as typed; `rig` has its curve once there is one."""

    kind: str
    headings: tuple[tuple[str, str], ...]  #: (heading, unit)
    rows: tuple[tuple[Cell, ...], ...]
    rig: Rig | None = None
    problem: str = ""  #: about no single cell
    values: tuple[dict[str, Any], ...] = ()  #: the complete rows, SI

    @property
    def filled(self) -> int:
        """How many rows hold anything."""
        return sum(any(cell.text for cell in row) for row in self.rows)


def open_table(rig: Rig, kind: str, system: str) -> CurveTable:
    """The table of a rig's measured curve, or an empty one where its curve is known another way."""
    curve = rig.vacuum.curve
    stored: list[dict[str, Any]] = []
    if isinstance(curve, PointsPart if kind == POINTS else HolesPart):
        stored = curve.model_dump()[LISTS[kind]]
    texts = [[format_value(row[one.key], one.quantity, system, field=True) for one in COLUMNS[kind]] for row in stored]
    return _table(kind, texts, {}, system=system, rig=rig if stored else None)


def read_table(rig: Rig, kind: str, form: Mapping[str, str], system: str) -> CurveTable:
    """The table as typed, with the rig it makes, or with what is wrong beside the cells."""
    count = 1 + max((int(name.split("-")[1]) for name in form if name.count("-") == 1 and _is_cell(name)), default=-1)
    texts = [[form.get(f"{one.key}-{i}", "").strip() for one in COLUMNS[kind]] for i in range(min(count, 500))]
    texts = [row for row in texts if any(row)]
    stored = open_table(rig, kind, system)
    errors: dict[str, str] = {}
    rows = []
    for i, row in enumerate(texts):
        values: dict[str, Any] = {}
        for column, text in zip(COLUMNS[kind], row, strict=True):
            try:
                values[column.key] = _read(text, column, system)
            except BadNumberError as error:
                errors[f"{column.key}-{i}"] = str(error)
        rows.append(values)
    whole = tuple(row for row in rows if len(row) == len(COLUMNS[kind]) and min(row.values()) >= 0)
    if errors or len(rows) < 3:
        return replace(_table(kind, texts, errors, system=system), values=whole)
    if [[cell.text for cell in row] for row in stored.rows if any(cell.text for cell in row)] == texts:
        return CurveTable(kind, stored.headings, stored.rows, rig)  # untouched: what is stored stays to the last bit
    try:
        changed = edit_rig(rig, {"vacuum.curve": {"kind": kind, LISTS[kind]: rows}})
    except RigError as error:
        return replace(_table(kind, texts, *_beside_cells(error, system), system=system), values=whole)
    return _table(kind, texts, {}, system=system, rig=changed)


def _is_cell(name: str) -> bool:
    key, _, number = name.partition("-")
    return number.isdecimal() and len(number) < 4 and any(key == one.key for row in COLUMNS.values() for one in row)


def _read(text: str, column: Column, system: str) -> float | int:
    if not text:
        raise BadNumberError(text, f"Enter the {column.heading.lower()}.")
    number = parse_value(text, column.quantity, system)
    return int(number) if column.quantity == "number" and number == int(number) else number


def _beside_cells(error: RigError, system: str) -> tuple[dict[str, str], str]:
    said: dict[str, str] = {}
    rest = ""
    for problem in error.problems:
        sentence = problem.sentence(system)
        sentence = f"{sentence[:1].upper()}{sentence[1:]}."
        items = split_path(problem.path)
        if len(items) == 5 and isinstance(items[3], int):
            said[f"{items[4]}-{items[3]}"] = sentence
        else:
            rest = sentence
    return said, rest


def _table(
    kind: str,
    texts: list[list[str]],
    errors: Mapping[str, str],
    problem: str = "",
    *,
    system: str = "",
    rig: Rig | None = None,
) -> CurveTable:
    columns = COLUMNS[kind]
    blank = [""] * len(columns)
    filled = [*texts, *([blank] * max(SPARE_ROWS, LEAST_ROWS - len(texts)))]
    rows = tuple(
        tuple(
            Cell(f"{one.key}-{i}", f"{one.heading}, row {i + 1}", text, errors.get(f"{one.key}-{i}", ""))
            for one, text in zip(columns, row, strict=True)
        )
        for i, row in enumerate(filled)
    )
    headings = tuple((one.heading, unit_label(one.quantity, system)) for one in columns)
    return CurveTable(kind, headings, rows, rig, problem)
