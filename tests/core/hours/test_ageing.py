"""Ageing: published lives within a factor, conservation on the filters, and the order that must hold."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import InlineFilter
from fenwick.core.components.hood import OpenHood
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.dust.cakes import settled_point, with_cakes
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.hours.ageing import HOUR, AgeingMap, ageing_map, bin_hours, without_separators
from fenwick.core.hours.course import Course, Filters
from fenwick.core.hours.lives import (
    LONG,
    Lives,
    PriceRange,
    Prices,
    Reckoned,
    VacuumRoom,
    cost_per_hour,
    lives,
    stays_after,
)
from fenwick.core.hours.march import march
from fenwick.core.hours.upkeep import other_bag, upkeep
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


def with_cyclone(line: Line, d: float = 0.15, finish: str = "smooth") -> Line:
    """The line with a small high-efficiency cyclone in the disc's place."""
    shape = CycloneGeometry(0.5 * d, 0.2 * d, d, 0.5 * d, 0.5 * d, 1.5 * d, 4.0 * d, 0.375 * d)
    cyclone = Cyclone("sep", shape, finish, bin=line.separators[0].bin, tilt=0.0, swapped=False)
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


def test_published_lives_on_a_small_paper_filter() -> None:
    """First life at 150 g/h of P120 on 0.3 m² of paper, fines at their median."""
    assert 0.5 <= life(without_separators(dusty()), 0.3)[0] <= 1.2
    for leak in (0.0, 5e-6):
        assert 4.0 <= life(dusty(leak=leak), 0.3)[0] <= 8.0
    for d in (0.12, 0.14, 0.16):
        assert 24.0 <= life(with_cyclone(dusty(), d), 0.3)[0] <= 50.0
    for d in (0.14, 0.16):
        assert 10.0 <= life(with_cyclone(dusty(), d, "shop-built"), 0.3)[0] <= 16.0


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
    arrives = found.rate * 2.0 * HOUR * float(np.sum(found.past[:, 0, 0, 0]))
    assert on_filter + blown + course.dropped[-1, 0] == pytest.approx(arrives, rel=0.01)
    assert arrives < made
    assert min(on_filter, course.dropped[-1, 0]) > 0.0


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
    litres = found.rate * HOUR * hours * float(found.binned[0, 0, 0]) / float(line.dust.bulk_density or 0.0)
    assert 0.01 < litres < float(line.separators[0].bin.volume_to(1.0))
    assert bin_hours(mapped(without_separators(line)), without_separators(line)) is None


def lives_of(line: Line, *areas: float, tank: float | None = 0.04, bag: float = 0.0, coated: bool = False) -> Lives:
    """The lives of filters on a line."""
    found, filters = mapped(line), paper(*areas, bag=bag)
    room = VacuumRoom(None, 0.024) if bag else VacuumRoom(tank, None)
    return lives(found, march(found, filters, LONG), filters, room, coated)


def test_a_filter_is_cleaned_tens_of_times_each_time_a_little_in_vain() -> None:
    found = lives_of(dusty(), 0.3)
    assert found.cleanings[0] == 40.0
    between = found.between[:, 0][found.between[:, 0] > 0.0]
    assert len(between) == 41
    assert np.all(np.diff(between) <= 1e-9)
    assert between[-1] / between[0] == pytest.approx(0.75, abs=0.04)  # a quarter of the cake stays in the end
    assert found.total[0] == pytest.approx(between.sum())
    film = lives_of(dusty(), 0.3, coated=True)
    assert film.total[0] > found.total[0]
    assert film.first[0] == found.first[0]


def test_what_stays_after_a_cleaning_by_hand() -> None:
    rules = RuleBook()
    assert float(stays_after(0.0, rules, False)) == 0.0
    assert float(stays_after(6.0, rules, False)) == pytest.approx(0.25 * (1.0 - np.exp(-1.0)))
    assert float(stays_after(1000.0, rules, False)) == pytest.approx(0.25)
    assert float(stays_after(6.0, rules, True)) < float(stays_after(6.0, rules, False))


def test_a_filter_spent_at_the_half_is_not_cleaned_again() -> None:
    line = dusty()
    stubborn = replace(line, rules=line.rules.with_values({"filter.stays": 0.9}))
    found = lives_of(stubborn, 0.3)
    assert 1.0 <= found.cleanings[0] < 10.0
    assert found.between[int(found.cleanings[0]), 0] >= 0.5 * found.first[0]


def test_a_vacuum_without_a_separator_is_full_before_its_filter_is_spent() -> None:
    """All that is made at 3 kg/h of shavings lies in its tank: 40 L at 90 kg/m³ take well over an hour."""
    line = without_separators(dusty(rate=3.0 / HOUR))
    shavings = replace(line, dust=DUSTS["planer"])
    found = lives_of(shavings, 0.6)
    arrives = mapped(shavings).rate * float(np.sum(mapped(shavings).past[:, 0, 0, 0]))
    assert found.tank_full[0] == pytest.approx(0.04 * 90.0 / arrives / HOUR, rel=0.15)
    small = lives_of(shavings, 0.6, tank=0.02)
    assert small.tank_full[0] < 0.6 * found.tank_full[0]
    assert found.tank_used[0] == 1.0
    kept = lives_of(replace(dusty(rate=3.0 / HOUR), dust=DUSTS["planer"]), 0.6)
    assert kept.tank_full[0] > 10.0 * found.tank_full[0]
    assert kept.tank_used[0] < 1.0


