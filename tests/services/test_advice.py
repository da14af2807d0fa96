"""What would help a line: ranked once for each, nothing told twice, and the table of ports tells the same."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings

from fenwick.core.judging.check import WATCH
from fenwick.core.search.changes import EXCHANGE
from fenwick.core.search.figures import figures_at
from fenwick.data import Database
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.data.lines import line_state
from fenwick.rig import Rig, check_rig
from fenwick.rig.edits.changes import apply_candidate
from fenwick.rig.edits.ports import alone
from fenwick.rig.voice import voice_for
from fenwick.services.advice import advice_for, changes_for, smaller_vacuums
from fenwick.services.ports import port_studies, together_studies
from fenwick.services.solving import solve
from fenwick.shop import ShopFile
from fenwick.units import METRIC
from fenwick.wording.whatif import unhelped_words
from tests.house.test_one_figure import whole_rigs


@pytest.fixture
def owned(shop: Database) -> ShopFile:
    """What the demo shop has."""
    with shop.session() as session:
        found = line_state(session, 1).owned
    assert found is not None
    return found


@pytest.fixture
def bench() -> Rig:
    """Several tools behind gates."""
    return demo_rig("demo_bench")


def test_of_one_kind_at_one_part_only_the_best_is_told(rig: Rig, owned: ShopFile) -> None:
    told = [(one.candidate.kind, one.candidate.part) for one in changes_for(rig, owned, 0)]
    assert len(told) == len(set(told)) > 3
    assert sum(kind == "bore" for kind, _ in told) >= 1


def test_what_mends_most_comes_first_and_nothing_makes_it_worse(rig: Rig, owned: ShopFile) -> None:
    outcomes = changes_for(rig, owned, 0)
    helped = [one.acts[1] - one.acts[0] for one in outcomes]
    assert helped == sorted(helped)
    assert max(helped) <= 0
    assert outcomes[0].mends


def test_other_vacuums_of_the_shop_are_tried_too_and_none_without_a_shop(rig: Rig, owned: ShopFile) -> None:
    weak = weak_and_stiff(rig)
    kinds = [one.candidate.kind for one in changes_for(weak, owned, 0)]
    assert EXCHANGE in kinds
    assert EXCHANGE not in [one.candidate.kind for one in changes_for(weak, None, 0)]


def weak_and_stiff(rig: Rig) -> Rig:
    """With a vacuum that pulls less, and a bin that a stronger one would not fold."""
    document = rig.model_dump(mode="json")
    document["vacuum"]["curve"] |= {"sealed_suction_pa": 6000.0, "open_flow_m3_s": 0.03}
    document["vacuum"]["name"] = "Weak vac"
    next(part for part in document["line"]["elements"] if part["kind"] == "separator")["bin"]["wall_m"] = 0.02
    return check_rig(document)


def test_a_shut_port_is_told_nothing(bench: Rig) -> None:
    line = solve(bench).line
    shut = [i for i, leaf in enumerate(line.leaves) if not leaf.open]
    assert shut
    for port in shut:
        assert changes_for(bench, None, port) == ()


def test_it_is_worked_out_once_for_each_line_and_port(rig: Rig, document: dict[str, Any]) -> None:
    first = changes_for(rig, None, 0)
    assert changes_for(check_rig(document), None, 0) is first


def test_every_change_told_is_what_it_comes_to_when_made(rig: Rig) -> None:
    for outcome in changes_for(rig, None, 0)[:6]:
        solved = solve(apply_candidate(rig, outcome.candidate))
        made = figures_at(solved.line, solved.found, 0)
        assert outcome.in_bin is None or made.in_bin is None or outcome.in_bin[1] == pytest.approx(made.in_bin[0], 2e-3)
        assert outcome.acts[1] == int(made.acts[0])


@pytest.mark.parametrize("whose", ["nobody's", "the shop's"])
def test_the_table_of_ports_tells_the_first_of_what_the_line_alone_is_told(bench: Rig, whose: str) -> None:
    owned = demo_shop() if whose == "the shop's" else None
    for study in port_studies(bench, owned):
        lone = alone(bench, study.line.leaves[study.port].id)
        assert lone is not None
        first = next(iter(changes_for(lone, owned, study.port)), None)
        assert (study.best and study.best.candidate) == (first and first.candidate)
        if study.best and first:
            assert study.best.acts == first.acts
            assert study.best.flow == pytest.approx(first.flow, rel=2e-3)


def test_the_table_of_ports_knows_the_other_vacuums_of_the_shop_too(bench: Rig) -> None:
    weak = weak_and_stiff(bench)
    assert EXCHANGE in [study.best.candidate.kind for study in port_studies(weak, demo_shop()) if study.best]
    assert EXCHANGE not in [study.best.candidate.kind for study in port_studies(weak, None) if study.best]


def test_help_at_the_hood_is_told_only_where_no_change_of_the_line_helps(bench: Rig) -> None:
    for study in port_studies(bench, None):
        assert study.best is None or study.hood is None
        if study.hood is not None:
            assert study.hood.id != "outdoors"
            assert study.hood.gain > 0.0


def test_every_tool_has_a_study_of_its_own_and_gets_no_less_air_alone(bench: Rig) -> None:
    studies = port_studies(bench, None)
    leaves = solve(bench).line.leaves
    assert [study.port for study in studies] == list(range(len(leaves)))
    for together in together_studies(bench):
        for name in together.ports:
            port = next(i for i, leaf in enumerate(leaves) if leaf.id == name)
            lone, shared = studies[port].found.point.port_flow[port], together.found.point.port_flow[port]
            assert lone[0] >= shared[0] * (1.0 - 1e-4)


def test_a_line_without_combinations_has_none(bench: Rig) -> None:
    plain = bench.model_copy(update={"line": bench.line.model_copy(update={"combinations": ()})})
    assert together_studies(plain) == ()
    assert together_studies(bench) != ()


def test_a_figure_to_act_on_is_counted_alike_by_the_studies_and_the_line(bench: Rig) -> None:
    study = port_studies(bench, None)[0]
    lone = alone(bench, study.line.leaves[0].id)
    assert lone is not None
    solved = solve(lone)
    counted = figures_at(solved.line, solved.found, 0).acts
    assert list(figures_at(study.line, study.found, 0).acts) == list(counted)
    assert replace(study, best=None).found is study.found


@given(whole_rigs())
@settings(max_examples=12)
def test_every_figure_to_act_on_gets_a_change_or_the_sentence_why_there_is_none(rig: Rig) -> None:
    solved, voice = solve(rig), voice_for(rig, METRIC)
    port = solved.first_open
    if not solved.line.leaves[port].open:
        return
    acting = figures_at(solved.line, solved.found, port).to_act_on()
    picked = advice_for(rig, None, port, 3)
    for figure in acting:
        helped = any(one.helps(figure) for one in picked.outcomes)
        assert helped != (figure in picked.unhelped)
    assert set(picked.unhelped) <= acting
    for figure in picked.unhelped:
        sentence = unhelped_words(figure, solved.line.leaves[port].id, voice)
        assert sentence.startswith("No single")
        assert "{" not in sentence


def test_fine_dust_that_no_shop_vacuum_contains_is_a_notice_and_nothing_to_act_on() -> None:
    rig = demo_rig("demo_bench")
    port = solve(rig).first_open
    assert "flow" not in advice_for(rig, demo_shop(), port, 3).unhelped
    notice = next(check for check in solve(rig).found.checks if check.id == "containment")
    assert int(notice.level[0]) == WATCH
    assert float(notice.value[0]) < 0.5 * float(notice.limit[0])
    assert "shut, blocked" in unhelped_words("flow", "bandsaw", voice_for(rig, METRIC))


def test_what_helps_a_figure_to_act_on_is_shown_behind_the_three_best() -> None:
    picked = advice_for(demo_rig(), demo_shop(), 0, 1)
    assert len(picked.outcomes) > 1
    assert {figure for one in picked.outcomes for figure in one.acting if one.helps(figure)} >= {"kept", "folding"}


def _with_vacuum(tank: float, flow: float) -> ShopFile:
    document = demo_shop().model_dump(mode="json")
    spare = next(one for one in document["vacuums"] if one["id"] == "canister")
    spare |= {"tank_m3": tank, "inlet_bore_m": 0.0635, "bag": None}
    spare["curve"] |= {"sealed_suction_pa": 18000.0, "open_flow_m3_s": flow}
    spare["filter"] |= {"area_m2": 0.6, "held_kg": 0.035}
    return ShopFile.model_validate(document)


def test_an_owned_vacuum_with_a_smaller_tank_is_named_where_it_does_as_well() -> None:
    rig = demo_rig()
    assert smaller_vacuums(rig, _with_vacuum(0.010, 0.062), 0) == ("canister",)
    assert smaller_vacuums(rig, _with_vacuum(0.010, 0.040), 0) == ()  # less air
    assert smaller_vacuums(rig, _with_vacuum(0.060, 0.062), 0) == ()  # a larger tank
    found = changes_for(rig, _with_vacuum(0.010, 0.062), 0)
    assert any(one.spares_room for one in found)
