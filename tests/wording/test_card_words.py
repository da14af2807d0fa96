"""The card to take to the line, joints and jobs in words: every hose named once, in order, and nothing said unknown."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings

from fenwick.core.components.elements import Hose
from fenwick.core.components.separator import Separator
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.judging.assess import assess
from fenwick.core.search.figures import Spread
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, build_line, check_rig
from fenwick.rig.voice import voice_for
from fenwick.units import INCH, METRIC, SYSTEMS
from fenwick.units.sentence import inside
from fenwick.wording import verdict
from fenwick.wording.hookup import hook_up
from fenwick.wording.measure import HOW, how_to_measure, what_hangs_on_it
from fenwick.wording.verdict import TITLES
from tests.house.test_one_figure import first_open, whole_rigs


@given(whole_rigs())
@settings(max_examples=30)
def test_every_hose_on_the_way_has_a_step_of_its_own_in_the_order_of_the_air(rig: Rig) -> None:
    line, voice = build_line(rig), voice_for(rig, METRIC)
    for port, leaf in enumerate(line.leaves):
        parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
        hoses = [part.id for part in parts if isinstance(part, Hose)]
        card = hook_up(line, port, voice)
        assert len(card.steps) == len(hoses)
        for name, step in zip(hoses, card.steps, strict=True):
            assert step.startswith(voice.name(name))
            assert step.endswith(".")
        has_one = any(isinstance(part, Separator) for part in line.trunk)
        assert bool(card.mark) == bool(card.caution) == has_one


@given(whole_rigs())
@settings(max_examples=30)
def test_a_verdict_has_each_row_once_and_says_something_in_each(rig: Rig) -> None:
    line = build_line(rig)
    found, port = assess(line), first_open(line)
    for system in SYSTEMS:
        rows = verdict(line, found, sureness(line).kept, voice_for(rig, system), port)
        names = [row.id for row in rows]
        assert len(names) == len(set(names))
        for row in rows:
            assert row.title == TITLES.get(row.id, row.title)
            assert row.level in ("ok", "watch", "act", "")
            assert row.filled is None or row.filled >= 0.0
            assert not re.search(r"\bnan\b|None", f"{row.value} {row.sentence}")


def test_the_card_of_the_demo_begins_at_the_tool_and_ends_at_the_vacuum(rig: Rig) -> None:
    card = hook_up(build_line(rig), 0, voice_for(rig, METRIC))
    assert "from the port of the drum sander" in card.steps[0]
    assert "the vacuum's inlet" in card.steps[-1]
    assert "side port" in " ".join(card.steps)
    assert "centre port" in card.steps[-1]
    assert "Let the vacuum run on" in card.run_on


def test_the_card_is_in_the_units_of_who_reads_it(rig: Rig) -> None:
    metric, inch = (hook_up(build_line(rig), 0, voice_for(rig, system)) for system in (METRIC, INCH))
    assert " mm" in metric.steps[0]
    assert " mm" not in " ".join((*inch.steps, inch.mark))
    assert re.sub(r"[\d./]+", "", metric.caution) == re.sub(r"[\d./]+", "", inch.caution)


def test_a_bin_too_shallow_has_no_mark(document: dict[str, Any]) -> None:
    separator = next(part for part in document["line"]["elements"] if part["kind"] == "separator")
    separator["bin"]["profile"][-1]["height_m"] = 0.12
    separator["bin"]["fill_height_m"] = 0.0
    rig = check_rig(document)
    card = hook_up(build_line(rig), 0, voice_for(rig, METRIC))
    assert "too shallow" in card.mark or "Mark the bin" in card.mark
    assert "nan" not in card.mark


@pytest.mark.parametrize(("name", "within"), [("Drum sander", "drum sander"), ("CNC router", "CNC router"), ("", "")])
def test_a_name_within_a_sentence_is_small_unless_written_in_capitals(name: str, within: str) -> None:
    assert inside(name) == within


@pytest.mark.parametrize("key", sorted(HOW))
def test_whatever_can_be_guessed_can_be_measured(key: str) -> None:
    assert how_to_measure(key) == how_to_measure(f"line.elements[3].{key}") == HOW[key]
    assert HOW[key].endswith((".", "?"))


def test_what_nobody_can_measure_is_said_by_nothing() -> None:
    assert how_to_measure("name") == how_to_measure("") == how_to_measure("colour_m_s") == ""


BARE = Spread((0.03, 0.03), None, None, None, None, (0, 0))


def test_what_hangs_on_a_value_is_the_figure_that_moves_most() -> None:
    voice = voice_for(demo_rig(), METRIC)
    assert what_hangs_on_it(BARE, voice) == ""
    moved = replace(BARE, kept=(0.4, 0.9), flow=(0.029, 0.03), speed=(11.0, 11.0), in_bin=(0.5, 0.501))
    said = what_hangs_on_it(moved, voice)
    assert said.startswith("kept 40")
    assert "air" in said
    assert "slowest" not in said
    assert "in the bin" not in said


def test_no_more_than_two_figures_are_told_and_large_ratios_are_capped() -> None:
    voice = voice_for(demo_rig(), METRIC)
    every = Spread((0.01, 0.03), (5.0, 25.0), (0.1, 0.9), (0.1, 0.9), (0.5, 1e6), (0, 2))
    said = what_hangs_on_it(every, voice)
    assert said.count(",") == 1
    assert "1000000" not in said
    assert "collapse 0.5–99.9 ×" in what_hangs_on_it(replace(BARE, folding=(0.5, 1e6)), voice)
