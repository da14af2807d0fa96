"""One change at a time: the batch says what each change alone would, and the list is worth reading."""

from dataclasses import replace

import numpy as np
import pytest

from fenwick.core.components.vacuum import Nameplate
from fenwick.core.judging.assess import assess
from fenwick.core.search.changes import EXCHANGE, Candidate, candidates
from fenwick.core.search.whatif import ChangeOutcome, Pair, pick, ranked, try_all
from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.changes import apply_candidate, candidate_key, candidate_of
from fenwick.rig.edits.ports import alone
from fenwick.rig.voice import voice_for
from fenwick.wording.whatif import suggestion

LINES = {"single": (demo_rig(), 0), "bench": (alone(demo_rig("demo_bench"), "sander") or demo_rig(), 2)}


@pytest.mark.parametrize("name", sorted(LINES))
def test_every_outcome_is_what_the_changed_rig_computes(name: str) -> None:
    rig, port = LINES[name]
    line = build_line(rig)
    outcomes = try_all(line, port, candidates(line, port))
    assert outcomes
    for outcome in outcomes:
        changed = build_line(apply_candidate(rig, outcome.candidate))
        found = assess(changed)
        # the ribbed bend's surcharge stays in the batch when only the wall turns smooth
        near = 0.02 if outcome.candidate.kind == "smooth" else 2e-4
        assert found.point.port_flow[port, 0] == pytest.approx(outcome.flow[1], rel=near)
        assert outcome.kept is not None
        assert found.efficiency[0][0] == pytest.approx(outcome.kept[1], abs=10 * near)


def test_the_demo_is_told_to_seal_stiffen_and_narrow() -> None:
    line = build_line(demo_rig())
    best = try_all(line, 0, candidates(line, 0))
    assert {outcome.candidate.kind for outcome in best[:4]} == {"seal-bin", "stiffen", "narrower", "bore"}
    assert all(outcome.acts[1] < outcome.acts[0] for outcome in best[:4])
    said = [suggestion(outcome, voice_for(demo_rig(), "metric")) for outcome in best[:4]]
    assert said[0].action == "Seal the bin's lid and seams"
    assert "kept 74.4 → 92.5 %" in said[0].effect


def test_only_gains_are_listed_and_the_order_is_by_use() -> None:
    line = build_line(demo_rig())
    outcomes = try_all(line, 0, candidates(line, 0))
    costly = [outcome.costs_dust for outcome in outcomes]
    assert costly == sorted(costly)  # what costs much of the dust comes last, whatever it mends
    assert any(costly)
    cheap = [outcome for outcome in outcomes if not outcome.costs_dust]
    helped = [outcome.acts[1] - outcome.acts[0] for outcome in cheap]
    assert helped == sorted(helped)
    assert max(helped) <= 0
    same = [o for o in cheap if o.acts[0] == o.acts[1] and o.in_bin]
    assert [o.harms for o in same] == sorted(o.harms for o in same)  # what makes another figure worse comes later
    for harms in (False, True):
        gains = [o.in_bin[1] - o.in_bin[0] for o in same if o.in_bin and o.harms is harms]
        assert gains == sorted(gains, reverse=True)
    gains = [o.in_bin[1] - o.in_bin[0] for o in same if o.in_bin]
    # what leaves less in the bin is there for a figure that is to act on
    assert all(gain > 0 or any(o.helps(one) for one in o.acting) for o, gain in zip(same, gains, strict=True))


def test_pulling_less_is_no_first_step_towards_a_bin_that_holds_and_a_ring_is() -> None:
    line = build_line(demo_rig())
    curve = line.vacuum.curve
    assert isinstance(curve, Nameplate)
    weak = replace(line, vacuum=replace(line.vacuum, curve=replace(curve, sealed_suction=0.75 * curve.sealed_suction)))
    assert [outcome for outcome in try_all(line, 0, (), others={"weak": weak}) if not outcome.mends] == []
    ring = _outcome_of("stiffen", folding=(0.4, 0.6), acts=(2, 2))
    assert ranked([ring, _outcome_of(EXCHANGE, folding=(0.4, 0.6), acts=(2, 2))]) == (ring,)


def test_a_figure_that_falls_is_told_as_a_loss_behind_the_gains() -> None:
    moves = _outcome_of("nearer", folding=(1.4, 1.1), acts=(1, 1), in_bin=(0.5, 0.6)).moves
    assert [(move.figure, move.gains) for move in moves] == [("in_bin", True), ("folding", False)]
    assert [move.gains for move in _outcome_of("nearer", in_bin=(0.6, 0.5), acts=(1, 1)).moves] == [False]


def test_what_costs_much_dust_says_so_even_where_it_is_no_matter_of_the_hood() -> None:
    costly = _outcome_of("clean", in_bin=(0.9, 0.4), acts=(2, 1))
    assert costly.costs_dust
    said = suggestion(costly, voice_for(demo_rig(), "metric"))
    assert said.loss == "in the bin 90 → 40 g of 100"
    assert said.loss in said.told
    assert ranked([costly, _outcome_of("seal", in_bin=(0.9, 0.95), acts=(2, 2))])[-1] == costly


def test_small_losses_are_not_told_and_small_gains_are() -> None:
    same = _outcome_of("seal", acts=(1, 1))
    told = [move.figure for move in replace(same, flow=(0.03, 0.0298), kept=(0.8, 0.805)).moves]
    assert told == ["kept"]


def test_what_is_not_shown_first_stands_behind_it() -> None:
    several = [_outcome_of("seal", in_bin=(0.5, 0.6 - 0.01 * i), acts=(1, 1)) for i in range(5)]
    picked = pick(several, frozenset(), 3)
    assert picked.outcomes + picked.others == tuple(several)
    assert len(picked.outcomes) == 3


def _outcome_of(
    kind: str, acts: tuple[int, int], folding: Pair | None = None, in_bin: Pair | None = (0.5, 0.5)
) -> ChangeOutcome:
    return ChangeOutcome(Candidate(kind, "it"), (0.03, 0.03), None, None, in_bin, folding, acts)


def test_sensible_candidates_are_many_and_unique() -> None:
    line = build_line(demo_rig())
    found = candidates(line, 0)
    assert len(found) >= 25
    assert len(set(found)) == len(found)
    assert not any(c.kind == "upright" for c in found)  # it stands upright already


def test_an_open_neighbour_may_be_shut() -> None:
    bench = demo_rig("demo_bench")
    document = bench.model_dump(mode="json")
    document["line"]["branches"][2]["gate"]["opening"] = 1.0
    line = build_line(Rig.model_validate(document))
    shut = [c for c in candidates(line, 0) if c.kind == "shut"]
    assert [c.part for c in shut] == ["sweep"]


def test_keys_stand_for_their_candidates() -> None:
    line = build_line(demo_rig())
    for candidate in candidates(line, 0):
        again = candidate_of(candidate_key(candidate))
        assert again is not None
        assert (again.kind, again.part) == (candidate.kind, candidate.part)
        assert np.isclose(again.value, candidate.value, rtol=1e-5)
    assert candidate_of("nonsense") is None
    assert candidate_of("bore~x~wide") is None
