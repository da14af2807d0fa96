"""Any two lines at the bounds of the format stand side by side: finite figures, verdicts that agree either way."""

from __future__ import annotations

from math import isfinite

from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from fenwick.core.errors import CoreError
from fenwick.core.search.apart import BETTER, WORSE
from fenwick.rig import Rig
from fenwick.rig.compare import differences
from fenwick.services.compare_document import comparison_document
from fenwick.services.side_by_side import side_by_side
from fenwick.units import INCH, METRIC
from fenwick.wording.compare import compared_words, tally_words
from fenwick.wording.say import Voice
from tests.test_rigs import rigs

OPPOSITE = {BETTER: WORSE, WORSE: BETTER}


@settings(max_examples=25, deadline=None, suppress_health_check=[*HealthCheck])
@given(rigs(), rigs())
def test_any_two_lines_are_told_apart_alike_from_either_side(left: Rig, right: Rig) -> None:
    try:
        there, back = side_by_side(left, right, None), side_by_side(right, left, None)
    except CoreError:
        assume(False)
    for name, one in there.whole.items():
        if name.startswith("week"):
            continue  # weighed by the work of the line at the left
        other = back.whole.get(name)
        assert other is not None, name
        assert other.left == one.right, name
        assert OPPOSITE.get(one.verdict or "", one.verdict) == other.verdict, name
    for port in there.ports:
        for one in port.figures.values():
            for side in (one.left, one.right):
                assert side is None or all(isfinite(value) for value in (side.now, side.low, side.high))
    comparison_document(left, right, there)


@settings(max_examples=25, deadline=None, suppress_health_check=[*HealthCheck])
@given(rigs(), st.sampled_from([METRIC, INCH]))
def test_every_figure_is_told_in_words_and_a_line_differs_from_itself_in_nothing(rig: Rig, system: str) -> None:
    try:
        found = side_by_side(rig, rig, None)
    except CoreError:
        assume(False)
    figures = [pair for port in found.ports for pair in port.figures.items()] + list(found.whole.items())
    for name, one in figures:
        words = compared_words(name, one, Voice(system, {}), "€")
        assert words.left == words.right
        assert words.left is None or "nan" not in words.left.text + words.left.band
        assert one.verdict in (None, "same"), name
    assert tally_words(found.tally, rig.name).endswith(".")
    assert differences(rig, rig) == []
