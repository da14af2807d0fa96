"""The air one breathes over a job, and a week's work: by hand, in order, at the ends of what rooms and weeks are."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.arrays import one_value
from fenwick.core.dust.fate import ENDS
from fenwick.core.dust.separation import fill_mark
from fenwick.core.formulas.sizes import BREATHED, SIZES
from fenwick.core.hours.air import MASK_OFF, DustSource, Room, fine_source, mask_level, room_of, session
from fenwick.core.hours.upkeep import LONG, Prices, cake_level, cleanings, cost_per_hour, life_level
from fenwick.core.hours.work import Job, by_class, done, room_in_bin, week
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

RULES = RuleBook()
HOUR = 3600.0
SOURCE = DustSource(np.array([2e-9]), np.array([5e-10]), np.array([0.3]))


@pytest.fixture
def line() -> Line:
    """The demo's."""
    return build_line(demo_rig())


def by_machine(name: str) -> Job:
    """An hour of work at the first port, twice a week."""
    return Job(name, name, 0, 0.15, 2.0, HOUR)


def test_a_room_clears_by_its_air_changes_and_a_cleaner_adds_to_them() -> None:
    room = Room(50.0, 6.0 / HOUR)
    assert one_value(room.rate) == pytest.approx(6.0 / HOUR)
    assert one_value(room.clears) == pytest.approx(np.log(1.0 / MASK_OFF) / 6.0 * HOUR)
    cleaned = replace(room, cleaned=50.0 * 6.0 / HOUR)
    assert one_value(cleaned.rate) == pytest.approx(12.0 / HOUR)
    assert one_value(cleaned.clears) == pytest.approx(0.5 * one_value(room.clears))


def test_where_air_changes_are_not_known_a_shut_room_is_assumed() -> None:
    assert one_value(room_of(50.0, None, 0.0, RULES).changes) == pytest.approx(one_value(RULES["room.shut"]) / HOUR)
    assert one_value(room_of(50.0, 0.0, 0.0, RULES).changes) == 0.0  # known to be none


def test_a_peak_by_hand() -> None:
    room = Room(40.0, 4.0 / HOUR)
    found = session(room, SOURCE, 0.5 * HOUR, 2.0 * HOUR)
    rate = 4.0 / HOUR
    assert found.peak == pytest.approx(2e-9 / (40.0 * rate) * (1.0 - np.exp(-rate * 0.5 * HOUR)))
    assert float(np.max(found.breathed)) == pytest.approx(found.peak, rel=1e-3)
    assert found.breathed[0] == 0.0
    assert found.breathed[-1] < found.peak


def test_without_any_air_change_the_dust_stays() -> None:
    found = session(Room(40.0, 0.0), SOURCE, 600.0, 3600.0)
    assert found.peak == pytest.approx(2e-9 * 600.0 / 40.0)
    assert found.breathed[-1] == pytest.approx(found.peak)
    assert not found.clears < 1e6


@given(st.floats(10.0, 300.0), st.floats(0.2, 30.0), st.floats(60.0, 4 * HOUR))
def test_the_finest_is_never_more_than_all_that_is_breathed(volume: float, changes: float, duration: float) -> None:
    found = session(Room(volume, changes / HOUR), SOURCE, duration, 2.0 * duration)
    assert np.all(found.deep <= found.breathed + 1e-30)
    assert np.all(found.breathed >= 0.0)
    stopped = found.time >= duration
    assert np.all(np.diff(found.breathed[stopped]) <= 1e-20)
    assert np.all(np.diff(found.breathed[~stopped]) >= -1e-20)


def test_a_larger_room_and_more_air_are_cleaner() -> None:
    peaks = [session(Room(v, c / HOUR), SOURCE, HOUR, HOUR).peak for v, c in ((20, 1), (40, 1), (40, 6), (80, 12))]
    assert peaks == sorted(peaks, reverse=True)


def test_what_is_breathed_is_what_the_fate_says_of_the_fine_dust(line: Line) -> None:
    found = assess(line)
    source = fine_source(line, found, 1e-4)
    assert source is not None
    assert found.fate is not None
    fine = SIZES[:, 0] <= BREATHED
    told = sum(float(np.sum(found.fate.by_size[end][fine, 0])) for end in ("room_air", "exhaust"))
    assert float(source.breathed[0]) == pytest.approx(1e-4 * told)
    assert float(source.deep[0]) <= float(source.breathed[0])
    assert 0.0 <= float(source.through_filter[0]) <= 1.0
    twice = fine_source(line, found, 2e-4)
    assert twice is not None
    assert float(twice.breathed[0]) == pytest.approx(2.0 * float(source.breathed[0]))


def test_exhaust_led_outdoors_is_not_breathed(line: Line) -> None:
    out = replace(line, vacuum=replace(line.vacuum, exhaust_outdoors=True))
    source = fine_source(out, assess(out), 1e-4)
    assert source is not None
    assert float(source.through_filter[0]) == 0.0


