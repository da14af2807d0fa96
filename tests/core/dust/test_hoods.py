"""Hoods of every kind: faster with more air, slower with distance and open area, and what a box, plate or fan does."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Branch, Hose, InlineFilter, Port
from fenwick.core.components.hood import Enclosure, ExtraFan, FloorNozzle, Hood, OpenHood, Opening, SlotHood
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.dust.capture import Capture, tool_flow
from fenwick.core.formulas.capture import slot_velocity
from fenwick.core.judging.alone import each_alone
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.catch import floating_share
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone, with_dust
from fenwick.core.search.changes import candidates
from fenwick.core.search.whatif import try_all
from tests.lines import disc_line

COMMON: dict[str, Any] = {"release": "active", "thrown_share": 0.5}


def with_hood(hood: Hood, **changes: Any) -> Line:
    """A drum sander's line with another hood."""
    line = disc_line(**changes)
    branch = line.branches[0]
    assert branch.port is not None
    return replace(line, branches=(replace(branch, port=replace(branch.port, hood=hood)),))


def caught(hood: Hood, **changes: Any) -> Capture:
    """What that hood catches."""
    return assess(with_hood(hood, **changes)).captures[0]


def box(*ways: tuple[str, float, float]) -> Enclosure:
    """A box that is open by (name, area, how often)."""
    return Enclosure(ways=tuple(Opening(*way) for way in ways), **COMMON)


@given(st.floats(0.005, 0.3), st.floats(1.1, 4.0), st.sampled_from([False, True]))
def test_distance_slows_the_air_before_openings_and_slots(distance: float, further: float, flanged: bool) -> None:
    for near, far in (
        (OpenHood(distance=distance, **COMMON), OpenHood(distance=distance * further, **COMMON)),
        (
            SlotHood(distance=distance, length=0.3, width=0.02, flanged=flanged, **COMMON),
            SlotHood(distance=distance * further, length=0.3, width=0.02, flanged=flanged, **COMMON),
        ),
    ):
        a, b = caught(near), caught(far)
        assert np.all(b.velocity <= a.velocity)
        assert np.all(b.airborne <= a.airborne)
        assert np.all((b.total >= 0.0) & (b.total <= a.total))


@given(st.floats(1e-4, 0.2), st.floats(1.1, 5.0), st.floats(8e3, 16e3))
def test_open_area_slows_the_air_and_suction_speeds_it(area: float, more: float, suction: float) -> None:
    tight, wide = caught(box(("", area, 1.0))), caught(box(("", area * more, 1.0)))
    assert np.all(wide.face < tight.face)
    assert np.all(wide.airborne <= tight.airborne)
    strong = caught(box(("", area, 1.0)), suction=suction * 1.5)
    assert np.all(strong.airborne >= caught(box(("", area, 1.0)), suction=suction).airborne)


def test_a_slot_follows_silverman_and_never_beats_its_own_face() -> None:
    assert float(slot_velocity(0.04, 0.3, 0.02, 0.1, False)) == pytest.approx(0.04 / (3.7 * 0.3 * 0.1))
    assert float(slot_velocity(0.04, 0.3, 0.02, 0.1, True)) == pytest.approx(0.04 / (2.6 * 0.3 * 0.1))
    assert float(slot_velocity(0.04, 0.3, 0.02, 1e-6, True)) == pytest.approx(0.04 / (0.3 * 0.02))


def test_ways_of_working_are_weighted_by_how_often_and_the_worst_is_told() -> None:
    shut, open_ = caught(box(("Shut", 0.01, 1.0))), caught(box(("Open", 0.08, 1.0)))
    both = caught(box(("Shut", 0.01, 3.0), ("Open", 0.08, 1.0)))
    assert np.allclose(both.airborne, 0.75 * shut.airborne + 0.25 * open_.airborne, rtol=2e-3)
    assert np.allclose(both.velocity, open_.velocity, rtol=2e-3)  # what is caught changes the air a little
    assert [way.name for way in both.ways] == ["Shut", "Open"]


def test_a_casing_round_the_port_works_like_a_flange() -> None:
    plain = caught(OpenHood(distance=0.1, **COMMON))
    built_in = caught(OpenHood(distance=0.1, built_in=True, **COMMON))
    assert np.allclose(built_in.velocity, 1.33 * plain.velocity, rtol=2e-3)


def test_a_plate_turns_half_of_the_missed_chips_back_and_a_box_keeps_most_of_the_rest() -> None:
    plain = caught(OpenHood(distance=0.05, **COMMON))
    plate = caught(OpenHood(distance=0.05, rebound=True, **COMMON))
    enters = 1.0 - np.exp(-plain.mouth)
    assert np.all(plain.mouth > 10.0)
    assert np.allclose(plain.thrown, 0.5 * enters)
    assert np.allclose(plate.thrown, 0.75 * enters)
    found = assess(with_hood(box(("", 0.02, 1.0)))).fate
    assert found is not None
    assert float(found.hood[0] / (found.hood[0] + found.floor[0])) == pytest.approx(0.8)


