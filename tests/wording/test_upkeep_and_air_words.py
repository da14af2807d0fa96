"""Ageing, the room's air, hoods and jobs in words: figures, units, levels, and what is said where nothing is known."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.arrays import Array
from fenwick.core.components.hood import Enclosure, FloorNozzle, OpenHood, Opening
from fenwick.core.dust.capture import tool_flow
from fenwick.core.hours.air import DustSource, Room, session
from fenwick.core.hours.course import Course
from fenwick.core.hours.lives import LONG, Lives, Reckoned, cost_per_hour, payback_hours
from fenwick.core.hours.upkeep import Upkeep, UpkeepWay
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from fenwick.units import SYSTEMS
from fenwick.wording.air import airing_words, mask_row, minutes
from fenwick.wording.hood import OPTIONS, hood_rows, option_words
from fenwick.wording.ports import grams
from fenwick.wording.say import Voice
from fenwick.wording.upkeep import Wanted, exhaust_words, hours, money, upkeep_rows, way_rows
from tests.lines import disc_line

VOICE = Voice("metric", {"tool": "Sander", "vacuum": "Vac"}, machines={"tool": "drum-sander"})
RULES = RuleBook()


def flat(value: float) -> Array:
    """A course's figure that does not change."""
    return np.full((2, 1), value)


def way(name: str, life: float, bag: float = 0.0, flow: float = 0.04) -> UpkeepWay:
    """One way to run a line."""
    course = Course(np.array([0.0, LONG]), *(flat(v) for v in (flow, 8e3, 20.0, 0.9, 0.0, 1e-5, 0.0, 0.0, 0.0)))
    one, never = np.array([life]), np.array([np.inf])
    between = np.array([[life], [0.9 * life], [0.8 * life]])
    lasts = Lives(
        one, one, never, np.array([2.0 * life]), between, between.sum(axis=0), np.array([2.0]), np.array([0.3])
    )
    return UpkeepWay(name, bag, course, lasts, 1e-5, None)


def priced(found: Upkeep, prices: Reckoned, weekly: float | None) -> Upkeep:
    """A line's upkeep at some prices, so many hours a week being worked."""

    def costing(one: UpkeepWay | None) -> UpkeepWay | None:
        if one is None:
            return None
        cost = cost_per_hour(one.lives, one.bag_area > 0.0, prices)
        return replace(one, cost=None if cost is None else float(cost[0]))

    with_it, without = costing(found.with_it), costing(found.without)
    assert with_it is not None
    costs = [None if one is None or one.cost is None else np.array([one.cost]) for one in (with_it, without)]
    paid = payback_hours(costs[0], costs[1], prices.separator)
    pays = None if paid is None else float(paid[0])
    return replace(
        found,
        with_it=with_it,
        without=without,
        other_bag=costing(found.other_bag),
        bin_weeks=found.bin_hours / weekly if found.bin_hours and weekly else None,
        payback=pays,
        payback_weeks=pays / weekly if pays and weekly else None,
    )


def kept_up(**changes: object) -> Upkeep:
    """A line's upkeep, some of it otherwise."""
    usual = Upkeep(
        with_it=way("with", 24.0),
        without=way("without", 6.0),
        other_bag=way("other-bag", 3.0, 0.25),
        now=way("with", 24.0).course,
        now_left=12.0,
        today=0.92,
        exhaust_today=3e-7,
        exhaust_clean=1.6e-5,
        bin_hours=100.0,
        bin_weeks=None,
        payback=None,
        payback_weeks=None,
        smallest=0.39,
    )
    return replace(usual, **changes)  # type: ignore[arg-type]


def said(found: Upkeep, row: str, prices: Reckoned | None = None, weekly: float | None = 6.0) -> tuple[str, str, str]:
    """(figure, level, sentence) of one row."""
    costed = priced(found, prices or Reckoned(20.0, 4.0, 45.0), weekly)
    rows = upkeep_rows(costed, Wanted(10.0, weekly, "€"), RULES, VOICE)
    one = next(one for one in rows if one.id == row)
    return f"{one.value} {one.unit}".strip(), one.level, one.sentence


