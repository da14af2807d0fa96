"""Two changes of one document: both are there afterwards, or the place where they clash is told."""

import copy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.rig import Rig, check_rig, edit_rig
from fenwick.rig.edits.structure import add_part, remove_part
from fenwick.rig.format.merge import NOTHING, merge

ITEMS = st.lists(st.builds(lambda i, v: {"id": i, "v": v}, st.sampled_from("abcdef"), st.integers(0, 3)), max_size=5)
DOCUMENTS = st.fixed_dictionaries(
    {"name": st.sampled_from("xyz"), "size": st.one_of(st.none(), st.integers(0, 3))},
    optional={"parts": ITEMS.map(lambda items: list({one["id"]: one for one in items}.values()))},
)


@given(base=DOCUMENTS, other=DOCUMENTS)
def test_a_change_on_top_of_none_is_the_change(base: Any, other: Any) -> None:
    for mine, theirs in ((other, base), (base, other), (other, other)):
        assert merge(base, mine, theirs).document == other
        assert merge(base, mine, theirs).clashes == ()


@given(base=DOCUMENTS, mine=DOCUMENTS, theirs=DOCUMENTS)
def test_who_came_first_does_not_matter_where_nothing_clashes(base: Any, mine: Any, theirs: Any) -> None:
    one, other = merge(base, mine, theirs), merge(base, theirs, mine)
    assert len(one.clashes) == len(other.clashes)
    if not one.clashes:
        parts = [sorted(each.document.get("parts", []), key=lambda item: item["id"]) for each in (one, other)]
        assert parts[0] == parts[1]


@given(base=DOCUMENTS, mine=DOCUMENTS, theirs=DOCUMENTS)
def test_a_value_that_one_alone_has_changed_is_never_put_back(base: Any, mine: Any, theirs: Any) -> None:
    found = merge(base, mine, theirs).document
    for key in ("name", "size"):
        if theirs[key] != base[key] and mine[key] == base[key]:
            assert found[key] == theirs[key]
        if mine[key] != base[key] and theirs[key] == base[key]:
            assert found[key] == mine[key]


@given(base=DOCUMENTS, mine=DOCUMENTS, theirs=DOCUMENTS)
def test_a_clash_goes_to_the_one_who_is_preferred(base: Any, mine: Any, theirs: Any) -> None:
    for prefer in (True, False):
        found = merge(base, mine, theirs, prefer_mine=prefer)
        for clash in found.clashes:
            if clash.path in ("name", "size"):
                assert found.document[clash.path] == (clash.mine if prefer else clash.theirs)


def changed(rig: Rig, **values: Any) -> dict[str, Any]:
    document: dict[str, Any] = edit_rig(rig, values).model_dump(mode="json")
    return document


HOSE_A, HOSE_B = (f"line.branches[0].elements[{i}].length_m" for i in (0, 2))


def test_two_values_of_one_part_are_both_taken(rig: Rig) -> None:
    base = rig.model_dump(mode="json")
    bore = "line.branches[0].elements[0].bore_m"
    both = merge(base, changed(rig, **{HOSE_A: 1.5}), changed(rig, **{bore: 0.05}))
    assert both.clashes == ()
    assert both.document == changed(rig, **{HOSE_A: 1.5, bore: 0.05})


def test_the_same_value_changed_twice_is_told_with_its_part(rig: Rig) -> None:
    base = rig.model_dump(mode="json")
    (clash,) = merge(base, changed(rig, **{HOSE_A: 1.5}), changed(rig, **{HOSE_A: 1.7})).clashes
    assert (clash.path, clash.part, clash.mine, clash.theirs) == (HOSE_A, "hose-a", 1.5, 1.7)


def test_a_part_is_found_where_the_other_change_has_moved_it(rig: Rig) -> None:
    base = rig.model_dump(mode="json")
    longer, _ = add_part(rig, "hose-a", "reducer")
    both = merge(base, changed(rig, **{HOSE_B: 2.25}), longer.model_dump(mode="json"))
    assert both.clashes == ()
    found = check_rig(both.document)
    names = [part.id for part in found.line.branches[0].elements]
    assert names == [part.id for part in longer.line.branches[0].elements]
    assert next(p for p in found.line.branches[0].elements if p.id == "hose-b").length_m == 2.25  # type: ignore[union-attr]


def test_a_part_removed_there_and_changed_here_clashes(rig: Rig) -> None:
    base = rig.model_dump(mode="json")
    gone = remove_part(rig, "hose-a").model_dump(mode="json")
    (clash,) = merge(base, changed(rig, **{HOSE_A: 1.5}), gone).clashes
    assert clash.part == "hose-a"
    assert clash.theirs is NOTHING
    assert merge(base, base, gone).document == gone


def test_another_kind_of_thing_is_not_mixed_with_the_old_one(rig: Rig) -> None:
    base = rig.model_dump(mode="json")
    points = [{"flow_m3_s": x / 100.0, "suction_pa": 2e4 - 3e3 * x} for x in range(5)]
    measured = changed(rig, **{"vacuum.curve": {"kind": "points", "points": points}})
    label = changed(rig, **{"vacuum.curve.sealed_suction_pa": 21e3})
    (clash,) = merge(base, label, measured).clashes
    assert clash.path == "vacuum.curve"
    check_rig(merge(base, label, measured, prefer_mine=True).document)


def test_marks_of_guesses_are_a_set(document: dict[str, Any]) -> None:
    document["guesses"] = [{"part": "hose-a", "key": "length_m"}, {"part": "hose-b", "key": "length_m"}]
    mine, theirs = copy.deepcopy(document), copy.deepcopy(document)
    del mine["guesses"][0], theirs["guesses"][1]
    both = merge(document, mine, theirs)
    assert both.clashes == ()
    assert both.document["guesses"] == []


@pytest.mark.parametrize(
    ("here", "there", "wanted"), [("abxc", "abc", "abxc"), ("abc", "acb", "acb"), ("xabc", "acyb", "xacyb")]
)
def test_the_order_is_that_of_the_one_who_moved_something(here: str, there: str, wanted: str) -> None:
    lists = [[{"id": name} for name in order] for order in ("abc", here, there)]
    assert "".join(one["id"] for one in merge(*lists).document) == wanted
