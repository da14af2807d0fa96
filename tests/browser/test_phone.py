"""Journeys with a telephone: a filter photographed by file, read and kept; a recording; a photo that is refused."""

from __future__ import annotations

from pathlib import Path

from playwright.sync_api import Page, expect

from fenwick.phone.scenes import scene
from tests.browser.looking import overflow


def test_a_filter_photographed_by_file_is_graded_and_kept(bench: Page, server: str, tmp_path: Path) -> None:
    photo = tmp_path / "filter.jpg"
    photo.write_bytes(scene("grey", 33).data)
    bench.goto(f"{server}lines/2")
    bench.get_by_role("link", name="Test", exact=True).click()
    bench.get_by_role("link", name="By telephone").click()
    bench.get_by_label("What is graded").select_option("filter")
    bench.get_by_label("Photos, up to 6").set_input_files(photo)
    bench.get_by_role("button", name="Read it").click()
    expect(bench.locator(".phone-value")).to_contain_text("of 5")
    expect(bench.locator(".phone-picture")).to_be_visible()
    assert overflow(bench) <= 0
    bench.get_by_role("button", name="Keep it in the log").click()
    expect(bench.locator("main")).to_contain_text("Graded")
    bench.goto(f"{server}log")
    expect(bench.locator(".log-day").first).to_contain_text("Graded: filter")
    bench.locator("#undo").click()
    expect(bench.locator(".log-said")).to_contain_text("Taken back")


def test_a_photo_without_the_card_says_so_and_a_recording_is_followed(bench: Page, server: str, tmp_path: Path) -> None:
    photo, sound = tmp_path / "none.jpg", tmp_path / "motor.wav"
    photo.write_bytes(scene("squares", 3, "no-card").data)
    sound.write_bytes(scene("pitch", 3).data)
    bench.set_viewport_size({"width": 390, "height": 844})
    bench.goto(f"{server}lines/2/phone?kind=squares")
    bench.get_by_label("Photos, up to 6").set_input_files(photo)
    bench.get_by_role("button", name="Read it").click()
    expect(bench.get_by_role("alert").filter(has_text="No sheet is seen")).to_be_visible()
    bench.get_by_role("link", name="Pitch of the motor").click()
    bench.get_by_label("Recordings, up to 6").set_input_files(sound)
    bench.get_by_role("button", name="Read it").click()
    expect(bench.locator(".phone-value")).to_contain_text("Hz")
    expect(bench.locator(".pitch-chart")).to_be_visible()
    assert overflow(bench) <= 0
