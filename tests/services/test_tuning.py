"""Readings that tune a line: what counts, what is kept of the factors, and that every place then predicts the same."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from fenwick.core.arrays import one_value
from fenwick.core.tuning.fit import Fit
from fenwick.core.tuning.readings import Reading
from fenwick.data.readings import Taken
from fenwick.rig import Rig, check_rig, read_rig, write_rig
from fenwick.rig.format.tuning import LEAST, MOST
from fenwick.rig.result import solve_rig
from fenwick.services.readings import DIGITS, station_kinds, tune, tuned_rig
from fenwick.services.solving import solve, sureness_of


def taken(*readings: Reading, left_out: str = "") -> list[Taken]:
    """As the record holds them."""
    return [Taken(i, one, "", left_out, "2026-11-20") for i, one in enumerate(readings)]


SEALED = Reading("sealed", 15000.0, 300.0)
SUCTION = Reading("suction", 3200.0, 60.0, station="hose-a")


def fitted(rig: Rig, *readings: Reading) -> Fit:
    """That must fit."""
    found = tune(rig, taken(*readings))
    assert found is not None
    return found


def test_nothing_read_fits_nothing(rig: Rig) -> None:
    assert tune(rig, []) is None
    assert tune(rig, taken(SEALED, left_out="gauge stuck")) is None


def test_what_is_left_out_does_not_count(rig: Rig) -> None:
    alone = fitted(rig, SEALED)
    both = tune(rig, [*taken(SEALED), *taken(SUCTION, left_out="hose kinked")])
    assert both is not None
    assert both.factors == pytest.approx(alone.factors)


def test_a_weak_reading_of_the_fan_lowers_the_fan_and_nothing_else_much(rig: Rig) -> None:
    factors = fitted(rig, SEALED).factors
    assert factors["fan"] < 0.95
    assert all(value == pytest.approx(1.0, abs=0.02) for key, value in factors.items() if key != "fan")


def test_the_order_of_readings_does_not_matter(rig: Rig) -> None:
    one, other = fitted(rig, SEALED, SUCTION).factors, fitted(rig, SUCTION, SEALED).factors
    assert one == pytest.approx(other, rel=1e-4)


def test_a_reading_taken_twice_leaves_less_unsure_than_once(rig: Rig) -> None:
    once, twice = fitted(rig, SEALED).left["fan"], fitted(rig, SEALED, SEALED).left["fan"]
    assert twice < once < 1.0


def test_factors_are_kept_to_what_a_file_may_hold(rig: Rig) -> None:
    found = fitted(rig, SEALED)
    for wild in (-20.0, 20.0):
        tuning = tuned_rig(rig, replace(found, logs=np.full_like(found.logs, wild))).tuning
        assert tuning is not None
        assert all(LEAST <= value <= MOST for value in tuning.factors.values())
    tuning = tuned_rig(rig, found).tuning
    assert tuning is not None
    for key, value in tuning.factors.items():
        assert value == round(found.factors[key], DIGITS)


def test_a_tuned_rig_is_written_and_read_without_loss(rig: Rig) -> None:
    tuned = tuned_rig(rig, fitted(rig, SEALED, SUCTION))
    assert read_rig(write_rig(tuned)) == tuned


def test_the_tuned_line_predicts_what_was_read(rig: Rig) -> None:
    tuned = solve(tuned_rig(rig, fitted(rig, SEALED)))
    assert one_value(tuned.found.point.sealed_suction) == pytest.approx(SEALED.value, rel=0.03)


def test_switched_off_it_predicts_as_described(rig: Rig) -> None:
    tuned = tuned_rig(rig, fitted(rig, SEALED, SUCTION))
    assert tuned.tuning is not None
    off = tuned.model_copy(update={"tuning": tuned.tuning.model_copy(update={"on": False})})
    flow = solve(rig).found.point.port_flow[0, 0]
    assert solve(off).found.point.port_flow[0, 0] == flow
    assert solve(tuned).found.point.port_flow[0, 0] != flow
    assert solve_rig(tuned)["ports"][0]["flow_m3_s"] == solve(tuned).found.point.port_flow[0, 0]


def test_a_fit_starts_from_the_line_as_described_not_from_an_earlier_fit(rig: Rig) -> None:
    first = fitted(rig, SEALED)
    again = fitted(tuned_rig(rig, first), SEALED)
    assert again.factors == pytest.approx(first.factors, rel=1e-6)


def test_what_readings_settle_narrows_the_band(rig: Rig) -> None:
    kept = Reading("kept", 0.74, 0.01)
    before, after = sureness_of(rig).kept, sureness_of(tuned_rig(rig, fitted(rig, SEALED, kept))).kept
    assert before is not None
    assert after is not None
    assert after.high - after.low < before.high - before.low


def test_stations_are_named_in_the_order_of_the_air(rig: Rig) -> None:
    kinds = station_kinds(solve(rig).line)
    order = list(kinds)
    assert order.index("hose-a") < order.index("sep") < order.index("link")
    assert kinds["hose-a"] == kinds["link"] == "hose"


@pytest.mark.parametrize("value", [0.0, 1e-6, 1e9])
def test_wild_readings_are_fitted_within_bounds_or_refused(document: dict[str, Any], value: float) -> None:
    rig = check_rig(document)
    found = tune(rig, taken(Reading("sealed", value, 100.0)))
    if found is not None:
        assert all(np.isfinite(list(found.factors.values())))
        assert solve(tuned_rig(rig, found)).found.point.port_flow[0, 0] > 0.0
