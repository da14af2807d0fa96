"""A particle monitor's log: known rooms read back, and logs that clocks and cables have spoilt."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.bench.trials.monitor import close_cuts, monitored, open_cut, ordered
from fenwick.core.formulas.room import concentration

MINUTE, HOUR = 60.0, 3600.0


def log_of(changes: float, noise: float = 0.0, cuts: int = 1, every: float = 10.0) -> list[tuple[float, float]]:
    """Rows of a monitor in a room with so many air changes an hour: ten quiet minutes, then cuts of five minutes."""
    rng = np.random.default_rng(3)
    time = np.arange(0.0, 10 * MINUTE + cuts * 90 * MINUTE, every)
    value = np.full_like(time, 12.0)
    for i in range(cuts):
        since = time - (10 + 90 * i) * MINUTE
        more = concentration(np.maximum(since, 0.0), 1e-7, 43.2, changes / HOUR, 5 * MINUTE) * 1e9
        value = value + np.where(since > 0.0, more, 0.0)
    return [(float(t), float(max(v + noise * rng.standard_normal(), 0.0))) for t, v in zip(time, value, strict=True)]


@pytest.mark.parametrize("changes", [4.0, 6.0, 12.0])
def test_air_changes_are_read_back_from_the_decay(changes: float) -> None:
    found = monitored(ordered(log_of(changes)), [(10 * MINUTE, 15 * MINUTE)])
    (cut,) = found.cuts
    assert found.baseline == pytest.approx(12.0)
    assert cut.changes == pytest.approx(changes, rel=0.01)
    assert cut.back_after is not None
    peak = max(v for _, v in log_of(changes))
    assert cut.peak == pytest.approx(peak)
    expected = np.log((peak - 12.0) / (0.2 * 12.0)) / (changes / HOUR)
    assert cut.back_after == pytest.approx(expected, abs=15.0)


def test_noise_widens_the_rate_and_the_truth_stays_within_it() -> None:
    found = monitored(ordered(log_of(6.0, noise=4.0)), [(10 * MINUTE, 15 * MINUTE)])
    (cut,) = found.cuts
    assert cut.changes is not None
    assert cut.changes_sd is not None
    assert abs(cut.changes - 6.0) < 6.0 * cut.changes_sd + 0.3


def test_each_cut_is_read_by_itself() -> None:
    cuts = [((10 + 90 * i) * MINUTE, (15 + 90 * i) * MINUTE) for i in range(3)]
    found = monitored(ordered(log_of(8.0, cuts=3)), cuts)
    assert len(found.cuts) == 3
    assert np.allclose([cut.area for cut in found.cuts], found.cuts[0].area, rtol=0.02)


def test_a_shut_room_is_not_back_within_the_log() -> None:
    (cut,) = monitored(ordered(log_of(0.2)), [(10 * MINUTE, 15 * MINUTE)]).cuts
    assert cut.back_after is None


@given(st.lists(st.permutations(range(4)), min_size=10, max_size=10))
def test_the_order_of_rows_close_by_does_not_matter(blocks: list[list[int]]) -> None:
    order = [4 * block + i for block, places in enumerate(blocks) for i in places]
    rows = log_of(6.0)[40:80]
    straight, shuffled = ordered(rows), ordered([rows[i] for i in order])
    assert np.array_equal(straight.time, shuffled.time)
    assert np.array_equal(straight.value, shuffled.value)
    assert (shuffled.out_of_order > 0) == (order != sorted(order))


def test_what_is_wrong_with_a_log_is_counted_and_kept_apart() -> None:
    rows = log_of(6.0)[:50]
    spoilt = [*rows[:20], rows[19], (rows[20][0], float("nan")), (rows[21][0], -5.0), *rows[20:]]
    log = ordered(spoilt, unreadable=2)
    assert log.duplicates == 1
    assert log.unreadable == 4
    assert log.time.size == 50
    assert log.jumps == ()


def test_a_clock_that_leaps_is_told() -> None:
    rows = log_of(6.0)[:60]
    leapt = [*rows[:30], *((t + 7 * HOUR, v) for t, v in rows[30:])]
    assert len(ordered(leapt).jumps) == 1
    back = [*rows[:30], *((t - 7 * HOUR, v) for t, v in rows[30:])]
    assert len(ordered(back).jumps) == 1


def test_what_lies_beyond_a_leap_is_kept_apart_and_not_mixed_in() -> None:
    rows = [(10.0 * i, 5.0) for i in range(60)]
    begun_again = [*rows, *((10.0 * i, 50.0) for i in range(20))]  # the monitor restarted: its clock begins anew
    log = ordered(begun_again)
    assert (log.time.size, log.beyond, len(log.jumps)) == (60, 20, 1)
    assert set(log.value) == {5.0}
    late = ordered([*rows[:10], *((t + 2 * HOUR, v) for t, v in rows[10:])])
    assert (late.time.size, late.beyond) == (50, 10)
    assert monitored(log, []).baseline == 5.0


def test_of_two_values_at_one_time_the_first_read_is_kept() -> None:
    log = ordered([(0.0, 9.0), (1.0, 9.0), (1.0, 3.0), (2.0, 9.0)])
    assert list(log.value) == [9.0, 9.0, 9.0]
    assert log.duplicates == 1


def test_a_log_that_begins_with_the_cut_has_no_baseline() -> None:
    found = monitored(ordered(log_of(6.0)), [(0.0, 5 * MINUTE)])
    assert found.baseline is None
    assert found.cuts[0].back_after is None
    assert found.cuts[0].during is None  # over what? nobody knows
    assert found.cuts[0].area is None
    assert found.cuts[0].changes is None
    assert found.added is None
    assert monitored(ordered([]), [(0.0, 1.0)]).cuts[0].peak is None


def test_what_a_cut_adds_comes_with_what_the_noise_leaves_in_it() -> None:
    values = []
    for seed in range(200):
        rng = np.random.default_rng(seed)
        rows = [(10.0 * i, 10.0 + (50.0 if 30 <= i <= 36 else 0.0) + 2.0 * rng.standard_normal()) for i in range(60)]
        added = monitored(ordered(rows), [(300.0, 360.0)]).added
        assert added is not None
        assert added[1] is not None
        values.append(added)
    truth = np.mean([value for value, _ in values])
    assert truth == pytest.approx(50.0, abs=0.2)
    assert np.std([value for value, _ in values]) == pytest.approx(np.mean([sd for _, sd in values]), rel=0.2)


def test_cuts_are_opened_and_closed_on_the_clock() -> None:
    cuts = open_cut((), 100.0)
    assert close_cuts(cuts, 160.0) == ((100.0, 160.0),)
    assert open_cut(cuts, 200.0) == ((100.0, 200.0), (200.0, 200.0))
    assert close_cuts(cuts, 100.0)[0][1] > 100.0
    assert close_cuts(((1.0, 2.0),), 9.0) == ((1.0, 2.0),)
