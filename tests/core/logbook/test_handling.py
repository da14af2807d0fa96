"""An emptying: fewer steps where less has to be undone, and no figure that another page has otherwise."""

from dataclasses import replace
from typing import Any

import pytest

from fenwick.core.components.bins import CLOSURES
from fenwick.core.components.separator import Stand
from fenwick.core.logbook.handling import FLAT, HANGS, ROLLS, WITHOUT_TOOLS, Handling, handling_of
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line
from fenwick.rig.edits.edit import check_change
from fenwick.services.checks import reviewed
from fenwick.wording.handling import LAY, OPEN, STEPS, step_words, undone_words


def handled(name: str = "demo_bench", closure: str | None = None, **stand: Any) -> Handling:
    """An emptying of a demo line, its bin closed or standing otherwise."""
    document = demo_rig(name).model_dump(mode="json")
    part = next(one for one in document["line"]["elements"] if one["id"] == "sep")
    if closure is not None:
        part["bin"]["closure"] = closure
    line = build_line(check_change(demo_rig(name), document))
    stage = line.separators[0]
    if stand:
        stage = stage.changed(stand=replace(stage.stand or Stand(), **stand))
    return handling_of(stage, line)


@pytest.mark.parametrize("closure", CLOSURES)
def test_every_closure_has_its_steps_in_words(closure: str) -> None:
    found = handled(closure=closure)
    assert found.minutes > 0.0
    assert all(step_words(step.key, found) for step in found.steps)
    assert {step.key for step in found.steps} <= {*STEPS, "lay", "open"}
    assert found.saves >= 0.0


def test_screws_all_round_take_longest_and_cams_least() -> None:
    minutes = {closure: handled(closure=closure).minutes for closure in CLOSURES}
    assert max(minutes, key=minutes.__getitem__) == "screwed-gasket"
    assert min(minutes, key=minutes.__getitem__) == WITHOUT_TOOLS
    assert handled(closure="screwed-gasket").saves == pytest.approx(minutes["screwed-gasket"] - minutes[WITHOUT_TOOLS])


def test_a_bin_that_cams_let_down_leaves_hoses_and_lid_alone() -> None:
    found = handled(closure=WITHOUT_TOOLS)
    assert (found.hoses, found.above, found.saves, found.lies) == (0, None, 0.0, HANGS)


def test_a_cyclone_rolls_and_a_chamber_lies() -> None:
    assert handled("demo_cyclone", "clamp-ring").lies == ROLLS
    assert handled("demo_bench", "clamp-ring").lies == FLAT
    assert set(LAY) == {ROLLS, FLAT}


def test_a_stack_and_ties_add_their_steps() -> None:
    plain, stacked, tied = handled(), handled(on="vacuum", vacuum_height=0.6), handled(tied=True)
    assert "head" in [step.key for step in stacked.steps]
    assert "untie" in [step.key for step in tied.steps]
    assert min(stacked.minutes, tied.minutes) > plain.minutes
    assert (plain.cables, stacked.cables) == (0, 1)


def test_what_is_lifted_is_what_the_checks_say() -> None:
    (check,) = [one for one in reviewed(demo_rig("demo_bench"), None) if one.id == "full-weight"]
    assert handled().weight == pytest.approx(float(check.value[0]))


def test_what_is_undone_is_counted_where_it_can_be() -> None:
    latched, screwed = handled(closure="latch-gasket"), handled(closure="screwed-gasket")
    assert 3 <= latched.holds < screwed.holds <= 20
    assert f"{screwed.holds} screws" in undone_words(screwed)
    assert undone_words(handled(closure="clamp-ring")) == "2 hoses and a clamp ring."
    assert undone_words(handled(closure="loose")) == "2 hoses."
    assert undone_words(handled(closure=WITHOUT_TOOLS)) == "Nothing: no hose, no cable."
    assert undone_words(handled(closure="clamp-ring", on="vacuum", vacuum_height=0.6)).count(",") == 1
    assert set(OPEN) == set(CLOSURES) - {WITHOUT_TOOLS}
