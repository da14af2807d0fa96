"""Separation, capture and fate at the operating point: shares stay shares, and worse is worse."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.dust import DUSTS
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.formulas import bin as bin_rules
from fenwick.core.formulas.sizes import SIZES, terminal_velocity
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.judging.strength import folding_suction
from tests.lines import disc_line


def check(line, name):  # type: ignore[no-untyped-def]
    """The check of that name."""
    return next(c for c in assess(line).checks if c.id == name)


@given(
    st.sampled_from(sorted(DUSTS)),
    st.floats(0.0, 0.44),
    st.floats(0.0, 2e-4),
    st.floats(0.0, 1.2),
    st.floats(0.0, 1e-3),
)
def test_shares_are_shares_and_the_dust_adds_up(dust: str, fill: float, leak: float, tilt: float, rate: float) -> None:
    found = assess(disc_line(dust=dust, fill=fill, leak=leak, tilt=tilt, rate=rate))
    grades = found.separations[0].grades
    assert grades is not None
    assert np.all((grades.kept >= 0) & (grades.kept <= 1))
    fate = found.fate
    assert fate is not None
    ends = [fate.bin, fate.filter, fate.exhaust, fate.room_air, fate.floor, fate.hood]
    assert sum(float(end[0]) for end in ends) == pytest.approx(1.0, abs=1e-9)
    assert min(float(end[0]) for end in ends) >= -1e-12


@pytest.mark.parametrize(
    "changes",
    [
        {"leak": np.linspace(0, 2e-4, 9)},
        {"fill": np.linspace(0.0, 0.45, 9)},
        {"tilt": np.linspace(0.0, 1.2, 9)},
    ],
    ids=["leak", "fill", "tilt"],
)
def test_kept_share_falls_with_leak_fill_and_tilt(changes: dict[str, np.ndarray]) -> None:
    kept = assess(disc_line(**changes)).efficiency[0]
    assert np.all(np.diff(kept) <= 1e-12)
    assert kept[-1] < kept[0]


def test_a_full_bin_keeps_nothing() -> None:
    assert assess(disc_line(fill=0.45)).efficiency[0][0] == 0.0


@pytest.mark.parametrize(("share", "kept"), [(0.0, 0.99), (0.05, 0.95), (0.10, 0.82), (0.15, 0.64)])
def test_sawdust_under_a_leaking_disc(share: float, kept: float) -> None:
    # published (about): share kept by the bin alone, at this much air drawn in below the separator
    flow, opening = 0.04, 0.033 * np.radians(258) * (0.17 - 0.033 / 2)
    falls = terminal_velocity(SIZES, 600.0, 1.2, 1.81e-5)
    exchange = bin_rules.exchange_share(opening, 12.0, flow, 0.006, 0.9)
    stir = bin_rules.stirring(0.3, 0.34, 5.0, 0.25)
    air = bin_rules.BinAir(flow, share * flow, exchange, stir, np.pi / 4 * 0.34**2, opening)
    stays = bin_rules.retention(falls, air, 7.0, 4.0)
    assert float(np.sum(DUSTS["saw"].weights * stays)) == pytest.approx(kept, abs=0.03)


def test_finer_dust_is_kept_less_and_floats_more() -> None:
    coarse, fine = (assess(disc_line(dust=dust, rate=None)) for dust in ("sanding-p80", "sanding-p240"))
    assert fine.efficiency[0][0] < coarse.efficiency[0][0]
    assert fine.fate.floor[0] < coarse.fate.floor[0]  # type: ignore[union-attr]


def test_moving_the_port_away_loses_dust_to_the_room() -> None:
    fate = assess(disc_line(distance=np.array([0.02, 0.05, 0.1, 0.2]))).fate
    assert fate is not None
    assert np.all(np.diff(fate.room_air) > 0)
    assert np.all(np.diff(fate.bin) < 0)


def test_band_holds_the_figure_and_leaves_the_line_alone() -> None:
    line = disc_line()
    band, kept = sureness(line).kept, assess(line).kept
    assert band is not None
    assert kept is not None
    assert 0 <= band.low < kept[0] < band.high <= 1
    assert not line.rules.replaced


def test_unknown_dust_leaves_out_what_needs_it_and_keeps_the_air() -> None:
    found = assess(replace(disc_line(), dust=None))
    assert found.fate is None
    assert found.carrying is None
    assert found.efficiency == ()
    assert found.separations[0].grades is None
    assert found.point.port_flow[0, 0] > 0.02
    assert sureness(replace(disc_line(), dust=None)).kept is None


def test_slow_hose_settles_and_fast_one_carries() -> None:
    assert check(disc_line(bore=0.075), "settling").level[0] == ACT
    assert check(disc_line(bore=0.038), "settling").level[0] == OK


def test_bin_folds_by_its_weakest_bay_and_a_ring_helps() -> None:
    plain, ringed = disc_line(), disc_line(stiffeners=(0.225,))
    assert check(plain, "bin-collapse").level[0] == ACT
    weak, strong = (folding_suction(line.separators[0], line) for line in (plain, ringed))
    assert strong is not None
    assert float(strong) > 1.9 * float(weak)
    unknown = replace(plain.separators[0], bin=replace(plain.separators[0].bin, wall=None))
    assert folding_suction(unknown, plain) is None


def test_leak_and_fill_checks_follow_their_limits() -> None:
    assert check(disc_line(leak=2e-6), "bin-leak").level[0] == OK
    assert check(disc_line(leak=1e-4), "bin-leak").level[0] == ACT
    assert [check(disc_line(fill=f), "bin-full").level[0] for f in (0.1, 0.38, 0.44)] == [OK, WATCH, ACT]


def test_long_chips_bridge_a_narrow_slot() -> None:
    assert check(disc_line(dust="planer"), "slot-bridging").level[0] == OK  # 25 mm chips, 30 mm slot
    disc = disc_line(dust="planer").separators[0]
    narrow = replace(disc, slots=(replace(disc.slots[0], width=0.02),))
    line = disc_line(dust="planer")
    assert check(replace(line, trunk=(narrow, line.trunk[1])), "slot-bridging").level[0] == WATCH


def test_a_label_that_promises_too_much_is_doubted() -> None:
    line = disc_line()
    assert check(replace(line, vacuum=replace(line.vacuum, electrical_power=1300.0)), "fan-believable").level[0] == OK
    assert check(replace(line, vacuum=replace(line.vacuum, electrical_power=400.0)), "fan-believable").level[0] == WATCH


def test_an_unknown_rule_is_refused() -> None:
    with pytest.raises(KeyError, match=r"no such rule: wall\.velvet"):
        disc_line().rules.with_values({"wall.velvet": 1.0})
