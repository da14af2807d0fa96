"""A planer on a big port: its chips arrive at the port, lie down behind it, and one change carries them."""

from __future__ import annotations

import json
import re
from pathlib import Path

from playwright.sync_api import Locator, Page, expect

from fenwick.data.demo import demo_rig

LIES = re.compile(r"lets planer shavings lie; it takes 15 m/s\. ([\d.]+) L lie there in the end")
STEP_DOWN = re.compile(r"^Try: Planer port down to \d+ mm$")


def planer_rig(folder: Path) -> Path:
    """A rig file: a planer's 100 mm port and as wide a hose on the vacuum and the bin of the demo."""
    rig = json.loads(demo_rig().model_dump_json(exclude_none=True))
    rig |= {"name": "Planer line", "dust": {"kind": "planer"}}
    rig["line"]["elements"][0]["inlet_bore_m"] = 0.063
    (branch,) = rig["line"]["branches"]
    branch["elements"] = [
        {"id": "hose", "kind": "hose", "name": "Big hose", "bore_m": 0.1, "length_m": 2.5, "wall": "wire-helix"}
    ]
    hood = {"kind": "opening", "distance_m": 0.06, "release": "fast", "thrown_share": 0.9}
    branch["id"] = "planer"
    branch["port"] = {
        "name": "Planer", "bore_m": 0.1, "entry": "plain", "machine": "planer", "hood": hood, "dust_rate_kg_s": 1e-3
    }  # fmt: skip
    path = folder / "planer.json"
    path.write_text(json.dumps(rig))
    return path


def opened(page: Page, folder: Path) -> None:
    """Open the planer's rig file on the demo's first line, and wait for all that follows by itself."""
    page.get_by_label("Rig file to open").set_input_files(planer_rig(folder))
    page.get_by_role("button", name="Open", exact=True).click()
    expect(page.locator("#undo .what")).to_have_text("Opened planer.json")
    expect(page.locator("#late")).to_have_count(0)


def row(page: Page, name: str) -> Locator:
    """A row of the verdict."""
    return page.locator(f'[data-row="{name}"]')


def figure(page: Page, name: str) -> float:
    """The figure of a row of the verdict."""
    return float(row(page, name).locator(".figure b").inner_text())


def test_chips_arrive_settle_and_are_carried_when_the_port_is_stepped_down(bench: Page, tmp_path: Path) -> None:
    opened(bench, tmp_path)
    assert figure(bench, "caught") > 80.0  # what is thrown into a wide port arrives there
    expect(row(bench, "settling").locator(".state")).to_have_text("act")
    lies = LIES.search(row(bench, "settling").locator(".why").inner_text())
    assert lies
    assert float(lies[1]) > 5.0
    expect(bench.locator(".notes")).to_contain_text("Step it down to a bore that carries")
    slow, air = figure(bench, "settling"), figure(bench, "air")

    stepped = bench.locator(".more-changes li", has=bench.get_by_role("link", name=STEP_DOWN, include_hidden=True))
    bench.locator(".more-changes summary").click()  # behind the others, for it costs chips, and says so
    expect(stepped.locator("em i")).to_contain_text(re.compile(r"in the bin 88 → \d\d g of 100"))
    stepped.get_by_role("link").click()
    expect(bench.locator(".trial")).to_contain_text("Nothing is saved yet")
    expect(row(bench, "settling").locator(".state")).to_have_text("in order")
    assert figure(bench, "settling") > 15.0
    bench.get_by_role("button", name="Keep").click()
    expect(bench.locator("#undo .what")).to_contain_text("Planer")
    expect(bench.locator("#late")).to_have_count(0)
    assert figure(bench, "settling") > slow
    assert figure(bench, "air") < air  # a narrower port costs air, and the figure does not hide it
    assert figure(bench, "caught") < 80.0  # and chips that miss the narrower mouth
    expect(bench.locator(".notes")).not_to_contain_text("Step it down")

    bench.get_by_role("button", name=re.compile("^Undo")).click()
    expect(row(bench, "settling").locator(".figure b")).to_have_text(f"{slow:.1f}")


def test_a_narrower_hose_carries_them_and_costs_no_chips(bench: Page, tmp_path: Path) -> None:
    opened(bench, tmp_path)
    bench.get_by_role("link", name=re.compile(r"^Try: Big hose in \d+ mm$")).click()
    expect(bench.locator(".trial")).to_contain_text("Big hose")
    expect(row(bench, "settling").locator(".state")).to_have_text("in order")
    assert figure(bench, "caught") > 80.0
    bench.get_by_role("link", name="Back").click()
    expect(row(bench, "settling").locator(".state")).to_have_text("act")
