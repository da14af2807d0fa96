"""A lesson on a phone: predicted, seen, and why; then the next."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from fenwick.services.lessons import lived
from fenwick.wording.lessons import LESSON_WORDS
from tests.browser.looking import overflow


def test_a_lesson_is_predicted_seen_and_gone_on_with(bench: Page, server: str) -> None:
    bench.set_viewport_size({"width": 390, "height": 844})
    bench.goto(f"{server}lessons")
    words = LESSON_WORDS["wide-hose"]
    bench.get_by_role("link", name=words.title).click()
    expect(bench.get_by_role("heading", name=words.question)).to_be_visible()
    assert overflow(bench) <= 0
    bench.get_by_role("button", name=words.answers[2]).click()
    expect(bench.get_by_role("heading", name="No.")).to_be_visible()
    expect(bench.locator(".is-right")).to_contain_text(words.answers[lived("wide-hose").right])
    expect(bench.locator(".lesson-why")).to_have_text(words.why)
    assert overflow(bench) <= 0
    bench.get_by_role("link", name="Next").click()
    expect(bench.get_by_role("heading", name=LESSON_WORDS["leak-below"].title)).to_be_visible()
    bench.get_by_role("link", name="all lessons").click()
    expect(bench.locator(".lesson-list .state")).to_have_text("wrong")
