"""The shop by hand: things dragged and nudged on the floor plan, a hole-plate curve that grows, a joint measured."""

import re

from playwright.sync_api import Page, expect

from tests.browser.looking import SLOW


def where(page: Page, item: str) -> tuple[float, float]:
    """Middle of a thing on the screen."""
    box = page.locator(f'[data-item="{item}"] .shape').first.bounding_box()
    assert box
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def length(page: Page, tool: str) -> float:
    """The hose that the plan asks for, in metres."""
    row = page.locator("tr", has_text=tool).first
    return float(row.locator("td").first.inner_text().split()[0])


def test_a_tool_is_dragged_nudged_and_put_back(bench: Page) -> None:
    bench.get_by_role("link", name="Shop").click()
    before = length(bench, "Bandsaw")
    shown = bench.locator("tr", has_text="Bandsaw").first.locator("td").first
    said_first = shown.inner_text()
    x, y = where(bench, "bandsaw")
    bench.mouse.move(x, y)
    bench.mouse.down()
    bench.mouse.move(x + 60, y + 20, steps=4)
    bench.mouse.move(x + 160, y + 40, steps=4)
    bench.mouse.up()
    expect(bench.locator("#undo .what")).to_have_text("Bandsaw moved")
    nearer = length(bench, "Bandsaw")
    assert nearer < before - 0.5
    expect(bench.locator('[data-item="bandsaw"]')).to_be_focused()
    said = shown.inner_text()
    bench.keyboard.press("ArrowRight")
    expect(shown).not_to_have_text(said)
    assert length(bench, "Bandsaw") < nearer
    for was in (said, said_first):
        bench.locator("#undo").click()
        expect(shown).to_have_text(was)
    assert length(bench, "Bandsaw") == before
    bench.get_by_role("button", name="Put it there").click()
    expect(bench.locator(".plan-findings li").first).to_contain_text("stands where one hose of")


def test_what_is_owned_is_changed_in_place(bench: Page) -> None:
    bench.get_by_role("link", name="Shop").click()
    bench.get_by_role("link", name=re.compile("^Hoses")).click()
    bench.get_by_role("button", name="Add a hose").click()
    expect(bench.locator(".items > li")).to_have_count(8)
    bore = bench.locator('[data-owned="hose-1"]').get_by_role("textbox", name="Bore mm")
    bore.fill("two inches")
    bore.press("Tab")
    expect(bench.locator('[data-owned="hose-1"] .error')).to_contain_text("not a number")
    expect(bore).to_have_value("two inches")
    bore.fill("2 in")
    bore.press("Tab")
    expect(bench.locator('[data-owned="hose-1"] .error')).to_have_count(0)
    expect(bench.locator('[data-owned="hose-1"]').get_by_role("textbox", name="Bore mm")).to_have_value("50.8")


def test_a_hole_plate_curve_grows_row_by_row_and_takes_over(bench: Page, server: str) -> None:
    bench.goto(server + "lines/1/vacuum?way=holes")
    rows = (("20", "1", "13.5"), ("20", "2", "9"), ("20", "3", "5"))
    for i, row in enumerate(rows):
        for key, text in zip(("hole_diameter_m", "holes", "suction_pa"), row, strict=True):
            cell = bench.locator(f"#c-{key}-{i}")
            cell.fill(text)
            cell.press("Tab")
        expect(bench.locator(".fan-chart .measured")).to_have_count(i + 1)
    expect(bench.locator(".use-row")).to_contain_text("the line does not use them yet")
    bench.get_by_role("button", name="Use these 3 rows").click()
    expect(bench.locator("#undo .what")).to_have_text(re.compile("hole-plate test, 3 rows"))
    expect(bench.locator(".ways [aria-current]")).to_contain_text("Hole plate")


def test_what_is_typed_while_an_answer_is_on_its_way_is_kept_and_sent(bench: Page, server: str) -> None:
    bench.add_init_script(SLOW)
    bench.goto(server + "lines/1/vacuum?way=holes")
    typed = (("hole_diameter_m", "20"), ("holes", "2"), ("suction_pa", "9"))
    for key, text in typed:
        bench.locator(f"#c-{key}-0").fill(text)
        bench.keyboard.press("Tab")
    bench.locator("#c-hole_diameter_m-1").press_sequentially("25", delay=60)  # no Tab: still being typed in
    expect(bench.locator(".fan-chart .measured")).to_have_count(1)
    for key, text in typed:
        expect(bench.locator(f"#c-{key}-0")).to_have_value(text)
    expect(bench.locator("#c-hole_diameter_m-1")).to_have_value("25")
    expect(bench.locator("#c-hole_diameter_m-1")).to_be_focused()
    bench.keyboard.press("Tab")
    expect(bench.locator("#c-hole_diameter_m-1")).to_have_attribute("value", "25")  # as it was answered


def test_the_best_line_from_the_drawer_becomes_a_variant(bench: Page) -> None:
    bench.get_by_role("link", name="From the drawer").click()
    bench.get_by_role("button", name=re.compile("^Make a variant")).first.click()
    expect(bench.locator(".lines [aria-current]")).to_have_text("From the drawer")
    expect(bench.locator(".hookup li")).to_have_count(3)
