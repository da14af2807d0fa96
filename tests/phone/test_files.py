"""Whatever comes as a file is a reading or a sentence: other pictures, films without sound, bombs, the printed card."""

from __future__ import annotations

import io
import wave

import av
import numpy as np
import pytest
from PIL import Image

from fenwick.core.rules import RuleBook
from fenwick.data.demo import demo_rig
from fenwick.phone.grey import read_grey
from fenwick.phone.light import encoded, lightness, linear, reflectance
from fenwick.phone.opened import points_of
from fenwick.phone.pitch import followed, read_pitch
from fenwick.phone.scenes import scene
from fenwick.phone.sound import RATE, SoundHeard, sound_of
from fenwick.phone.targets import TARGETS
from fenwick.services.phone import KINDS, read_by_phone, reading_document
from fenwick.sheets.phone_targets import write_targets

PHOTOS = tuple(kind for kind in KINDS if kind != "pitch")


def packed(points: np.ndarray, form: str = "JPEG") -> bytes:
    """A picture as a file."""
    out = io.BytesIO()
    Image.fromarray(points.astype(np.uint8)).save(out, form)
    return out.getvalue()


def tone(hertz: float, seconds: float = 3.0) -> np.ndarray:
    """A motor as simple as can be."""
    at = np.arange(int(seconds * RATE)) / RATE
    return 0.3 * sum(np.sin(2.0 * np.pi * k * hertz * at) / k for k in range(1, 7))


def as_file(sound: np.ndarray, form: str, codec: str) -> bytes:
    """A recording as a telephone packs it."""
    out = io.BytesIO()
    with av.open(out, "w", format=form) as file:
        stream = file.add_stream(codec, rate=RATE, layout="mono")
        frame = av.AudioFrame.from_ndarray(sound.astype(np.float32)[None, :], format="flt", layout="mono")
        frame.sample_rate = RATE
        to_stream = av.AudioResampler(format=stream.format, layout="mono", rate=RATE, frame_size=stream.frame_size or 0)
        for piece in [*to_stream.resample(frame), *to_stream.resample(None)]:
            file.mux(stream.encode(piece))
        file.mux(stream.encode(None))
    return out.getvalue()


@pytest.mark.parametrize("kind", PHOTOS)
@pytest.mark.parametrize(
    "raw",
    [
        b"", b"no picture", b"\xff\xd8\xff\xe0" + b"\x00" * 50, b"%PDF-1.7", packed(np.zeros((40, 40, 3))),
        packed(np.full((900, 1200, 3), 255)), packed(np.random.default_rng(1).integers(0, 255, (600, 800, 3)), "PNG"),
        packed(np.tile(np.array([[0, 255] * 100, [255, 0] * 100]).repeat(4, 0), (60, 1))[..., None].repeat(3, 2)),
        packed(np.zeros((1, 4000, 3))),
    ],
    ids=["nothing", "text", "cut off", "pdf", "tiny", "white", "noise", "stripes", "a line"],
)  # fmt: skip
def test_a_photo_of_something_else_is_refused(kind: str, raw: bytes) -> None:
    found = read_by_phone(kind, [raw])
    assert found.value is None
    assert found.refused


def test_a_bomb_is_refused_by_its_head() -> None:
    head = b"\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR"
    bomb = head + (60_000).to_bytes(4, "big") * 2 + b"\x08\x02\x00\x00\x00" + b"\x00" * 40
    for kind in PHOTOS:
        assert read_by_phone(kind, [bomb]).refused


def test_a_card_that_lies_elsewhere_is_not_taken_for_another_sheet() -> None:
    for kind, other in (("grey", "squares"), ("squares", "depth"), ("depth", "grey"), ("tube", "squares")):
        assert read_by_phone(kind, [scene(other, 3).data]).refused


@pytest.mark.parametrize(
    ("form", "codec"), [("wav", "pcm_s16le"), ("ogg", "libopus"), ("mp3", "libmp3lame"), ("ipod", "aac")]
)
def test_every_usual_kind_of_recording_is_read(form: str, codec: str) -> None:
    found = read_by_phone("pitch", [as_file(tone(317.0), form, codec)])
    assert found.refused is None
    assert found.value == pytest.approx(317.0, rel=0.003)


