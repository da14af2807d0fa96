"""Readings of a line as a table of text: one row each, in SI."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from fenwick.core.components.dust import DUSTS
from fenwick.core.tuning.readings import KINDS, Reading, can_be, usual_sd
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.table import cells_of, refused, separator_of, text_of
from fenwick.units import METRIC, QUANTITIES, BadNumberError, parse_plain, parse_value

COLUMNS = ("kind", "value", "sd", "unit", "port", "station", "dust", "fed", "level")
MOST_FED = 500.0  #: in one run [kg]
MOST_ROWS = 2000


def read_readings(raw: bytes) -> list[Reading]:
    """The readings in a table: the first row names the columns; only `kind` and `value` are needed.

    Parameters
    ----------
    raw : as a spreadsheet wrote it; values in the unit of their row, or with one, else in SI (Pa, m³/s, a share)

    Raises
    ------
    RigError
        With the row and column of everything that cannot be read.
    """
    lines = [line for line in text_of(raw).splitlines() if line.strip()]
    if len(lines) < 2:
        raise refused("the file holds no readings: a row of headings, then one row for each")
    if len(lines) > MOST_ROWS:
        raise refused(f"the file has {len(lines)} rows; at most {MOST_ROWS} are read")
    separator = separator_of(lines[:20])
    head = [cell.lower() for cell in cells_of(lines[0], separator)]
    missing = [name for name in COLUMNS[:2] if name not in head]
    if missing:
        raise refused(f"there is no column “{missing[0]}”; the columns are {', '.join(COLUMNS)}")
    found: list[Reading] = []
    problems: list[Problem] = []
    for number, line in enumerate(lines[1:], start=2):
        row = dict(zip(head, cells_of(line, separator), strict=False))
        try:
            found.append(_reading(row))
        except ValueError as error:
            problems.append(Problem(f"row {number}", str(error)))
    if problems:
        raise RigError(tuple(problems))
    return found


def _reading(row: dict[str, str]) -> Reading:
    kind = row.get("kind", "").lower()
    if kind not in KINDS:
        raise ValueError(f"kind “{kind}” is none of {', '.join(KINDS)}")
    unit = row.get("unit", "")
    value = _figure(row.get("value", ""), unit, KINDS[kind])
    if not can_be(kind, value):
        raise ValueError(f"value {row['value']} cannot be a {KINDS[kind]}")
    told = row.get("sd", "")
    sd = _figure(told, unit, KINDS[kind]) if told else usual_sd(kind, value)
    if sd <= 0.0:
        raise ValueError("sd must be above 0")
    dust = row.get("dust", "")
    if dust and dust not in DUSTS:
        raise ValueError(f"dust “{dust}” is not a kind that is known")
    fed = _bare(row, "fed", MOST_FED) or 0.0
    return Reading(kind, value, sd, row.get("port", ""), row.get("station", ""), dust, fed, _bare(row, "level", 1.0))


def _bare(row: dict[str, str], key: str, most: float) -> float | None:
    """A figure in SI; None where there is none."""
    text = row.get(key, "")
    if not text:
        return None
    try:
        value = parse_plain(text)
    except BadNumberError as error:
        raise ValueError(f"{key} “{text}” cannot be read") from error
    if not 0.0 <= value <= most:
        raise ValueError(f"{key} {text} must be from 0 to {most:g}")
    return value


def _figure(text: str, unit: str, quantity: str) -> float:
    """A bare figure is in the unit of its row, or in SI; one with a unit of its own is read as a person's."""
    try:
        bare = parse_plain(text)
    except BadNumberError:
        unit = ""
    else:
        if not unit:
            return bare
    try:
        return parse_value(f"{text} {unit}".strip(), quantity, METRIC)
    except BadNumberError as error:
        raise ValueError(f"value “{text}” cannot be read") from error


def readings_table(readings: Sequence[Reading]) -> list[dict[str, str | float]]:
    """A row for each: bare figures in SI, their unit and words in columns of their own."""
    return [
        {
            "kind": one.kind,
            "value": one.value,
            "sd": one.sd,
            "unit": QUANTITIES[KINDS[one.kind]].stored_label,
            "port": one.port,
            "station": one.station,
            "dust": one.dust,
            "fed": one.fed or "",
            "level": "" if one.level is None else one.level,
        }
        for one in readings
    ]


def write_readings(readings: Sequence[Reading]) -> str:
    """Readings as such a table."""
    out = io.StringIO()
    table = csv.DictWriter(out, COLUMNS)
    table.writeheader()
    for row in readings_table(readings):
        table.writerow({key: repr(value) if isinstance(value, float) else value for key, value in row.items()})
    return out.getvalue()
