"""Section and plan: to scale, every dimension where it belongs, every knob inside the picture and of use."""

import re
from typing import Any
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.wet import WetStage
from fenwick.data.demo import demo_rig
from fenwick.drawing.section import SECTION, frame_of, is_rectangle, render_section
from fenwick.drawing.stages import above_rim, place_stage, size_of, top_width
from fenwick.rig import Rig, RigError, edit_rig
from fenwick.rig.edits.kinds import KINDS, change_kind, turn_inlet
from fenwick.rig.format.places import document_value
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.rig.voice import voice_for

SVG = "{http://www.w3.org/2000/svg}"


def part_of(rig: Rig) -> SeparatorPart:
    """The demo's separator."""
    found = next(e for e in rig.line.elements if e.id == "sep")
    assert isinstance(found, SeparatorPart)
    return found


def drawn(rig: Rig, system: str = "metric") -> ElementTree.Element:
    """The section of its separator, parsed."""
    return ElementTree.fromstring(str(render_section(part_of(rig), 0.1, voice_for(rig, system), "section")))


def dimensions(svg: ElementTree.Element) -> dict[str, ElementTree.Element]:
    """Every dimension by the key it shows."""
    return {str(g.get("data-key")): g for g in svg.iter("g") if g.get("class") == "dimension"}


@pytest.fixture
def demo() -> Rig:
    """The demo line."""
    return demo_rig()


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("system", ["metric", "inch"])
def test_every_dimension_names_a_value_of_the_separator_and_shows_it(demo: Rig, kind: str, system: str) -> None:
    rig = change_kind(demo, "sep", kind)
    voice, part = voice_for(rig, system), part_of(rig)
    shown = dimensions(drawn(rig, system))
    assert {"outlet_d_m", "outlet_length_m", "bin.fill_height_m"} <= set(shown)
    for key, group in shown.items():
        value = document_value(part.model_dump(mode="json"), key)
        text = group.find("text")
        assert text is not None
        said = (text.text or "").removeprefix("⌀ ").removesuffix("°")
        expected = f"{value:g}" if key.endswith("_deg") else voice.figure(value, "bore", unit=False)
        assert said == expected


@pytest.mark.parametrize("kind", KINDS)
def test_every_knob_and_figure_lies_inside_the_picture(demo: Rig, kind: str) -> None:
    for group in dimensions(drawn(change_kind(demo, "sep", kind))).values():
        for circle in group.iter("circle"):
            assert 0.0 <= float(str(circle.get("cx"))) <= SECTION.width
            assert 0.0 <= float(str(circle.get("cy"))) <= SECTION.height
        text = group.find("text")
        assert text is not None
        assert 0.0 < float(str(text.get("x"))) < SECTION.width
        assert 7.9 < float(str(text.get("y"))) <= SECTION.height


@pytest.mark.parametrize("kind", KINDS)
def test_a_knob_pulled_by_its_pixels_gives_the_size_back(demo: Rig, kind: str) -> None:
    """Moving a size by what one pixel stands for moves its knob by one pixel, where the picture keeps its scale."""
    rig = change_kind(demo, "sep", kind)
    grip = next(g for g in dimensions(drawn(rig))["outlet_length_m"].iter("g") if g.get("role") == "slider")
    per_px = float(str(grip.get("data-per-px"))) / 1000.0
    moved = edit_rig(rig, {"line.elements[0].outlet_length_m": part_of(rig).outlet_length_m + 5.0 * per_px})

    def knob(one: Rig) -> float:
        circle = dimensions(drawn(one))["outlet_length_m"].find(".//circle[@class='knob']")
        assert circle is not None
        return float(str(circle.get("cy")))

    assert knob(moved) - knob(rig) == pytest.approx(5.0, abs=0.2)


def test_the_section_is_to_scale(demo: Rig) -> None:
    part = part_of(demo)
    frame = frame_of(part)
    body = place_stage(part, frame.middle, 316.0, frame.scale, 0.1)
    assert body.body[2][0] - body.body[1][0] == pytest.approx(part.chamber_d_m * frame.scale)  # type: ignore[attr-defined]
    assert body.dust_top == pytest.approx(316.0 - part.bin.fill_height_m * frame.scale)
    assert frame.roof == pytest.approx(body.top)


