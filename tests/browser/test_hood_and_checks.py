"""A hood closed in, a bin stiffened, wood before grinding, a check lived with; the dust and its ageing looked at."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.looking import OVERLAPS


def speed(page: Page) -> float:
    """Face speed as the page shows it."""
    return float(page.locator('[data-row="hood-speed"] .figure b').inner_text())


def count(page: Page) -> int:
    """How many checks are to act on, by the header."""
    found = re.match(r"(\d+) to act on", page.locator("#checks-pill b").inner_text())
    return int(found[1]) if found else 0


def test_a_hood_is_closed_in_and_the_face_speed_watched(bench: Page) -> None:
    bench.get_by_role("link", name="Ports", exact=True).click()
    bench.get_by_role("link", name="Drum sander", exact=True).click()
    bench.get_by_label("Hood", exact=True).select_option("enclosure")
    area = bench.get_by_role("textbox", name="Open area cm²")
    expect(area).to_be_visible()
    area.fill("800")
    area.press("Tab")
    expect(bench.locator("#undo .what")).to_contain_text("open area")
    slow = speed(bench)
    expect(bench.locator('[data-row="hood-speed"] .state')).to_have_text("act")
    area.fill("120")
    area.press("Tab")
    expect(bench.locator('[data-row="hood-speed"] .state')).to_have_text("in order")
    assert speed(bench) > 4.0 * slow
    area.fill("0")
    area.press("Tab")
    expect(bench.locator(".field .error")).to_have_text("Must be above 0 cm² (got 0 cm²).")
    assert area.input_value() == "0"
    area.fill("120")
    area.press("Tab")
    expect(bench.locator(".field .error")).to_have_count(0)
    bench.get_by_role("button", name="+ Way of working").click()
    expect(bench.locator(".ways-card tbody tr")).to_have_count(2)


def test_an_act_check_is_cleared_by_stiffening_the_bin_over_the_line(bench: Page) -> None:
    before = count(bench)
    bench.locator("#checks-pill").click()
    panel = bench.locator("#checks-panel")
    expect(panel).to_be_visible()
    check = panel.locator('[data-check="bin-collapse~sep"]')
    expect(check.locator(".state")).to_have_text("act")
    check.get_by_role("button", name=re.compile("A ring round the bin")).click()
    expect(check).to_have_count(0)  # it is in order now
    expect(bench.locator("#checks-pill b")).to_contain_text(str(before - 1))
    bench.get_by_role("button", name="Close the checks").click()
    expect(bench.locator('[data-row="collapse"] .figure b')).to_have_text("1.6")  # the line under it knows
    expect(bench.locator("#undo .what")).to_contain_text("A ring round the bin")


def test_wood_then_grinding_is_stopped_until_emptied(bench: Page) -> None:
    bench.get_by_role("link", name="Ports", exact=True).click()
    bench.get_by_role("link", name="Drum sander", exact=True).click()
    bench.get_by_label("Its own dust").select_option("steel-grinding")
    expect(bench.locator("#undo .what")).to_contain_text("its own dust")
    bench.locator("#checks-pill").click()
    held = bench.locator('#checks-panel [data-check="last-held~vacuum"]')
    expect(held).to_contain_text("must not go in on top")
    held.get_by_role("button", name="Emptied and cleaned").click()
    expect(held).to_have_count(0)


def test_a_check_is_lived_with_and_the_reason_stays(bench: Page) -> None:
    bench.locator("#checks-pill").click()
    bench.get_by_role("link", name="All checks, and what they hang on").click()
    static = bench.locator('[data-check="static~"]')
    static.get_by_text("Live with it…").click()
    static.get_by_role("button", name="Live with it").click()
    expect(static.locator(".error")).to_have_text("Say why it may stay so.")
    static.get_by_label("Why it may stay so").fill("Bare wire comes on Friday")
    static.get_by_role("button", name="Live with it").click()
    expect(static).to_contain_text(re.compile(r"Lived with since \d{4}-\d\d-\d\d: Bare wire comes on Friday"))
    bench.reload()
    expect(static).to_contain_text("Bare wire comes on Friday")


def test_the_air_is_aired_and_the_ageing_read(bench: Page) -> None:
    bench.get_by_role("link", name="Dust", exact=True).click()
    filter_row = bench.locator(".airings li").first
    before = filter_row.inner_text()
    field = bench.get_by_label("A room filter of")
    field.fill("300")
    field.press("Tab")
    expect(filter_row).not_to_have_text(before)
    expect(filter_row).to_contain_text("A room filter of 300 L/s")
    bench.get_by_role("link", name="The week's work").click()
    expect(bench.locator(".flow-card h2")).to_have_text("Where the week's dust goes")
    bench.get_by_role("link", name="Ageing", exact=True).click()
    bench.get_by_role("link", name="Suction of the fan").click()
    expect(bench.locator(".ageing-card h2")).to_contain_text("Suction of the fan")
    price = bench.get_by_label("Filter price", exact=True)
    price.fill("60")
    price.press("Tab")
    expect(bench.locator('[data-row="cost"]')).to_contain_text("€ an hour")


@pytest.mark.parametrize(
    ("address", "picture"),
    [
        ("lines/1/ports/drum-sander/hood", ".hood-drawing"),
        ("lines/2/ports/sweep/hood", ".hood-drawing"),
        ("lines/1/dust", ".dust-flow"),
        ("lines/2/dust?of=week", ".dust-flow"),
        ("lines/1/dust", ".air-chart"),
        ("lines/1/ageing", ".ageing-chart"),
        ("lines/3/ageing", ".ageing-chart"),
    ],
)
def test_no_text_lies_on_another(bench: Page, server: str, address: str, picture: str) -> None:
    bench.goto(server + address)
    assert bench.evaluate(OVERLAPS, picture) == []


def test_the_table_of_ports_prints_without_its_controls(bench: Page, server: str) -> None:
    bench.goto(server + "lines/2/ports")
    bench.emulate_media(media="print")
    expect(bench.get_by_role("button", name="Print to pin up")).not_to_be_visible()
    expect(bench.get_by_text("How the tools share the line")).not_to_be_visible()
    expect(bench.locator(".ports-table").first).to_be_visible()
    expect(bench.locator(".pin-caution")).to_be_visible()