def test_of_unknown_dust_nothing_is_said(line: Line) -> None:
    unknown = replace(line, dust=None)
    assert fine_source(unknown, assess(unknown), 1e-4) is None


def test_the_longer_masked_the_worse() -> None:
    levels = [mask_level(seconds, RULES) for seconds in np.linspace(0.0, 6 * HOUR, 60)]
    assert levels == sorted(levels)
    assert (levels[0], levels[-1]) == (OK, ACT)


def test_a_job_fills_the_bin_by_what_ends_in_it(line: Line) -> None:
    one = done(line, by_machine("sand"))
    assert one.found.fate is not None
    assert line.dust is not None
    assert line.dust.bulk_density is not None
    assert one.heap == pytest.approx(0.15 * float(one.found.fate.bin[0]) / line.dust.bulk_density)
    left = room_in_bin(line)
    assert left is not None
    assert one.until_full == pytest.approx(left / one.heap)
    assert one.mass_a_week == pytest.approx(0.3)


def test_a_week_is_the_sum_of_its_jobs_and_all_of_it_ends_somewhere(line: Line) -> None:
    jobs = [by_machine("a"), replace(by_machine("b"), mass=0.05, times=5.0)]
    found = week(line, jobs)
    assert found.made == pytest.approx(0.3 + 0.25)
    assert sum(found.ends.values()) == pytest.approx(found.made)
    assert set(found.ends) == set(ENDS)
    heaps = [one.heap * one.job.times for one in found.jobs if one.heap is not None]
    assert found.heap == pytest.approx(sum(heaps))
    assert found.bin_lasts == pytest.approx(float(fill_mark(line.separators[0], line.rules)[1]) / sum(heaps))


def test_a_week_without_work_makes_nothing_and_says_nothing_of_the_bin(line: Line) -> None:
    found = week(line, [])
    assert (found.made, found.heap, found.bin_lasts) == (0.0, None, None)
    assert all(mass == 0.0 for mass in found.ends.values())


def test_a_bin_past_its_mark_has_no_room_left_and_a_line_without_one_none_to_tell(line: Line) -> None:
    stage = line.separators[0]
    full = stage.changed(bin=replace(stage.bin, fill_height=stage.bin.height))
    past = replace(line, trunk=tuple(full if part.id == stage.id else part for part in line.trunk))
    assert room_in_bin(past) == 0.0
    bare = replace(line, trunk=tuple(part for part in line.trunk if part.id != stage.id))
    assert room_in_bin(bare) is None
    assert done(bare, by_machine("sand")).heap is None


def test_the_classes_of_dust_add_up_to_all_of_it(line: Line) -> None:
    fate = assess(line).fate
    assert fate is not None
    classes = by_class(fate, SIZES, (1e-5, 1e-4))
    assert sum(share for share, _ in classes) == pytest.approx(1.0)
    for share, ends in classes:
        assert share == 0.0 or sum(ends.values()) == pytest.approx(1.0)
    assert classes[0][1]["exhaust"] >= classes[2][1]["exhaust"]  # the finest passes the filter


def test_every_cleaning_comes_sooner_until_the_filter_is_worn() -> None:
    found = cleanings(40.0, RULES)
    assert found is not None
    assert found.between[0] == 40.0
    assert all(later < sooner for sooner, later in zip(found.between, found.between[1:], strict=False))
    assert found.between[-1] >= one_value(RULES["filter.worn"]) * 40.0
    assert found.total == pytest.approx(sum(found.between))
    assert cleanings(0.0, RULES) is None
    endless = cleanings(float("inf"), RULES)
    assert endless is not None
    assert endless.between[0] == LONG


def test_a_life_is_judged_by_what_is_asked_of_it_and_a_cake_by_the_air_it_leaves() -> None:
    assert [life_level(life, 10.0, RULES) for life in (float("inf"), 10.0, 9.0, 0.1)] == [OK, OK, WATCH, ACT]
    levels = [cake_level(today, RULES) for today in np.linspace(1.0, 0.0, 50)]
    assert levels == sorted(levels)
    assert (levels[0], levels[-1]) == (OK, ACT)


def test_what_an_hour_costs_by_hand_and_not_where_a_price_is_missing() -> None:
    cleaned = cleanings(40.0, RULES)
    assert cleaned is not None
    assert cost_per_hour(40.0, True, None, Prices(bag=8.0)) == pytest.approx(0.2)
    assert cost_per_hour(40.0, False, cleaned, Prices(filter=20.0)) == pytest.approx(20.0 / cleaned.total)
    assert cost_per_hour(40.0, True, None, Prices(filter=20.0)) is None
    assert cost_per_hour(40.0, False, cleaned, Prices(bag=8.0)) is None
    assert cost_per_hour(0.0, True, None, Prices(bag=8.0)) is None
    assert cost_per_hour(float("inf"), True, None, Prices(bag=8.0)) == pytest.approx(8.0 / LONG)
