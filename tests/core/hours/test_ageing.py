"""Ageing: published lives within a factor, conservation on the filters, and the order that must hold."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.elements import InlineFilter
from fenwick.core.components.hood import OpenHood
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.hours.ageing import HOUR, AgeingMap, Course, Filters, ageing_map, bin_hours, without_separators
from fenwick.core.hours.march import march
from fenwick.core.hours.upkeep import LONG, Prices, cleanings, cost_per_hour, upkeep
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from tests.lines import disc_line

DOWN = 0.75


def dusty(rate: float = 0.150 / HOUR, leak: float = 0.0, area: float = 0.3, held: float = 0.0) -> Line:
    """P120 at a rate, all of it caught, on so much paper behind a slotted disc."""
    line = disc_line(leak=leak, filter=FilterMedium("paper", area, held))
    branch = line.branches[0]
    assert branch.port is not None
    hood = OpenHood(distance=1e-4, release="still", thrown_share=1.0)
    port = replace(branch.port, dust_rate=rate, hood=hood)
    return replace(line, branches=(replace(branch, port=port),))


def with_cyclone(line: Line) -> Line:
    """The line with a small high-efficiency cyclone in the disc's place."""
    d = 0.15
    shape = CycloneGeometry(0.5 * d, 0.2 * d, d, 0.5 * d, 0.5 * d, 1.5 * d, 4.0 * d, 0.375 * d)
    cyclone = Cyclone("sep", shape, "smooth", bin=line.separators[0].bin, tilt=0.0, swapped=False)
    return replace(line, trunk=(cyclone, *line.trunk[1:]))


def mapped(line: Line) -> AgeingMap:
    """Its map."""
    found = ageing_map(line, 0)
    assert found is not None
    return found


def paper(*areas: float, bag: float = 0.0) -> Filters:
    """Clean paper filters."""
    area = np.array(areas)
    return Filters("paper", area, np.full_like(area, bag), np.zeros_like(area), np.zeros_like(area))


def life(line: Line, *areas: float) -> np.ndarray:
    """Hours until the air is down by a quarter."""
    return march(mapped(line), paper(*areas), 400.0).life(DOWN)


def test_published_lives_on_a_small_paper_filter_within_a_factor_of_1_3() -> None:
    assert life(without_separators(dusty()), 0.3)[0] == pytest.approx(1.0, rel=0.3)
    assert 6.0 / 1.3 <= life(dusty(leak=5e-6), 0.3)[0] <= 7.0 * 1.3
    assert life(with_cyclone(dusty()), 0.3)[0] >= 50.0 / 1.3


def test_life_grows_with_the_square_of_the_area() -> None:
    one, two, four = life(dusty(), 0.15, 0.3, 0.6)
    assert two / one == pytest.approx(4.0, rel=0.03)
    assert four / two == pytest.approx(4.0, rel=0.03)


def test_what_arrives_is_on_the_filter_in_the_tank_or_blown_out() -> None:
    line = without_separators(dusty())
    found = mapped(line)
    course = march(found, paper(2.0), 2.0)
    made = found.rate * 2.0 * HOUR
    on_filter = course.load[-1, 0] * 2.0
    blown = np.trapezoid(course.exhaust[:, 0], course.hours) * HOUR * found.rate
    assert 0.3 * made < on_filter + blown < made  # the rest lies in the tank
    assert on_filter > 0.0


def test_halving_the_steps_hardly_moves_a_life(monkeypatch: pytest.MonkeyPatch) -> None:
    coarse = life(dusty(), 0.3)[0]
    monkeypatch.setattr("fenwick.core.hours.march.STEPS", 300)
    assert coarse == pytest.approx(life(dusty(), 0.3)[0], rel=0.01)


@settings(max_examples=8)
@given(st.floats(0.02, 0.4), st.floats(1.3, 4.0), st.floats(0.0, 2e-5))
def test_more_dust_ages_it_faster_and_a_separator_slower(rate: float, more: float, leak: float) -> None:
    slow, fast = dusty(rate / HOUR, leak), dusty(rate * more / HOUR, leak)
    assert life(fast, 0.3)[0] <= life(slow, 0.3)[0]
    assert life(without_separators(slow), 0.3)[0] <= life(slow, 0.3)[0]
    course = march(mapped(slow), paper(0.3), 50.0)
    assert np.all(np.diff(course.flow[:, 0]) <= 1e-12)
    assert np.all(np.diff(course.load[:, 0]) >= -1e-12)
    assert np.all(course.exhaust[:, 0] <= course.exhaust[0, 0] * (1.0 + 1e-9))  # a cake filters better