def test_shed_cakes_fill_the_tank_as_well() -> None:
    found = lives_of(dusty(), 0.3, tank=0.002)
    course = march(mapped(dusty()), paper(0.3), LONG)
    alone = course.until(course.dropped, np.array([0.002 * 260.0]))[0]
    assert found.first[0] < found.tank_full[0] < alone


def test_a_bag_ends_by_what_it_holds_where_it_does_not_cake_before() -> None:
    bagged = replace(without_separators(dusty(rate=3.0 / HOUR)), dust=DUSTS["planer"])
    found = lives_of(bagged, 0.6, bag=0.42)
    assert found.ends == ("bag-full",)
    assert found.first[0] == found.bag_full[0] < found.down[0]
    fine = lives_of(dusty(), 0.6, bag=0.42)
    assert fine.ends == ("down",)


def test_full_pleats_do_not_hold_the_air_up() -> None:
    """Beyond a kilogram on the square metre the dust takes area, and the air goes on falling."""
    course = march(mapped(without_separators(dusty())), paper(0.05), 60.0)
    assert course.load[-1, 0] > 2.0
    assert np.all(np.diff(course.flow[:, 0]) < 0.0)


def test_costs_and_payback_by_hand() -> None:
    prices = Prices(filter=PriceRange.of(20.0), separator=PriceRange.of(40.0, 50.0))
    found = upkeep(dusty(area=0.6), 0, 10.0, prices, weekly=5.0)
    assert found is not None
    assert found.without is not None
    with_it, without = found.with_it.cost, found.without.cost
    assert with_it == pytest.approx(20.0 / float(found.with_it.lives.total[0]))
    assert without == pytest.approx(20.0 / float(found.without.lives.total[0]))
    assert found.payback == pytest.approx(45.0 / (without - with_it))  # type: ignore[operator]
    assert found.payback_weeks == pytest.approx(found.payback / 5.0)  # type: ignore[operator]
    assert found.bin_weeks == pytest.approx(found.bin_hours / 5.0)  # type: ignore[operator]
    unpriced = upkeep(dusty(area=0.6), 0, 10.0)
    assert unpriced is not None
    assert (unpriced.payback, unpriced.with_it.cost, unpriced.bin_weeks) == (None, None, None)


def test_one_filter_has_one_resistance() -> None:
    """What the line loses at its filter today is where its course from today begins."""
    line = with_cakes(dusty(held=0.02))
    found = upkeep(line, 0, 10.0)
    assert found is not None
    assert found.now is not None
    point = settled_point(line)
    stage = line.separators[0]
    full = replace(line, trunk=tuple(_half_full(part) if part.id == stage.id else part for part in line.trunk))
    assert float(found.now.flow[0, 0]) == pytest.approx(float(settled_point(full).port_flow[0, 0]), rel=5e-3)
    assert float(found.now.flow[0, 0]) == pytest.approx(float(point.port_flow[0, 0]), rel=5e-3)


def _half_full(part: Any) -> Any:
    return part.changed(bin=replace(part.bin, fill_height=0.5 * part.bin.height))


def test_many_variants_march_as_each_alone() -> None:
    line = dusty()
    rates = {"filter.k2": np.array([0.5e5, 1e5, 2e5]), "capture.missed": np.array([0.05, 0.1, 0.2])}
    batch = replace(line, rules=line.rules.with_values(rates))
    together = march(mapped(batch), paper(0.3, 0.3, 0.3), 100.0).life(DOWN)
    for i, hours in enumerate(together):
        one = replace(line, rules=line.rules.with_values({key: float(values[i]) for key, values in rates.items()}))
        assert hours == pytest.approx(life(one, 0.3)[0] if np.isfinite(hours) else np.inf, rel=0.02)


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
    course = Course(np.array([0.0, 1.0, 2.0]), *([flat] * 9))
    assert np.isinf(course.life(DOWN)[0])


def test_a_bag_is_as_large_as_the_tank_it_hangs_in() -> None:
    line = dusty()
    vacuum = replace(line.vacuum, tank=0.040)
    assert other_bag(vacuum, line.rules) == pytest.approx(5.0 * 0.024 ** (2 / 3))
    assert other_bag(replace(vacuum, bag=FilterMedium("bag", 0.3)), line.rules) == 0.0


def test_an_inline_filter_costs_what_it_costs() -> None:
    found = upkeep(dusty(), 0, 10.0, Prices(filter=PriceRange.of(20.0)))
    assert found is not None
    plain = cost_per_hour(found.with_it.lives, False, Reckoned(filter=20.0))
    sleeved = cost_per_hour(found.with_it.lives, False, Reckoned(filter=20.0, inline=3.0))
    assert plain is not None
    assert sleeved is not None
    assert sleeved[0] - plain[0] == pytest.approx(3.0 / found.with_it.life)
