"""A particle monitor's log out of a table of text: two columns, time and dust, however a monitor wrote them.

Rows that cannot be read are counted and kept apart; a table that cannot be a log at all is refused with the reason.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from fenwick.core.bench.trials.monitor import Log
from fenwick.rig.format.table import cells_of, refused, separator_of, text_of
from fenwick.units import METRIC, BadNumberError, parse_plain
from fenwick.units.convert import to_display
from fenwick.units.read import in_stored_units

MOST_ROWS = 200_000
PIECE = 5_000  #: rows that are written at once
TIME_WORDS = ("time", "date", "datetime", "timestamp", "seconds", "s", "t", "elapsed")
DUST_WORDS = ("pm2.5", "pm25", "pm10", "pm4", "pm1", "dust", "particles", "concentration", "mass", "value", "fog")
UNITS = {
    "ug/m3": "ug/m^3", "µg/m³": "ug/m^3", "μg/m³": "ug/m^3", "ug/m³": "ug/m^3", "mg/m3": "mg/m^3", "mg/m³": "mg/m^3",
}  # fmt: skip
_CLOCK = re.compile(r"(?:([0-9]{1,9})\.)?([0-9]{1,2}):([0-9]{2})(?::([0-9]{2}(?:[.,][0-9]+)?))?")
LATEST = 1e11  #: the year 5138, as a computer counts [s]
HALF_READ = 0.5  #: of the rows, that must be readable for a table to be a log [-]


@dataclass(frozen=True)
class LogTable:
    """What a table holds; times since its first row [s], dust [kg/m^3]."""

    rows: tuple[tuple[float, float], ...]
    unreadable: int
    notes: tuple[str, ...]  #: what was assumed, and what was kept apart


def read_log(raw: bytes) -> LogTable:
    """The log in a table.

    Raises
    ------
    RigError
        When it is no log.
    """
    lines = [line for line in text_of(raw).splitlines() if line.strip()]
    if len(lines) < 2:
        raise refused("a log takes two rows or more")
    if len(lines) > MOST_ROWS:
        raise refused(f"the log has {len(lines)} rows; at most {MOST_ROWS} are read")
    separator = separator_of(lines[:20])
    rows = [cells_of(line, separator) for line in lines]
    _not_one_column(rows, separator)
    layout = _layout(rows)
    body = layout.body
    found: list[tuple[float, float]] = []
    for cells in body:
        try:
            time = _time(cells[layout.time])
            dust = _dust(cells[layout.dust], layout.unit)
        except (BadNumberError, IndexError, OverflowError, ValueError):
            continue
        if abs(time) < LATEST:
            found.append((time, dust))
    if len(found) < HALF_READ * len(body) or not found:
        example = separator.join(body[0])[:60] if body else ""
        raise refused(f"hardly a row can be read as time and dust, such as “{example}”: is the right column first?")
    begun = found[0][0]
    bad = len(body) - len(found)
    return LogTable(tuple((t - begun, v) for t, v in found), bad, tuple(layout.notes))


def write_log(log: Log) -> Iterator[str]:
    """The log as a table, in order, a piece after the other."""
    yield "time (s),dust (ug/m3)\r\n"
    for start in range(0, len(log.time), PIECE):
        part = slice(start, start + PIECE)
        rows = zip(log.time[part].tolist(), log.value[part].tolist(), strict=True)
        yield "".join(f"{time:.2f},{to_display(value, 'particles', METRIC):.3f}\r\n" for time, value in rows)


def _not_one_column(rows: list[list[str]], separator: str) -> None:
    widths = [len(cells) for cells in rows]
    if max(widths) < 2:
        raise refused("only one column was found: put a comma, a semicolon or a tab between time and dust")
    head, usual = widths[0], sorted(widths)[len(widths) // 2]
    if separator == "," and head == 2 and usual in (3, 4):
        raise refused(
            "the comma stands between the columns and inside the figures: save it with semicolons between the columns"
        )


@dataclass(frozen=True)
class _Columns:
    """What stands where."""

    time: int  #: its column
    dust: int  #: its column
    unit: str
    body: list[list[str]]  #: the rows below the heading
    notes: list[str]


def _layout(rows: list[list[str]]) -> _Columns:
    head = [cell.lower() for cell in rows[0]]
    if any(cell[:1].isdigit() for cell in head):
        return _Columns(0, 1, "ug/m^3", rows, ["no heading: time first, then dust in µg/m³"])
    time_at = _column(head, TIME_WORDS, None)
    dust_at = _column(head, DUST_WORDS, time_at)
    notes = []
    if time_at is None or dust_at is None:
        missing = "time" if time_at is None else "dust"
        raise refused(f"no column is headed {missing}; head the columns time and dust")
    unit = next((known for spelled, known in UNITS.items() if spelled in head[dust_at].replace("^", "")), "")
    if not unit:
        unit = "ug/m^3"
        notes.append(f"“{rows[0][dust_at][:30]}” names no unit: taken as µg/m³")
    return _Columns(time_at, dust_at, unit, rows[1:], notes)


def _column(head: list[str], words: tuple[str, ...], but: int | None) -> int | None:
    for word in words:
        for i, cell in enumerate(head):
            names = re.split(r"[\s(\[_,/]+", cell)
            if i != but and (word in names or (len(word) > 3 and cell.startswith(word))):
                return i
    return None


def _time(text: str) -> float:
    """A time [s]: seconds, hours:minutes[:seconds], or a date with a time."""
    clock = _CLOCK.fullmatch(text)
    if clock:
        days, hours, minutes, seconds = clock.groups()
        return int(days or 0) * 86400.0 + int(hours) * 3600.0 + int(minutes) * 60.0 + parse_plain(seconds or "0")
    if len(text) >= 10 and text[4:5] in "-/" and text[:4].isdigit():
        return datetime.fromisoformat(text.replace("/", "-")).timestamp()
    return parse_plain(text)


def _dust(text: str, unit: str) -> float:
    return in_stored_units(parse_plain(text), unit, "particles")
