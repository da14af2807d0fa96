"""Filters live as long as they do, curves end where something is full, and masks come off when the air is clean."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwick.core.hours.upkeep import Upkeep
from fenwick.services.hours import upkeep_of
from tests.ends.rigs import CYCLONE, DISC, HOOD, HOSE, PAPER, captured, changed, read, rig_file, solved, told

FINE = "sanding-p120"


def cyclone_of(body: float, finish: str) -> dict[str, Any]:
    """A high-efficiency cyclone of a size, its tube just below its inlet."""
    return changed(
        CYCLONE,
        body_d_m=body,
        inlet_height_m=0.5 * body,
        inlet_width_m=0.2 * body,
        outlet_d_m=0.5 * body,
        outlet_length_m=0.5 * body + 0.003,
        cylinder_height_m=1.5 * body,
        total_height_m=4.0 * body,
        dust_outlet_d_m=0.375 * body,
        finish=finish,
    )


def behind(*stages: dict[str, Any], dust: str = FINE, **vacuum: Any) -> dict[str, Any]:
    """A usual hose of 38 mm ahead of some stages, with 150 g of dust an hour."""
    hose = changed(HOSE, bore_m=0.038, length_m=3.0)
    return rig_file(dust, stages, hose=hose, port_bore=0.038, **vacuum)


def aged(document: dict[str, Any]) -> Upkeep:
    """How it ages."""
    found = upkeep_of(read(document), 0, 20.0, 5.0)
    assert found is not None
    return found


@pytest.mark.parametrize(
    ("stage", "least", "most"),
    [
        (None, 0.5, 1.2),
        (DISC, 4.0, 8.0),
        (cyclone_of(0.13, "smooth"), 25.0, 50.0),
        (cyclone_of(0.15, "smooth"), 25.0, 50.0),
        (cyclone_of(0.15, "shop-built"), 10.0, 16.0),
    ],
)
def test_a_small_paper_filter_lives_as_long_as_at_the_bench(
    stage: dict[str, Any] | None, least: float, most: float
) -> None:
    assert least <= told(behind(*([] if stage is None else [stage])), "hours") <= most


@given(st.floats(0.15, 0.8), st.floats(1.3, 2.0))
@settings(max_examples=6)
def test_life_grows_with_the_square_of_the_filters_area(area: float, more: float) -> None:
    small, large = (
        told(behind(cyclone_of(0.15, "smooth"), filter={**PAPER, "area_m2": a}), "hours") for a in (area, area * more)
    )
    assert large / small == pytest.approx(more**2, rel=0.15)


def test_a_bag_does_not_last_for_tonnes() -> None:
    document = behind(dust="planer", bag={"volume_m3": 0.012, "price": 5})
    hours, caught = told(document, "hours"), captured(document)["total"]
    assert 0.150 * caught * hours == pytest.approx(0.012 * 90.0, rel=0.02)  # kg: what it has room for
    assert aged(document).with_it.life == pytest.approx(hours, rel=1e-3)  # and the page tells the same


def test_a_larger_bag_lasts_longer_and_costs_less_an_hour() -> None:
    small, large = (behind(dust="saw", bag={"volume_m3": volume, "price": 5}) for volume in (0.012, 0.024))
    assert told(large, "hours") > 1.5 * told(small, "hours")
    assert told(large, "cost") < told(small, "cost")


@pytest.mark.parametrize("dust", [FINE, "saw", "mdf-sanding", "planer"])
@pytest.mark.parametrize("stage", [None, DISC, CYCLONE], ids=["none", "disc", "cyclone"])
def test_air_goes_on_falling_until_something_ends_the_curve(dust: str, stage: dict[str, Any] | None) -> None:
    found = aged(behind(*([] if stage is None else [stage]), dust=dust))
    for way in (found.with_it, found.without, found.other_bag):
        if way is None:
            continue
        air = np.asarray(way.course.flow)[:, 0]
        assert np.all(np.diff(air) <= 1e-12)
        assert way.life > 0.0


def test_a_small_tank_is_full_long_before_its_filter_is_spent_where_nothing_separates() -> None:
    times = [aged(behind(dust="planer", tank_m3=volume)).with_it.tank_full for volume in (0.003, 0.02, 0.07)]
    assert times == sorted(times)
    caught = captured(behind(dust="planer"))["total"]
    assert times[0] == pytest.approx(0.003 * 90.0 / (0.150 * caught), rel=0.1)  # a tank drops nearly all shavings
    assert aged(behind(CYCLONE, dust="planer", tank_m3=0.003)).with_it.tank_full > 100.0 * times[0]


def test_a_filter_is_cleaned_some_tens_of_times() -> None:
    found = aged(behind(DISC))
    assert found.with_it.lives.cleanings is not None
    assert 10 <= float(np.asarray(found.with_it.lives.cleanings)[0]) <= 40


def test_a_coated_filter_keeps_less_of_its_cake_and_so_costs_less() -> None:
    plain, coated = (behind(filter={**PAPER, "coated": coated}) for coated in (False, True))
    assert told(coated, "cost") < told(plain, "cost")
    assert told(coated, "hours") == pytest.approx(told(plain, "hours"))  # the first life is that of clean paper


def test_an_in_line_filter_with_a_price_spares_the_vacuums_own() -> None:
    catcher = {
        "id": "catch", "kind": "filter", "bore_m": 0.05, "medium": "paper", "area_m2": 0.5, "held_kg": 0.0, "price": 15
    }  # fmt: skip
    bare, spared = aged(behind(DISC)), aged(behind(DISC, catcher))
    assert told(behind(DISC, catcher), "hours") == pytest.approx(spared.with_it.life, rel=1e-4)
    assert told(behind(DISC, catcher), "cost") == pytest.approx(spared.with_it.cost, rel=1e-4)
    assert bare.with_it.cost is not None
    assert spared.with_it.cost is not None
    assert bare.with_it.flow > spared.with_it.flow
    dearer = aged(behind(DISC, {**catcher, "price": 60}))
    assert dearer.with_it.cost is not None
    assert dearer.with_it.cost > spared.with_it.cost


def test_a_cake_chokes_the_more_the_finer_the_dust_that_made_it() -> None:
    held = {**PAPER, "held_kg": 0.05}
    flows = [
        solved(behind(CYCLONE, dust=dust, filter=held))["vacuum"]["flow_m3_s"]
        / solved(behind(CYCLONE, dust=dust))["vacuum"]["flow_m3_s"]
        for dust in ("saw", FINE, "plaster")
    ]
    assert all(0.3 < flow < 1.0 for flow in flows)
    coarse = solved(behind(dust="saw", filter=held))["vacuum"]["flow_m3_s"]  # all sizes reach it, coarse ones too
    assert coarse > solved(behind(CYCLONE, dust="saw", filter=held))["vacuum"]["flow_m3_s"]


def test_payback_is_told_where_prices_are_and_shrinks_with_dearer_filters() -> None:
    stage = changed(CYCLONE, price=60)
    cheap, dear = (told(behind(stage, filter={**PAPER, "price": price}), "payback") for price in (20, 60))
    assert dear < cheap
    assert cheap > 10.0


@given(st.floats(0.02, 0.25), st.floats(1.1, 2.0))
@settings(max_examples=8)
def test_better_capture_shortens_the_wait_and_clears_the_air(distance: float, further: float) -> None:
    near, far = (rig_file(FINE, hood={**HOOD, "distance_m": d}) for d in (distance, distance * further))
    assert told(near, "masked", room=True) <= told(far, "masked", room=True)
    assert told(near, "fog", room=True) <= told(far, "fog", room=True)


def test_no_mask_is_wanted_for_long_where_next_to_nothing_escapes() -> None:
    box = {
        "kind": "enclosure",
        "release": "still",
        "thrown_share": 0.0,
        "openings": [{"name": "door", "area_m2": 0.002}],
    }
    tight = rig_file(FINE, hood=box, rate=2e-6, filter={**PAPER, "kind": "hepa"})
    open_ = rig_file(FINE, hood={**HOOD, "distance_m": 0.3}, rate=1e-4)
    assert told(tight, "masked", room=True) == 0.0
    assert told(open_, "masked", room=True) > 60.0


def test_coarser_dust_settles_sooner() -> None:
    waits = [told(rig_file(dust, hood={**HOOD, "distance_m": 0.2}), "masked", room=True) for dust in ("planer", FINE)]
    assert waits[0] < waits[1]
