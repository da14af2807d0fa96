"""A figure shows how it comes about: opened from where it stands, followed, read on paper and on a phone."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

#: text that is cut off at the side, or too small to read
UNREADABLE = """() => [...document.querySelectorAll('.working *')].filter(e => e.checkVisibility()
  && e.children.length === 0 && e.textContent.trim()
  && (parseFloat(getComputedStyle(e).fontSize) < 11 && !e.closest('math')))
  .map(e => e.outerHTML.slice(0, 120))"""


def test_a_working_is_opened_from_the_verdict_and_followed(bench: Page) -> None:
    kept = bench.locator('[data-row="kept"] .working-link')
    told = kept.inner_text()
    kept.press("Enter")  # the keyboard opens it too
    expect(bench.locator(".working-figure b")).to_have_text(re.compile(rf"^{re.escape(told)}\b"))
    expect(bench.locator(".working-root .law math")).to_be_visible()
    link = bench.locator(".working-root .step-inputs a").first
    place = link.get_attribute("href")
    assert place is not None
    link.click()
    expect(bench.locator(f'[id="{place.removeprefix("#")}"]')).to_be_in_viewport()  # ids have dots
    bench.get_by_role("link", name="All figures").click()
    expect(bench.get_by_role("heading", level=1)).to_have_text("How the figures of the drum sander line come about")
    expect(bench.locator(".figure-group a").first).to_be_visible()


def test_the_title_of_the_verdict_leads_to_all_figures(bench: Page) -> None:
    bench.get_by_role("link", name="How it does at the drum sander").click()
    expect(bench.get_by_role("heading", level=1)).to_contain_text("come about")


def test_a_working_is_taken_along_as_a_file(bench: Page, tmp_path: Path) -> None:
    bench.locator('[data-row="settling"] .working-link').click()
    with bench.expect_download() as download:
        bench.get_by_role("link", name="As a file").click()
    saved = tmp_path / "working.json"
    download.value.save_as(saved)
    document = json.loads(saved.read_text())
    assert document["format"] == "fenwick-working"
    assert f"{document['value']:.1f}" in bench.locator(".working-figure").inner_text()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_working_fits_the_screen_and_can_be_read(bench: Page, server: str, width: int) -> None:
    bench.set_viewport_size({"width": width, "height": 800})
    bench.goto(server + "lines/1/workings/kept")
    assert bench.evaluate("document.documentElement.scrollWidth") <= width
    assert bench.evaluate(UNREADABLE) == []


def test_a_working_prints_its_steps_without_the_bars_of_the_page(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1/workings/kept")
    bench.emulate_media(media="print")
    expect(bench.locator(".step").first).to_be_visible()
    expect(bench.locator("nav.places, .topbar").first).to_be_hidden()


def test_bands_of_hours_and_air_follow_by_themselves(bench: Page, server: str) -> None:
    for address, row in (("lines/1/ageing", "life"), ("lines/1/ageing", "cost"), ("lines/1/dust", "mask")):
        bench.goto(server + address)
        band = bench.locator(f"#believable-{row}")
        expect(band).to_be_visible()
        expect(band).to_contain_text(re.compile(r"\d.* is believable"))
        expect(band).not_to_contain_text("00.0")
