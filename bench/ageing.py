"""What ageing, the checks and the pages of the dust cost."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

import numpy as np

from bench.timing import median
from fenwick.core.hours.ageing import ageing_map, without_separators
from fenwick.core.hours.course import Filters
from fenwick.core.hours.march import march
from fenwick.core.judging.assess import assess
from fenwick.core.judging.review import review
from fenwick.data.demo import demo_rig, seed_demo
from fenwick.rig import build_line
from fenwick.web import create_app

HOURS = 200.0
Say = Callable[[str, str, str], None]


def ageing(say: Say) -> None:
    """The figures, said one by one."""
    line = build_line(demo_rig())
    bare = without_separators(line)
    clean = Filters("paper", np.array([0.6]), np.zeros(1), np.zeros(1), np.zeros(1))

    def both() -> None:
        for one in (line, bare):
            mapped = ageing_map(one, 0)
            assert mapped is not None
            march(mapped, clean, HOURS)

    spent = median(both, 9)
    say(f"{HOURS:.0f} h of ageing, with and without the separator", f"{spent * 1e3:.0f} ms", "aim: under 250 ms")
    one = median(lambda: assess(line), 30)
    say("ratio: an ageing run over one assessment", f"{spent / one:.0f} ×", "")
    found = assess(line)
    say("every check of a line, its assessment apart", f"{median(lambda: review(line, found), 30) * 1e3:.1f} ms", "")
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(seed_demo(Path(folder) / "shop.db"), "bench")
        client = app.test_client()
        for page in ("ports/drum-sander/hood", "ports", "dust", "ageing", "checks"):
            client.get(f"/lines/1/{page}")
            taken = median(lambda page=page: client.get(f"/lines/1/{page}"), 5)  # type: ignore[misc]
            say(f"the page /{page}", f"{taken * 1e3:.0f} ms", "")
