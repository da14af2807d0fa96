"""How the Separator looks: nothing overlaps on section and charts, nothing overflows, at 1280 and at 390 pixels."""

import pytest
from playwright.sync_api import Page, expect

from fenwick.rig.edits.kinds import KINDS
from tests.browser.looking import OVERLAPS

OUTSIDE = """(where) => [...document.querySelectorAll(where + ' text')]
  .filter(t => t.checkVisibility() && t.textContent.trim())
  .map(t => [t.textContent, t.getBoundingClientRect(), t.closest('svg').getBoundingClientRect()])
  .filter(([_, b, frame]) => b.left < frame.left - 1 || b.right > frame.right + 1 || b.bottom > frame.bottom + 1)
  .map(([text]) => text)"""


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_no_figure_lies_on_another_for_any_kind(bench: Page, server: str, kind: str) -> None:
    bench.goto(server + "lines/1/separator")
    if kind != "slotted-disc":
        bench.get_by_label("Kind").select_option(kind)
        expect(bench.locator("#undo .what")).to_have_count(1)
    for where in (".section-drawing", ".grade-chart", ".sweep-chart"):
        assert bench.evaluate(OVERLAPS, where) == [], where
        assert bench.evaluate(OUTSIDE, where) == [], where


def test_in_inches_it_fits_too(bench: Page, server: str) -> None:
    bench.locator("#units").click()
    for line in (1, 3):
        bench.goto(server + f"lines/{line}/separator")
        assert bench.evaluate(OVERLAPS, ".section-drawing") == []
        assert bench.evaluate(OUTSIDE, ".section-drawing") == []


def test_section_and_verdict_are_seen_without_scrolling(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1/separator")
    for where in ("#sep-picture", "#editor", "#sep-rows"):
        box = bench.locator(where).bounding_box()
        assert box
        assert box["y"] + box["height"] <= 800, where


def test_the_line_fits_with_its_separator_picked(bench: Page, server: str) -> None:
    for address in ("lines/1?part=sep", "lines/3?part=sep"):
        bench.goto(server + address)
        assert bench.evaluate("document.documentElement.scrollHeight") <= 800, address


SHOWN_IN_TURN = ("section-drawing", "verdict-card", "stage-form", "grade-card")


def test_on_a_phone_the_drawing_comes_first_and_targets_are_large(bench: Page, server: str) -> None:
    bench.set_viewport_size({"width": 390, "height": 844})
    bench.goto(server + "lines/1/separator")
    tops = [bench.locator(f".{name}").bounding_box() for name in SHOWN_IN_TURN]
    heights = [box["y"] for box in tops if box]
    assert heights == sorted(heights), "the picture, what it comes to, then its fields"
    assert len(heights) == len(SHOWN_IN_TURN)
    small = bench.evaluate(
        "[...document.querySelectorAll('#editor input:not([type=hidden]), #editor select, .row-tools button')]"
        ".filter(e => e.checkVisibility() && e.getBoundingClientRect().height < 40).map(e => e.name || e.textContent)"
    )
    assert small == []
    assert bench.evaluate("document.documentElement.scrollWidth") <= 390


def test_every_knob_says_what_it_is_and_where_it_stands(bench: Page, server: str) -> None:
    bench.goto(server + "lines/3/separator")
    knobs = bench.get_by_role("slider")
    assert knobs.count() >= 8
    for i in range(knobs.count()):
        knob = knobs.nth(i)
        assert knob.get_attribute("aria-label")
        assert float(str(knob.get_attribute("aria-valuenow"))) >= 0.0
