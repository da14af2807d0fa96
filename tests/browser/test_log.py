"""Journeys of the log: ten seconds on a phone, a life that moves a date, the whole shop out and in again."""

import re
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.looking import overflow

PHONE = {"width": 390, "height": 844}


@pytest.fixture
def phone(bench: Page) -> Page:
    """The demo on a phone."""
    bench.set_viewport_size(PHONE)  # type: ignore[arg-type]
    return bench


def test_on_a_phone_the_bin_is_logged_with_two_taps_and_taken_back_with_one(phone: Page, server: str) -> None:
    phone.goto(server)
    expect(phone.locator(".line-card")).to_have_count(3)
    assert overflow(phone) <= 0
    before = phone.locator(".home-next")
    expect(before).to_contain_text("bin to its line")
    phone.get_by_role("button", name="Emptied the bin · Bench line").click()
    expect(phone.get_by_role("heading", name="Emptied the bin", level=1)).to_be_visible()
    expect(phone.locator(".caution")).to_contain_text("Mask on")
    phone.get_by_text("three quarters").click()
    phone.get_by_role("button", name="Keep", exact=True).click()
    expect(phone.locator(".log-said")).to_contain_text("Logged")
    expect(phone.locator(".log-day").first).to_contain_text("Emptied the bin")
    assert overflow(phone) <= 0
    phone.get_by_role("button", name=re.compile("^Undo")).click()
    phone.get_by_role("button", name=re.compile("^Undo")).click()
    expect(phone.locator(".log-day").first).not_to_contain_text("Emptied the bin")


def test_every_button_of_the_log_is_large_enough_for_a_glove(phone: Page, server: str) -> None:
    phone.goto(f"{server}log")
    for button in phone.locator(".log-taps .btn").all():
        box = button.bounding_box()
        assert box is not None
        assert box["height"] >= 44
    for address in ("log/new?kind=worked", "log/due", "log/trend", "log/money", "log/new?kind=inspected"):
        phone.goto(server + address)
        assert overflow(phone) <= 0, address


def test_a_filter_that_was_done_too_soon_moves_its_next_day(bench: Page, server: str) -> None:
    def told() -> str:
        bench.goto(f"{server}log/due")
        return bench.locator(".due-list li", has_text="clean the filter").first.inner_text()

    before = told()
    now = datetime.now()
    for hour in (6, 4, 2):
        at = (now - timedelta(hours=hour)).isoformat(timespec="minutes")
        done = (now - timedelta(hours=hour - 1)).isoformat(timespec="minutes")
        bench.goto(f"{server}log/new?kind=worked")
        bench.get_by_label("When").fill(at)
        bench.get_by_label("At", exact=True).select_option("2|Finishing sander")
        bench.get_by_label("Hours").fill("1")
        bench.get_by_role("button", name="Log it").click()
        bench.goto(f"{server}log/new?kind=tapped")
        bench.get_by_label("When").fill(done)
        bench.get_by_text("It was time").click()
        bench.locator(".pick-one label", has_text="Bench line").click()
        bench.get_by_role("button", name="Log it").click()
    after = told()
    assert after != before
    assert re.search(r"the last lasted 1\.0 h, not [45]\.\d h", after)  # after so many cleanings a new one gives less


def test_the_whole_shop_goes_out_is_changed_and_says_what_bringing_it_back_would_do(
    bench: Page, server: str, tmp_path: Path
) -> None:
    bench.goto(f"{server}backups")
    with bench.expect_download() as download:
        bench.get_by_role("button", name="Write the file").click()
        bench.get_by_role("link", name="Save the file").click()
    packed = tmp_path / "shop.zip"
    download.value.save_as(packed)
    bench.goto(f"{server}log/new?kind=odd")
    bench.get_by_label("What was it?").fill("a washer in the hose")
    bench.get_by_role("button", name="Log it").click()
    bench.goto(f"{server}backups")
    bench.get_by_label("Or read one in").set_input_files(packed)
    bench.locator("form", has_text="Or read one in").get_by_role("button", name="Look at it").click()
    expect(bench.locator(".copies-table")).to_contain_text("The log")
    expect(bench.locator(".copies-table")).to_contain_text("fewer")
    bench.get_by_role("button", name="Put this copy back").click()
    bench.goto(f"{server}log?find=washer")
    expect(bench.locator(".log-empty")).to_be_visible()


def test_switched_off_the_line_shows_what_is_described(bench: Page, server: str) -> None:
    bench.goto(f"{server}lines/2")
    expect(bench.locator("#tuned-mark")).to_contain_text("by the log")
    bench.goto(f"{server}log")
    bench.get_by_role("button", name="As described").click()
    bench.goto(f"{server}lines/2")
    expect(bench.locator("#tuned-mark")).not_to_contain_text("by the log")
    expect(bench.locator(".shop-line, .line-card-head, .tree-head, #bench").first).to_contain_text("filter holds 10 g")


def test_home_fits_a_laptop_and_what_follows_by_itself_comes(bench: Page, server: str) -> None:
    bench.goto(server)
    expect(bench.locator("#home-change .home-thing")).to_be_visible()
    expect(bench.locator(".home-sum")).to_contain_text("without")
    assert overflow(bench) <= 0
    bench.locator(".line-card", has_text="Bench line").click()
    expect(bench).to_have_url(re.compile("/lines/2"))
