"""A whole shop in one zip: it comes out as it went in, and no zip that is none touches anything."""

import io
import json
import zipfile
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Any

import pytest

from fenwick.data import Database, ShopDatabaseError
from fenwick.data.whole_read import MOST_JSON, read_whole_shop
from fenwick.data.whole_shop import MANIFEST, write_whole_shop


@pytest.fixture
def packed(shop: Database, tmp_path: Path) -> Path:
    """The demo shop in a zip."""
    path = tmp_path / "shop.zip"
    write_whole_shop(shop, path)
    return path


def read(packed: Path, tmp_path: Path) -> Database:
    """What is in a zip, in a folder of its own."""
    folder = tmp_path / "unpacked"
    folder.mkdir(exist_ok=True)
    return read_whole_shop(packed, folder)


def changed(packed: Path, how: Callable[[dict[str, bytes]], None]) -> Path:
    """A zip with other files."""
    with zipfile.ZipFile(packed) as file:
        files = {name: file.read(name) for name in file.namelist()}
    how(files)
    out = packed.with_name("changed.zip")
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as file:
        for name, content in files.items():
            file.writestr(name, content)
    return out


def edited(name: str, how: Callable[[Any], None]) -> Callable[[dict[str, bytes]], None]:
    """A change of one document."""

    def change(files: dict[str, bytes]) -> None:
        document = json.loads(files[name])
        how(document)
        files[name] = json.dumps(document).encode()

    return change


def test_what_is_read_is_written_again_to_the_last_bit(packed: Path, tmp_path: Path) -> None:
    again = tmp_path / "again.zip"
    found = read(packed, tmp_path)
    write_whole_shop(found, again)
    found.close()
    assert again.read_bytes() == packed.read_bytes()


def test_progress_goes_from_nothing_to_all(shop: Database, tmp_path: Path) -> None:
    told: list[float] = []
    write_whole_shop(shop, tmp_path / "shop.zip", progress=told.append)
    assert told == sorted(told)
    assert told[-1] == pytest.approx(1.0)


ENTRY = "tables/log_entry-0001.json"


@pytest.mark.parametrize(
    ("how", "said"),
    [
        (lambda files: files.update({"../evil.json": b"{}"}), "no part of a shop"),
        (lambda files: files.update({"/etc/passwd": b"x"}), "no part of a shop"),
        (lambda files: files.update({"csv/../../x.csv": b"x"}), "no part of a shop"),
        (lambda files: files.update({"tables\\shop-0001.json": b"{}"}), "no part of a shop|damaged"),
        (lambda files: files.pop(MANIFEST), "holds no shop.json"),
        (lambda files: files.update({MANIFEST: b"{}"}), "not a Fenwick shop"),
        (lambda files: files.update({MANIFEST: b"[1, 2"}), "damaged"),
        (edited(MANIFEST, lambda one: one.update(version=2)), "newer Fenwick"),
        (edited(MANIFEST, lambda one: one.update(schema="9999")), "newer Fenwick"),
        (edited(MANIFEST, lambda one: one["tables"]["shop"].update(files=["tables/none-0001.json"])), "damaged"),
        (lambda files: files.pop(ENTRY), "damaged"),
        (edited(ENTRY, lambda one: one["rows"].pop()), "is not whole"),
        (edited(ENTRY, lambda one: one["columns"].append("colour")), "that a shop has not"),
        (edited(ENTRY, lambda one: one.update(table="sqlite_master")), "that a shop has not"),
        (edited(ENTRY, lambda one: one.update(table=["log_entry"])), "damaged"),
        (edited(ENTRY, lambda one: one["rows"][0].__setitem__(2, 4711)), "belong to others"),
        (edited(ENTRY, lambda one: one["rows"].append(one["rows"][0])), "what no shop can hold"),
        (edited(ENTRY, lambda one: one["rows"][0].__setitem__(3, {"a": 1})), "is none"),
        (edited(ENTRY, lambda one: one.update(rows="none")), "is none|damaged"),
        (lambda files: files.update({"csv/bomb.csv": b"0" * (MOST_JSON + 1)}), "unpacks to more"),
        (lambda files: files.update({"csv/small-bomb.csv": b"0" * 5_000_000}), "unpacks to more"),
    ],
)
def test_what_is_wrong_is_said_and_nothing_is_read(
    packed: Path, tmp_path: Path, how: Callable[[dict[str, bytes]], None], said: str
) -> None:
    with pytest.raises(ShopDatabaseError, match=said):
        read(changed(packed, how), tmp_path)
    assert not (tmp_path / "evil.json").exists()


@pytest.mark.parametrize("share", [0.0, 0.01, 0.3, 0.7, 0.999])
def test_one_that_was_cut_off_is_refused(packed: Path, tmp_path: Path, share: float) -> None:
    content = packed.read_bytes()
    short = tmp_path / "short.zip"
    short.write_bytes(content[: int(share * len(content))])
    with pytest.raises(ShopDatabaseError, match="damaged"):
        read(short, tmp_path)


def test_one_whose_bits_were_turned_is_refused_or_the_same(packed: Path, tmp_path: Path) -> None:
    content = packed.read_bytes()
    for at in range(0, len(content), len(content) // 12):
        bad = bytearray(content)
        bad[at] ^= 0x55
        path = tmp_path / "turned.zip"
        path.write_bytes(bytes(bad))
        folder = tmp_path / f"turned-{at}"
        folder.mkdir()
        with suppress(ShopDatabaseError):  # nothing else comes of it
            read_whole_shop(path, folder).close()


def test_a_photo_that_is_none_is_refused(shop: Database, tmp_path: Path) -> None:
    from fenwick.data.logbook import LogWanted, add_log_photo, entries_of

    with shop.session(to_write=True) as session:
        entry = entries_of(session, LogWanted())[0].id
        assert entry is not None
        photo = add_log_photo(session, entry, b"\xff\xd8\xff\xe0 a photo")
    path = tmp_path / "shop.zip"
    write_whole_shop(shop, path)
    read(path, tmp_path).close()
    bad = changed(path, lambda files: files.update({f"photos/log_photo-{photo}.jpg": b"<script>"}))
    (tmp_path / "unpacked" / "shop.db").unlink()
    with pytest.raises(ShopDatabaseError, match="is no photo"):
        read(bad, tmp_path)


def test_where_it_cannot_be_written_nothing_is_left(shop: Database, tmp_path: Path) -> None:
    with pytest.raises(ShopDatabaseError, match="could not be written"):
        write_whole_shop(shop, tmp_path / "no-such-folder" / "shop.zip")
    assert not list(tmp_path.glob("**/*.part"))


def test_a_file_twice_is_refused(packed: Path, tmp_path: Path) -> None:
    raw = io.BytesIO(packed.read_bytes())
    with pytest.warns(UserWarning, match="Duplicate"), zipfile.ZipFile(raw, "a") as file:
        file.writestr(MANIFEST, b"{}")
    path = tmp_path / "twice.zip"
    path.write_bytes(raw.getvalue())
    with pytest.raises(ShopDatabaseError, match="twice"):
        read(path, tmp_path)
