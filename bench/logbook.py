"""Ten years of log in a big shop: every page, Home, export and import, memory; and forecasts against a known truth."""

from __future__ import annotations

import resource
import tempfile
import time
from collections.abc import Callable
from datetime import datetime, timedelta
from pathlib import Path

import numpy as np

from bench.pages import PAGES, filled_shop
from bench.timing import median
from fenwick.data import Database, create_database
from fenwick.data.logbook import add_entries
from fenwick.logged import Logged
from fenwick.services.whole import add_whole, export_shop
from fenwick.web import create_app

Say = Callable[[str, str, str], None]
ENTRIES, YEARS, LINES = 50_000, 10, 60
LOG_PAGES = ("/log", "/log/due", "/log/trend", "/log?group=worked&page=40", "/shop", "/backups")
MILLION = 1e6


def ten_years(now: datetime) -> list[Logged]:
    """Entries of a shop that logs all it does."""
    chance = np.random.default_rng(11)
    tools = ("Bandsaw", "Finishing sander", "Binding router", "Floor sweep")
    at = now - np.sort(chance.random(ENTRIES))[::-1] * timedelta(days=365 * YEARS)
    kinds = chance.random(ENTRIES)
    found = []
    for i, (when, kind) in enumerate(zip(at, kinds, strict=True)):
        moment = when.replace(second=0, microsecond=0)
        if kind < 0.8:
            found.append(Logged("worked", moment, 2, tools[i % 4], hours=float(chance.uniform(0.1, 1.0))))
        elif kind < 0.9:
            found.append(Logged("emptied", moment, 2, level=float(chance.uniform(0.2, 0.33))))
        elif kind < 0.97:
            found.append(Logged("tapped", moment, 2, finding="due"))
        else:
            found.append(Logged("suction", moment, 2, "hose to the vacuum", suction=float(chance.normal(6000, 80))))
    return found


def logbook(say: Say) -> None:
    """Report all of it."""
    now = datetime.now()
    with tempfile.TemporaryDirectory() as folder:
        shop = filled_shop(Path(folder), LINES)
        start = time.perf_counter()
        with shop.session(to_write=True) as session:
            add_entries(session, ten_years(now), "Ten years")
        say(f"{ENTRIES} entries written", f"{time.perf_counter() - start:.1f} s", "")
        _pages(shop, say)
        _whole(shop, Path(folder), say)
        shop.close()


def _pages(shop: Database, say: Say) -> None:
    app = create_app(shop, "bench")
    client = app.test_client()
    for name in (
        "/",
        *LOG_PAGES,
        *(f"/lines/2{page}" for page in PAGES if "sander" not in page and "slotted" not in page),
    ):
        first = time.perf_counter()
        status = client.get(name).status_code
        cold = time.perf_counter() - first
        took = median(lambda name=name: client.get(name), 5)  # type: ignore[misc]
        aim = "200 ms" if name == "/" else "300 ms"
        say(f"{name} ({status})", f"{1e3 * took:.0f} ms", f"aim {aim}; right after a change {1e3 * cold:.0f}")


def _whole(shop: Database, folder: Path, say: Say) -> None:
    packed, other = folder / "shop.zip", folder / "other"
    other.mkdir()
    start = time.perf_counter()
    export_shop(shop, packed)
    say(
        "export of the whole shop",
        f"{time.perf_counter() - start:.1f} s",
        f"aim 20 s; {packed.stat().st_size / MILLION:.1f} MB",
    )
    target = create_database(other / "shop.db")
    start = time.perf_counter()
    add_whole(target, packed)
    say("import of it", f"{time.perf_counter() - start:.1f} s", "aim 20 s")
    target.close()
    say("memory at most", f"{resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB", "aim 400 MB")
