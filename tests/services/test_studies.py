"""A separator studied, a line over hours of work, a fault's case and the drawer: what pages ask the services for."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from fenwick.core.arrays import one_value
from fenwick.core.tuning.factors import spreads
from fenwick.core.tuning.fit import KEYS
from fenwick.data import Database
from fenwick.data.demo import demo_rig
from fenwick.data.lines import line_state
from fenwick.rig import Rig, check_rig
from fenwick.services.drawer import from_drawer
from fenwick.services.faults import case_of
from fenwick.services.hours import upkeep_of
from fenwick.services.separators import SeparatorStudy, study_of
from fenwick.services.solving import solve
from fenwick.shop.drawer import task_for


@pytest.fixture
def unknown_dust(document: dict[str, Any]) -> Rig:
    """A line of which nobody knows what dust it carries."""
    del document["dust"]
    return check_rig(document)


def kept_now(rig: Rig) -> float:
    """Of what enters, as the verdict says."""
    kept = solve(rig).found.kept
    assert kept is not None
    return one_value(kept)


def test_what_a_fault_costs_and_a_size_gains_is_told_against_the_verdict(rig: Rig) -> None:
    study = study_of(rig, "sep")
    assert study.faults
    assert study.sizes
    for effect in (*study.faults, *study.sizes):
        assert effect.kept - effect.gain == pytest.approx(kept_now(rig), abs=2e-4)
    gains = [effect.gain for effect in study.faults]
    assert gains == sorted(gains, reverse=True)  # the worst first: mending it gains most


def test_every_sweep_passes_through_the_line_as_it_stands(rig: Rig) -> None:
    sweeps = study_of(rig, "sep").sweeps
    assert {sweep.id for sweep in sweeps} == {"fill", "tilt", "leak"}
    for sweep in sweeps:
        assert sweep.value.shape == sweep.kept.shape
        assert np.all(np.diff(sweep.value) > 0.0)
        assert np.all((sweep.kept >= 0.0) & (sweep.kept <= 1.0))
        if sweep.value[0] <= sweep.now <= sweep.value[-1]:
            assert float(np.interp(sweep.now, sweep.value, sweep.kept)) == pytest.approx(kept_now(rig), abs=0.02)


def test_more_dust_tilt_or_leak_never_keeps_more(rig: Rig) -> None:
    for sweep in study_of(rig, "sep").sweeps:
        assert np.all(np.diff(sweep.kept) <= 1e-9), sweep.id


def test_of_unknown_dust_nothing_is_studied(unknown_dust: Rig) -> None:
    assert study_of(unknown_dust, "sep") == SeparatorStudy()
    assert upkeep_of(unknown_dust, 0, 10.0, 8.0) is None


def test_a_filter_asked_to_last_longer_is_larger(rig: Rig) -> None:
    found = [upkeep_of(rig, 0, hours, 8.0) for hours in (2.0, 20.0, 60.0)]
    areas = [one.smallest for one in found if one is not None and one.smallest is not None]
    assert len(areas) >= 2
    assert areas == sorted(areas)


def test_weeks_follow_from_hours_and_are_not_known_without_them(rig: Rig) -> None:
    known, unknown = upkeep_of(rig, 0, 10.0, 5.0), upkeep_of(rig, 0, 10.0, None)
    assert known is not None
    assert unknown is not None
    assert known.bin_hours is not None
    assert known.bin_weeks == pytest.approx(known.bin_hours / 5.0)
    assert unknown.bin_weeks is None
    assert unknown.payback_weeks is None
    assert unknown.bin_hours == known.bin_hours


def test_with_a_separator_a_filter_lasts_longer(rig: Rig) -> None:
    found = upkeep_of(rig, 0, 10.0, 5.0)
    assert found is not None
    assert found.without is not None
    assert found.with_it.life > found.without.life
    assert found.with_it.exhaust < found.without.exhaust


def test_ageing_starts_from_the_air_of_a_clean_filter(rig: Rig) -> None:
    found = upkeep_of(rig, 0, 10.0, 5.0)
    assert found is not None
    today = float(solve(rig).found.point.port_flow[0, 0])
    assert found.today == pytest.approx(today / found.with_it.flow, rel=1e-3)
    assert 0.0 < found.today <= 1.0


def test_a_hunt_begins_with_what_tuning_left_unsure_and_only_while_it_is_on(document: dict[str, Any]) -> None:
    believed = np.diag(spreads(KEYS) ** 2)
    assert case_of(check_rig(document)).covariance == pytest.approx(believed)
    document["tuning"] = {"on": True, "leak": 1.2, "unsure": {"leak": 0.25}}
    sharper = case_of(check_rig(document)).covariance
    place = KEYS.index("leak")
    assert sharper[place, place] == pytest.approx(0.25**2 * believed[place, place])
    document["tuning"]["on"] = False
    assert case_of(check_rig(document)).covariance == pytest.approx(believed)


def test_a_case_has_every_fault_in_several_degrees_and_is_kept(rig: Rig) -> None:
    case = case_of(rig)
    keys = [one.fault for one in case.lines]
    assert len(keys) > len(set(keys)) > 4
    assert case_of(rig) is case


def test_the_drawer_makes_lines_of_what_there_is_and_money_never_makes_them_worse(shop: Database) -> None:
    with shop.session() as session:
        owned = line_state(session, 1).owned
    assert owned is not None
    rig = demo_rig()
    port = solve(rig).line.leaves[0].id
    question = task_for(rig, port, owned, spend=200.0)
    found = from_drawer(rig, port, owned, question)
    assert found is from_drawer(rig, port, owned, question)
    assert found.free
    assert all(not one.buy for one in found.free)
    for one in (*found.free, *found.paid):
        assert one.figures.flow[0] == pytest.approx(solve(one.rig).found.point.port_flow[0, 0], rel=2e-3)
