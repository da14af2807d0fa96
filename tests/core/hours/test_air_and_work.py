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
from fenwick.core.formulas.sizes import BREATHED, SIZES, share_below
from fenwick.core.hours.air import A_DAY, DustSource, Room, clearing, fine_source, mask_level, room_of, session
from fenwick.core.hours.upkeep import cake_level, life_level
from fenwick.core.hours.work import Job, by_class, done, room_in_bin, week
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

RULES = RuleBook()
HOUR = 3600.0
FALLS = np.array([[1e-5], [2e-3]])  #: two classes of grains: one that hangs, one that falls
SOURCE = DustSource(np.array([[1e-9], [1e-9]]), np.array([[5e-10], [0.0]]), FALLS, np.array([0.3]))
CLEAR = one_value(RULES["room.clear"])


@pytest.fixture
def line() -> Line:
    """The demo's."""
    return build_line(demo_rig())


def by_machine(name: str) -> Job:
    """An hour of work at the first port, twice a week."""
    return Job(name, name, 0, 0.15, 2.0, HOUR)


def test_what_falls_leaves_the_air_sooner_and_a_cleaner_adds_to_all() -> None:
    room = Room(50.0, 6.0 / HOUR)
    assert one_value(room.rate) == pytest.approx(6.0 / HOUR)
    decay = room.decay(FALLS)[:, 0]
    assert decay == pytest.approx([6.0 / HOUR + 1e-5 / 2.4, 6.0 / HOUR + 2e-3 / 2.4])
    cleaned = replace(room, cleaned=50.0 * 6.0 / HOUR)
    assert one_value(cleaned.rate) == pytest.approx(12.0 / HOUR)
    tall = replace(room, height=4.8)
    assert tall.decay(FALLS)[1, 0] < decay[1]


def test_the_mask_comes_off_when_the_air_is_clean_by_hand() -> None:
    """One class of grains: the level is reached after ln(peak/level)/decay."""
    one = DustSource(np.array([[1e-7]]), np.array([[0.0]]), np.array([[0.0]]), np.array([0.0]))
    room = Room(40.0, 4.0 / HOUR)
    found = clearing(room, one, 600.0, CLEAR)
    rate = 4.0 / HOUR
    peak = 1e-7 / (40.0 * rate) * (1.0 - np.exp(-rate * 600.0))
    assert float(found.peak[0]) == pytest.approx(peak)
    assert float(found.clears[0]) == pytest.approx(np.log(peak / CLEAR) / rate)
    assert float(found.dose[0]) == pytest.approx(1e-7 * 600.0 / (40.0 * rate))


@given(st.floats(1e-11, 1e-5), st.floats(0.0, 1.0), st.floats(0.2, 20.0), st.floats(10.0, 300.0))
def test_better_capture_always_shortens_the_wait(made: float, better: float, changes: float, volume: float) -> None:
    room = Room(volume, changes / HOUR)

    def after(share: float) -> float:
        given_off = made * share * np.array([[0.7], [0.3]])
        return float(clearing(room, DustSource(given_off, given_off, FALLS, np.zeros(1)), 600.0, CLEAR).clears[0])

    assert after(better) <= after(1.0)
    assert after(0.0) == 0.0
    assert after(1.0) == 0.0 or after(1e-9 * CLEAR / made) == 0.0


def test_nothing_escapes_and_no_mask_is_worn() -> None:
    none = DustSource(np.zeros((2, 1)), np.zeros((2, 1)), FALLS, np.zeros(1))
    found = session(Room(40.0, 0.0), none, 600.0, 3600.0, RULES)
    assert (found.peak, found.clears, found.dose) == (0.0, 0.0, 0.0)


def test_where_air_changes_are_not_known_a_shut_room_is_assumed() -> None:
    assert one_value(room_of(50.0, None, 0.0, RULES).changes) == pytest.approx(one_value(RULES["room.shut"]) / HOUR)
    assert one_value(room_of(50.0, 0.0, 0.0, RULES).changes) == 0.0  # known to be none


