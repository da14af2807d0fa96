"""The editor of a part: reads what was typed, says what changed, and changes nothing unasked."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.data.demo import demo_rig
from fenwick.rig import Rig, check_rig, edit_rig
from fenwick.rig.edits.edit import value_at
from fenwick.units import SYSTEMS
from fenwick.web.kit.editor import Editor, read_editor
from fenwick.web.line.form import open_editor, part_paths

PARTS = ("drum-sander", "hose-a", "cuff", "hose-b", "sep", "link", "vacuum")
BORE = "line.branches[0].elements[2].bore_m"


def editor(rig: Rig, part: str, system: str = "metric") -> Editor:
    """The editor of a part that is there."""
    found = open_editor(rig, part, part.title(), system)
    assert found is not None
    return found


@given(
    bore=st.floats(0.001, 1.0),
    length=st.floats(0.001, 200.0),
    area=st.floats(0.0, 0.1),
    celsius=st.floats(-40.0, 60.0),
    system=st.sampled_from(SYSTEMS),
)
def test_submitting_what_is_shown_changes_nothing_whatever_is_stored(
    bore: float, length: float, area: float, celsius: float, system: str
) -> None:
    stored = {
        BORE: bore,
        "line.branches[0].elements[2].length_m": length,
        "line.elements[0].bin.leak_area_m2": area,
        "site.temperature_c": celsius,
    }
    rig = edit_rig(demo_rig(), stored)
    for part in PARTS:
        shown = editor(rig, part, system)
        change = read_editor(rig, shown, {field.path: field.text for field in shown.fields}, system)
        assert change.rig is None
        assert not change.editor.error
        assert not any(field.error for field in change.editor.fields)


@given(st.floats(0.5, 30.0))
def test_a_typed_inch_is_stored_as_that_many_metres(inches: float) -> None:
    rig = demo_rig()
    text = f"{inches:.4f}"
    change = read_editor(rig, editor(rig, "hose-b", "inch"), {BORE: text}, "inch")
    if float(text) <= 39.37:
        assert change.rig is not None
        assert value_at(change.rig, BORE) == pytest.approx(float(text) * 0.0254, rel=1e-9)


def test_several_changes_make_one_label() -> None:
    rig = demo_rig()
    typed = {BORE: "50", "line.branches[0].elements[2].wall": "smooth"}
    change = read_editor(rig, editor(rig, "hose-b"), typed, "metric")
    assert change.label == "Hose-B: bore 63 mm → 50 mm, wall wire helix → smooth bore"


def test_an_optional_value_can_be_forgotten_and_given() -> None:
    rig = demo_rig()
    path = "line.elements[0].bin.leak_area_m2"
    without = read_editor(rig, editor(rig, "sep"), {path: ""}, "metric")
    assert without.rig is not None
    assert value_at(without.rig, path) is None
    assert without.label.endswith("bin leak 22 mm² → not known")
    given_again = read_editor(without.rig, editor(without.rig, "sep"), {path: "30"}, "metric")
    assert given_again.rig is not None
    assert value_at(given_again.rig, path) == pytest.approx(30e-6)


def test_a_choice_that_is_not_offered_is_refused() -> None:
    rig = demo_rig()
    change = read_editor(rig, editor(rig, "hose-b"), {"line.branches[0].elements[2].wall": "velvet"}, "metric")
    assert change.rig is None
    (error,) = [field.error for field in change.editor.fields if field.error]
    assert error.startswith("Must be 'smooth'")


def test_a_path_that_is_not_in_the_editor_is_ignored() -> None:
    rig = demo_rig()
    assert read_editor(rig, editor(rig, "hose-b"), {"name": "Taken over"}, "metric").rig is None


def test_every_part_of_every_kind_has_its_fields(document: dict[str, Any]) -> None:
    document["line"]["elements"] += [
        {"id": "gap", "kind": "leak", "area_m2": 1e-5},
        {"id": "plate", "kind": "loss", "bore_m": 0.05, "k": 1.0},
        {"id": "gate", "kind": "gate", "bore_m": 0.05, "opening": 0.5},
    ]
    document["line"]["elements"][0]["slots"].append({"width_m": 0.02, "arc_deg": 60, "start_deg": 250})
    document["line"]["branches"][0]["gate"] = {"opening": 0.8}
    rig = check_rig(document)
    for part in (*PARTS, "gap", "plate", "gate"):
        shown = editor(rig, part)
        assert shown.fields
        assert len({field.id for field in shown.fields}) == len(shown.fields)
    assert "line.elements[0].slots[0].width_m" in {field.path for field in editor(rig, "sep").fields}
    assert "line.branches[0].gate.opening" in {field.path for field in editor(rig, "drum-sander").fields}
    assert part_paths(rig, "nothing") is None
