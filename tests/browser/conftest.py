"""A real server for a fresh demo shop, and Debian's Chromium to look at it with."""

from __future__ import annotations

import re
import shutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import ConsoleMessage, Page, expect

#: Debian's shell without a window does half the work of the browser itself
CHROMIUM = shutil.which("chromium-headless-shell") or "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]

expect.set_options(timeout=30_000)  # a machine that has other things to do is no failure


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    """Debian's Chromium, kept away from any network but this machine."""
    only_here = "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1"
    return {"executable_path": CHROMIUM, "args": [*FLAGS, only_here]}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    """The screen the Line page is made for."""
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


@pytest.fixture(scope="session")
def farm() -> Iterator[subprocess.Popen[str]]:
    """A process that serves a fresh demo shop on demand; that `fenwick demo` starts by itself is tested elsewhere."""
    command = [sys.executable, "-m", "tests.browser.farm"]
    with subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, bufsize=1) as process:
        yield process
        assert process.stdin is not None
        process.stdin.close()  # it ends its child and itself


@pytest.fixture
def server(farm: subprocess.Popen[str], tmp_path: Path) -> Iterator[str]:
    """Address of a fresh demo shop on a free port."""
    assert farm.stdin is not None
    assert farm.stdout is not None
    farm.stdin.write(f"{tmp_path / 'home'}\n")
    found = re.search(r"http://\S+/", farm.stdout.readline())
    assert found, "the server did not start"
    yield found[0]
    farm.stdin.write("\n")


@pytest.fixture
def bench(page: Page, server: str) -> Iterator[Page]:
    """The Line page of the demo; fails on anything the console complains about."""
    complaints: list[str] = []

    def listen(message: ConsoleMessage) -> None:
        expected = "422" in message.text  # a refused value is answered with 422, and the browser logs that
        if message.type in ("error", "warning") and not expected:
            complaints.append(message.text)

    page.on("console", listen)
    page.on("pageerror", lambda error: complaints.append(str(error)))
    page.goto(f"{server}lines/1")
    yield page
    assert complaints == []
