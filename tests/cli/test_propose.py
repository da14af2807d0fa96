"""`fenwick propose`: the tests that tell it as JSON, and what is wrong in a sentence."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner

from fenwick.cli import main
from fenwick.data.demo import demo_rig


@pytest.fixture
def rig(tmp_path: Path) -> str:
    """A rig file."""
    path = tmp_path / "rig.json"
    path.write_text(demo_rig().model_dump_json())
    return str(path)


def test_the_tests_come_with_what_is_expected_of_their_states(rig: str) -> None:
    told = CliRunner().invoke(main, ["propose", rig, rig, "--want", "builds", "--scale", "1 g", "--minutes", "300"])
    assert told.exit_code == 0, told.output
    document = json.loads(told.output)
    assert (document["format"], document["version"], document["want"]) == ("fenwick-proposals", 1, "builds")
    best = document["tests"][0]
    assert (best["kind"], best["way"], best["answers"]) == ("builds", "masses", True)
    assert best["reach"] <= best["worth_knowing"]
    assert best["minutes"] <= 300
    assert len(best["states"]) == 2
    assert best["states"][0]["expected"]["low"] < best["states"][0]["expected"]["value"]
    assert document["would_answer"] == []


def test_what_would_answer_it_is_named(rig: str) -> None:
    document = json.loads(CliRunner().invoke(main, ["propose", rig, "--want", "leaks"]).output)
    assert document["tests"] == []
    assert document["would_answer"] == ["gauge"]
    gauge = json.loads(CliRunner().invoke(main, ["propose", rig, "--want", "leaks", "--gauge", "5 mm"]).output)
    assert gauge["tests"][0]["answers"]
    assert gauge["tests"][0]["fed_kg"] is None


@pytest.mark.parametrize(
    "more",
    [["--want", "nothing"], ["--scale", "many"], ["--scale", "-1 g"], ["--minutes", "0"], ["--gauge", "0 Pa"]],
)
def test_what_cannot_be_ends_with_two(rig: str, more: list[str]) -> None:
    told = CliRunner().invoke(main, ["propose", rig, *more])
    assert told.exit_code == 2
    assert "Traceback" not in told.output


def test_a_file_that_is_no_rig_ends_with_two(tmp_path: Path) -> None:
    bad = tmp_path / "bad.json"
    bad.write_text("{")
    assert CliRunner().invoke(main, ["propose", str(bad)]).exit_code == 2
