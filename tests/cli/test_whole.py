"""`fenwick export`, `fenwick import`, `fenwick log`."""

import json
import zipfile
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.data import Database


def run(*arguments: object) -> Result:
    """The command with some arguments."""
    return CliRunner().invoke(main, [str(one) for one in arguments])


def documents(path: Path) -> dict[str, object]:
    """Every JSON in a zip."""
    with zipfile.ZipFile(path) as file:
        return {name: json.loads(file.read(name)) for name in file.namelist() if name.endswith(".json")}


@pytest.fixture
def home(shop: Database) -> Path:
    """Folder of the demo shop, which nobody has open."""
    shop.close()
    return shop.path.parent


def test_exported_imported_and_exported_again_it_is_the_same(home: Path, tmp_path: Path) -> None:
    first, second, other = tmp_path / "a.zip", tmp_path / "b.zip", tmp_path / "other"
    out = run("export", "--home", home, "--out", first)
    assert out.exit_code == 0, out.stderr
    assert json.loads(out.stdout)["bytes"] == first.stat().st_size
    told = json.loads(run("import", "--home", other, first, "--show").stdout)
    assert told["changed"] is False
    assert told["here_was_empty"] is True
    assert not other.exists()  # to look makes no shop
    assert told["adds"]["lines"] == ["Drum sander line", "Bench line", "Drum sander, cyclone"]
    assert json.loads(run("import", "--home", other, first).stdout)["changed"] is True
    run("export", "--home", other, "--out", second)
    assert documents(first) == documents(second)
    replaced = json.loads(run("import", "--home", home, second, "--replace").stdout)
    assert {line["way"] for line in replaced["replace"]["lines"]} == {"stays"}
    assert Path(replaced["before"]).is_file()


@pytest.mark.parametrize(
    ("content", "said"),
    [(b"", "is no whole shop"), (b"PK\x05\x06" + bytes(18), "holds no shop.json"), (None, "no file")],
)
def test_what_is_no_shop_is_said_in_one_line(home: Path, tmp_path: Path, content: bytes | None, said: str) -> None:
    path = tmp_path / "bad.zip"
    if content is not None:
        path.write_bytes(content)
    out = run("import", "--home", home, path)
    assert out.exit_code == 2
    assert said in out.stderr
    assert len([line for line in out.stderr.splitlines() if line.startswith("fenwick:")]) == 1


def test_without_a_shop_there_is_nothing_to_export(tmp_path: Path) -> None:
    for command in (("export", "--out", tmp_path / "x.zip"), ("log",)):
        out = run(command[0], "--home", tmp_path / "nowhere", *command[1:])
        assert out.exit_code == 2
        assert "there is no shop" in out.stderr


def test_the_log_says_what_is_due_and_how_full_the_bin_is(home: Path) -> None:
    told = json.loads(run("log", "--home", home, "--most", 3).stdout)
    assert (told["format"], told["version"], len(told["entries"])) == ("fenwick-log", 1, 3)
    bench = next(one for one in told["today"] if one["kind"] == "bin" and one["name"] == "Bench line")
    assert bench["known"]
    assert bench["used"]["low"] < bench["used"]["likely"] < bench["used"]["high"]
    days = [one["days"]["likely"] for one in told["due"] if one["days"]["likely"] is not None]
    assert days == sorted(days)
