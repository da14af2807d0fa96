"""What a way costs: four tools, a drawer of twelve hoses and twenty fittings; and the click on a gate."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from functools import partial
from pathlib import Path

from bench.timing import best, median
from fenwick.core.judging.assess import assess
from fenwick.core.line.ports import line_alone
from fenwick.data.demo import demo_rig, demo_shop, seed_demo
from fenwick.data.lines import add_line
from fenwick.data.shops import the_shop
from fenwick.rig import Rig, build_line, check_rig
from fenwick.rig.edits.branches import add_tool
from fenwick.services.way import WayAsked, search_ways
from fenwick.shop import ShopFile, check_shop
from fenwick.web import create_app

Say = Callable[[str, str, str], None]
HTMX = {"HX-Request": "true"}
BORES = (0.027, 0.032, 0.035, 0.038, 0.05, 0.0635)


def full_drawer() -> ShopFile:
    """The demo shop with twelve hoses and twenty fittings."""
    hoses = [
        {"id": f"h{i}", "name": f"Spare {i}", "bore_m": BORES[i % 6], "length_m": 1.5 + 0.5 * (i % 5), "wall": wall}
        for i, wall in enumerate(["smooth", "wire-helix"] * 6)
    ]
    joins = [(one, other) for i, one in enumerate(BORES) for other in BORES[i + 1 :]]
    fittings = [
        {"id": f"f{i}", "name": f"Adapter {i}", "one_bore_m": one, "other_bore_m": other}
        for i, (one, other) in enumerate((*joins, *joins[:5]))
    ]
    return check_shop({**demo_shop().model_dump(mode="json"), "hoses": hoses, "fittings": fittings})


def with_tools(count: int) -> Rig:
    """The bench line with so many tools, the new ones behind shut gates."""
    rig = demo_rig("demo_bench")
    while len(rig.line.ways) < count:
        rig, _ = add_tool(rig, "sweep")
    document = rig.model_dump(mode="json")
    for branch in document["line"]["branches"]:
        if branch["port"] and branch["gate"] is None:
            branch["gate"] = {"opening": 0.0}
    return check_rig({**document, "name": f"{count} tools"})


def ways(say: Say) -> None:
    """The figures, said one by one."""
    rig, shop = demo_rig("demo_bench"), full_drawer()
    line = build_line(rig)
    one = median(lambda: assess(line_alone(line, 0)), 20)
    tried = 0

    def whole() -> None:
        nonlocal tried
        *_, last = search_ways(rig, shop, WayAsked())
        tried = last.tried

    took = best(whole, 2)
    say(f"the ways of four tools, {tried:,} combinations", f"{took:.1f} s", "aim: under 5 s")
    say("ratio: a combination over one whole assessment", f"{took / tried / one:.4f} ×", "aim: under 0.02 ×")
    with tempfile.TemporaryDirectory() as folder:
        database = seed_demo(Path(folder) / "shop.db")
        with database.session() as session:
            ids = [add_line(session, the_shop(session), with_tools(count)) for count in (6, 12)]
            session.commit()
        app = create_app(database, "bench")
        app.config.update(WTF_CSRF_ENABLED=False)
        client = app.test_client()
        for line_id, count, aim in zip(ids, (6, 12), (60, 120), strict=True):
            client.get(f"/lines/{line_id}")
            click = median(partial(client.post, f"/lines/{line_id}/gates/sweep", headers=HTMX), 9)
            say(f"a gate clicked, {count} tools, to the redrawn tree", f"{click * 1e3:.0f} ms", f"aim: {aim} ms")
            say("ratio: over one whole assessment", f"{click / one:.0f} ×", "")
        database.close()