@pytest.mark.parametrize(
    ("value", "words"),
    [(0.5, "30 min"), (1.0, "1.0 h"), (19.9, "19.9 h"), (20.0, "20 h"), (999.0, "999 h"), (LONG, "over 1000 h")],
)
def test_hours_of_work(value: float, words: str) -> None:
    assert hours(value) == words


@pytest.mark.parametrize(
    ("share", "words"),
    [(0.05, "5.0 g"), (0.001, "0.1 g"), (1.6e-5, "1.6 mg"), (2.9e-7, "0.029 mg"), (1e-12, "under 0.01 mg")],
)
def test_what_passes_a_filter(share: float, words: str) -> None:
    assert exhaust_words(share) == words


def test_small_masses_and_money() -> None:
    assert [grams(np.array([s])) for s in (0.534, 0.012, 1e-5)] == ["53 g", "1.2 g", "under 0.1 g"]
    assert [money(m, "€") for m in (0.284, 12.4)] == ["0.28 €", "12 €"]


def test_a_life_is_judged_by_what_is_asked() -> None:
    levels = [said(kept_up(with_it=way("with", life)), "life")[1] for life in (24.0, 5.0, 1.0)]
    assert levels == ["ok", "watch", "act"]
    assert "Without the separator: 6.0 h." in said(kept_up(), "life")[2]
    assert "Without" not in said(kept_up(without=None), "life")[2]


@pytest.mark.parametrize(
    ("share", "level", "word"), [(0.95, "ok", "costs little"), (0.8, "watch", "still"), (0.6, "act", "more air")]
)
def test_leave_the_cake_or_clean_it(share: float, level: str, word: str) -> None:
    _, found, sentence = said(kept_up(today=share), "cake")
    assert found == level
    assert word in sentence
    assert ("never blow it out indoors" in sentence) == (level != "ok")


def test_costs_payback_and_what_is_missing_for_them() -> None:
    assert said(kept_up(), "cost")[0] == "0.31 € an hour"
    assert said(kept_up(), "cost", Reckoned())[0] == "not known"
    assert "price of a bag" in said(kept_up(with_it=way("with", 24.0, 0.25)), "cost", Reckoned(20.0))[2]
    assert said(kept_up(), "payback")[0].endswith("h")
    assert "weeks at 6.0 h" in said(kept_up(), "payback")[2]
    assert "weeks" not in said(kept_up(), "payback", weekly=None)[2]
    assert said(kept_up(), "payback", Reckoned(20.0))[0] == "not known"
    assert said(kept_up(without=way("without", 30.0)), "payback")[0] == "never"


def test_bins_and_filters_that_nobody_can_tell_of() -> None:
    assert said(kept_up(bin_hours=None), "bin-hours")[0] == "not known"
    assert "every 16.7 weeks" in said(kept_up(), "bin-hours")[2]
    assert said(kept_up(smallest=None), "smallest")[0] == "none"
    assert said(kept_up(), "smallest")[0] == "0.39 m²"


def test_ways_side_by_side() -> None:
    rows = way_rows(priced(kept_up(), Reckoned(20.0, 4.0, 45.0), None), "€", VOICE)
    assert [row.name for row in rows] == ["As it is", "With a bag", "Without the separator"]
    assert rows[0].lasts == "65 h, cleaned twice"
    assert rows[1].lasts == "a new bag each time"
    assert rows[1].cost == "1.33 €"
    dropped = way_rows(kept_up(other_bag=way("other-bag", 9.0)), "€", VOICE)
    assert dropped[1].name == "With the bag dropped"
    assert dropped[1].cost == "price not given"
    alone = way_rows(kept_up(without=None, other_bag=None), "€", VOICE)
    assert [row.name for row in alone] == ["As it is, no separator"]


@pytest.mark.parametrize(
    ("seconds", "words"),
    [(0.0, "not at all"), (30.0, "1 min"), (960.0, "16 min"), (7199.0, "120 min"), (16578.0, "4.6 h")],
)
def test_minutes_behind_a_mask(seconds: float, words: str) -> None:
    assert minutes(seconds) == words


