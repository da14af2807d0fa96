"""What readings tell of rules together: draws stay with what was read; with nothing read they are what they were."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.doubt.together import few_rows, keys_told, left_of, tied
from fenwick.core.doubt.uncertainty import Band, drawn_values, sureness, vary
from fenwick.core.line.line import Line
from fenwick.core.rules.book import Slopes
from fenwick.core.tuning.factors import tuned
from fenwick.core.tuning.fit import Fit, fit
from fenwick.core.tuning.readings import BLOCKED, KEPT, SEALED, Reading, expected
from fenwick.core.tuning.told import NOT_DRAWN, told_together
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

PORT = "drum-sander"
ROWS = st.lists(
    st.dictionaries(st.sampled_from("abcde"), st.floats(-30.0, 30.0), min_size=1), min_size=1, max_size=4
).map(lambda rows: tuple(tuple(row.items()) for row in rows))


@pytest.fixture(scope="module")
def line() -> Line:
    """The demo line as described."""
    return build_line(demo_rig())


def told_line(line: Line, readings: list[Reading]) -> tuple[Line, Fit]:
    """(a line tuned to readings, with what they told together; the fit)."""
    fitted = fit(line, readings)
    assert fitted is not None
    told = told_together(tuned(line, fitted.factors), fitted)
    return tuned(line, fitted.factors, fitted.left, told), fitted


def kept_band(line: Line) -> Band:
    """What is kept, with its band."""
    found = sureness(line).kept
    assert found is not None
    return found


def width(line: Line) -> float:
    """Of the band of what is kept."""
    band = kept_band(line)
    return band.high - band.low


@given(told=ROWS)
def test_the_weights_are_a_root_of_what_readings_leave(told: tuple[Slopes, ...]) -> None:
    keys = keys_told(told)
    root = np.array([[dict(tied(told)[key])[of] for of in keys] for key in keys])
    slopes = np.array([[dict(row).get(key, 0.0) for key in keys] for row in told])
    left = np.linalg.inv(np.eye(len(keys)) + slopes.T @ slopes)
    assert np.allclose(root @ root, left, atol=1e-6)
    assert np.allclose(root, root.T, atol=1e-9)
    assert all(0.0 <= left_of(told, key) <= 1.0 + 1e-9 for key in keys)


@given(told=ROWS, least=st.floats(1e-3, 0.1))
def test_fewer_rows_tell_the_same(told: tuple[Slopes, ...], least: float) -> None:
    keys = keys_told(told)
    slopes = np.array([[dict(row).get(key, 0.0) for key in keys] for row in told])
    few = few_rows(np.vstack([slopes, slopes, slopes]), keys, least)
    again = np.array([[dict(row).get(key, 0.0) for key in keys] for row in few]).reshape(-1, len(keys))
    reach = 3.0 * len(keys) * (least + 1e-3) * (1.0 + np.abs(slopes).max()) * 3.0
    assert np.allclose(again.T @ again, 3.0 * slopes.T @ slopes, atol=reach)
    assert len(few) <= len(keys)


def test_what_nothing_was_told_of_is_drawn_as_before(line: Line) -> None:
    told = tuned(line, {}, told=((("swirl.cut", 3.0),),))
    for key in ("slot.loss", "dust.size"):
        assert np.array_equal(drawn_values(told, key, 200, 1), drawn_values(line, key, 200, 1))
    one, other = (np.std(np.log(drawn_values(x, "swirl.cut", 4000, 1)[1:])) for x in (told, line))
    assert one / other == pytest.approx(1.0 / np.sqrt(10.0), rel=0.1)
    assert left_of(told.rules.told, "swirl.cut") == pytest.approx(1.0 / np.sqrt(10.0))
    assert left_of((), "swirl.cut") == 1.0
    assert tied(()) == {}


def test_a_weighed_share_is_as_sure_on_the_line_as_on_the_scale(line: Line) -> None:
    """One by one each cause stays nearly as unsure as before; together they give the reading and no more."""
    reading = Reading(KEPT, 0.56, 0.012, PORT)
    together, fitted = told_line(line, [reading])
    alone = tuned(line, fitted.factors, fitted.left)
    assert width(alone) > 0.4
    assert width(together) < 0.15
    band = kept_band(together)
    assert band.low < 0.56 < band.high


def test_the_surer_the_reading_the_narrower_the_band(line: Line) -> None:
    widths = [width(told_line(line, [Reading(KEPT, 0.7, sd, PORT)])[0]) for sd in (0.2, 0.05, 0.01)]
    assert widths[0] > 1.3 * widths[1] > 1.3 * widths[2]
    assert width(line) > widths[0]


def test_a_factor_that_no_band_draws_takes_its_part_of_a_reading(line: Line) -> None:
    together, _ = told_line(line, [Reading(SEALED, 16e3, 150.0), Reading(BLOCKED, 15e3, 150.0, PORT, "link")])
    keys = keys_told(together.rules.told)
    assert f"{NOT_DRAWN}fan" in keys
    assert vary(together, 50, 3).drawn.keys() == vary(line, 50, 3).drawn.keys()


def test_draws_give_back_the_reading_with_its_own_scatter(line: Line) -> None:
    reading = Reading(KEPT, 0.7, 0.03, PORT)
    together, _ = told_line(line, [reading])
    said = expected(vary(together, 600, 5).line, [reading])[0, 1:]
    assert np.std(said) == pytest.approx(0.03, rel=0.5)
    assert abs(np.median(said) - 0.7) < 0.03


def test_fed_with_its_own_kind_of_dust_is_fed_with_its_own_dust(line: Line) -> None:
    """Else the doubt about the sizes of its dust would not be told by a test of that very dust."""
    assert line.dust is not None
    same, none = Reading(KEPT, 0.0, 1.0, PORT, dust=line.dust.kind), Reading(KEPT, 0.0, 1.0, PORT)
    drawn = vary(line, 40, 2).line
    assert np.array_equal(*expected(drawn, [same, none]))
