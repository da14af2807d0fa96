"""A woodworker at the bench: change the line, see it follow, take it back, take it away, bring it back."""

import json
import re
import subprocess
import sys
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect


def flow(page: Page) -> float:
    """Air at the tool as the chip shows it."""
    return float(page.locator(".port b").inner_text().split()[0])


def test_change_undo_units_export_import(bench: Page, tmp_path: Path) -> None:
    before = flow(bench)
    bench.get_by_role("link", name=re.compile("^Hose A")).first.press("Enter")
    expect(bench.locator("#editor h3")).to_have_text("Hose A")
    bore = bench.get_by_role("textbox", name="Bore mm")
    bore.fill("50")
    bore.press("Tab")
    expect(bench.locator("#undo .what")).to_have_text("Hose A: bore 38 mm → 50 mm")
    expect(bench.get_by_role("textbox", name="Length m")).to_be_focused()  # the keyboard stays where it went
    after = flow(bench)
    assert after > before + 2
    expect(bench.locator(".line-drawing:visible")).to_contain_text("Hose A · 50 mm × 2.5 m")
    expect(bench.locator('[data-row="air"] .was')).to_have_text(f"was {before:g} L/s")

    bench.get_by_role("button", name=re.compile("^Undo")).click()
    expect(bench.locator(".port b")).to_have_text(f"{before:g} L/s")
    bench.get_by_role("button", name=re.compile("^Redo")).click()
    expect(bench.locator(".port b")).to_have_text(f"{after:g} L/s")

    bench.locator("#units").click()
    expect(bench.locator(".port b")).to_contain_text("CFM")
    assert flow(bench) == pytest.approx(after / 0.4719, rel=0.02)
    bench.locator("#units").click()
    expect(bench.locator(".port b")).to_have_text(f"{after:g} L/s")

    with bench.expect_download() as download:
        bench.get_by_role("link", name="Save").click()
    saved = tmp_path / "line.json"
    download.value.save_as(saved)
    command = [sys.executable, "-m", "fenwick", "solve", str(saved)]
    solved = json.loads(subprocess.run(command, capture_output=True, check=True).stdout)
    assert f"{solved['ports'][0]['flow_m3_s'] * 1e3:.1f}" == f"{after:.1f}"

    bench.get_by_role("button", name=re.compile("^Undo")).click()
    expect(bench.locator(".port b")).to_have_text(f"{before:g} L/s")
    bench.get_by_label("Rig file to open").set_input_files(saved)
    bench.get_by_role("button", name="Open", exact=True).click()
    expect(bench.locator("#undo .what")).to_have_text("Opened line.json")
    expect(bench.locator(".port b")).to_have_text(f"{after:g} L/s")
    bench.reload()
    expect(bench.locator("#undo .what")).to_have_text("Opened line.json")  # the history outlives the page


def test_picking_each_part_opens_its_fields(bench: Page) -> None:
    for part, field in (("sep", "Slot width mm"), ("vacuum", "Open flow L/s"), ("drum-sander", "Port bore mm")):
        bench.locator(f'.line-drawing:visible a[data-part="{part}"]').click()
        expect(bench.get_by_role("textbox", name=field)).to_be_visible()
        assert f"part={part}" in bench.url
    bench.get_by_label("Dust", exact=True).select_option("planer")
    expect(bench.locator(".status")).to_contain_text("planer shavings")


def test_a_refused_value_stays_with_its_reason(bench: Page) -> None:
    bench.locator('.line-drawing:visible a[data-part="sep"]').click()
    slot = bench.get_by_role("textbox", name="Slot width mm")
    slot.fill("-4")
    slot.press("Enter")
    expect(bench.locator(".field .error")).to_have_text("Must be above 0 mm (got -4 mm).")
    expect(bench.get_by_role("textbox", name="Slot width mm")).to_have_value("-4")
    bench.get_by_role("textbox", name="Slot width mm").fill("40")
    bench.keyboard.press("Enter")
    expect(bench.locator(".field .error")).to_have_count(0)
    expect(bench.locator("#undo .what")).to_have_text("Slot chamber: slot width 30 mm → 40 mm")