def test_an_extra_fan_draws_more_takes_its_share_and_filters_it() -> None:
    alone = assess(with_hood(OpenHood(distance=0.1, **COMMON)))
    fan = ExtraFan(0.1, FilterMedium("paper", 0.5))
    helped = assess(with_hood(OpenHood(distance=0.1, extra_fan=fan, **COMMON)))
    bare = assess(with_hood(OpenHood(distance=0.1, extra_fan=ExtraFan(0.1), **COMMON)))
    for found in (alone, helped, bare):
        assert found.fate is not None
    assert helped.captures[0].airborne[0] > alone.captures[0].airborne[0]
    assert helped.fate.extra[0] > 0.0  # type: ignore[union-attr]
    assert bare.fate.extra[0] == 0.0  # type: ignore[union-attr]
    assert helped.captures[0].total[0] > alone.captures[0].total[0]  # whatever catches counts
    assert bare.fate.blown[0] > helped.fate.blown[0] > 0.0  # type: ignore[union-attr]
    assert bare.fate.exhaust[0] < alone.fate.exhaust[0]  # type: ignore[union-attr] # less reaches the vacuum
    taken = bare.fate.blown[0] + bare.fate.extra[0]  # type: ignore[union-attr]
    assert bare.fate.escapes[0] == pytest.approx(  # type: ignore[union-attr]
        bare.fate.room_air[0] + bare.fate.exhaust[0] + taken  # type: ignore[union-attr]
    )


def two_ports(line: Line, second: Port) -> Line:
    """The line with another port of the same tool beside its own."""
    branch = line.branches[0]
    assert branch.port is not None
    own = replace(branch, port=replace(branch.port, tool="Sander"))
    return replace(line, branches=(own, Branch("second", second, (Hose("second-hose", 0.038, 2.0),))))


def test_two_ports_of_one_tool_let_past_only_what_both_miss() -> None:
    hood = OpenHood(distance=0.05, **COMMON)
    both = assess(two_ports(with_hood(hood), Port("Above", 0.038, hood=hood, tool="Sander")))
    first, second = both.captures
    assert both.fate is not None
    line = disc_line()
    assert line.dust is not None
    floats = np.sum(line.dust.weights * floating_share(line.dust, line))
    missed = (1.0 - 0.98 * (1.0 - (1.0 - first.drawn) * (1.0 - second.drawn))) * floats  # past every hood, once
    assert first.tool_total[0] == second.tool_total[0] > max(first.total[0], second.total[0])
    assert np.allclose(both.fate.room_air, missed)
    assert float(sum(both.fate.share(end)[0] for end in both.fate.by_size)) == pytest.approx(1.0, abs=1e-12)


def test_an_inline_filter_holds_dust_wherever_it_stands() -> None:
    line = disc_line()
    sleeve = InlineFilter("sleeve", 0.05, FilterMedium("bag", 0.3))
    behind = assess(replace(line, trunk=(*line.trunk, sleeve)))
    ahead = assess(replace(line, branches=(replace(line.branches[0], elements=(*line.branches[0].elements, sleeve)),)))

    def held(found: Assessment) -> float:
        assert found.fate is not None
        assert float(sum(found.fate.share(end)[0] for end in found.fate.by_size)) == pytest.approx(1.0, abs=1e-12)
        return float(found.fate.inline[0])

    assert 0.0 < held(behind) < held(ahead)


def test_a_floor_nozzle_is_slower_the_higher_it_is_held() -> None:
    low, high = (caught(FloorNozzle(width=0.25, gap=gap, **COMMON)) for gap in (0.004, 0.012))
    assert np.allclose(low.velocity, 3.0 * high.velocity)


def test_closing_a_box_in_is_found_to_help_for_nothing() -> None:
    line = with_hood(box(("", 0.06, 1.0)))
    found = {outcome.candidate.kind: outcome for outcome in try_all(line, 0, candidates(line, 0))}
    assert found["close-in"].in_bin is not None
    assert found["close-in"].in_bin[1] > found["close-in"].in_bin[0]


def test_opening_a_tool_alone_opens_all_its_ports() -> None:
    hood = OpenHood(distance=0.05, **COMMON)
    line = two_ports(with_hood(hood), Port("Above", 0.038, hood=hood, tool="Sander"))
    other = replace(line.branches[1], id="other", port=Port("Saw", 0.05, hood=hood))
    gated = tuple(replace(branch, gate_opening=0.0) for branch in (*line.branches, other))
    tree = replace(line, branches=gated)
    assert [leaf.open for leaf in line_alone(tree, 0).leaves] == [True, True, False]
    assert [leaf.open for leaf in line_alone(tree, 2).leaves] == [False, False, True]
    assert float(each_alone(tree).flow[0]) == pytest.approx(
        float(assess(line_alone(tree, 0)).point.port_flow[0, 0]), rel=1e-6
    )


def test_the_air_of_all_ports_of_a_tool_counts_against_what_contains_its_dust() -> None:
    hood = OpenHood(distance=0.05, extra_fan=ExtraFan(0.05), **COMMON)
    line = two_ports(with_hood(hood), Port("Above", 0.038, hood=OpenHood(distance=0.05, **COMMON), tool="Sander"))
    found = assess(line)
    drawn = float(tool_flow(line, found.point, 0)[0])
    assert drawn == pytest.approx(float(found.point.port_flow[:, 0].sum()) + 0.05)


def test_a_port_with_dust_of_its_own_is_judged_by_it_and_several_are_mixed() -> None:
    line = disc_line()
    branch = line.branches[0]
    assert branch.port is not None
    metal = replace(branch, id="grinder", elements=(), port=replace(branch.port, dust=DUSTS["saw"], dust_rate=8e-5))
    both = with_dust(replace(line, branches=(branch, metal)))
    assert both.dust is not None
    assert both.dust.kind == "mixture"
    assert float(both.dust.weights.sum()) == pytest.approx(1.0)
    shut = replace(both, branches=(replace(branch, gate_opening=0.0), metal))
    assert with_dust(shut).dust is DUSTS["saw"]
    back = with_dust(replace(both, branches=(branch, replace(metal, gate_opening=0.0))))
    assert back.dust is line.dust  # the line's own, not what was open before
