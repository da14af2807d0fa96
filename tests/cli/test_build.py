"""`fenwick build` and `fenwick example`, as a stranger runs them."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from fenwick.cli import main
from fenwick.rig.start.examples import EXAMPLES

KEYS = {"id", "name", "kind", "count", "material", "thickness_m", "how", "dims"}
KINDS = {"disc", "ring", "wrap", "cone", "tube", "block", "panel", "bought"}


def run(*words: str) -> Result:
    return CliRunner().invoke(main, list(words))


def rig_at(tmp_path: Path, kind: str, **changes: object) -> Path:
    document = json.loads(run("example", kind).stdout)
    separator = next(e for e in document["line"]["elements"] if e["id"] == "sep")
    separator.update(changes)
    path = tmp_path / f"{kind}.json"
    path.write_text(json.dumps(document))
    return path


def built(tmp_path: Path, rig: Path, *words: str) -> dict:  # type: ignore[type-arg]
    out = tmp_path / "out"
    result = run("build", str(rig), "--out", str(out), "--force", *words)
    assert result.exit_code == 0, result.output
    found: dict = json.loads((out / "parts.json").read_text())  # type: ignore[type-arg]
    return found


def part_of(document: dict, name: str) -> dict:  # type: ignore[type-arg]
    found: dict = next(part for part in document["parts"] if part["id"] == name)  # type: ignore[type-arg]
    return found


@pytest.mark.parametrize("kind", EXAMPLES)
def test_every_type_is_built(tmp_path: Path, kind: str) -> None:
    words = ("--what", "wet") if kind == "wet-stage" else ()
    document = built(tmp_path, rig_at(tmp_path, kind), *words)
    assert (document["format"], document["version"]) == ("fenwick-parts", 1)
    assert document["separator"] == ("wet" if kind == "wet-stage" else "sep")
    written = {path.name for path in (tmp_path / "out").iterdir()}
    assert {"parts.json", "templates.pdf", "sheets.svg", "sheets.dxf", "booklet.pdf"} <= written
    for part in document["parts"]:
        assert set(part) >= KEYS
        assert part["kind"] in KINDS
        assert part["how"] in ("make", "buy", "have")
        if "outline_m" in part:
            assert {f"{part['id']}.svg", f"{part['id']}.dxf"} <= written
        if part["kind"] == "tube":
            assert part["length_m"] > 0.0
            assert part["outer_d_m"] > part["dims"]["bore_m"]
    ids = [step["id"] for step in document["steps"]]
    for i, step in enumerate(document["steps"]):
        assert set(step["after"]) <= set(ids[:i])
    told = [one for one in document["warnings"] if "does not hold on HDPE" not in one]  # a bin of HDPE is bolted
    assert told == []


def test_without_what_the_stand_comes_along_and_alone_it_comes_alone(tmp_path: Path) -> None:
    rig = rig_at(tmp_path, "slotted-disc")
    assert {"roof", "tray", "casters"} <= {part["id"] for part in built(tmp_path, rig)["parts"]}
    assert "tray" not in {part["id"] for part in built(tmp_path, rig, "--what", "sep")["parts"]}
    alone = {part["id"] for part in built(tmp_path, rig, "--what", "stand")["parts"]}
    assert "tray" in alone
    assert "roof" not in alone


def test_the_hand_of_the_swirl_is_a_switch(tmp_path: Path) -> None:
    rig = rig_at(tmp_path, "slotted-disc")
    right, left = (part_of(built(tmp_path, rig, "--swirl", hand), "slotted-disc") for hand in ("right", "left"))
    assert (right["swirl"], left["swirl"]) == ("right", "left")
    assert max(x for x, _ in right["outline_m"][1]) == pytest.approx(-min(x for x, _ in left["outline_m"][1]), abs=1e-6)


def test_settings_of_the_cutter_are_those_of_the_contract(tmp_path: Path) -> None:
    disc = part_of(built(tmp_path, rig_at(tmp_path, "slotted-disc")), "slotted-disc")
    cuts = {cut["edge"]: cut for cut in disc["cuts"]}
    out, edge = cuts["slot, its outer edge"], cuts["outer edge"]
    assert (out["radius_m"], out["pivot_m"], out["waste"]) == (0.17, 0.167, "inside")
    assert edge["pivot_m"] == pytest.approx(edge["radius_m"] + 0.003)
    assert edge["waste"] == "outside"


def test_a_box_round_a_tool(tmp_path: Path) -> None:
    path = rig_at(tmp_path, "slotted-disc")
    document = json.loads(path.read_text())
    document["guesses"] = []
    branch = document["line"]["branches"][0]
    branch["port"]["hood"] = {
        "kind": "enclosure", "release": "active", "thrown_share": 0.4,
        "box": {
            "width_m": 0.5, "depth_m": 0.4, "height_m": 0.45,
            "passages": [{"side": "front", "width_m": 0.3, "height_m": 0.04}],
            "doors": [{"name": "Door open", "side": "left", "width_m": 0.25, "height_m": 0.3, "share": 0.2}],
        },
    }  # fmt: skip
    path.write_text(json.dumps(document))
    found = built(tmp_path, path, "--what", f"hood:{branch['id']}")
    names = {part["id"] for part in found["parts"]}
    assert {"front-panel", "back-panel", "left-panel", "right-panel", "top-panel", "door-1", "rail-1"} <= names
    front = part_of(found, "front-panel")
    assert len(front["outline_m"]) == 2
    plain = run("build", str(rig_at(tmp_path, "slotted-disc")), "--out", str(tmp_path / "no"), "--what", "hood:tool")
    assert plain.exit_code == 2
    assert "no box with sizes" in plain.stderr


def test_a_folder_that_is_not_empty_is_left_alone(tmp_path: Path) -> None:
    rig = rig_at(tmp_path, "elbow-lid")
    out = tmp_path / "mine"
    out.mkdir()
    (out / "letter.txt").write_text("mine")
    refused = run("build", str(rig), "--out", str(out))
    assert refused.exit_code == 2
    assert "not empty" in refused.stderr
    assert refused.stderr.count("\n") == 1
    assert run("build", str(rig), "--out", str(out), "--force").exit_code == 0
    assert (out / "letter.txt").read_text() == "mine"


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("--what", "nothing"), "no separator called"),
        (("--what", "hood:nothing"), "no port called"),
    ],
)
def test_what_cannot_be_built_is_said_in_one_sentence(tmp_path: Path, words: tuple[str, str], said: str) -> None:
    result = run("build", str(rig_at(tmp_path, "cyclone")), "--out", str(tmp_path / "out"), *words)
    assert result.exit_code == 2
    assert said in result.stderr
    assert not (tmp_path / "out").exists()


def test_a_line_without_a_separator(tmp_path: Path) -> None:
    path = rig_at(tmp_path, "cyclone")
    document = json.loads(path.read_text())
    document["line"]["elements"], document["guesses"] = [], []
    path.write_text(json.dumps(document))
    result = run("build", str(path), "--out", str(tmp_path / "out"))
    assert result.exit_code == 2
    assert "no separator to build" in result.stderr


@pytest.mark.parametrize(
    ("changes", "part", "said"),
    [
        ({"slots": [{"width_m": 0.03, "arc_deg": 200.0}, {"width_m": 0.03, "arc_deg": 150.0, "start_deg": 100.0}]},
         "Slotted disc", "overlap"),
        ({"slots": [{"width_m": 0.03, "arc_deg": 360.0}]}, "Slotted disc", "all round"),
        ({"make": {"wall": "acrylic", "wall_m": 0.005}}, "Wall", "cracks or creeps"),
        ({"make": {"wall": "petg", "wall_m": 0.001}}, "Wall", "not known"),
        ({"chamber_d_m": 0.5}, "Slotted disc", "over the rim"),
    ],
)  # fmt: skip
def test_what_is_amiss_is_said_at_its_part_and_the_rest_comes_out(
    tmp_path: Path, changes: dict[str, object], part: str, said: str
) -> None:
    document = built(tmp_path, rig_at(tmp_path, "slotted-disc", **changes))
    assert any(one.startswith(f"{part}: ") and said in one for one in document["warnings"]), document["warnings"]
    assert "roof" in {one["id"] for one in document["parts"]}


def test_a_shop_that_has_narrow_sheets_and_a_wide_cutter_is_told(tmp_path: Path) -> None:
    shop = {
        "format": "fenwick-shop", "version": 1,
        "cutting": [{"id": "bit", "kind": "cutter", "d_m": 0.04}],
        "sheets": [{"id": "rest", "material": "plywood", "thickness_m": 0.012, "width_m": 0.9, "height_m": 0.6}],
        "tubes": [{"id": "pipe", "bore_m": 0.038, "wall_m": 0.002, "length_m": 1.0}],
    }  # fmt: skip
    path = tmp_path / "shop.json"
    path.write_text(json.dumps(shop))
    document = built(tmp_path, rig_at(tmp_path, "slotted-disc"), "--shop", str(path))
    assert any("cutter is 40 mm" in one for one in document["warnings"])
    assert part_of(document, "outlet-tube")["how"] == "have"


def test_an_unknown_type_is_said(tmp_path: Path) -> None:
    result = run("example", "teapot")
    assert result.exit_code == 2
    assert "cyclone" in result.stderr


class TestWays:
    def test_made_and_bought_cost_what_their_packs_say(self, tmp_path: Path) -> None:
        rig = rig_at(tmp_path, "slotted-disc")
        found = json.loads(run("make-or-buy", str(rig)).stdout)
        assert (found["format"], found["separator"]) == ("fenwick-make-or-buy", "sep")
        here = {way["how"]: way for way in found["ways"] if way["here"]}
        for how, words in (("made", ()), ("bought", ("--bought",))):
            pack = built(tmp_path, rig, "--what", "sep", *words)
            assert here[how]["cost"] == pytest.approx(sum(line["price"] for line in pack["to_buy"]), abs=0.05)
            assert here[how]["hours"] == pytest.approx(
                sum(step["hands_s"] for step in pack["steps"]) / 3600.0, abs=1e-3
            )

    def test_the_shops_prices_and_tools_count(self, tmp_path: Path) -> None:
        rig = rig_at(tmp_path, "slotted-disc")
        shop = tmp_path / "shop.json"
        shop.write_text(json.dumps({
            "format": "fenwick-shop", "version": 1, "prices": [{"id": "p", "of": "make.sheet", "price": 300.0}],
            "cutting": [{"id": "j", "kind": "jigsaw"}],
        }))  # fmt: skip
        plain, dear = (json.loads(run("make-or-buy", str(rig), *more).stdout) for more in ((), ("--shop", str(shop))))
        made = [next(w for w in one["ways"] if w["here"] and w["how"] == "made") for one in (plain, dear)]
        assert made[1]["cost"] > made[0]["cost"] + 100.0
        assert made[1]["missing"]
        assert not made[0]["missing"]

    @pytest.mark.parametrize("words", [("--what", "nothing"), ("--what", "hose"), ("--shop", "nowhere.json")])
    def test_what_is_not_there_is_said(self, tmp_path: Path, words: tuple[str, ...]) -> None:
        result = run("make-or-buy", str(rig_at(tmp_path, "cyclone")), *words)
        assert result.exit_code == 2
        assert "Traceback" not in result.output


def test_bonds_of_two_materials() -> None:
    found = json.loads(run("bond", "hdpe", "plywood").stdout)
    assert {row["holds"] for row in found["bonds"]} == {"fails"}
    assert all(row["instead"] == ["mechanical"] for row in found["bonds"])
    refused = run("bond", "cheese", "plywood")
    assert refused.exit_code == 2
    assert "chipboard" in refused.output
