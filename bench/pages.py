"""What an edit and the pages cost, server side: each on a line just changed, and in a shop of many lines."""

from __future__ import annotations

import re
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import numpy as np
from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.demo import demo_rig, seed_demo
from fenwick.data.lines import add_line, change_line
from fenwick.data.shops import the_shop
from fenwick.rig import edit_rig
from fenwick.web import create_app

Say = Callable[[str, str, str], None]
HTMX = {"HX-Request": "true"}
MANY_LINES, REVISIONS = 200, 100
SLOWER = ("ageing", "drawer", "build/make-or-buy")  #: pages that may take longer
PAGES = (
    "", "/separator", "/separator/schools", "/separator/find", "/ports", "/ports/drum-sander/hood", "/dust", "/ageing",
    "/joints", "/drawer", "/vacuum", "/compare/3", "/checks", "/tests", "/tests/plan", "/test", "/test/fault",
    "/practice?seed=3", "/air", "/build", "/build/parts/slotted-disc", "/build/sheets", "/build/steps", "/build/joints",
    "/build/make-or-buy",
)  # fmt: skip
FONTS = (
    "barlow-semi-condensed/barlow-semi-condensed-latin-500-normal.woff2",
    "barlow-semi-condensed/barlow-semi-condensed-latin-600-normal.woff2",
    "public-sans/public-sans-latin-wght-normal.woff2",
)


def filled_shop(folder: Path, lines: int) -> Database:
    """The demo shop, with some more lines and a long history."""
    shop = seed_demo(folder / "shop.db")
    with shop.session(to_write=True) as session:
        for i in range(lines):
            add_line(session, the_shop(session), edit_rig(demo_rig(), {"name": f"Line {i}"}))
        for i in range(REVISIONS if lines else 0):
            change_line(session, 1, demo_rig(), f"change {i}")
    return shop


@contextmanager
def served(lines: int = 0) -> Iterator[FlaskClient]:
    """A client of that shop."""
    with tempfile.TemporaryDirectory() as folder:
        shop = filled_shop(Path(folder), lines)
        app = create_app(shop, "bench")
        app.config.update(WTF_CSRF_ENABLED=False)
        yield app.test_client()


def taken(call: Callable[[], object]) -> float:
    """How long a call takes [s]."""
    start = time.perf_counter()
    call()
    return time.perf_counter() - start


def pages(say: Say) -> None:
    """The figures, said one by one."""
    with served() as client:
        _edits(client, say)
        _first_load(client, say)
        few = _each(client)
    worst = max((p for p in few if p.strip("/") not in SLOWER), key=few.__getitem__)
    say(f"the slowest page of the demo, /lines/1{worst} (median)", f"{few[worst] * 1e3:.0f} ms", "aim: under 120 ms")
    for page in SLOWER:
        say(f"the page /{page} (median)", f"{few[f'/{page}'] * 1e3:.0f} ms", "aim: under 200 ms")
    with served(MANY_LINES) as client:
        many = _each(client)
    ratio = {page: many[page] / few[page] for page in few}
    slowest = max(ratio, key=ratio.__getitem__)
    aim = "aim: under 1.3 ×"
    say(f"ratio: a page in a shop of {MANY_LINES} lines, at worst {slowest or '/'}", f"{ratio[slowest]:.2f} ×", aim)


def _each(client: FlaskClient) -> dict[str, float]:
    """Median time of each page, as one comes to it again [s]."""
    for page in PAGES:
        assert client.get(f"/lines/1{page}").status_code == 200, page
    rounds = [[taken(lambda page=page: client.get(f"/lines/1{page}")) for page in PAGES] for _ in range(9)]
    return dict(zip(PAGES, np.median(rounds, axis=0).tolist(), strict=True))


def _edits(client: FlaskClient, say: Say) -> None:
    """An edit's answer, what follows by itself, and the pages of a line that nobody has looked at yet."""
    lengths = iter(range(1000, 10**6))

    def edit() -> None:
        data = {"line.branches[0].elements[2].length_m": f"{next(lengths) / 400:.4f}"}
        assert client.post("/lines/1/parts/hose-b", data=data, headers=HTMX).status_code == 200

    def rest() -> float:
        edit()
        return taken(lambda: client.get("/lines/1/late", headers=HTMX))

    def fresh(page: str) -> float:
        edit()
        return taken(lambda: client.get(f"/lines/1{page}"))

    edit()
    times = np.array([taken(edit) for _ in range(100)])
    middle, most = (f"{share * 1e3:.0f} ms" for share in np.quantile(times, [0.5, 0.95]))
    say("an edit, request to first fragment (median)", middle, "aim: under 60 ms")
    say("the same, 95th percentile", most, "aim: under 90 ms")
    say(
        "what follows by itself (median)", f"{np.median([rest() for _ in range(20)]) * 1e3:.0f} ms", "aim: under 200 ms"
    )
    cold = {page: float(np.median([fresh(page) for _ in range(5)])) for page in PAGES}
    slowest = sorted(cold, key=lambda page: -cold[page])[:3]
    told = ", ".join(f"{page or '/'} {cold[page] * 1e3:.0f}" for page in slowest)
    say("slowest pages of a line just changed [ms]", "", told)


def _first_load(client: FlaskClient, say: Say) -> None:
    first = client.get("/lines/1")
    assets = set(re.findall(r'(?:href|src)="(/static/[^"]+)"', first.text))
    fonts = [f"/static/vendor/{font}" for font in FONTS]
    total = len(first.data) + sum(len(client.get(url).data) for url in {*assets, *fonts})
    say("bytes of the first page load, uncompressed", f"{total / 1e3:.0f} kB", "aim: under 700 kB")
