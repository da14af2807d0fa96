"""The tour on the live pages: framed what it speaks of, out of the way of what it shows, left where one likes."""

from __future__ import annotations

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from fenwick.web.kit.tour import STOPS
from tests.browser.looking import VIOLATIONS, overflow


def test_every_stop_frames_what_it_speaks_of_in_sight(bench: Page, server: str) -> None:
    bench.goto(server)
    bench.get_by_role("button", name="New here? A tour in ten minutes").click()
    bar = bench.get_by_role("complementary", name="Tour")
    for number, stop in enumerate(STOPS, 1):
        expect(bar).to_contain_text(f"{number} of {len(STOPS)}")
        expect(bar).to_contain_text(stop.title)
        shown = bench.locator(".tour-shown")
        expect(shown).to_be_in_viewport()
        assert overflow(bench) <= 0
        if number < len(STOPS):
            bar.get_by_role("button", name="Next", exact=True).click()
    expect(bar.get_by_role("button", name="Next", exact=True)).to_have_count(0)
    bar.get_by_role("button", name="Leave").click()
    expect(bar).to_have_count(0)
    bench.goto(server)
    expect(bench.get_by_role("button", name="New here? A tour in ten minutes")).to_have_count(0)


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_axe_finds_nothing_in_the_tour_on_a_phone(bench: Page, server: str, scheme: str) -> None:
    bench.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
    bench.set_viewport_size({"width": 390, "height": 844})
    bench.goto(f"{server}guide")
    bench.get_by_role("button", name="A tour in ten minutes").click()
    bar = bench.get_by_role("complementary", name="Tour")
    expect(bar).to_be_visible()
    box = bar.bounding_box()
    assert box is not None
    assert box["height"] < 0.25 * 844  # what it shows stays in sight
    found = Axe().run(bench, options=VIOLATIONS).response["violations"]
    assert [(one["id"], one["nodes"][0]["html"][:200]) for one in found] == []
    bench.goto(f"{server}shop")
    expect(bar).to_contain_text("the tour waits")
    bar.get_by_role("button", name="Back to it").click()
    expect(bar).to_contain_text(STOPS[0].title)
