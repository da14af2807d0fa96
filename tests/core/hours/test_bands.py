"""Bands over hours and in the room: they hold the figures that are told, and the truth as often as they say."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from bench.bands import covered, twenty_lines

from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.hours.air import USUAL_JOB, clearing, fine_source, room_of
from fenwick.core.hours.bands import Believed, air_bands, caught_band, upkeep_bands
from fenwick.core.hours.lives import PriceRange, Prices
from fenwick.core.hours.upkeep import upkeep
from fenwick.core.judging.assess import assess
from fenwick.core.line.catch import dust_rate
from fenwick.core.rules import RuleBook
from tests.lines import disc_line

PRICES = Prices(PriceRange(20.0, 30.0), None, PriceRange(60.0, 90.0))


def holds(band: Believed | None, value: float | None) -> bool:
    """Whether a band is told and holds a value."""
    return band is not None and value is not None and band.low < value < band.high


def test_the_figures_that_are_told_lie_within_their_bands() -> None:
    line = disc_line(rate=4e-4)
    told, bands = upkeep(line, 0, 10.0, PRICES), upkeep_bands(line, 0, PRICES, 60)
    assert told is not None
    assert bands is not None
    assert holds(bands.life, told.with_it.life)
    assert holds(bands.lasts, float(told.with_it.lives.total[0]))
    assert holds(bands.cost, told.with_it.cost)
    assert holds(bands.payback, told.payback)
    found = assess(line)
    assert holds(caught_band(line, 0), float(found.captures[0].tool_total[0]))
    room = room_of(40.0, None, 0.0, RuleBook())
    source = fine_source(line, found, dust_rate(line))
    assert source is not None
    now, air = clearing(room, source, USUAL_JOB, 1e-7), air_bands(line, room, USUAL_JOB)
    assert air is not None
    assert holds(air.peak, float(now.peak[0]))
    assert holds(air.clears, float(now.clears[0]))
    assert holds(air.dose, float(now.dose[0]))


def test_what_is_given_is_surer_than_what_goes_by_rule() -> None:
    line, rules = disc_line(rate=4e-4), RuleBook()
    by_rule = air_bands(line, room_of(40.0, None, 0.0, rules), USUAL_JOB)
    shut = float(np.ravel(rules["room.shut"])[0]) / 3600.0
    high = float(np.ravel(rules["room.height"])[0])
    given = air_bands(line, room_of(40.0, shut, 0.0, rules, high), USUAL_JOB)
    assert by_rule is not None
    assert given is not None
    assert given.clears.high - given.clears.low < by_rule.clears.high - by_rule.clears.low


def test_a_price_that_is_a_range_widens_the_cost_and_one_price_does_not() -> None:
    line = disc_line(rate=4e-4)
    one = upkeep_bands(line, 0, Prices(PriceRange(25.0, 25.0), None, PriceRange(75.0, 75.0)), 60)
    wide = upkeep_bands(line, 0, Prices(PriceRange(5.0, 45.0), None, PriceRange(75.0, 75.0)), 60)
    assert one is not None
    assert wide is not None
    assert one.cost is not None
    assert wide.cost is not None
    assert wide.cost.high / wide.cost.low > one.cost.high / one.cost.low


def test_without_dust_a_hood_or_a_price_there_is_no_band() -> None:
    line = disc_line(rate=4e-4)
    bare = replace(line, dust=None)
    assert upkeep_bands(bare, 0, PRICES, 20) is None
    assert caught_band(bare, 0, 20) is None
    assert air_bands(bare, room_of(40.0, None, 0.0, RuleBook()), USUAL_JOB, draws=20) is None
    found = upkeep_bands(line, 0, None, 20)
    assert found is not None
    assert found.cost is None
    assert found.payback is None


def test_the_band_of_what_is_caught_is_that_of_the_line_page() -> None:
    line = disc_line(rate=4e-4)
    page, alone = sureness(line).caught["tool"], caught_band(line, 0, 1500)
    assert alone is not None
    assert alone.low == pytest.approx(page.low, rel=0.01)
    assert alone.high == pytest.approx(page.high, rel=0.01)


def test_bands_hold_the_truth_about_nine_times_in_ten() -> None:
    random = np.random.default_rng(7)
    shares: dict[str, list[float]] = {}
    for line in list(twenty_lines())[::7]:
        for name, share in covered(line, random).items():
            shares.setdefault(name, []).append(share)
    assert {"kept", "caught", "mg/m³", "minutes", "hours", "payback"} <= set(shares)
    for name, found in shares.items():
        assert 0.85 <= float(np.mean(found)) <= 0.97, name
