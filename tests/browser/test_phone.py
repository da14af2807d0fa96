"""Journeys with a telephone: a filter photographed by file, read and kept; a recording; a photo that is refused."""

from __future__ import annotations

from base64 import b64encode
from io import BytesIO
from pathlib import Path

import av
from playwright.sync_api import Page, expect

from fenwick.phone.scenes import scene
from tests.browser.looking import OVERLAPS, overflow


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


#: a microphone that is always allowed, and a recorder that gives back what it was told to
STAND_IN = """(sound) => {
  Object.defineProperty(navigator, 'mediaDevices', { value: { getUserMedia: async () => ({ getTracks: () => [] }) } });
  window.MediaRecorder = class {
    static isTypeSupported(kind) { return kind === 'audio/webm'; }
    constructor() { this.mimeType = 'audio/webm'; }
    start() {}
    stop() {
      const bytes = Uint8Array.from(atob(sound), (letter) => letter.charCodeAt(0));
      this.ondataavailable({ data: new Blob([bytes], { type: 'audio/webm' }) });
      this.onstop();
    }
  };
}"""


def test_a_motor_is_recorded_in_the_page_where_the_browser_lets_it(bench: Page, server: str) -> None:
    sound = b64encode(webm_of(scene("pitch", 7).data)).decode()
    bench.add_init_script(f"({STAND_IN})('{sound}')")
    bench.goto(f"{server}lines/2/phone?kind=pitch")
    bench.get_by_role("button", name="Record five seconds").click()
    expect(bench.locator("[data-record-says]")).to_contain_text("recording")
    expect(bench.locator("[data-record-says]")).to_have_text("One recording is with the files.")
    bench.get_by_role("button", name="Read it").click()
    expect(bench.locator(".phone-value")).to_contain_text("149.1 Hz")


def test_where_the_browser_does_not_let_it_nothing_is_offered(bench: Page, server: str) -> None:
    bench.add_init_script("delete window.MediaRecorder")
    bench.goto(f"{server}lines/2/phone?kind=pitch")
    expect(bench.get_by_label("Recordings, up to 6")).to_be_visible()
    expect(bench.get_by_role("button", name="Record five seconds")).not_to_be_visible()


def test_a_photo_is_pinned_to_the_section_of_the_bin(bench: Page, server: str, tmp_path: Path) -> None:
    photo = tmp_path / "inside.jpg"
    photo.write_bytes(scene("depth", 7).data)
    bench.goto(f"{server}lines/1/phone")
    bench.get_by_role("link", name="Inside of the bin").click()
    bench.get_by_label("Photo", exact=True).set_input_files(photo)
    bench.get_by_label("How high over the floor").fill("15 in")
    bench.get_by_role("button", name="Pin it").click()
    expect(bench.locator(".bin-pins .bin-pin")).to_have_count(1)
    expect(bench.locator(".inside-photos")).to_contain_text("thrown back")
    assert bench.evaluate(OVERLAPS, ".bin-pins") == []
    bench.get_by_role("link", name="Its entry in the log").click()
    expect(bench.locator("main")).to_contain_text("Looked into the bin")


def webm_of(wave: bytes) -> bytes:
    """A recording as a browser writes it."""
    out = BytesIO()
    with av.open(BytesIO(wave)) as raw, av.open(out, "w", format="webm") as made:
        stream = made.add_stream("libopus", rate=48_000)
        to_one = av.AudioResampler(format="flt", layout="mono", rate=48_000)
        for frame in raw.decode(audio=0):
            for piece in to_one.resample(frame):
                made.mux(stream.encode(piece))
        made.mux(stream.encode(None))
    return out.getvalue()