def test_a_bag_takes_the_load_and_costs_air() -> None:
    found = mapped(dusty())
    bare, bagged = (march(found, paper(0.3, bag=area), 20.0) for area in (0.0, 0.25))
    assert bagged.load[-1, 0] < 0.2 * bare.load[-1, 0]
    assert bagged.flow[0, 0] < bare.flow[0, 0]


def test_an_inline_filter_loads_up_and_chokes_the_line() -> None:
    line = dusty()
    sleeve = InlineFilter("sleeve", 0.05, FilterMedium("bag", 0.1))
    branch = line.branches[0]
    sleeved = replace(line, branches=(replace(branch, elements=(*branch.elements, sleeve)),))
    assert life(sleeved, 0.3)[0] < life(line, 0.3)[0]


def test_unknown_dust_or_no_filter_is_not_followed() -> None:
    assert ageing_map(replace(dusty(), dust=None), 0) is None
    assert ageing_map(dusty(rate=0.0), 0) is None
    bare = dusty()
    assert ageing_map(replace(bare, vacuum=replace(bare.vacuum, filter=None)), 0) is None
    assert upkeep(replace(bare, dust=None), 0, 10.0) is None


def test_the_bin_fills_by_what_it_keeps() -> None:
    line = dusty()
    found = mapped(line)
    hours = bin_hours(found, line)
    assert hours is not None
    assert line.dust is not None
    litres = found.rate * HOUR * hours * float(found.binned[0, 0]) / float(line.dust.bulk_density or 0.0)
    assert 0.01 < litres < float(line.separators[0].bin.volume_to(1.0))
    assert bin_hours(mapped(without_separators(line)), without_separators(line)) is None


def test_cleaning_restores_less_each_time_until_the_filter_is_worn() -> None:
    found = cleanings(10.0, RuleBook())
    assert found is not None
    assert found.between == pytest.approx((10.0, 8.0, 6.4, 5.12))
    assert found.total == pytest.approx(29.52)
    assert cleanings(0.0, RuleBook()) is None
    endless = cleanings(float("inf"), RuleBook())
    assert endless is not None
    assert endless.between[0] == LONG


def test_costs_and_payback_by_hand() -> None:
    found = upkeep(dusty(area=0.6), 0, 10.0, Prices(filter=20.0, separator=45.0), weekly=5.0)
    assert found is not None
    assert found.without is not None
    with_it, without = found.with_it.cost, found.without.cost
    assert with_it == pytest.approx(20.0 / (2.952 * found.with_it.life))
    assert without == pytest.approx(20.0 / (2.952 * found.without.life))
    assert found.payback == pytest.approx(45.0 / (without - with_it))  # type: ignore[operator]
    assert found.payback_weeks == pytest.approx(found.payback / 5.0)  # type: ignore[operator]
    assert found.bin_weeks == pytest.approx(found.bin_hours / 5.0)  # type: ignore[operator]
    unpriced = upkeep(dusty(area=0.6), 0, 10.0)
    assert unpriced is not None
    assert (unpriced.payback, unpriced.with_it.cost, unpriced.bin_weeks) == (None, None, None)


def test_the_smallest_filter_just_lasts() -> None:
    found = upkeep(dusty(), 0, 10.0)
    assert found is not None
    assert found.smallest is not None
    assert life(dusty(), found.smallest)[0] == pytest.approx(10.0, rel=0.05)


def test_from_today_less_is_left_and_the_cake_filters_better() -> None:
    found = upkeep(dusty(held=0.03), 0, 10.0)
    assert found is not None
    assert found.now_left is not None
    assert 0.0 < found.now_left < found.with_it.life
    assert found.today < 1.0
    assert found.exhaust_today < found.exhaust_clean
    caked = upkeep(dusty(held=0.25), 0, 10.0)
    assert caked is not None
    assert caked.now_left == 0.0


def test_a_course_that_never_falls_has_no_end() -> None:
    flat = np.full((3, 1), 0.04)
    course = Course(np.array([0.0, 1.0, 2.0]), flat, flat, flat, flat, flat, flat)
    assert np.isinf(course.life(DOWN)[0])
    endless = cleanings(float("inf"), RuleBook())
    assert cost_per_hour(float("inf"), False, endless, Prices(filter=29.52)) == pytest.approx(29.52 / (2.952 * LONG))