def test_a_cyclone_narrows_to_its_dust_outlet(demo: Rig) -> None:
    part = part_of(change_kind(demo, "sep", "cyclone"))
    body = place_stage(part, 100.0, 300.0, 200.0, 0.1)
    widths = [body.body[-1 - i][0] - body.body[i][0] for i in range(3)]
    assert widths == sorted(widths, reverse=True)
    assert widths[2] == pytest.approx(part.dust_outlet_d_m * 200.0)  # type: ignore[attr-defined]


@pytest.mark.parametrize("kind", KINDS)
def test_only_what_stands_on_the_rim_adds_height(demo: Rig, kind: str) -> None:
    part = part_of(change_kind(demo, "sep", kind))
    high, wide = size_of(part)
    assert high == pytest.approx(part.bin.profile[-1].height_m + above_rim(part))
    assert wide >= top_width(part)
    assert (above_rim(part) == 0.0) is (kind in ("hung-disc", "elbow-lid", "rim-inlet"))


def test_slots_are_drawn_where_they_are(demo: Rig) -> None:
    svg = drawn(edit_rig(demo, {"line.elements[0].slots[0].start_deg": 90.0}))
    knobs = dimensions(svg)
    start = knobs["slots[0].start_deg"].find(".//circle[@class='knob']")
    assert start is not None
    assert float(str(start.get("cx"))) == pytest.approx(690.0 + 118.0, abs=0.2)  # a quarter turn on, at the right
    assert float(str(start.get("cy"))) == pytest.approx(176.0, abs=0.2)


@pytest.mark.parametrize("kind", ["cyclone", "slotted-disc", "hung-disc", "one-body"])
def test_an_inlet_turns_between_round_and_rectangle_with_its_area(demo: Rig, kind: str) -> None:
    rig = change_kind(demo, "sep", kind)
    turned = turn_inlet(rig, "sep")
    assert is_rectangle(part_of(turned)) is not is_rectangle(part_of(rig))
    assert ("inlet_width_m" in dimensions(drawn(turned))) is is_rectangle(part_of(turned))

    def area(one: Rig) -> float:
        part = part_of(one)
        height, width = part.inlet
        return height * width if is_rectangle(part) else 3.14159 / 4 * height * width

    if kind != "cyclone":
        assert area(turned) == pytest.approx(area(rig), rel=0.03)
    again = turn_inlet(turned, "sep")
    assert is_rectangle(part_of(again)) is is_rectangle(part_of(rig))


@pytest.mark.parametrize("kind", ["elbow-lid", "rim-inlet"])
def test_an_elbow_stays_round(demo: Rig, kind: str) -> None:
    with pytest.raises(RigError, match="this kind has a round inlet"):
        turn_inlet(change_kind(demo, "sep", kind), "sep")


SIZES: dict[str, Any] = {
    "line.elements[0].chamber_d_m": st.floats(0.15, 0.6),
    "line.elements[0].chamber_height_m": st.floats(0.06, 0.4),
    "line.elements[0].bin.profile[1].height_m": st.floats(0.2, 1.2),
    "line.elements[0].tilt_deg": st.floats(0.0, 40.0),
}


@given(st.fixed_dictionaries(SIZES))
def test_any_size_is_drawn_inside_its_picture(changes: dict[str, float]) -> None:
    try:
        rig = edit_rig(
            demo_rig(),
            {**changes, "line.elements[0].bin.fill_height_m": 0.1, "line.elements[0].outlet_length_m": 0.03},
        )
    except RigError:
        return
    svg = drawn(rig)
    for polygon in svg.iter("polygon"):
        for x, y in re.findall(r"([-\d.]+),([-\d.]+)", str(polygon.get("points"))):
            assert -1.0 <= float(x) <= SECTION.width
            assert 0.0 <= float(y) <= SECTION.height


def build_wet(part: WetStagePart) -> WetStage:
    """The stage as the core has it."""
    return WetStage(part.id, part.throat_d_m, part.immersion_m, part.vessel_d_m, part.water_kg, part.outlet_height_m)


def test_a_wet_stage_dips_under_its_water() -> None:
    part = WetStagePart(id="wet", kind="wet-stage", throat_d_m=0.03, immersion_m=0.03, vessel_d_m=0.3, water_kg=8.0)
    body = place_stage(part, 100.0, 200.0, 300.0, 0.0)
    x, y, _, high = body.inlet_box
    assert body.kind == "wet"
    assert (200.0 - body.dust_top) / 300.0 == pytest.approx(build_wet(part).level)  # as high as it is judged
    assert y + high == pytest.approx(body.dust_top + 0.03 * 300.0)
    assert body.inlet[1] == y
    assert x < body.outlet[0]
