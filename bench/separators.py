"""What the Separator costs: designs in one call, the Monte Carlo, a drag on the page, a whole search."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from bench.timing import median
from fenwick.core.doubt.uncertainty import DRAWS, sureness
from fenwick.core.search.designs import RANGES, build, sample
from fenwick.core.search.finder import Limits, search
from fenwick.core.search.on_the_line import evaluate
from fenwick.data.demo import demo_rig, seed_demo
from fenwick.rig import build_line
from fenwick.web import create_app

DESIGNS = 50_000
Say = Callable[[str, str, str], None]


def separators(say: Say) -> None:
    """The figures, said one by one."""
    line = build_line(demo_rig())
    stage = line.separators[0]
    slowest = {}
    for kind in RANGES:
        designs = build(kind, sample(kind, DESIGNS, 1), stage.id, stage.bin, 0.05, "smooth")
        slowest[kind] = median(lambda designs=designs: evaluate(line, designs, 0), 1)  # type: ignore[misc]
    say(
        f"{DESIGNS:,} cyclones, each with its operating point and four models",
        f"{slowest['cyclone']:.2f} s",
        "aim: under 3 s",
    )
    say(f"{DESIGNS:,} of the slowest kind", f"{max(slowest.values()):.2f} s", "aim: under 3 s")
    one = build("cyclone", sample("cyclone", 1, 1), stage.id, stage.bin, 0.05, "smooth")
    alone = median(lambda: evaluate(line, one, 0), 30)
    say("ratio: one at a time over one call", f"{alone * DESIGNS / slowest['cyclone']:.0f} ×", "")
    say(
        f"the bands, {DRAWS:,} draws in one call",
        f"{median(lambda: sureness(line), 9) * 1e3:.0f} ms",
        "aim: under 150 ms",
    )

    def find() -> None:
        for _ in search(line, stage, 0, Limits(), None, 12_000):
            pass

    say("a search of 12,000 designs", f"{median(find, 1):.2f} s", "")
    _page(say)


def _page(say: Say) -> None:
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(seed_demo(Path(folder) / "shop.db"), "bench")
        app.config.update(WTF_CSRF_ENABLED=False)
        client = app.test_client()
        heights = iter(range(10_000, 10**6))

        def drag() -> None:
            data = {"part": "sep", "line.elements[0].bin.fill_height_m": f"{next(heights) / 100:.2f}"}
            assert (
                client.post("/lines/1/separator/preview", data=data, headers={"HX-Request": "true"}).status_code == 200
            )

        drag()
        say(
            "a dragged dimension, request to drawing (server side, median)",
            f"{median(drag, 40) * 1e3:.1f} ms",
            "aim: under 100 ms",
        )
        page = median(lambda: client.get("/lines/1/separator"), 9)
        say("the whole Separator page (server side, median)", f"{page * 1e3:.0f} ms", "")
