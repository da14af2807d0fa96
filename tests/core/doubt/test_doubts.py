"""Doubts: each is raised by what it is about, and by nothing else."""

from dataclasses import replace
from math import pi

import pytest

from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Bend, Hose
from fenwick.core.components.wet import WetStage
from fenwick.core.doubt.doubts import doubts
from fenwick.core.line.line import Line
from fenwick.core.line.operating import operating_point
from fenwick.wording.warnings import SENTENCES
from tests.lines import disc_line, plain_line


def kinds(line: Line) -> set[str]:
    """What is doubted."""
    return {doubt.kind for doubt in doubts(line, operating_point(line))}


def test_a_sound_line_raises_none() -> None:
    assert kinds(disc_line()) == set()


@pytest.mark.parametrize(
    ("line", "kind"),
    [
        (disc_line(bore=0.002), "blocked"),
        (disc_line(suction=100.0), "no-fan"),
        (disc_line(filter=None), "no-filter"),
        (replace(disc_line(), dust=None), "unknown-dust"),
        (replace(plain_line(18e3, 0.062, 0.5, 0.1, 1e-4), dust=disc_line().dust), "all-open"),
        (replace(disc_line(), trunk=(*disc_line().trunk, Hose("h", 0.03, 1.0, "corrugated"))), "rough"),
        (replace(disc_line(), trunk=(*disc_line().trunk, Hose("h", 0.05, 1.0, bends=(Bend(pi / 2, 0.03),)))), "kinked"),
        (replace(disc_line(), branches=(replace(disc_line().branches[0], gate_opening=0.0),)), "shut"),
    ],
    ids=["blocked", "no-fan", "no-filter", "unknown-dust", "all-open", "rough", "kinked", "shut"],
)
def test_each_doubt_is_raised_by_its_cause(line: Line, kind: str) -> None:
    assert kind in kinds(line)
    assert kind in SENTENCES


@pytest.mark.parametrize(("bore", "doubted"), [(0.0024, True), (0.0026, False), (1.01, True)])
def test_a_bore_that_changes_20_to_1_is_a_mistaken_unit(bore: float, doubted: bool) -> None:
    line = disc_line()
    odd = replace(line, trunk=(*line.trunk, Hose("odd", bore, 0.5)))
    assert ("step" in kinds(odd)) is doubted


def test_a_wide_outlet_overlaps_the_inlet() -> None:
    line = disc_line()
    wide = replace(line.separators[0], outlet_diameter=0.3)
    assert "overlap" in kinds(replace(line, trunk=(wide, line.trunk[1])))


def test_a_short_tube_and_a_wet_stage_ahead_are_doubted() -> None:
    line = disc_line()
    short = replace(line.separators[0], outlet_length=0.01)  # type: ignore[type-var]
    assert "short-tube" in kinds(replace(line, trunk=(short, line.trunk[1])))
    assert "short-tube" not in kinds(line)
    steel = replace(line, dust=DUSTS["steel-grinding"])
    wet = WetStage("wet", 0.03, 0.02, 0.3, 4.0)
    assert "wet-first" in kinds(replace(steel, trunk=(wet, *line.trunk)))
    behind = replace(steel, trunk=(line.trunk[0], wet, line.trunk[1]))
    assert "wet-first" not in kinds(behind)
    assert {"short-tube", "wet-first"} <= set(SENTENCES)
