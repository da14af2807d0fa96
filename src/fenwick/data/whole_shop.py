"""The whole shop as one zip: every table as JSON, photos as files, tables to read beside them.

Two exports of one shop are the same to the last bit: nothing in them says when they were made.
"""

from __future__ import annotations

import json
import zipfile
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, LargeBinary, Table, func, select
from sqlmodel import SQLModel

from fenwick.data import log_tables, tables, trial_tables  # noqa: F401 register their tables
from fenwick.data.database import Database, ShopDatabaseError
from fenwick.data.opening import revision_of

FORMAT, VERSION = "fenwick-whole-shop", 1
MANIFEST = "shop.json"
LEFT_OUT = ("done_once",)  #: what only the browsers of this shop need
ROWS = 5000  #: in one file, so that neither side ever holds a whole table
EPOCH = (1980, 1, 1, 0, 0, 0)  #: the date of every file in it
TellShare = Callable[[float], None]  #: is told the share that is done [-]


@dataclass(frozen=True)
class Beside:
    """A file that people read: Fenwick itself takes nothing from it."""

    name: str
    text: str


def whole_tables() -> list[Table]:
    """Tables that go along, those that others hang on first."""
    return [table for table in SQLModel.metadata.sorted_tables if table.name not in LEFT_OUT]


def write_whole_shop(
    shop: Database, out: Path, beside: Sequence[Beside] = (), progress: TellShare = lambda _share: None
) -> None:
    """Write a shop into one file; it is there whole, or not at all.

    Parameters
    ----------
    shop : an open database, of this Fenwick's own schema
    out : where the file goes
    beside : tables and documents for people
    progress : is told how far it is

    Raises
    ------
    ShopDatabaseError
        When it cannot be written.
    """
    part = out.with_name(out.name + ".part")
    try:
        with (
            shop.engine.connect() as connection,
            zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as file,
        ):
            _write(file, connection, revision_of(shop) or "", progress)
            for one in beside:
                _add(file, one.name, one.text.encode())
        part.replace(out)
    except OSError as error:
        raise ShopDatabaseError(f"{out} could not be written ({error.strerror}); nothing is left of it.") from error
    finally:
        part.unlink(missing_ok=True)


def _write(file: zipfile.ZipFile, connection: Connection, schema: str, progress: TellShare) -> None:
    counts = {
        table.name: connection.execute(select(func.count()).select_from(table)).scalar_one() for table in whole_tables()
    }
    whole, done, listed = max(sum(counts.values()), 1), 0, {}
    for table in whole_tables():
        names = []
        for number, rows in enumerate(_pieces(connection, table), start=1):
            names.append(f"tables/{table.name}-{number:04d}.json")
            _add(file, names[-1], _encoded(_document(file, table, rows)))
            done += len(rows)
            progress(done / whole)
        listed[table.name] = {"rows": counts[table.name], "files": names}
    manifest = {"format": FORMAT, "version": VERSION, "schema": schema, "tables": listed}
    _add(file, MANIFEST, json.dumps(manifest, indent=1).encode())


def _pieces(connection: Connection, table: Table) -> Iterator[list[list[Any]]]:
    """Rows of a table in the order of its key, some thousands at a time, as SQLite has them."""
    names = ", ".join(f'"{column.name}"' for column in table.columns)
    keys = ", ".join(f'"{column.name}"' for column in table.primary_key.columns)
    cursor = connection.exec_driver_sql(f'SELECT {names} FROM "{table.name}" ORDER BY {keys}').cursor
    assert cursor is not None
    while rows := cursor.fetchmany(ROWS):
        yield [list(row) for row in rows]


def _document(file: zipfile.ZipFile, table: Table, rows: list[list[Any]]) -> dict[str, Any]:
    """Some rows as a document; what is no text in them goes into files of its own."""
    columns = [column.name for column in table.columns]
    for at in pictures_of(table):
        for row in rows:
            name = photo_name(table.name, row[columns.index("id")])
            _add(file, name, row[at], stored=True)
            row[at] = name
    return {"table": table.name, "columns": columns, "rows": rows}


def pictures_of(table: Table) -> list[int]:
    """Places of the columns that hold pictures."""
    return [at for at, column in enumerate(table.columns) if isinstance(column.type, LargeBinary)]


def photo_name(table: str, row: int) -> str:
    """Of the file that holds a picture."""
    return f"photos/{table}-{row}.jpg"


def _encoded(document: dict[str, Any]) -> bytes:
    """Compact, a row a line, so that two of them can be compared by eye."""
    head = json.dumps({key: document[key] for key in ("table", "columns")}, ensure_ascii=False)
    rows = ",\n".join(json.dumps(row, ensure_ascii=False, separators=(",", ":")) for row in document["rows"])
    return f'{head[:-1]}, "rows": [\n{rows}\n]}}\n'.encode()


def _add(file: zipfile.ZipFile, name: str, content: bytes, *, stored: bool = False) -> None:
    info = zipfile.ZipInfo(name, EPOCH)
    info.compress_type = zipfile.ZIP_STORED if stored else zipfile.ZIP_DEFLATED
    info.external_attr = 0o600 << 16
    file.writestr(info, content)
