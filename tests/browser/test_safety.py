"""What must not be lost, and who must not come in: two windows, a copy put back, a second browser."""

import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.cli.test_serving import start, stop

LENGTH = 'input[name="line.branches[0].elements[0].length_m"]'
BORE = 'input[name="line.branches[0].elements[0].bore_m"]'
OTHER = 'input[name="line.branches[0].elements[2].length_m"]'
WORDS = "maple under the north light"


def typed(page: Page, field: str, text: str) -> None:
    """Type into a field and leave it, and wait for the answer."""
    page.locator(field).first.fill(text)
    with page.expect_response(lambda answer: answer.request.method == "POST"):
        page.keyboard.press("Tab")


@pytest.fixture
def windows(bench: Page, server: str) -> tuple[Page, Page]:
    """Two windows on one part of one line."""
    other = bench.context.new_page()
    for page in (bench, other):
        page.goto(f"{server}lines/1?part=hose-a")
        expect(page.locator(LENGTH).first).to_have_value("2.5")
    return bench, other


def test_two_windows_change_one_part_in_two_fields(windows: tuple[Page, Page], server: str) -> None:
    one, other = windows
    typed(one, LENGTH, "1.5")
    typed(other, BORE, "44")
    expect(other.locator(LENGTH).first).to_have_value("1.5")  # the other's change has come along
    expect(other.locator(BORE).first).to_have_value("44")
    expect(other.locator(".clash")).to_have_count(0)


def test_two_windows_change_two_parts(windows: tuple[Page, Page], server: str) -> None:
    one, other = windows
    other.goto(f"{server}lines/1?part=hose-b")
    typed(one, LENGTH, "1.5")
    typed(other, OTHER, "2.25")
    one.goto(f"{server}lines/1?part=hose-b")
    expect(one.locator(OTHER).first).to_have_value("2.25")
    one.goto(f"{server}lines/1?part=hose-a")
    expect(one.locator(LENGTH).first).to_have_value("1.5")


def test_the_same_field_in_two_windows_stands_side_by_side_until_one_is_chosen(windows: tuple[Page, Page]) -> None:
    one, other = windows
    typed(one, LENGTH, "1.5")
    typed(other, LENGTH, "1.7")
    clash = other.locator(".clash")
    expect(clash).to_contain_text("Changed twice: nothing was saved yet")
    expect(clash.get_by_role("row", name="Hose A: length")).to_contain_text("2.5 m")
    expect(clash.get_by_role("row", name="Hose A: length")).to_contain_text("1.7 m")
    expect(other.locator(LENGTH).first).to_have_value("1.7")  # what was typed stays
    clash.get_by_role("button", name="Put mine in").click()
    expect(other.locator(".clash")).to_have_count(0)
    expect(other.locator("#undo")).to_have_attribute("title", re.compile(r"→ 1\.7 m"))


def test_undo_in_a_window_that_is_behind_takes_nothing_back(windows: tuple[Page, Page]) -> None:
    one, other = windows
    typed(other, BORE, "44")
    one.reload()
    typed(one, LENGTH, "1.5")
    other.locator("#undo").click()
    expect(other.locator(".clash")).to_contain_text("Nothing was taken back")
    other.get_by_role("link", name="Show it as it is now").click()
    expect(other.locator(LENGTH).first).to_have_value("1.5")


def test_a_copy_is_made_looked_at_and_put_back(bench: Page, server: str) -> None:
    bench.goto(f"{server}backups")
    bench.get_by_role("button", name="Make a copy now").click()
    expect(bench.get_by_role("status")).to_contain_text("written and checked")
    bench.goto(f"{server}lines/1?part=hose-a")
    typed(bench, LENGTH, "1.5")
    bench.goto(f"{server}backups")
    bench.get_by_role("link", name="What would change").first.click()
    expect(bench.locator(".copies-changes")).to_contain_text("would stand as it did then")
    bench.get_by_role("button", name="Put this copy back").click()
    expect(bench.get_by_role("status")).to_contain_text("As it was before")
    bench.goto(f"{server}lines/1?part=hose-a")
    expect(bench.locator(LENGTH).first).to_have_value("2.5")


@pytest.fixture
def guarded(tmp_path: Path) -> Iterator[str]:
    """A demo shop that asks to sign in."""
    home = str(tmp_path / "guarded")
    subprocess.run(
        [sys.executable, "-m", "fenwick", "passphrase", "--home", home], input=f"{WORDS}\n", text=True, check=True,
        stdout=subprocess.DEVNULL,
    )  # fmt: skip
    process, address = start("demo", "--home", home, "--lan", "--port", "0")
    yield address
    stop(process)


def test_a_second_browser_comes_in_by_a_code_and_is_shown_out(browser: Browser, guarded: str) -> None:
    laptop = browser.new_context().new_page()
    laptop.goto(guarded)
    laptop.get_by_label("Passphrase").fill("wrong words")
    laptop.get_by_role("button", name="Sign in").first.click()
    expect(laptop.locator("#door-error")).to_have_text("That is not the passphrase.")
    laptop.get_by_label("Passphrase").fill(WORDS)
    laptop.get_by_role("button", name="Sign in").first.click()
    expect(laptop.locator(".home-lines")).to_be_visible()
    laptop.goto(f"{guarded}sign-ins")
    laptop.get_by_role("button", name="Let a phone in").click()
    code = laptop.locator(".pairing .door-code").inner_text()
    phone = browser.new_context(viewport={"width": 390, "height": 800}).new_page()
    phone.goto(f"{guarded}sign-in?code={code.replace('-', '')}")
    phone.get_by_role("button", name="Sign this browser in").click()
    expect(phone.locator(".home-lines")).to_be_visible()
    laptop.goto(f"{guarded}sign-ins")
    expect(laptop.locator(".who-table tbody tr")).to_have_count(2)
    laptop.get_by_role("button", name="End").click()
    phone.reload()
    expect(phone.get_by_role("heading", name="Sign in")).to_be_visible()
    for page in (laptop, phone):
        page.context.close()
