"""A zip that holds a whole shop, read into a database of its own: whatever is wrong with it, no shop is touched."""

from __future__ import annotations

import json
import re
import sqlite3
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

from fenwick.data.database import Database, ShopDatabaseError
from fenwick.data.opening import empty_at, known_schemas, open_database
from fenwick.data.whole_shop import FORMAT, MANIFEST, VERSION, TellShare, photo_name

MOST_FILES = 200_000
MOST_JSON, MOST_PHOTO, MOST_WHOLE = 64_000_000, 30_000_000, 2_000_000_000  #: unpacked [bytes]
MOST_RATIO = 300.0  #: of a file unpacked to packed; text is seldom packed to a hundredth [-]
SMALL = 1_000_000  #: below that no ratio matters [bytes]
NAME = re.compile(r"shop\.json|tables/[a-z_]+-[0-9]{4,6}\.json|photos/[a-z_]+-[0-9]+\.jpg|(?:csv|lines)/[^/\\]{1,120}")
JPEG = b"\xff\xd8\xff"
#: what the library of zips raises over a damaged one
DAMAGED = (
    zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError, OSError, ValueError,
    KeyError, TypeError, AttributeError,
)  # fmt: skip


def read_whole_shop(packed: Path, folder: Path, progress: TellShare = lambda _share: None) -> Database:
    """The shop in a zip as a database in a folder, brought up to date; who asks closes it.

    Parameters
    ----------
    packed : the zip
    folder : an empty one
    progress : is told how far it is

    Raises
    ------
    ShopDatabaseError
        When it is none, is damaged, or was made by a newer Fenwick.
    """
    path = folder / "shop.db"
    try:
        with zipfile.ZipFile(packed) as file:
            _look_over(file)
            manifest = _manifest(file)
            empty_at(path, manifest["schema"])
            _fill(file, manifest, path, progress)
    except DAMAGED as error:
        raise ShopDatabaseError(f"{packed.name} is no whole shop, or is damaged: nothing was read in.") from error
    except sqlite3.Error as error:
        raise ShopDatabaseError(f"{packed.name} holds what no shop can hold ({error}): nothing was read in.") from error
    return open_database(path)


def _look_over(file: zipfile.ZipFile) -> None:
    """Refuse what is no such zip before anything of it is unpacked."""
    infos = file.infolist()
    if len(infos) > MOST_FILES:
        raise ShopDatabaseError(f"The zip holds {len(infos)} files, more than any shop: nothing was read in.")
    for info in infos:
        if not NAME.fullmatch(info.filename):
            shown = info.filename[:60]
            raise ShopDatabaseError(f"The zip holds “{shown}”, which is no part of a shop: nothing was read in.")
        most = MOST_PHOTO if info.filename.startswith("photos/") else MOST_JSON
        ratio = info.file_size / max(info.compress_size, 1)
        if info.file_size > most or (info.file_size > SMALL and ratio > MOST_RATIO):
            raise ShopDatabaseError(f"“{info.filename}” unpacks to more than any shop holds: nothing was read in.")
    if sum(info.file_size for info in infos) > MOST_WHOLE:
        raise ShopDatabaseError("The zip unpacks to more than any shop holds: nothing was read in.")
    if len({info.filename for info in infos}) < len(infos):
        raise ShopDatabaseError("The zip holds a file twice: nothing was read in.")


def _manifest(file: zipfile.ZipFile) -> dict[str, Any]:
    if MANIFEST not in file.namelist():
        raise ShopDatabaseError("The zip holds no shop.json: it is not a Fenwick shop.")
    found = _json(file, MANIFEST)
    if not isinstance(found, dict) or found.get("format") != FORMAT or not isinstance(found.get("tables"), dict):
        raise ShopDatabaseError("The zip is not a Fenwick shop.")
    newer = found.get("version") != VERSION or found.get("schema") not in known_schemas()
    if newer:
        raise ShopDatabaseError("The zip was made by a newer Fenwick. Update Fenwick to read it; nothing was read in.")
    return found


def _json(file: zipfile.ZipFile, name: str) -> Any:
    return json.loads(file.read(name))


def _fill(file: zipfile.ZipFile, manifest: dict[str, Any], path: Path, progress: TellShare) -> None:
    """Insert every row, a file at a time, in one transaction."""
    names = [name for listed in manifest["tables"].values() for name in listed["files"]]
    with closing(sqlite3.connect(path, isolation_level=None)) as connection:
        connection.execute("PRAGMA foreign_keys = OFF")
        connection.execute("BEGIN")
        there = _columns(connection)
        for count, name in enumerate(names, start=1):
            document = _json(file, name)
            _insert(connection, document, there, file)
            progress(count / len(names))
        connection.execute("COMMIT")
        if connection.execute("PRAGMA foreign_key_check").fetchone() is not None:
            raise ShopDatabaseError("Rows of the zip belong to others that it does not hold: nothing was read in.")
        _counted(connection, manifest)


def _columns(connection: sqlite3.Connection) -> dict[str, set[str]]:
    tables = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name != 'alembic_version'")
    return {
        name: {row[1] for row in connection.execute(f'PRAGMA table_info("{name}")')} for (name,) in tables.fetchall()
    }


def _insert(connection: sqlite3.Connection, document: Any, there: dict[str, set[str]], file: zipfile.ZipFile) -> None:
    table, columns, rows = document["table"], document["columns"], document["rows"]
    if table not in there or set(columns) != there[table] or len(set(columns)) != len(columns):
        raise ShopDatabaseError(f"The zip has a table “{str(table)[:40]}” that a shop has not: nothing was read in.")
    places = ", ".join("?" for _ in columns)
    names = ", ".join(f'"{name}"' for name in columns)
    statement = f'INSERT INTO "{table}" ({names}) VALUES ({places})'
    connection.executemany(statement, _with_pictures(table, columns, rows, file))


def _with_pictures(table: str, columns: list[str], rows: list[list[Any]], file: zipfile.ZipFile) -> Iterator[list[Any]]:
    at, packed = (columns.index("picture") if "picture" in columns else None), set(file.namelist())
    for row in rows:
        if not isinstance(row, list) or any(isinstance(value, list | dict) for value in row):
            raise ShopDatabaseError(f"A row of “{table}” in the zip is none: nothing was read in.")
        if at is not None:
            name = photo_name(table, row[columns.index("id")])
            picture = file.read(name) if name in packed else b""
            if not picture.startswith(JPEG):
                raise ShopDatabaseError(f"“{name}” is missing in the zip, or is no photo: nothing was read in.")
            row[at] = picture
        yield row


def _counted(connection: sqlite3.Connection, manifest: dict[str, Any]) -> None:
    for table, listed in manifest["tables"].items():
        (count,) = connection.execute(f'SELECT count(*) FROM "{table}"').fetchone()
        if count != listed["rows"]:
            raise ShopDatabaseError(f"The zip is not whole: {count} of {listed['rows']} rows of “{table}” are there.")
