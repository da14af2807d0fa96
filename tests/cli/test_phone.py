"""`fenwick read`, `render` and `card`: what they print, what they refuse, and the statuses they end with."""

import json
from pathlib import Path

import pytest
from click.testing import CliRunner

from fenwick.cli import main
from fenwick.data.demo import demo_rig
from fenwick.rig import write_rig

KINDS = ("grey", "squares", "depth", "tube", "pitch")


def run(*words: str | Path) -> tuple[int, str]:
    """(status, what it printed)."""
    told = CliRunner().invoke(main, [str(one) for one in words])
    return told.exit_code, told.output


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_rendered_is_read_as_its_truth_says(tmp_path: Path, kind: str) -> None:
    file = tmp_path / ("scene.wav" if kind == "pitch" else "scene.jpg")
    status, _ = run("render", kind, "--seed", "9", "--out", file)
    assert status == 0
    truth = json.loads((tmp_path / "scene.json").read_text())
    status, printed = run("read", kind, file)
    told = json.loads(printed)
    assert status == 0
    assert (told["format"], told["version"], told["kind"], told["refused"]) == ("fenwick-reading", 1, kind, None)
    assert told["low"] <= told["value"] <= told["high"]
    assert told["value"] == pytest.approx(truth["value"], rel=0.02, abs=2.0)


def test_a_broken_scene_ends_with_two_and_a_sentence(tmp_path: Path) -> None:
    file = tmp_path / "cut.jpg"
    assert run("render", "grey", "--seed", "2", "--out", file, "--broken", "blur")[0] == 0
    status, printed = run("read", "grey", file)
    told = json.loads(printed)
    assert status == 2
    assert told["value"] is None
    assert told["refused"]


def test_a_depth_on_a_line_comes_to_litres(tmp_path: Path) -> None:
    rig, file = tmp_path / "rig.json", tmp_path / "bin.jpg"
    rig.write_bytes(write_rig(demo_rig("demo_bench")))
    run("render", "depth", "--seed", "4", "--out", file)
    status, printed = run("read", "depth", file, file, "--rig", rig)
    told = json.loads(printed)
    assert status == 0
    assert told["seen"]["litres"] > 0.0
    assert told["seen"]["values"] == [pytest.approx(told["value"], abs=0.01)] * 2


def test_the_card_is_a_pdf_of_three_pages(tmp_path: Path) -> None:
    out = tmp_path / "card.pdf"
    assert run("card", "--out", out)[0] == 0
    assert out.read_bytes().count(b"/Type /Page\n") == 3


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("read", "grey", "nowhere.jpg"), "nowhere.jpg"),
        (("read", "smell", "x.jpg"), "smell"),
        (("read", "grey"), "FILES"),
        (("render", "grey", "--seed", "-1", "--out", "x.jpg"), "-1"),
        (("render", "grey", "--seed", "1", "--out", "x.jpg", "--broken", "silent"), "no-card"),
        (("render", "grey", "--seed", "1", "--out", "x.json"), ".json"),
    ],
)
def test_bad_words_are_answered_in_words(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, words: tuple[str, ...], said: str
) -> None:
    monkeypatch.chdir(tmp_path)
    told = CliRunner().invoke(main, list(words))
    assert told.exit_code == 2
    assert said in told.output
    assert "Traceback" not in told.output
