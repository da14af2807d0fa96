"""The command line as a user runs it: results on standard output, one sentence on standard error, status 2."""

import json
import subprocess
import sys
from importlib import resources
from pathlib import Path
from typing import Any

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.rig import check_rig, write_rig
from fenwick.rig.edits.kinds import KINDS, change_kind


def run(*args: str, stdin: bytes | None = None) -> Result:
    """A command in this process."""
    return CliRunner().invoke(main, list(args), input=stdin, catch_exceptions=False)


def test_solve_prints_the_result_of_a_file(document: dict[str, Any], tmp_path: Path) -> None:
    path = tmp_path / "line.json"
    path.write_text(json.dumps(document))
    result = run("solve", str(path))
    assert result.exit_code == 0
    assert json.loads(result.stdout)["format"] == "fenwick-result"
    assert run("solve", "-", stdin=path.read_bytes()).stdout == result.stdout


@pytest.mark.parametrize(
    ("content", "sentence"),
    [
        (b"", "the file is empty"),
        (b"[]", "the file holds a list"),
        (b"{", "is not JSON"),
        (b'{"format": "fenwick-rig", "version": 1}', "vacuum: is missing"),
    ],
)
def test_bad_files_end_with_status_2_and_one_sentence(content: bytes, sentence: str, tmp_path: Path) -> None:
    path = tmp_path / "bad.json"
    path.write_bytes(content)
    result = run("solve", str(path))
    assert result.exit_code == 2
    assert result.stdout == ""
    assert sentence in result.stderr
    assert result.stderr.count("\n") == 1


def test_files_that_cannot_be_read(tmp_path: Path) -> None:
    big = tmp_path / "big.json"
    with big.open("wb") as file:
        file.truncate(50_000_000)
    for path, sentence in ((tmp_path / "none.json", "No such file"), (tmp_path, "Is a directory"), (big, "50.0 MB")):
        result = run("solve", str(path))
        assert result.exit_code == 2
        assert sentence in result.stderr


def test_schema_is_a_json_schema_of_the_rig(document: dict[str, Any]) -> None:
    schema = json.loads(run("schema").stdout)
    assert schema["$schema"].endswith("2020-12/schema")
    assert set(schema["required"]) == {"format", "version", "vacuum", "line"}
    assert "HosePart" in schema["$defs"]
    assert set(document) <= set(schema["properties"])


@pytest.mark.parametrize("command", sorted(main.commands))
def test_every_command_explains_itself(command: str) -> None:
    result = run(command, "--help")
    assert result.exit_code == 0
    assert len(result.stdout.splitlines()) > 3


def test_serving_where_no_shop_can_be_made(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("in the way")
    result = run("serve", "--home", str(tmp_path / "file"))
    assert result.exit_code == 2
    assert "No shop can be made at" in result.stderr or "is a file" in result.stderr


def test_beginning_a_shop_with_a_bad_rig_leaves_no_shop(tmp_path: Path) -> None:
    rig = tmp_path / "bad.json"
    rig.write_text("{}")
    result = run("serve", "--home", str(tmp_path / "shop"), "--line", str(rig))
    assert result.exit_code == 2
    assert not (tmp_path / "shop").exists()


def test_the_installed_command_solves_without_the_web(tmp_path: Path) -> None:
    demo = resources.files("fenwick.data").joinpath("demo_line.json")
    script = (
        "import sys; from fenwick.cli import main; main(['solve', sys.argv[1]], standalone_mode=False); "
        "assert not {'flask', 'sqlalchemy', 'alembic'} & set(sys.modules), 'heavy modules were loaded'"
    )
    done = subprocess.run([sys.executable, "-c", script, str(demo)], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout)["ports"][0]["flow_m3_s"] > 0.02


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_separator_is_solved_from_its_file(document: dict[str, Any], tmp_path: Path, kind: str) -> None:
    path = tmp_path / f"{kind}.json"
    path.write_bytes(write_rig(change_kind(check_rig(document), "sep", kind)))
    (one,) = json.loads(run("solve", str(path)).stdout)["separators"]
    assert set(one) == {
        "id",
        "inlet_velocity_m_s",
        "pressure_drop_pa",
        "cut_size_m",
        "efficiency",
        "efficiency_low",
        "efficiency_high",
        "models",
    }
    assert one["models"]["orbit"]["cut_size_m"] == one["cut_size_m"]
    assert 0.0 < one["pressure_drop_pa"] < 17_000


def test_the_cyclone_of_the_contract_has_four_models(document: dict[str, Any]) -> None:
    disc = document["line"]["elements"][0]
    document["line"]["elements"][0] = {
        "id": "sep",
        "kind": "separator",
        "type": "cyclone",
        "body_d_m": 0.15,
        "inlet_height_m": 0.075,
        "inlet_width_m": 0.03,
        "outlet_d_m": 0.075,
        "outlet_length_m": 0.075,
        "cylinder_height_m": 0.225,
        "total_height_m": 0.6,
        "dust_outlet_d_m": 0.05625,
        "finish": "smooth",
        "bin": disc["bin"],
    }
    result = json.loads(run("solve", "-", stdin=json.dumps(document).encode()).stdout)
    models = result["separators"][0]["models"]
    assert set(models) == {"orbit", "lapple", "leith-licht", "iozia-leith"}
    assert models["leith-licht"]["cut_size_m"] < models["orbit"]["cut_size_m"] < models["lapple"]["cut_size_m"]
    wrong = {**document, "line": {**document["line"]}}
    wrong["line"]["elements"] = [
        {**document["line"]["elements"][0], "outlet_d_m": 0.2},
        *document["line"]["elements"][1:],
    ]
    refused = run("solve", "-", stdin=json.dumps(wrong).encode())
    assert refused.exit_code == 2
    assert "line.elements[0].outlet_d_m: must be narrower than the body, at most 0.15 m" in refused.stderr


def test_the_schema_knows_every_kind() -> None:
    defs = json.loads(run("schema").stdout)["$defs"]
    for name in (
        "CyclonePart",
        "SlottedDiscPart",
        "ElbowLidPart",
        "RimInletPart",
        "OneBodyPart",
        "WetStagePart",
        "ClaimPart",
    ):
        assert name in defs