def test_a_film_without_sound_is_refused_in_words() -> None:
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as film:
        stream = film.add_stream("mpeg4", rate=10)
        stream.width, stream.height, stream.pix_fmt = 64, 48, "yuv420p"
        for _ in range(12):
            film.mux(stream.encode(av.VideoFrame.from_ndarray(np.zeros((48, 64, 3), dtype=np.uint8), format="rgb24")))
        film.mux(stream.encode(None))
    assert "no sound" in str(read_by_phone("pitch", [out.getvalue()]).refused)


@pytest.mark.parametrize("raw", [b"", b"RIFF", b"\x00" * 5000, b"OggS" + b"\x01" * 300, packed(np.zeros((40, 40, 3)))])
def test_what_is_no_recording_is_refused(raw: bytes) -> None:
    found = read_by_phone("pitch", [raw])
    assert found.value is None
    assert found.refused


def test_a_recording_longer_than_two_minutes_is_cut_there() -> None:
    out = io.BytesIO()
    with wave.open(out, "wb") as file:
        file.setnchannels(2)
        file.setsampwidth(2)
        file.setframerate(8000)
        file.writeframes(np.zeros((8000 * 130, 2), dtype=np.int16).tobytes())
    assert sound_of(out.getvalue()).seconds == pytest.approx(120.0)


@pytest.mark.parametrize("hertz", [90.0, 150.0, 333.0, 610.0, 1100.0])
def test_a_tone_is_followed_without_jumping_an_octave(hertz: float) -> None:
    track = followed(SoundHeard(tone(hertz), RATE))
    assert np.allclose(track.hertz, hertz, rtol=0.003)


def test_two_minutes_are_followed_in_as_many_pieces_as_memory_bears() -> None:
    found = read_pitch(SoundHeard(tone(240.0, 120.0), RATE))
    assert found.value == pytest.approx(240.0, rel=0.003)
    assert len(found.seen["track_hz"]) <= 301


def test_a_hose_that_is_shut_in_the_middle_shows_as_two_levels() -> None:
    found = read_pitch(SoundHeard(np.concatenate([tone(300.0), tone(348.0)]), RATE))
    assert found.seen["first_hz"] == pytest.approx(300.0, rel=0.003)
    assert found.seen["then_hz"] == pytest.approx(348.0, rel=0.003)
    assert found.seen["changed_s"] == pytest.approx(3.0, abs=0.6)
    assert "first_hz" not in read_pitch(SoundHeard(tone(300.0), RATE)).seen


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_the_printed_pages_are_three_and_the_same_each_time(paper: str) -> None:
    made = write_targets(paper)
    assert made == write_targets(paper)
    assert made.count(b"/Type /Page\n") == 3
    for target in TARGETS.values():
        assert min(target.width, target.height) < 210.0
        assert max(target.width, target.height) < 279.0 - 9.0


def test_light_and_lightness_go_there_and_back() -> None:
    values = np.linspace(0.0, 255.0, 256)
    assert np.allclose(encoded(linear(values)), values, atol=1e-6)
    stars = np.linspace(0.0, 100.0, 101)
    assert np.allclose(lightness(reflectance(stars)), stars, atol=2e-3)


def test_a_turned_photo_reads_the_same() -> None:
    raw = scene("grey", 12).data
    points = points_of(raw)
    one = read_grey(points, RuleBook())
    for turns in (1, 2, 3):
        turned = read_grey(np.rot90(points, turns).copy(), RuleBook())
        assert turned.seen["L"] == pytest.approx(one.seen["L"], abs=0.5)


def test_a_depth_comes_to_litres_and_kilograms_of_the_line() -> None:
    raw = scene("depth", 3).data
    plain, there = read_by_phone("depth", [raw]), read_by_phone("depth", [raw], demo_rig("demo_bench"))
    assert plain.value == there.value
    assert "litres" not in plain.seen
    assert 0.0 < there.seen["litres_low"] < there.seen["litres"] < there.seen["litres_high"]
    assert 0.0 < there.seen["kg_low"] < there.seen["kg"] < there.seen["kg_high"]


def test_the_document_says_all_of_it() -> None:
    told = reading_document(read_by_phone("tube", [scene("tube", 3).data]))
    assert (told["format"], told["version"], told["kind"], told["unit"]) == ("fenwick-reading", 1, "tube", "mm")
    assert told["low"] <= told["value"] <= told["high"]
    assert told["refused"] is None
    none = reading_document(read_by_phone("tube", [b"x"]))
    assert none["value"] is None
    assert none["refused"]
