"""Serving and keeping a shop from the command line: one server for each, a passphrase for a network, copies."""

import json
import subprocess
import sys
import time
from pathlib import Path
from urllib.error import HTTPError
from urllib.request import Request, urlopen

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.cli.server import _secret_key
from fenwick.data.home import Home
from fenwick.data.lock import ServedError, alone, say_who
from tests.cli.test_serving import start, stop

WORDS = "maple under the north light"


def run(*args: str, stdin: str | None = None) -> Result:
    """A command in this process."""
    return CliRunner().invoke(main, list(args), input=stdin, catch_exceptions=False)


@pytest.fixture
def home(tmp_path: Path, seeded: Path) -> Home:
    """The demo shop in a folder of its own."""
    folder = tmp_path / "home"
    folder.mkdir()
    (folder / "shop.db").write_bytes(seeded.read_bytes())
    return Home(folder)


def test_a_copy_is_made_listed_looked_at_and_put_back(home: Home) -> None:
    made = json.loads(run("backup", "--home", str(home.folder)).stdout)["copy"]
    assert Path(made["path"]).is_file()
    listed = json.loads(run("backup", "--list", "--home", str(home.folder)).stdout)
    assert [one["name"] for one in listed["copies"]] == [made["name"]]
    looked = json.loads(run("restore", made["name"], "--home", str(home.folder)).stdout)
    assert looked["changes"]["nothing"]
    assert (looked["restored"], looked["before"]) == (False, None)
    done = json.loads(run("restore", made["path"], "--yes", "--home", str(home.folder)).stdout)
    assert done["restored"]
    assert done["before"]["why"] == "restore"


@pytest.mark.parametrize("command", [("backup",), ("restore", "20260101-000000-daily.db")])
def test_without_a_shop_or_a_copy_it_says_so(tmp_path: Path, command: tuple[str, ...]) -> None:
    result = run(*command, "--home", str(tmp_path))
    assert result.exit_code == 2
    assert result.stderr.startswith("fenwick: there is no ")


def test_what_is_no_shop_is_not_copied(tmp_path: Path) -> None:
    (tmp_path / "shop.db").write_text("holiday" * 200)
    result = run("backup", "--home", str(tmp_path))
    assert result.exit_code == 2
    assert "Traceback" not in result.stderr


def test_one_server_for_each_shop_and_it_says_which(home: Home) -> None:
    process, address = start("serve", "--home", str(home.folder), "--port", "0")
    try:
        second = subprocess.run(
            [sys.executable, "-m", "fenwick", "serve", "--home", str(home.folder), "--port", "0"],
            capture_output=True, text=True, check=False, timeout=60,
        )  # fmt: skip
        assert second.returncode == 2
        assert f"Fenwick serves this shop already at {address} (process {process.pid})" in second.stderr
        assert run("restore", str(home.shop), "--home", str(home.folder)).exit_code == 2
        assert run("backup", "--home", str(home.folder)).exit_code == 0
    finally:
        stop(process)
    assert not home.card.exists()
    with alone(home):
        pass


def test_the_lock_of_a_server_that_was_killed_holds_nobody_up(home: Home) -> None:
    process, _ = start("serve", "--home", str(home.folder), "--port", "0")
    process.kill()
    process.communicate()
    with alone(home):
        say_who(home, "http://127.0.0.1:1/")
        with pytest.raises(ServedError, match=r"at http://127\.0\.0\.1:1/"), alone(home):
            pass


@pytest.mark.parametrize("host", ["0.0.0.0", "192.168.1.7", "::"])
def test_the_network_is_served_only_where_it_was_asked_for(tmp_path: Path, host: str) -> None:
    result = run("serve", "--home", str(tmp_path / "new"), "--host", host)
    assert result.exit_code == 2
    assert "add --lan, and whoever comes has to sign in" in result.stderr
    assert not (tmp_path / "new").exists()


def test_the_network_is_not_served_without_a_passphrase(home: Home) -> None:
    result = run("serve", "--home", str(home.folder), "--lan", "--port", "0")
    assert result.exit_code == 2
    assert "set a passphrase first, with “fenwick passphrase --home" in result.stderr


def test_a_passphrase_from_a_pipe(home: Home) -> None:
    assert run("passphrase", "--home", str(home.folder), stdin=f"{WORDS}\n").stdout == "The passphrase is set.\n"
    refused = run("passphrase", "--home", str(home.folder), stdin="short\n")
    assert refused.exit_code == 2
    assert "8 to 200 characters" in refused.stderr
    assert home.door.stat().st_mode & 0o077 == 0


def test_served_to_the_network_it_asks_to_sign_in_here_too(home: Home) -> None:
    run("passphrase", "--home", str(home.folder), stdin=f"{WORDS}\n")
    process, address = start("serve", "--home", str(home.folder), "--lan", "--port", "0")
    assert process.stdout is not None
    try:
        with urlopen(address) as page:
            assert page.url.startswith(f"{address}sign-in")
            assert "Willow Yard" not in page.read().decode()
        told = process.stdout.readline() + process.stdout.readline()
        assert "Pairing code, once, within ten minutes: " in told
        assert "docs/safety.md" in told
        with pytest.raises(HTTPError) as refused:
            urlopen(Request(address, headers={"Host": "evil.example"}))
        assert refused.value.code == 403
        refused.value.close()
    finally:
        stop(process)


def test_hosts_of_devices_are_named_on_this_machine(home: Home) -> None:
    assert json.loads(run("allow", "Scale.example", "--home", str(home.folder)).stdout) == {"hosts": ["scale.example"]}
    run("allow", "192.168.1.40", "--home", str(home.folder))
    left = json.loads(run("forbid", "scale.example", "--home", str(home.folder)).stdout)
    assert left == {"hosts": ["192.168.1.40"]}
    assert run("allow", "a b\n", "--home", str(home.folder)).exit_code == 2


def test_a_key_that_was_half_written_is_made_anew(tmp_path: Path) -> None:
    path = tmp_path / "secret.key"
    path.write_text("abc")
    key = _secret_key(path)
    assert len(key) == 64
    assert _secret_key(path) == key
    assert [file.name for file in tmp_path.iterdir()] == ["secret.key"]


def test_the_day_has_its_copy_once_it_is_served(home: Home) -> None:
    process, _ = start("serve", "--home", str(home.folder), "--port", "0")
    until = time.monotonic() + 10.0
    while not (home.backups.is_dir() and list(home.backups.glob("*-daily.db"))) and time.monotonic() < until:
        time.sleep(0.1)
    stop(process)
    assert len(list(home.backups.glob("*-daily.db"))) == 1
