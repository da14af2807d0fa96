"""`fenwick improve` from outside: its format, figures that `fenwick solve` confirms, what it says of bad input."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig.format.read import write_rig
from fenwick.shop.read import write_shop


@pytest.fixture
def rig(tmp_path: Path) -> Path:
    """The demo line as a file."""
    (tmp_path / "rig.json").write_bytes(write_rig(demo_rig()))
    return tmp_path / "rig.json"


@pytest.fixture
def shop(tmp_path: Path) -> Path:
    """The demo shop as a file."""
    (tmp_path / "shop.json").write_bytes(write_shop(demo_shop()))
    return tmp_path / "shop.json"


def run(*arguments: object) -> Result:
    """Some command."""
    return CliRunner().invoke(main, [str(one) for one in arguments])


def solved(document: dict[str, Any]) -> dict[str, Any]:
    """What `fenwick solve` says of a rig."""
    found = CliRunner().invoke(main, ["solve", "-"], input=json.dumps(document))
    assert found.exit_code == 0, found.output
    result: dict[str, Any] = json.loads(found.output)
    return result


def test_its_figures_are_those_of_solve_to_the_digit(rig: Path, shop: Path) -> None:
    told = json.loads(run("improve", rig, "--shop", shop).output)
    assert (told["format"], told["version"]) == ("fenwick-plans", 1)
    assert told["today"] == solved(json.loads(rig.read_text()))["figures"]
    assert 1 <= len(told["plans"]) <= 3
    for plan in told["plans"]:
        result = solved(plan["rig"])
        assert result["figures"] == plan["figures"] == plan["steps"][-1]["figures"]
        assert plan["figures"]["acts"] == sum(check["level"] == "act" for check in result["checks"])
        in_bin = {port["id"]: port.get("in_bin") for port in result["ports"]}
        assert {port["id"]: port["in_bin"] for port in plan["figures"]["ports"]} == in_bin
        assert plan["cost"] == pytest.approx(sum(step["cost"] for step in plan["steps"]), abs=0.02)
        assert plan["hours"] == pytest.approx(sum(step["hours"] for step in plan["steps"]), abs=0.02)
        assert plan["week"]["acts"] < told["week_today"]["acts"]
        for place, step in enumerate(plan["steps"], start=1):
            assert {"change", "part", "cost", "hours", "figures"} <= set(step)
            assert step.get("prepares", place + 1) > place
    assert told["plans"][0]["title"] == "free, this evening"
    assert told["plans"][0]["cost"] == 0.0
    assert told["plans"][1]["title"] == "for 60 €, a weekend"


def test_limits_are_kept_and_told_in_the_title(rig: Path, shop: Path) -> None:
    told = json.loads(run("improve", rig, "--shop", shop, "--spend", 20, "--hours", 2).output)
    assert [plan["title"] for plan in told["plans"]][-1] == "for 20 €, 2 h"
    assert all(plan["cost"] <= 20.0 and plan["hours"] <= 2.0 for plan in told["plans"])
    (nothing,) = [json.loads(run("improve", rig, "--spend", 0, "--hours", 0).output)]
    assert nothing["plans"] == []
    assert nothing["left"]


def test_what_is_out_of_the_question_is_in_no_plan(rig: Path) -> None:
    first = json.loads(run("improve", rig, "--spend", 20, "--hours", 4).output)["plans"][-1]["steps"][0]["key"]
    again = json.loads(run("improve", rig, "--spend", 20, "--hours", 4, "--without", first).output)
    assert first not in [step["key"] for plan in again["plans"] for step in plan["steps"]]


@pytest.mark.parametrize("bad", [("--spend", "-1"), ("--hours", "never"), ("--spend", "inf"), ("--spend", "nan")])
def test_a_sum_that_is_none_is_refused_in_a_sentence(rig: Path, bad: tuple[str, str]) -> None:
    found = run("improve", rig, *bad)
    assert found.exit_code == 2
    assert "Traceback" not in found.output


def test_the_file_that_is_wrong_is_the_one_that_is_named(rig: Path, shop: Path, tmp_path: Path) -> None:
    broken = tmp_path / "broken.json"
    broken.write_text("{")
    assert "broken.json" in run("improve", broken).output
    assert "broken.json" in run("improve", rig, "--shop", broken).output
    assert "rig.json" in run("improve", shop, "--shop", rig).output or run("improve", shop).exit_code == 2
