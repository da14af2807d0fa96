"""The server as a stranger meets it: too much, too slow, too many at once. Others are answered meanwhile."""

import socket
import subprocess
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from urllib.parse import urlsplit
from urllib.request import urlopen

import pytest

from tests.cli.test_serving import start, stop


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory, seeded: Path) -> Iterator[tuple[subprocess.Popen[str], str]]:
    folder = tmp_path_factory.mktemp("served")
    (folder / "shop.db").write_bytes(seeded.read_bytes())
    process, address = start("serve", "--home", str(folder), "--port", "0")
    yield process, address
    stop(process)


def connected(address: str) -> socket.socket:
    place = urlsplit(address)
    assert place.port is not None
    return socket.create_connection((str(place.hostname), place.port), timeout=30.0)


def answered(address: str) -> float:
    """How long a page takes [s]."""
    began = time.monotonic()
    with urlopen(f"{address}lines/1", timeout=30) as page:
        assert page.status == 200
    return time.monotonic() - began


@pytest.mark.parametrize(
    ("path", "size", "sentence"),
    [
        ("/lines/1/parts/hose-a", 400_000_000, "a form is at most 1 MB"),
        ("/runs/1/photos", 30_000_000, "a photo is at most 25 MB"),
        ("/lines/1/air", 13_000_000, "a table is at most 12 MB"),
        ("/backups/bring", 600_000_000, "a copy of a shop is at most 500 MB"),
        ("/nowhere", 2_000_000, "a form is at most 1 MB"),
    ],
)
def test_too_much_is_refused_by_its_head(
    served: tuple[subprocess.Popen[str], str], path: str, size: int, sentence: str
) -> None:
    with connected(served[1]) as line:
        line.sendall(f"POST {path} HTTP/1.1\r\nHost: localhost\r\nContent-Length: {size}\r\n\r\n".encode())
        said = b"".join(iter(lambda: line.recv(4096), b"")).decode()
    assert said.startswith("HTTP/1.1 413")
    assert sentence in said


def test_a_body_that_does_not_say_its_length_is_cut_off(served: tuple[subprocess.Popen[str], str]) -> None:
    chunk = b"10000\r\n" + b"x" * 0x10000 + b"\r\n"
    with connected(served[1]) as line:
        line.sendall(b"POST /units HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\n\r\n")
        sent, said = 0, b""
        try:
            while sent < 200:
                line.sendall(chunk)
                sent += 1
        except OSError:
            pass
        else:
            said = line.recv(4096)
    assert sent < 200 or b"413" in said


def test_a_head_without_an_end_is_refused(served: tuple[subprocess.Popen[str], str]) -> None:
    with connected(served[1]) as line:
        line.sendall(b"GET / HTTP/1.1\r\n" + b"X-Long: " + b"x" * 70_000)
        assert b" 431 " in line.recv(4096).split(b"\r\n")[0]


def test_half_open_requests_hold_nobody_up(served: tuple[subprocess.Popen[str], str]) -> None:
    usual = answered(served[1])
    lines = [connected(served[1]) for _ in range(110)]
    try:
        for line in lines:
            line.sendall(b"GET / HTTP/1.1\r\nHost: local")
        assert answered(served[1]) < usual + 5.0
    finally:
        for line in lines:
            line.close()


def test_a_trickle_is_cut_off(served: tuple[subprocess.Popen[str], str]) -> None:
    from fenwick.cli.bounded import HEAD_WITHIN

    began = time.monotonic()
    with connected(served[1]) as line:
        line.settimeout(0.5)
        line.sendall(b"GET / HTTP/1.1\r\nHost: localhost\r\n")
        while time.monotonic() - began < HEAD_WITHIN + 10.0:
            try:
                line.sendall(b"X-More: 1\r\n")
                if line.recv(1) == b"":
                    break
            except TimeoutError:
                continue
            except OSError:
                break
    assert time.monotonic() - began < HEAD_WITHIN + 8.0


def test_nothing_large_was_laid_down_meanwhile(served: tuple[subprocess.Popen[str], str]) -> None:
    """What is spooled lies in unlinked files of the process."""
    held = [path for path in Path(f"/proc/{served[0].pid}/fd").iterdir() if path.exists() or path.is_symlink()]
    sizes = [path.stat().st_size for path in held if tempfile.gettempdir() in str(path.readlink())]
    assert sum(sizes) < 2_000_000
