"""Designs put into a rig: what was computed is what is drawn and solved; bought ones from what is printed."""

import pytest

from fenwick.core.arrays import one_value
from fenwick.core.components.dust import DUSTS
from fenwick.core.search.designs import RANGES, build, one_of, sample
from fenwick.core.search.finder import Design, Limits, search
from fenwick.core.search.on_the_line import evaluate
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.rig.edits.design import design_keys, mended, with_design
from fenwick.rig.edits.kinds import kind_of
from fenwick.rig.edits.ready_made import Printed, take_ready_made
from fenwick.rig.format.separator import CyclonePart, SeparatorPart


def separator(rig: Rig) -> SeparatorPart:
    """The demo's separator."""
    found = next(e for e in rig.line.elements if e.id == "sep")
    assert isinstance(found, SeparatorPart)
    return found


@pytest.mark.parametrize("kind", RANGES)
def test_a_design_survives_being_rounded_into_the_file(rig: Rig, kind: str) -> None:
    line = build_line(rig)
    stage = line.separators[0]
    designs = build(kind, sample(kind, 6, 9), stage.id, stage.bin, 0.05, "smooth")
    found_all = evaluate(line, designs, 0)
    for i in range(6):
        found = Design(kind, one_of(designs, i), float(found_all.kept[i]), 0, 0, 0, 0, 0, 0, False, 0.0)
        changed = with_design(rig, "sep", found)
        assert kind_of(separator(changed)) == kind
        assert separator(changed).bin == separator(rig).bin
        again = build_line(changed)
        new = evaluate(again, again.separators[0], 0)
        assert one_value(new.kept) == pytest.approx(float(found_all.kept[i]), abs=0.01)
        assert one_value(new.air) == pytest.approx(float(found_all.air[i]), rel=0.01)
        assert one_value(new.suction) == pytest.approx(float(found_all.suction[i]), rel=0.06)
    assert found_all.cut_size.shape == (6,)


def test_a_found_design_stands_as_high_as_was_said(rig: Rig) -> None:
    line = build_line(rig)
    limits = Limits(kinds=("cyclone",), height=0.8)
    *_, last = search(line, line.separators[0], 0, limits, None, 200, 5)
    part = separator(with_design(rig, "sep", last.designs[0]))
    assert isinstance(part, CyclonePart)
    assert part.total_height_m + part.bin.profile[-1].height_m <= 0.8 + 0.0005


def test_what_was_wrong_with_the_hook_up_is_not_taken_over(rig: Rig) -> None:
    crooked = edit_rig(rig, {"line.elements[0].tilt_deg": 20.0, "line.elements[0].hoses_swapped": True})
    line = build_line(rig)
    box = line.separators[0].bin
    lid = one_of(build("elbow-lid", sample("elbow-lid", 2, 1), "sep", box, 0.05, ""), 0)
    found = Design("elbow-lid", lid, 0, 0, 0, 0, 0, 0, 0, False, 0.0)
    part = separator(with_design(crooked, "sep", found))
    assert part.tilt_deg == 0.0
    assert not part.hoses_swapped
    assert set(design_keys(found.separator)) == {"type", "inlet_bore_m", "outlet_d_m", "outlet_length_m"}


def test_a_mended_bin_is_tight_empty_and_upright(rig: Rig) -> None:
    part = separator(mended(edit_rig(rig, {"line.elements[0].tilt_deg": 10.0}), "sep"))
    assert (part.bin.leak_area_m2, part.bin.fill_height_m, part.tilt_deg) == (0.0, 0.0, 0.0)


def test_what_is_not_printed_is_a_guess_and_what_is_printed_is_not(rig: Rig) -> None:
    whole = take_ready_made(rig, "sep", Printed("A", 0.05, 0.15, 0.4, outlet=0.06, dust_outlet=0.05))
    assert {g.key for g in whole.guesses if g.part == "sep"} == {"outlet_length_m", "cylinder_height_m"}
    bare = take_ready_made(rig, "sep", Printed("A", 0.05, 0.15, 0.4))
    assert {"outlet_d_m", "dust_outlet_d_m"} <= {g.key for g in bare.guesses}
    assert separator(bare).outlet_d_m == pytest.approx(0.075)  # half the body
    assert bare.dust is not None
    assert bare.dust.kind in DUSTS


@pytest.mark.parametrize(
    ("printed", "key"),
    [
        (Printed("A", 0.14, 0.15, 0.4), "inlet_bore_m"),
        (Printed("A", 0.05, 0.15, 0.05), "cylinder_height_m"),
        (Printed("A", 0.05, 0.15, 0.4, outlet=0.3), "outlet_d_m"),
        (Printed("A", 0.05, 0.15, 0.4, bolt_circle=0.02, bolts=4), "bolt_circle_d_m"),
        (Printed("A", 0.05, 0.15, 0.4, bolts=1), "claim.bolts"),
    ],
)
def test_what_cannot_be_a_cyclone_is_refused_at_its_key(rig: Rig, printed: Printed, key: str) -> None:
    with pytest.raises(RigError) as caught:
        take_ready_made(rig, "sep", printed)
    assert key in caught.value.problems[0].path
