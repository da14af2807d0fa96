"""Live readings for ten minutes: a simulated monitor at 10 a second, recorded and watched; what is lost, what grows.

`python -m bench.devices [MINUTES]`: the real server, the real device, each in a process of its own.
"""

from __future__ import annotations

import re
import subprocess
import sys
import tempfile
import threading
import time
from http.cookiejar import CookieJar
from itertools import pairwise
from pathlib import Path
from urllib.parse import urlencode
from urllib.request import HTTPCookieProcessor, OpenerDirector, build_opener

RATE = 10.0  #: readings a second


def started(*arguments: str) -> tuple[subprocess.Popen[str], str]:
    """A program of Fenwick's and the address it says."""
    process = subprocess.Popen([sys.executable, "-m", "fenwick", *arguments], stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    found = re.search(r"(?:http|socket)://[^\s(]+", process.stdout.readline())
    assert found is not None
    return process, found[0]


def memory(process: subprocess.Popen[str]) -> float:
    """What a process holds [MB]."""
    status = Path(f"/proc/{process.pid}/status").read_text()
    return int(re.search(r"VmRSS:\s+(\d+)", status)[1]) / 1024.0  # type: ignore[index]


def post(web: OpenerDirector, page: str, to: str, **data: str) -> str:
    """Send a form of a page; the address that it leads to."""
    token = re.search(r'name="csrf_token" value="([^"]+)"', web.open(page).read().decode())
    assert token is not None
    with web.open(to, urlencode({"csrf_token": token[1], **data}).encode()) as answer:
        answer.read()
        return str(answer.url)


def watch(address: str, until: float, seen: list[int]) -> None:
    """Be a page that looks at the stream, asking again where it left off."""
    last = "0"
    while time.monotonic() < until:
        with build_opener().open(f"{address}?last={last}") as stream:
            for line in stream:
                text = line.decode()
                if text.startswith("id: "):
                    last = text[4:].strip()
                    seen.append(int(last))
                if time.monotonic() > until:
                    return


def main(minutes: float) -> None:
    """Record, watch, and count."""
    with tempfile.TemporaryDirectory() as home:
        device, plug = started("device", "monitor", "--rate", str(RATE), "--clean")
        server, site = started("demo", "--home", home, "--port", "0")
        web = build_opener(HTTPCookieProcessor(CookieJar()))
        post(
            web,
            f"{site}lines/1/devices?kind=monitor",
            f"{site}lines/1/devices",
            kind="monitor",
            address=plug,
            baud="9600",
        )
        log = post(web, f"{site}lines/1/air", f"{site}lines/1/air/record", device="1").split("log=")[1]
        end = time.monotonic() + 60.0 * minutes
        seen: list[int] = []
        threading.Thread(target=watch, args=(f"{site}devices/1/stream", end, seen), daemon=True).start()
        held = []
        while time.monotonic() < end:
            time.sleep(min(15.0, max(end - time.monotonic(), 0.0)))
            held.append(memory(server))
            print(f"{len(held) * 15:>5} s   {held[-1]:.1f} MB   last point seen {seen[-1] if seen else 0}", flush=True)
        post(web, f"{site}lines/1/air?log={log}", f"{site}logs/{log}/end")
        rows = web.open(f"{site}logs/{log}.csv").read().decode().split()[4:]
        times = [float(row.split(",")[0]) for row in rows]
        gaps = sum(b - a > 1.5 / RATE for a, b in pairwise(times))
        settled = held[len(held) // 4]
        print(f"{len(times)} rows in {times[-1]:.1f} s, {gaps} gaps; {RATE * times[-1] + 1:.0f} were sent")
        print(f"memory {settled:.1f} MB after a quarter, {held[-1]:.1f} MB at the end, most {max(held):.1f} MB")
        server.terminate()
        device.terminate()


if __name__ == "__main__":
    main(float(sys.argv[1]) if len(sys.argv) > 1 else 10.0)
