"""A box with sizes, and what a separator is made from, in the rig file."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.box import SHUT, BoxDoor, HoodBox, Passage
from fenwick.rig import RigError, build_line, check_rig, edit_rig
from fenwick.rig.edits.hood_box import WAYS, changed_box
from fenwick.rig.format.hood import EnclosurePart
from fenwick.rig.to_core.making import build_choices

BOX: dict[str, Any] = {
    "width_m": 0.5, "depth_m": 0.4, "height_m": 0.45,
    "passages": [{"side": "front", "width_m": 0.3, "height_m": 0.05}],
    "doors": [{"name": "Left door", "side": "left", "width_m": 0.2, "height_m": 0.3, "share": 0.25}],
}  # fmt: skip


def with_hood(document: dict[str, Any], **changes: Any) -> dict[str, Any]:
    hood = {"kind": "enclosure", "release": "active", "thrown_share": 0.5, "box": {**BOX, **changes}}
    document["line"]["branches"][0]["port"]["hood"] = hood
    document["guesses"] = []
    return document


def test_its_openings_follow_from_passages_and_doors(document: dict[str, Any]) -> None:
    hood = build_line(check_rig(with_hood(document))).leaves[0].port.hood
    assert hood is not None
    shut, opened = hood.openings(0.05)
    assert (shut.name, opened.name) == (SHUT, "Left door")
    assert shut.area == pytest.approx(0.3 * 0.05 + 2.0 * 0.5 * 1e-3)  # and a millimetre round the door
    assert opened.area == pytest.approx(0.3 * 0.05 + 0.2 * 0.3)
    assert (shut.share, opened.share) == (1.0, 0.25)


@given(
    st.lists(st.tuples(st.floats(0.01, 0.3), st.floats(0.01, 0.3)), max_size=4),
    st.lists(st.tuples(st.floats(0.01, 0.3), st.floats(0.01, 0.3), st.floats(0.0, 2.0)), max_size=4),
    st.floats(0.0, 0.01),
)
def test_a_door_that_opens_opens_the_box(
    passages: list[tuple[float, float]], doors: list[tuple[float, float, float]], gap: float
) -> None:
    box = HoodBox(
        0.5, 0.4, 0.45, tuple(Passage("front", w, h) for w, h in passages),
        tuple(BoxDoor(f"door {i}", "left", w, h, share) for i, (w, h, share) in enumerate(doors)), gap,
    )  # fmt: skip
    shut, *opened = box.ways()
    assert shut.area == pytest.approx(
        sum(w * h for w, h in passages) + sum(2.0 * (w + h) * gap for w, h, _ in doors), abs=1e-12
    )
    assert len(opened) == sum(share > 0.0 for _, _, share in doors)
    for one, (w, h, _) in zip(opened, [door for door in doors if door[2] > 0.0], strict=True):
        assert one.area - shut.area == pytest.approx(w * h - 2.0 * (w + h) * gap, abs=1e-12)


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"passages": [{"side": "front", "width_m": 0.6, "height_m": 0.05}]}, "passages[0].width_m"),
        ({"passages": [{"side": "left", "width_m": 0.45, "height_m": 0.05}]}, "passages[0].width_m"),
        ({"passages": [{"side": "top", "width_m": 0.3, "height_m": 0.41}]}, "passages[0].height_m"),
        ({"doors": [{"side": "right", "width_m": 0.2, "height_m": 0.5}]}, "doors[0].height_m"),
        ({"passages": [], "doors": []}, "passages"),
        ({"passages": [{"side": "below", "width_m": 0.2, "height_m": 0.1}]}, "passages[0].side"),
        ({"width_m": 0.0}, "width_m"),
    ],
)
def test_what_does_not_fit_is_said_at_its_key(document: dict[str, Any], changes: dict[str, Any], path: str) -> None:
    with pytest.raises(RigError) as error:
        check_rig(with_hood(document, **changes))
    assert error.value.problems[0].path.endswith(f"hood.box.{path}")


def test_a_box_is_told_by_its_sizes_or_by_its_openings(document: dict[str, Any]) -> None:
    both = with_hood(document)
    both["line"]["branches"][0]["port"]["hood"]["openings"] = [{"name": "In use", "area_m2": 0.02}]
    with pytest.raises(RigError, match="must be left out where the box has sizes"):
        check_rig(both)
    both["line"]["branches"][0]["port"]["hood"].pop("openings")
    both["line"]["branches"][0]["port"]["hood"].pop("box")
    with pytest.raises(RigError, match="a box with no opening draws no air"):
        check_rig(both)


def hood_of(document: dict[str, Any]) -> EnclosurePart:
    hood = check_rig(document).line.branches[0].port.hood  # type: ignore[union-attr]
    assert isinstance(hood, EnclosurePart)
    return hood


def test_sizes_come_and_go_without_changing_how_open_it_is(document: dict[str, Any]) -> None:
    hood = hood_of(with_hood(document))
    told = changed_box(hood, "none")
    assert told["box"] is None
    assert [one["area_m2"] for one in told["openings"]] == pytest.approx([way.area for way in hood.ways], abs=1e-6)
    plain = hood.model_copy(update={"box": None, "openings": ()})
    with pytest.raises(KeyError):
        changed_box(plain, "door")


@pytest.mark.parametrize("way", sorted(WAYS))
def test_every_change_of_a_box_is_one_that_the_file_takes(document: dict[str, Any], way: str) -> None:
    document = with_hood(document)
    keys = changed_box(hood_of(document), way)
    hood = {**document["line"]["branches"][0]["port"]["hood"], **keys}
    document["line"]["branches"][0]["port"]["hood"] = hood
    if way == "less-passage":  # its door is left
        hood["box"]["doors"][0]["share"] = 0.5
    assert hood_of(document)


class TestMake:
    def test_what_is_said_goes_before_what_the_body_is_bent_from(self, document: dict[str, Any]) -> None:
        own = next(e for e in document["line"]["elements"] if e["id"] == "sep")
        own |= {"body_material": "steel", "body_m": 0.0008}
        part = check_rig(document).line.elements[0]
        assert (build_choices(part).wall, build_choices(part).wall_thickness) == ("steel", 0.0008)  # type: ignore[arg-type]
        own["make"] = {"wall": "petg", "wall_m": 0.001, "swirl": "left"}
        chosen = build_choices(check_rig(document).line.elements[0])  # type: ignore[arg-type]
        assert (chosen.wall, chosen.wall_thickness, chosen.swirl) == ("petg", 0.001, "left")
        assert build_choices(part, swirl="right").swirl == "right"  # type: ignore[arg-type]

    def test_it_changes_no_figure_of_the_line(self, document: dict[str, Any]) -> None:
        rig = check_rig(document)
        changed = edit_rig(rig, {"line.elements[0].make.plate_m": 0.018, "line.elements[0].make.swirl": "left"})
        assert repr(build_line(rig)) == repr(build_line(changed))

    @pytest.mark.parametrize(
        ("key", "value"),
        [("plate", "cheese"), ("plate_m", 0.5), ("bevel_deg", 90.0), ("sealant", "spit"), ("swirl", "up")],
    )
    def test_what_cannot_be_is_refused(self, document: dict[str, Any], key: str, value: Any) -> None:
        with pytest.raises(RigError) as error:
            edit_rig(check_rig(document), {f"line.elements[0].make.{key}": value})
        assert error.value.problems[0].path == f"line.elements[0].make.{key}"
