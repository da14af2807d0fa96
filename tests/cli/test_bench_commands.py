"""`fenwick hunt` and `fenwick result`: the pages' own figures as JSON, and what is wrong in a sentence."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner

from fenwick.cli import main
from fenwick.data.demo import demo_rig, seed_demo
from fenwick.data.lines import line_state
from fenwick.data.trials import trials_of
from fenwick.services.trials import trial_bench, workbench
from fenwick.units import METRIC


@pytest.fixture
def rig(tmp_path: Path) -> str:
    """A rig file."""
    path = tmp_path / "rig.json"
    path.write_text(demo_rig().model_dump_json())
    return str(path)


def run(*words: str) -> dict[str, object]:
    """A command's answer."""
    told = CliRunner().invoke(main, list(words))
    assert told.exit_code == 0, told.output
    return dict(json.loads(told.output))


def test_a_hunt_tells_suspects_and_checks(rig: str, tmp_path: Path) -> None:
    plain = run("hunt", rig, "--noticed", "dust-in-vacuum")
    told = run("hunt", rig, "--noticed", "dust-in-vacuum", "--since", "emptied")
    assert (told["format"], told["version"]) == ("fenwick-hunt", 1)
    shares = {one["fault"]: one["share"] for one in told["suspects"]}  # type: ignore[attr-defined]
    before = {one["fault"]: one["share"] for one in plain["suspects"]}  # type: ignore[attr-defined]
    assert shares["leak-lid"] > before["leak-lid"]
    assert told["checks"]
    table = tmp_path / "read.csv"
    table.write_text("kind,value\nsealed,12000\n")
    weak = run("hunt", rig, "--noticed", "weak", "--readings", str(table))
    assert weak["suspects"][0]["fault"] == "worn-motor"  # type: ignore[index]


def test_the_result_of_a_test_is_that_of_its_page(tmp_path: Path) -> None:
    shop = seed_demo(tmp_path / "shop.db")
    with shop.session() as session:
        (trial,) = [one for one in trials_of(session, 1) if one.plan.kind == "builds"]
        bench = trial_bench(session, trial, workbench(line_state(session, 1), METRIC))
        drawn = [float(values[0]) for values in bench.drawn if values is not None]
    shop.close()
    told = run("result", str(trial.id), "--home", str(tmp_path))
    assert (told["format"], told["kind"], told["says"]) == ("fenwick-test", "builds", "holds")
    states = told["states"]
    assert [one["expected"]["value"] for one in states] == drawn  # type: ignore[attr-defined]
    assert [one["line"] for one in states] == [1, 3]  # type: ignore[attr-defined]
    assert told["against_first"][0]["verdict"] == "real"  # type: ignore[index]
    assert told["against_first"][0]["beside_model"]["verdict"] == "agrees"  # type: ignore[index]
    for number in range(1, trial.id):
        other = run("result", str(number), "--home", str(tmp_path))
        assert len(other["states"]) >= 1  # type: ignore[arg-type]


@pytest.mark.parametrize(
    "words",
    [
        ["hunt", "{rig}", "--noticed", "nothing"],
        ["hunt", "{rig}", "--since", "yesterday"],
        ["hunt", "missing.json"],
        ["result", "1", "--home", "nowhere"],
        ["result", "0"],
        ["result", "999", "--home", "{home}"],
    ],
)
def test_what_cannot_be_ends_with_two(rig: str, tmp_path: Path, words: list[str]) -> None:
    seed_demo(tmp_path / "shop.db").close()
    told = CliRunner().invoke(main, [one.format(rig=rig, home=tmp_path) for one in words])
    assert told.exit_code == 2
    assert "Traceback" not in told.output