def test_a_mask_is_judged_by_its_hours_and_the_filter_is_blamed_for_its_part() -> None:
    source = DustSource(np.array([[1e-7]]), np.array([[2e-8]]), np.array([[1e-5]]), np.array([0.4]))
    rooms = [Room(43.2, changes / 3600.0) for changes in (0.5, 3.0, 12.0)]
    sessions = [session(room, source, 600.0, 6000.0, RULES) for room in rooms]
    assert [mask_row(one, source, RULES, VOICE).level for one in sessions] == ["act", "watch", "ok"]
    assert "40 % of it came through a filter" in mask_row(sessions[0], source, RULES, VOICE).sentence
    assert "lower" in airing_words("door", sessions[0], sessions[1])
    assert "higher" in airing_words("shut", sessions[1], sessions[0])
    assert "the same peak" in airing_words("same", sessions[0], sessions[0])


def with_hood(hood: object, **port: object) -> Line:
    """The usual line behind another hood."""
    line = disc_line()
    branch = line.branches[0]
    assert branch.port is not None
    return replace(line, branches=(replace(branch, port=replace(branch.port, hood=hood, **port)),))  # type: ignore[arg-type]


@pytest.mark.parametrize("system", SYSTEMS)
def test_every_row_of_a_hood_is_a_sentence_in_the_users_units(system: str) -> None:
    voice = replace(VOICE, system=system)
    for hood in (
        OpenHood(release="fast", thrown_share=0.5, distance=0.1, rebound=True),
        Enclosure(release="active", thrown_share=0.5, ways=(Opening("Shut", 0.01), Opening("Open", 0.05, 0.5))),
        FloorNozzle(release="still", thrown_share=0.9, width=0.25, gap=0.005),
    ):
        line = with_hood(hood, machine="drum-sander")
        found = assess(line)
        drawn = float(tool_flow(line, found.point, 0)[0])
        rows = hood_rows(line, line.leaves[0], found.captures[0], drawn, found.fate, voice)
        assert all(row.sentence.endswith(".") for row in rows)
        assert {row.id for row in rows} == {"caught", "hood-speed", "floating", "thrown", "escapes", "contains"}
        speed = next(row for row in rows if row.id == "hood-speed")
        assert speed.unit == ("ft/min" if system == "inch" else "m/s")
        assert ("at its worst, open" in speed.sentence) == isinstance(hood, Enclosure)


def test_a_wide_port_gets_its_chips_and_a_tight_box_is_not_called_to_act_on() -> None:
    slow = with_hood(OpenHood(release="fast", thrown_share=0.5, distance=0.1), bore=0.1, machine="planer")
    found = assess(slow)
    rows = {row.id: row for row in hood_rows(slow, slow.leaves[0], found.captures[0], 0.04, found.fate, VOICE)}
    assert float(rows["thrown"].filled or 0.0) > 0.48
    assert "another question" in rows["thrown"].sentence
    assert rows["contains"].level == "watch"  # nothing clears it: a standing notice, however short the air is
    assert "A shop vacuum takes the chips" in rows["contains"].sentence
    box = with_hood(Enclosure(release="active", thrown_share=0.5, ways=(Opening("", 0.005),)), machine="drum-sander")
    found = assess(box)
    rows = {row.id: row for row in hood_rows(box, box.leaves[0], found.captures[0], 0.04, found.fate, VOICE)}
    assert rows["contains"].level == "watch"
    assert "fast enough in its openings" in rows["contains"].sentence
    assert next(c for c in found.checks if c.id == "containment").level[0] == 1
    nobody = with_hood(OpenHood(release="fast", thrown_share=0.5, distance=0.1), machine=None)
    found = assess(nobody)
    rows = {row.id: row for row in hood_rows(nobody, nobody.leaves[0], found.captures[0], 0.04, found.fate, VOICE)}
    assert "Name the machine" in rows["contains"].sentence


def test_every_option_at_a_hood_has_words() -> None:
    for key in OPTIONS:
        words, effort = option_words(key, 0.02, VOICE)
        assert words
        assert "{" not in words
        assert effort
