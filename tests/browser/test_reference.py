"""The page of assumptions is searched, and what a word cites is a link to its place there."""

from __future__ import annotations

from playwright.sync_api import Page, expect


def test_assumptions_are_found_as_one_types(bench: Page, server: str) -> None:
    bench.goto(f"{server}assumptions")
    opened = bench.locator(".fold[open]")
    expect(opened).to_have_count(0)
    bench.get_by_label("Look for").fill("leak clamp")
    expect(opened).to_have_count(1)
    expect(bench.locator("#find-said")).to_have_text("1 row")
    expect(opened.locator("tbody tr:visible")).to_contain_text("clamp-ring lid")
    bench.get_by_label("Look for").fill("no such thing at all")
    expect(bench.locator("#find-said")).to_have_text("0 rows")
    expect(bench.locator(".fold:visible")).to_have_count(0)
    bench.get_by_label("Look for").fill("")
    assert bench.locator(".fold:visible").count() > 20


def test_what_a_word_cites_is_unfolded_where_the_link_leads(bench: Page, server: str) -> None:
    bench.goto(f"{server}terms")
    bench.get_by_role("link", name="Industrial ventilation practice").first.click()
    expect(bench.locator("#air-speed-needed-where-the-dust-is-made")).to_have_attribute("open", "")
