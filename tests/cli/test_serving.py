"""Serving as a user does it: an address that answers, a port that is taken, a shop that stays."""

import re
import signal
import socket
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path
from urllib.request import urlopen

import pytest

from fenwick.cli.server import _listen, _secret_key

Running = tuple[subprocess.Popen[str], str]  # and the address it said


def start(*args: str) -> Running:
    """A running server and its address."""
    process = subprocess.Popen(
        [sys.executable, "-m", "fenwick", *args], stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
    )
    assert process.stdout is not None
    found = re.search(r"(?:http|socket)://[^\s(]+", process.stdout.readline())
    assert found is not None
    return process, found[0]


def start_in_the_background(*args: str) -> Running:
    """The same with SIGINT ignored, as a shell hands it to what it starts with ``&``."""
    before = signal.signal(signal.SIGINT, signal.SIG_IGN)
    try:
        return start(*args)
    finally:
        signal.signal(signal.SIGINT, before)


def stop(process: subprocess.Popen[str], by: signal.Signals = signal.SIGINT) -> tuple[str, str]:
    """What it said after an interrupt; one that does not end is ended, and told of."""
    process.send_signal(by)
    try:
        return process.communicate(timeout=10)
    except subprocess.TimeoutExpired:
        process.kill()
        process.communicate()
        raise


@pytest.mark.parametrize(("begin", "by"), [(start, signal.SIGTERM), (start_in_the_background, signal.SIGINT)])
def test_it_ends_politely_whoever_asks(begin: Callable[..., Running], by: signal.Signals, tmp_path: Path) -> None:
    process, _ = begin("serve", "--home", str(tmp_path), "--port", "0")
    said, complained = stop(process, by)
    assert process.returncode == 0
    assert "Stopped." in said
    assert "Traceback" not in complained


def test_a_device_in_the_background_ends_politely_too() -> None:
    process, _ = start_in_the_background("device", "manometer")
    said, complained = stop(process, signal.SIGTERM)
    assert process.returncode == 0
    assert "Stopped." in said
    assert "Traceback" not in complained


def test_the_demo_answers_and_stops_politely(tmp_path: Path) -> None:
    process, address = start("demo", "--home", str(tmp_path), "--port", "0")
    with urlopen(address) as page:
        assert "Willow Yard Ukuleles" in page.read().decode()
    said, complained = stop(process)
    assert "Stopped." in said
    assert "Traceback" not in complained
    assert (tmp_path / "shop.db").is_file()


def test_a_shop_begun_with_a_rig_file_is_served_again_without_it(tmp_path: Path) -> None:
    rig = Path(__file__).parents[2] / "src" / "fenwick" / "data" / "demo_line.json"
    for arguments in (("--line", str(rig), "--name", "Shed"), ()):
        process, address = start("serve", "--home", str(tmp_path), "--port", "0", *arguments)
        with urlopen(address) as page:
            assert "Shed" in page.read().decode()
        stop(process)


def test_a_new_shop_begins_with_the_questions(tmp_path: Path) -> None:
    process, address = start("serve", "--home", str(tmp_path / "new"), "--port", "0")
    try:
        with urlopen(address) as response:
            assert response.url.endswith("/start")
    finally:
        stop(process)


def test_a_port_that_is_taken_gives_way_to_the_next() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        with _listen("127.0.0.1", port) as listener:
            assert listener.getsockname()[1] != port


def test_the_key_is_made_once_and_private(tmp_path: Path) -> None:
    path = tmp_path / "secret.key"
    key = _secret_key(path)
    assert len(key) == 64
    assert _secret_key(path) == key
    assert path.stat().st_mode & 0o077 == 0


def test_a_simulated_device_sends_lines_and_stops_politely() -> None:
    process = subprocess.Popen(
        [sys.executable, "-m", "fenwick", "device", "manometer", "--rate", "50", "--clean"],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    )
    assert process.stdout is not None
    found = re.search(r"socket://127\.0\.0\.1:(\d+)", process.stdout.readline())
    assert found is not None
    with (
        socket.create_connection(("127.0.0.1", int(found[1])), timeout=10.0) as connection,
        connection.makefile() as lines,
    ):
        said = [lines.readline().strip() for _ in range(4)]
        said[1:] = [line for line in said[1:] if line != said[0]]  # it greets again on a slow machine
        connection.sendall(b"alone\n")
        answers = [lines.readline().strip() for _ in range(200)]
    assert said[0] == "# simulated manometer"
    assert all(re.fullmatch(r"@\d+\.\d\d suction [\d.]+ kPa ~[0-9a-f]{2}", line) for line in said[1:])
    assert "# vacuum alone, sealed" in answers
    out, complained = stop(process)
    assert "Stopped." in out
    assert "Traceback" not in complained


def test_a_device_that_cannot_be_simulated_says_why(tmp_path: Path) -> None:
    rig = tmp_path / "rig.json"
    rig.write_text("{}")
    asked = [sys.executable, "-m", "fenwick", "device", "scale", "--rig", str(rig)]
    found = subprocess.run(asked, capture_output=True, text=True, check=False)
    assert found.returncode == 2
    assert found.stderr.startswith("fenwick: ")
    assert "Traceback" not in found.stderr
