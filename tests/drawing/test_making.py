"""Pictures of making: taken apart, one part with its measures, one sheet, the plan on its days."""

from __future__ import annotations

import re
from itertools import pairwise

import pytest

from fenwick.core.making.schedule import TimeSlot
from fenwick.drawing.exploded import APART, HEIGHT, WIDTH, Shown, exploded_scene, render_exploded
from fenwick.drawing.part_sheet import part_scene, render_part
from fenwick.drawing.sheet_plan import render_sheet
from fenwick.drawing.timeline import LEFT, RIGHT, timeline_scene
from fenwick.rig.start.examples import EXAMPLES, example_rig
from fenwick.services.making import BuildAsked, Pack, build_pack
from fenwick.wording.making.names import part_name
from fenwick.wording.say import Voice

VOICE = Voice("metric", {})
DAY = 86400.0
PHASE = {"cut": "cut", "seal": "join", "run": "run"}


def pack_of(kind: str, *, bought: bool = False) -> Pack:
    return build_pack(example_rig(kind), BuildAsked("wet" if kind == "wet-stage" else None, None, bought))


def shown(pack: Pack) -> dict[str, Shown]:
    return {part.id: Shown(part_name(part.id), ("a",), "ok") for part in pack.parts}


@pytest.mark.parametrize("bought", [False, True])
@pytest.mark.parametrize("kind", EXAMPLES)
def test_everything_stays_in_the_picture_and_no_two_numbers_meet(kind: str, bought: bool) -> None:
    pack = pack_of(kind, bought=bought)
    scene = exploded_scene(pack.parts, shown(pack), lambda part: f"#{part}")
    assert len(scene.pieces) >= 3
    stacked = sorted(piece.balloon[1] for piece in scene.pieces if piece.balloon[0] > WIDTH / 2.0)
    assert all(b - a >= APART - 1e-6 for a, b in pairwise(stacked))
    for piece in scene.pieces:
        numbers = [float(one) for one in re.findall(r"-?\d+\.?\d*", piece.face)]
        assert all(-30.0 <= one <= WIDTH for one in numbers)
        assert 0.0 <= piece.balloon[1] <= HEIGHT
        assert 0.0 <= piece.balloon[0] <= WIDTH


@pytest.mark.parametrize("kind", ["slotted-disc", "cyclone", "hung-disc"])
def test_the_stack_is_to_scale(kind: str) -> None:
    """Widths on the picture stand to each other as the parts' own."""
    pack = pack_of(kind)
    scene = exploded_scene(pack.parts, shown(pack), str)
    widths = {}
    for piece in scene.pieces:
        part = pack.part(piece.part)
        assert part is not None
        if part.kind == "disc" and piece.sides:
            found = re.findall(r"M (-?[\d.]+),", piece.sides)
            widths[part.id] = (2.0 * (218.0 - float(found[0])), part.dims["d_m"])
    scales = [px / metres for px, metres in widths.values()]
    assert max(scales) == pytest.approx(min(scales), rel=2e-3)


def test_the_picture_says_what_it_shows_and_escapes_what_a_user_wrote() -> None:
    pack = pack_of("slotted-disc")
    said = {part.id: Shown(part_name(part.id), ("<b>",), "ok") for part in pack.parts}
    svg = render_exploded(pack.parts, said, lambda part: f"/x?a=1&part={part}", "p")
    assert "From the top down: 1 Outlet tube" in svg
    assert "<b>" not in svg
    assert svg.count("<a ") == len(exploded_scene(pack.parts, said, str).pieces)


@pytest.mark.parametrize("kind", EXAMPLES)
def test_every_template_is_drawn_with_its_measures(kind: str) -> None:
    for part in pack_of(kind).parts:
        if not part.outline:
            continue
        scene = part_scene(part, VOICE)
        assert scene.outline.count("Z") == len(part.outline)
        assert len(scene.drills) == len(part.drills)
        assert scene.measures
        assert "To scale: " in render_part(part, VOICE, "p")


def test_a_sheet_names_what_lies_on_it() -> None:
    pack = pack_of("slotted-disc")
    names = {part.id: part_name(part.id) for part in pack.parts}
    for i in range(len(pack.layout.sheets)):
        svg = render_sheet(pack.layout, i, pack.parts, names, f"s{i}")
        for one in pack.layout.placed:
            assert (f">{names[one.part]}<" in svg) is (one.sheet == i)


class TestTimeline:
    SLOTS = (
        TimeSlot("cut", 9 * 3600.0, 11 * 3600.0, 11 * 3600.0),
        TimeSlot("seal", 11 * 3600.0, 12 * 3600.0, DAY + 15 * 3600.0),
        TimeSlot("run", DAY + 16 * 3600.0, DAY + 17 * 3600.0, DAY + 17 * 3600.0),
    )

    def scene(self, slots: tuple[TimeSlot, ...], days: int = 60):  # type: ignore[no-untyped-def]
        names = [f"day {i}" for i in range(days)]
        return timeline_scene(slots, PHASE, ("cut", "join", "run"), PHASE, names, 8 * 3600.0, "runs")

    def test_bars_follow_each_other_and_a_cure_is_drawn_behind_its_work(self) -> None:
        scene = self.scene(self.SLOTS)
        work = [bar for bar in scene.bars if not bar.cure]
        assert [bar.x for bar in work] == sorted(bar.x for bar in work)
        (cure,) = [bar for bar in scene.bars if bar.cure]
        assert cure.x == pytest.approx(work[1].x + work[1].width, abs=0.1)
        assert cure.width == pytest.approx(27.0 / 48.0 * (RIGHT - LEFT), rel=1e-6)

    def test_rows_keep_their_order_and_days_their_names(self) -> None:
        scene = self.scene(self.SLOTS)
        assert [title for title, _ in scene.rows] == ["cut", "join", "run"]
        assert [day.name for day in scene.days] == ["day 0", "day 1"]
        assert scene.now is not None
        assert scene.end is not None
        assert scene.end.words == "runs"

    def test_a_long_plan_is_told_by_weeks(self) -> None:
        late = TimeSlot("run", 40 * DAY, 40 * DAY + 3600.0, 40 * DAY + 3600.0)
        scene = self.scene((*self.SLOTS[:2], late))
        assert [day.name for day in scene.days] == [f"day {i}" for i in range(0, 41, 7)]
        assert all(bar.x + bar.width <= RIGHT + 1e-6 for bar in scene.bars)