def test_the_keyboard_does_it_all(bench: Page) -> None:
    before = flow(bench)
    bench.keyboard.press("n")
    expect(bench.locator("#editor h3")).to_have_text("Slot chamber")
    bench.keyboard.press("p")
    expect(bench.locator("#editor h3")).to_have_text("Hose B")
    bench.keyboard.press("e")
    expect(bench.get_by_role("textbox", name="Bore mm")).to_be_focused()
    bench.keyboard.press("Control+a")
    bench.keyboard.type("40")
    bench.keyboard.press("Enter")
    expect(bench.locator("#undo .what")).to_contain_text("63 mm → 40 mm")
    bench.locator("h2").first.click()
    bench.keyboard.press("u")
    expect(bench.locator(".port b")).to_have_text(f"{before:g} L/s")
    bench.keyboard.press("r")
    expect(bench.locator("#undo .what")).to_contain_text("63 mm → 40 mm")
    bench.keyboard.press("m")
    expect(bench.locator(".port b")).to_contain_text("CFM")
    bench.keyboard.press("?")
    expect(bench.locator("#keys")).to_be_visible()


def test_building_with_the_keyboard_alone(bench: Page) -> None:
    expect(bench.locator("#editor h3")).to_have_text("Hose B")
    bench.keyboard.press("a")
    expect(bench.locator("#add-part")).to_be_focused()
    bench.keyboard.type("Elbow")
    expect(bench.locator("#undo .what")).to_have_text("Elbow added behind Hose B")
    expect(bench.locator("#editor h3")).to_have_text("Elbow")
    bench.locator("h2").first.click()
    bench.keyboard.press("[")
    expect(bench.locator("#undo .what")).to_have_text("Elbow moved towards the tool")
    bench.keyboard.press("d")
    expect(bench.locator("#editor h3")).to_have_text("Elbow copy")
    bench.keyboard.press("Delete")
    expect(bench.locator("#undo .what")).to_have_text("Elbow copy removed")


def test_trying_a_suggestion_and_keeping_it(bench: Page) -> None:
    before = flow(bench)
    bench.get_by_role("link", name=re.compile("^Try: Seal")).click()
    expect(bench.locator(".trial")).to_contain_text("Nothing is saved yet")
    expect(bench.locator('[data-row="kept"] .was')).to_be_visible()
    bench.get_by_role("link", name="Back", exact=True).click()
    expect(bench.locator(".port b")).to_have_text(f"{before:g} L/s")
    bench.get_by_role("link", name=re.compile("^Try: Seal")).click()
    bench.get_by_role("button", name="Keep").click()
    expect(bench.locator("#undo .what")).to_have_text("Seal the bin's lid and seams")
    assert flow(bench) > before


def test_looking_at_another_tool_and_opening_it_alone(bench: Page) -> None:
    bench.get_by_role("link", name="Bench line").click()
    bench.locator(".line-drawing:visible a.part-tool", has_text="Finishing sander").click()
    expect(bench.locator(".drawing-card h2")).to_have_text("4 tools, one vacuum")
    expect(bench.locator('.line-drawing:visible a[data-part="sander"]')).not_to_have_class(re.compile("quiet"))
    expect(bench.locator('.line-drawing:visible a[data-part="bandsaw"]')).to_have_class(re.compile("quiet"))
    bench.get_by_role("button", name="Open it alone").click()
    expect(bench.locator("#undo .what")).to_have_text("Finishing sander opened alone")
    expect(bench.locator(".port.here b")).to_contain_text("L/s")
    expect(bench.locator(".port.shut")).to_have_count(3)


def test_a_word_explains_itself(bench: Page) -> None:
    bench.get_by_role("button", name="Kept in the bin").click()
    expect(bench.get_by_text("Equilibrium orbit")).to_be_visible()
    bench.keyboard.press("Escape")
    expect(bench.get_by_text("Equilibrium orbit")).to_be_hidden()


def test_without_javascript_the_same_page_works(browser, server: str) -> None:  # type: ignore[no-untyped-def]
    context = browser.new_context(java_script_enabled=False)
    page = context.new_page()
    page.goto(f"{server}lines/1?part=hose-b")
    page.locator('input[name$="elements[2].bore_m"]').fill("45")
    page.get_by_role("button", name="Change", exact=True).click()
    expect(page.locator("#undo .what")).to_have_text("Hose B: bore 63 mm → 45 mm")
    context.close()
