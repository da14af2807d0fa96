"""Pictures of this place: sections of hoods to scale, charts of air and ageing, streams that stay apart."""

from __future__ import annotations

import re
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.hood import Enclosure, FloorNozzle, Hood, OpenHood, Opening, SlotHood
from fenwick.core.dust.fate import ENDS
from fenwick.core.hours.air import DustSource, Room, session
from fenwick.core.judging.assess import assess
from fenwick.core.rules import RuleBook
from fenwick.drawing.ageing_chart import AgeingCurve, render_ageing
from fenwick.drawing.air_chart import AirCurve, render_air
from fenwick.drawing.fate import ends_of, render_small_ends
from fenwick.drawing.flow import FULL, GAP, lay_out_flow, render_flow
from fenwick.drawing.hood import HEIGHT, render_hood
from fenwick.wording.say import Voice
from tests.core.dust.test_hoods import with_hood

VOICE = Voice("metric", {})
COMMON: dict[str, Any] = {"release": "active", "thrown_share": 0.5}
SHARES = st.lists(st.floats(0.0, 1.0), min_size=len(ENDS), max_size=len(ENDS)).filter(lambda s: sum(s) > 0.1)


@given(SHARES)
def test_streams_of_any_shares_stay_apart_and_add_up(shares: list[float]) -> None:
    ends = {end: share / sum(shares) for end, share in zip(ENDS, shares, strict=True)}
    nodes, ribbons = lay_out_flow(ends, lambda share: f"{share:.3f}", "made")
    shown = sum(node.height for node in nodes if node.end) / FULL
    assert shown == pytest.approx(1.0, abs=0.0005 * len(ENDS) + 1e-9)
    for x in {node.x for node in nodes}:
        column = sorted((node for node in nodes if node.x == x), key=lambda node: node.y)
        for above, below in pairwise(column):
            assert below.y - (above.y + above.height) >= GAP - 1e-6
            assert below.label_y - above.label_y >= 14.9
    assert all(ribbon.height > 0.0 for ribbon in ribbons)
    picture = render_flow(ends, lambda share: f"{share:.3f}", "made", "flow")
    assert "nan" not in picture


def test_a_line_without_anything_past_the_hose_ends_there() -> None:
    ends = dict.fromkeys(ENDS, 0.0) | {"floor": 0.4, "room_air": 0.6}
    nodes, _ = lay_out_flow(ends, str, "made")
    assert {node.key for node in nodes} == {"made", "floor", "room_air"}


def test_bars_leave_out_what_gets_nothing() -> None:
    assert [end.key for end in ends_of({"bin": 0.7, "room_air": 0.3}, 100.0)] == ["bin", "room_air"]
    assert sum(end.width for end in ends_of({"bin": 0.7, "room_air": 0.3}, 100.0)) == pytest.approx(100.0)
    assert "filter" in render_small_ends({"tank": 0.5, "paper": 0.5}, 100.0)


@pytest.mark.parametrize(
    "hood",
    [
        OpenHood(distance=0.05, **COMMON),
        OpenHood(distance=0.05, built_in=True, rebound=True, **COMMON),
        OpenHood(distance=0.5, **COMMON),
        OpenHood(distance=0.001, **COMMON),
        SlotHood(distance=0.05, length=0.3, width=0.02, flanged=True, **COMMON),
        Enclosure(ways=(Opening("Shut", 1e-4), Opening("Open", 0.3)), **COMMON),
        FloorNozzle(width=0.25, gap=0.001, **COMMON),
    ],
)
def test_every_hood_fits_its_picture(hood: Hood) -> None:
    line = with_hood(hood)
    found = assess(line)
    picture = render_hood(hood, found.captures[0], 0.05, float(found.point.port_flow[0, 0]), True, VOICE)
    assert picture.count("<svg") == 1
    assert "nan" not in picture
    for y in re.findall(r'(?:cy|y1|y2)="(-?[\d.]+)"', picture):
        assert -60.0 <= float(y) <= HEIGHT + 60.0


@pytest.mark.parametrize("flow", [0.02, 0.04, 0.08])
def test_the_reach_is_where_the_air_moves_as_fast_as_needed(flow: float) -> None:
    for flanged in (False, True):
        reach = float(OpenHood(distance=0.1, **COMMON).reach(flow, 0.05, 1.58, flanged))
        there = OpenHood(distance=reach, **COMMON)
        assert float(there.speed(flow, there.openings(0.05)[0], flanged)) == pytest.approx(1.58)
    reach = float(SlotHood(distance=0.1, length=0.3, width=0.005, **COMMON).reach(flow, 0.05, 1.58, False))
    slot = SlotHood(distance=reach, length=0.3, width=0.005, **COMMON)
    assert float(slot.speed(flow, slot.openings(0.05)[0], False)) == pytest.approx(1.58)
    assert float(OpenHood(distance=0.1, **COMMON).reach(flow, 0.05, 50.0, False)) == 0.0
    assert float(slot.reach(flow, 0.05, 100.0, False)) == 0.0


def test_the_dot_stands_where_the_air_is_clear() -> None:
    source = DustSource(np.array([[1e-7]]), np.array([[2e-8]]), np.array([[1e-5]]), np.array([0.0]))

    def picture(changes: float, share: float = 1.0) -> str:
        given = DustSource(share * source.breathed, share * source.deep, source.falls, source.through_filter)
        air = session(Room(43.2, changes / 3600.0), given, 600.0, 6000.0, RuleBook())
        return str(render_air([AirCurve("now", "as it is", air)], 600.0, VOICE, "air"))

    assert picture(6.0).count("<circle") == 1
    assert picture(0.2).count("<circle") == 0  # later than the chart shows
    assert picture(6.0, 1e-4).count("<circle") == 0  # it never was not
    assert "counts as clear" in picture(6.0, 1e-4)


def test_emptyings_are_ticks_unless_they_are_too_many() -> None:
    hours = np.array([0.0, 100.0])
    curve = AgeingCurve("with", "as it is", hours, np.array([0.04, 0.02]), mark=50.0)
    picture = render_ageing([curve], 60.0, "flow", 0.03, 12.0, VOICE)
    assert picture.count('class="emptied"') == 4
    assert picture.count("<circle") == 1
    assert render_ageing([curve], 60.0, "flow", None, 0.5, VOICE).count('class="emptied"') == 0
    assert render_ageing([curve], 40.0, "flow", None, None, VOICE).count("<circle") == 0
