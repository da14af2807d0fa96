"""Many pages that look at devices, and others that want their page meanwhile; and a server's memory over a day."""

from __future__ import annotations

import re
import subprocess
import sys
import threading
import time
from pathlib import Path
from urllib.parse import urlencode
from urllib.request import Request, urlopen

import psutil

STREAMS, AT_ONCE, ROUNDS = 16, 8, 12
PAGES = ("lines/1", "lines/2/ports", "lines/1/dust", "shop", "lines/1/checks", "lines/1/tests", "lines/3/test", "start")


def served(folder: Path) -> tuple[subprocess.Popen[str], str]:
    """The demo shop on a port of its own."""
    arguments = [sys.executable, "-m", "fenwick", "demo", "--home", str(folder), "--port", "0"]
    process = subprocess.Popen(arguments, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    found = re.search(r"http://[^\s(]+", process.stdout.readline())
    assert found is not None
    return process, found[0]


def streams(folder: Path) -> list[float]:
    """How long pages took while others looked at a device [s]."""
    process, address = served(folder)
    stop = threading.Event()
    try:
        _add_device(address)
        for page in PAGES:  # a page that nobody has seen yet takes its templates and its figures first
            urlopen(f"{address}{page}", timeout=60).close()
        watching = [threading.Thread(target=_watch, args=(address, stop), daemon=True) for _ in range(STREAMS)]
        for thread in watching:
            thread.start()
        time.sleep(2.0)
        return [took for _ in range(ROUNDS) for took in _at_once(address)]
    finally:
        stop.set()
        process.terminate()
        process.communicate()


def _add_device(address: str) -> None:
    page = urlopen(f"{address}lines/1/devices")
    token = re.search(r'name="csrf_token" value="([^"]+)"', page.read().decode())
    cookie = page.headers["Set-Cookie"].partition(";")[0]
    assert token is not None
    form = {"csrf_token": token[1], "kind": "scale", "name": "S", "address": "socket://127.0.0.1:9", "baud": "9600"}
    urlopen(Request(f"{address}lines/1/devices", urlencode(form).encode(), {"Cookie": cookie})).close()
    page.close()


def _watch(address: str, stop: threading.Event) -> None:
    while not stop.is_set():
        try:
            with urlopen(f"{address}devices/1/stream", timeout=60) as stream:
                while not stop.is_set() and stream.readline():
                    pass
        except OSError:
            return


def _at_once(address: str) -> list[float]:
    took = [0.0] * AT_ONCE

    def load(i: int) -> None:
        began = time.perf_counter()
        with urlopen(f"{address}{PAGES[i % len(PAGES)]}", timeout=60) as page:
            page.read()
        took[i] = time.perf_counter() - began

    threads = [threading.Thread(target=load, args=(i,)) for i in range(AT_ONCE)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return took


def memory(folder: Path, loads: int = 2000) -> tuple[float, float]:
    """A server's memory after a tenth of so many loads, and after all of them [MB]."""
    process, address = served(folder)
    seen = []
    try:
        for i in range(loads):
            with urlopen(f"{address}{PAGES[i % len(PAGES)]}", timeout=60) as page:
                page.read()
            if i + 1 in (loads // 10, loads):
                seen.append(psutil.Process(process.pid).memory_info().rss / 1e6)
    finally:
        process.terminate()
        process.communicate()
    return seen[0], seen[1]
