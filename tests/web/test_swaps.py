"""Exchanging parts for owned and bought ones, and the other vacuum among the single changes."""

import json
from typing import Any

import pytest
from flask.testing import FlaskClient

from fenwick.core.search.changes import Candidate, candidates
from fenwick.core.search.figures import figures_of_each
from fenwick.core.search.whatif import try_all
from fenwick.data.demo import demo_rig, demo_shop
from fenwick.rig import Rig, RigError, build_line, edit_rig
from fenwick.shop import ShopFile, add_item
from fenwick.shop.edit import edit_shop
from fenwick.shop.into_line import apply_change, swap, with_other_vacuums


def rig_of(client: FlaskClient, line: int) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(client.get(f"/lines/{line}/rig.json").data)
    return found


def exchange(client: FlaskClient, part: str, what: str, line: int = 1) -> Any:
    return client.post(f"/lines/{line}/parts/{part}/swap", data={"with": what}, headers={"HX-Request": "true"})


def test_a_hose_is_exchanged_for_one_from_the_drawer_and_a_bought_one(client: FlaskClient) -> None:
    assert "Blue smooth hose, 50 mm × 3.5 m" in client.get("/lines/1?part=hose-b").text
    page = exchange(client, "hose-b", "hose:blue").text
    assert "Hose B exchanged for Blue smooth hose" in page
    hose = rig_of(client, 1)["line"]["branches"][0]["elements"][2]
    assert (hose["id"], hose["bore_m"], hose["length_m"], hose["wall"]) == ("hose-b", 0.05, 3.5, "smooth")
    assert len(hose["bends"]) == 1  # it lies where the old one lay
    exchange(client, "hose-b", "sold:0.038:smooth")
    hose = rig_of(client, 1)["line"]["branches"][0]["elements"][2]
    assert (hose["bore_m"], hose["length_m"]) == (0.038, 3.5)


def test_a_vacuum_and_a_tool_are_put_in(client: FlaskClient) -> None:
    exchange(client, "vacuum", "vacuum:canister")
    assert rig_of(client, 1)["vacuum"]["name"] == "Spare canister 700 W"
    assert "cord_m" not in rig_of(client, 1)["vacuum"]
    exchange(client, "drum-sander", "tool:router")
    rig = rig_of(client, 1)
    assert rig["line"]["branches"][0]["port"]["name"] == "Binding router"
    assert rig["dust"]["kind"] == "router"  # the only tool of the line


@pytest.mark.parametrize(
    "what", ["hose:gone", "sold:0.05:gold", "sold:9:smooth", "vacuum:canister", "moon", "tool:router"]
)
def test_what_cannot_be_put_there_is_said(client: FlaskClient, what: str) -> None:
    before = rig_of(client, 1)
    refused = exchange(client, "hose-a", what)
    assert refused.status_code == 422
    assert rig_of(client, 1) == before


def test_a_tool_with_two_ports_joins_with_both() -> None:
    shop, saw = add_item(demo_shop(), "tools")
    at = len(shop.tools) - 1
    port = shop.tools[at].ports[0].model_dump(mode="json")
    shop = edit_shop(
        shop, {f"tools[{at}].ports": [{**port, "name": "Upper"}, {**port, "name": "Lower", "bore_m": 0.04}]}
    )
    rig = swap(demo_rig(), "drum-sander", f"tool:{saw}", shop)
    assert [way[0].port.name for way in rig.line.ways if way[0].port] == ["Upper", "Lower"]
    assert [e.id for e in rig.line.branches[0].elements] == ["hose-a", "cuff", "hose-b"]
    flows = figures_of_each([build_line(rig)], 0)[0].flow, figures_of_each([build_line(rig)], 1)[0].flow
    assert flows[0][0] > flows[1][0] > 0.0  # the narrower port gets less
    with pytest.raises(RigError, match="no tool"):
        swap(rig, "hose-a", f"tool:{saw}", shop)


@pytest.fixture
def drawer() -> ShopFile:
    return demo_shop()


def weak() -> Rig:
    return edit_rig(demo_rig(), {"vacuum.curve.open_flow_m3_s": 0.03, "vacuum.name": "Old one"})


def test_another_owned_vacuum_is_among_the_changes(client: FlaskClient, drawer: ShopFile) -> None:
    rig = weak()
    line = build_line(rig)
    outcomes = try_all(line, 0, (), others=with_other_vacuums(rig, drawer))
    assert outcomes
    assert outcomes[0].candidate == Candidate("vacuum", "drum-vac")
    changed = apply_change(rig, outcomes[0].candidate, drawer)
    assert figures_of_each([build_line(changed)], 0)[0].flow[0] == pytest.approx(outcomes[0].flow[1], rel=1e-6)
    with pytest.raises(KeyError):
        apply_change(rig, outcomes[0].candidate, None)
    assert "canister" in with_other_vacuums(demo_rig(), drawer)
    assert "drum-vac" not in with_other_vacuums(demo_rig(), drawer)  # it is the line's own
    tried = client.get("/lines/1/try/vacuum~canister~0").text
    assert "Trying: <b>The Spare canister 700 W in its place</b>" in tried
    assert client.get("/lines/1/try/vacuum~gone~0").status_code == 404


def test_the_list_of_single_changes_is_long_enough() -> None:
    line = build_line(demo_rig())
    assert len(candidates(line, 0)) >= 40