def test_a_peak_by_hand() -> None:
    room = Room(40.0, 4.0 / HOUR)
    found = session(room, SOURCE, 0.5 * HOUR, 2.0 * HOUR, RULES)
    rates = 4.0 / HOUR + FALLS[:, 0] / 2.4
    assert found.peak == pytest.approx(sum(1e-9 / (40.0 * r) * (1.0 - np.exp(-r * 0.5 * HOUR)) for r in rates))
    assert float(np.max(found.breathed)) == pytest.approx(found.peak, rel=1e-3)
    assert found.breathed[0] == 0.0
    assert found.breathed[-1] < found.peak


def test_without_any_air_change_what_does_not_fall_stays() -> None:
    hangs = DustSource(np.array([[2e-7]]), np.array([[0.0]]), np.array([[0.0]]), np.zeros(1))
    found = session(Room(40.0, 0.0), hangs, 600.0, 3600.0, RULES)
    assert found.peak == pytest.approx(2e-7 * 600.0 / 40.0)
    assert found.breathed[-1] == pytest.approx(found.peak)
    assert not found.clears < A_DAY


@given(st.floats(10.0, 300.0), st.floats(0.2, 30.0), st.floats(60.0, 4 * HOUR))
def test_the_finest_is_never_more_than_all_that_is_breathed(volume: float, changes: float, duration: float) -> None:
    found = session(Room(volume, changes / HOUR), SOURCE, duration, 2.0 * duration, RULES)
    assert np.all(found.deep <= found.breathed + 1e-30)
    assert np.all(found.breathed >= 0.0)
    stopped = found.time >= duration
    assert np.all(np.diff(found.breathed[stopped]) <= 1e-20)
    assert np.all(np.diff(found.breathed[~stopped]) >= -1e-20)


def test_a_larger_room_and_more_air_are_cleaner() -> None:
    rooms = [Room(v, c / HOUR) for v, c in ((20, 1), (40, 1), (40, 6), (80, 12))]
    peaks = [session(room, SOURCE, HOUR, HOUR, RULES).peak for room in rooms]
    assert peaks == sorted(peaks, reverse=True)


def test_what_is_breathed_is_what_the_fate_says_of_the_fine_dust(line: Line) -> None:
    found = assess(line)
    source = fine_source(line, found, 1e-4)
    assert source is not None
    assert found.fate is not None
    fine = share_below(BREATHED)[:, 0]
    told = sum(float(np.sum(fine * found.fate.by_size[end][:, 0])) for end in ("room_air", "exhaust"))
    assert float(source.breathed_rate[0]) == pytest.approx(1e-4 * told)
    assert 0.0 < source.deep_share < 1.0
    assert 0.0 <= float(source.through_filter[0]) <= 1.0
    twice = fine_source(line, found, 2e-4)
    assert twice is not None
    assert float(twice.breathed_rate[0]) == pytest.approx(2.0 * float(source.breathed_rate[0]))


def test_the_class_that_holds_a_limit_is_cut_there() -> None:
    """Not all of it or nothing: a limit that moves a little moves what is below it a little."""
    below = [float(np.sum(share_below(size))) for size in np.geomspace(3e-6, 12e-6, 200)]
    assert np.all(np.diff(below) > 0.0)
    assert np.max(np.diff(below)) < 0.1
    step = np.log(SIZES[1, 0] / SIZES[0, 0])
    assert below[-1] - below[0] == pytest.approx(np.log(4.0) / step)


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
    classes = by_class(fate, (1e-5, 1e-4))
    assert sum(share for share, _ in classes) == pytest.approx(1.0)
    for share, ends in classes:
        assert share == 0.0 or sum(ends.values()) == pytest.approx(1.0)
    assert classes[0][1]["exhaust"] >= classes[2][1]["exhaust"]  # the finest passes the filter


def test_a_life_is_judged_by_what_is_asked_of_it_and_a_cake_by_the_air_it_leaves() -> None:
    assert [life_level(life, 10.0, RULES) for life in (float("inf"), 10.0, 9.0, 0.1)] == [OK, OK, WATCH, ACT]
    levels = [cake_level(today, RULES) for today in np.linspace(1.0, 0.0, 50)]
    assert levels == sorted(levels)
    assert (levels[0], levels[-1]) == (OK, ACT)
