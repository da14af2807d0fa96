"""What a run comes to while its bin fills, and what a test of slots tells of a line."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from math import radians

import pytest

from fenwick.core.arrays import one_value
from fenwick.core.bench.trials.expect import expected_outcome, slot_factor
from fenwick.core.bench.trials.plan import Plan
from fenwick.core.components.bins import Bin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import DUSTS
from fenwick.core.formulas.cyclone import CycloneGeometry
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import tuned
from tests.lines import disc_line

BUCKETFUL = 2.6  #: of sawdust, in a bucket of some 12 L [kg]
MASSES = Plan("separation", "masses")


def bucket_line(lean: float) -> Line:
    """A small smooth cyclone over a tight bucket, fed sawdust, leaning by some degrees."""
    shape = CycloneGeometry(0.075, 0.03, 0.15, 0.075, 0.08, 0.225, 0.45, 0.06)
    bucket = Bin((0.0, 0.3), (0.22, 0.25), leak_area=0.0, fill_height=0.0)
    line = disc_line(dust="saw")
    hose = line.trunk[1]
    return replace(line, trunk=(Cyclone("sep", shape, "smooth", bucket, tilt=radians(lean)), hose))


def kept(line: Line, fed: float) -> float:
    """What the model expects of a run."""
    found = expected_outcome(line, replace(MASSES, fed=fed))
    assert found is not None
    return found


def test_a_bucketful_over_a_leaning_bucket_is_lost_by_the_heap_not_by_the_lean() -> None:
    upright, leaning = kept(bucket_line(0.0), BUCKETFUL), kept(bucket_line(45.0), BUCKETFUL)
    assert upright > 0.95
    assert 0.30 <= 1.0 - leaning / upright <= 0.55
    assert kept(bucket_line(89.0), BUCKETFUL) < 0.35


def test_an_almost_empty_bucket_hardly_minds_leaning_a_little() -> None:
    assert kept(bucket_line(20.0), 0.05) > 0.98 * kept(bucket_line(0.0), 0.05)


@pytest.mark.parametrize("lean", [0.0, 20.0, 45.0, 80.0])
def test_the_more_is_fed_the_less_of_it_stays(lean: float) -> None:
    line = bucket_line(lean)
    shares = [kept(line, fed) for fed in (0.1, 0.5, 1.5, 3.0, 6.0)]
    assert all(more <= less + 1e-9 for less, more in pairwise(shares))


def test_a_run_begins_empty_where_the_bin_is_emptied_before_it_and_as_it_stands_where_not() -> None:
    line = disc_line(fill=0.3, dust="saw")
    emptied, as_it_is = (expected_outcome(line, Plan(kind, "masses", fed=0.1)) for kind in ("separation", "fill"))
    assert emptied is not None
    assert as_it_is is not None
    assert emptied > as_it_is
    whole = assess(line).kept
    assert whole is not None
    assert as_it_is == pytest.approx(one_value(whole), abs=0.02)


def test_where_it_is_not_known_how_dust_lies_the_fill_stays_as_it_is() -> None:
    line = disc_line(fill=0.2)
    loose = replace(line, dust=replace(DUSTS["sanding-p120"], bulk_density=None))
    whole = assess(loose).kept
    assert whole is not None
    assert expected_outcome(loose, MASSES) == pytest.approx(one_value(whole), rel=1e-6)


@pytest.mark.parametrize("factor", [0.4, 1.0, 2.5])
def test_a_test_of_slots_finds_the_factor_that_its_line_has(factor: float) -> None:
    line = disc_line(dust="saw")
    plan = Plan("slot", "masses", ("one", "other"))
    measured = expected_outcome(tuned(line, {"slot": factor}), plan)
    assert measured is not None
    assert slot_factor(line, plan, measured) == pytest.approx(factor, rel=1e-3)


def test_slots_tell_nothing_where_there_are_none_or_no_factor_would_do() -> None:
    plan = Plan("slot", "masses", ("one", "other"))
    assert slot_factor(bucket_line(0.0), plan, 0.9) is None
    assert slot_factor(disc_line(dust="saw"), plan, 1.2) is None
    assert slot_factor(disc_line(dust="saw"), Plan("slot", "look", ("one", "other")), 0.9) is None
