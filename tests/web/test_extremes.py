"""Lines as nobody would build them, and some as many do: every page still tells figures, and none that cannot be."""

from __future__ import annotations

import copy
import re
from collections.abc import Callable
from typing import Any

import pytest
from bs4 import BeautifulSoup
from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.shops import change_shop, shop_state
from fenwick.rig import check_rig
from fenwick.rig.result import solve_rig
from fenwick.services.lines import store
from fenwick.shop import edit_shop

Document = dict[str, Any]
PAGES = (
    "",
    "/ports",
    "/separator",
    "/dust",
    "/ageing",
    "/checks",
    "/vacuum",
    "/test",
    "/late?of=verdict",
    "/ports/drum-sander/hood",
)
#: words that a figure without a value would leave on a page
BROKEN = re.compile(r"\b(nan|NaN|inf|Infinity|undefined)\b|\bNone\b(?! [a-z])")
STILL = {"release": "slow", "thrown_share": 0.0, "rebound": False}


def separator_of(document: Document) -> Document:
    """Of the demo line."""
    found: Document = next(part for part in document["line"]["elements"] if part["kind"] == "separator")
    return found


def planer_on_a_garden_hose(document: Document) -> None:
    """100 mm at the planer, 35 mm behind it."""
    document["dust"] = {"kind": "planer"}
    branch = document["line"]["branches"][0]
    branch["port"] |= {"bore_m": 0.1, "machine": "planer", "dust_rate_kg_s": 0.02}
    for part in branch["elements"]:
        if part["kind"] == "hose":
            part["bore_m"] = 0.035
        for key in ("tool_end", "vacuum_end"):
            part.pop(key, None)
    branch["elements"] = [part for part in branch["elements"] if part["kind"] == "hose"]


def nothing_escapes(document: Document) -> None:
    """A tight box around the tool, all of the dust coarse."""
    way = {"name": "Slit", "area_m2": 1e-4, "share": 1.0}
    document["line"]["branches"][0]["port"]["hood"] = {"kind": "enclosure", "openings": [way], **STILL}
    document["dust"] = {"kind": "planer"}


def bag_after_a_thousand_hours(document: Document) -> None:
    """Nobody ever changed it."""
    document["vacuum"]["bag"] = {"area_m2": 0.3, "held_kg": 45.0}
    document["vacuum"]["filter"]["held_kg"] = 20.0


def empty_and_leaning_a_little(document: Document) -> None:
    """As it stands on most floors."""
    separator_of(document)["tilt_deg"] = 1.0
    separator_of(document)["bin"]["fill_height_m"] = 0.0


def lying_on_its_side(document: Document) -> None:
    """Fallen over."""
    separator_of(document)["tilt_deg"] = 80.0


def full_to_the_rim(document: Document) -> None:
    """Nobody looked."""
    bin_ = separator_of(document)["bin"]
    bin_["fill_height_m"] = bin_["profile"][-1]["height_m"]


def a_hole_in_the_bin(document: Document) -> None:
    """More leak than hose."""
    separator_of(document)["bin"]["leak_area_m2"] = 0.005


def no_dust_known(document: Document) -> None:
    """Air alone."""
    del document["dust"]


def no_dust_made(document: Document) -> None:
    """A tool that makes none."""
    document["line"]["branches"][0]["port"]["dust_rate_kg_s"] = 0.0


def no_separator(document: Document) -> None:
    """Straight into the vacuum."""
    document["line"]["elements"] = [part for part in document["line"]["elements"] if part["kind"] != "separator"]


def no_filter(document: Document) -> None:
    """Neither filter nor bag."""
    document["vacuum"].pop("filter", None)
    document["vacuum"].pop("bag", None)


def on_a_mountain_in_winter(document: Document) -> None:
    """Thin and cold."""
    document["site"] = {"temperature_c": -15, "altitude_m": 3500}


def a_toy_vacuum(document: Document) -> None:
    """Hardly any air."""
    document["vacuum"]["curve"] = {"kind": "nameplate", "sealed_suction_pa": 500, "open_flow_m3_s": 0.005}


def a_blower(document: Document) -> None:
    """Far more air than the hose takes."""
    document["vacuum"]["curve"] = {"kind": "nameplate", "sealed_suction_pa": 40000, "open_flow_m3_s": 0.3}


def fifty_metres_of_hose(document: Document) -> None:
    """Across the yard."""
    document["line"]["branches"][0]["elements"][0]["length_m"] = 50.0


EXTREMES: tuple[Callable[[Document], None], ...] = (
    planer_on_a_garden_hose,
    nothing_escapes,
    bag_after_a_thousand_hours,
    empty_and_leaning_a_little,
    lying_on_its_side,
    full_to_the_rim,
    a_hole_in_the_bin,
    no_dust_known,
    no_dust_made,
    no_separator,
    no_filter,
    on_a_mountain_in_winter,
    a_toy_vacuum,
    a_blower,
    fifty_metres_of_hose,
)
EVERY = pytest.mark.parametrize("make", EXTREMES, ids=lambda make: make.__name__)


def extreme(document: Document, make: Callable[[Document], None]) -> Document:
    """The demo line, made so."""
    made = copy.deepcopy(document)
    make(made)
    return made


def shown(page: str) -> str:
    """What a reader sees of a page."""
    soup = BeautifulSoup(page, "html.parser")
    for hidden in soup.select("script, style"):
        hidden.decompose()
    return soup.get_text(" ")


@EVERY
def test_every_page_tells_it_in_figures_that_can_be(
    client: FlaskClient, shop: Database, document: Document, make: Callable[[Document], None]
) -> None:
    with shop.session() as session:
        store(session, 1, check_rig(extreme(document, make)), "made extreme")
    for page in PAGES:
        answer = client.get(f"/lines/1{page}")
        assert answer.status_code in (200, 302, 404), page
        broken = BROKEN.search(shown(answer.text))
        assert broken is None, (page, shown(answer.text)[max(0, broken.start() - 60) : broken.end() + 30])


@EVERY
def test_its_result_is_finite_and_adds_up(document: Document, make: Callable[[Document], None]) -> None:
    result = solve_rig(check_rig(extreme(document, make)))
    assert result["ports"][0]["flow_m3_s"] > 0.0
    for share in result.get("fate", {}).values():
        if isinstance(share, float):
            assert -1e-9 <= share <= 1.0 + 1e-9
    for check in result["checks"]:
        assert check["level"] in ("ok", "watch", "act")


def kept(document: Document) -> float:
    """By its only separator."""
    return float(solve_rig(check_rig(document))["separators"][0]["efficiency"])


def flow(document: Document) -> float:
    """At its tool [m^3/s]."""
    return float(solve_rig(check_rig(document))["ports"][0]["flow_m3_s"])


def test_leaning_a_little_while_empty_costs_next_to_nothing(document: Document) -> None:
    upright = extreme(document, empty_and_leaning_a_little)
    leaning = copy.deepcopy(upright)
    separator_of(upright)["tilt_deg"] = 0.0
    assert kept(upright) - 0.02 < kept(leaning) <= kept(upright)
    assert kept(extreme(document, lying_on_its_side)) < kept(upright)


def test_a_full_bin_and_a_hole_in_it_keep_next_to_nothing(document: Document) -> None:
    assert kept(extreme(document, full_to_the_rim)) < 0.05
    assert kept(extreme(document, a_hole_in_the_bin)) < 0.5 * kept(document)


def test_a_planer_on_a_garden_hose_is_told_to_act(document: Document) -> None:
    checks = solve_rig(check_rig(extreme(document, planer_on_a_garden_hose)))["checks"]
    assert "act" in {check["level"] for check in checks}


def test_a_filter_that_nobody_changed_takes_most_of_the_air(document: Document) -> None:
    assert flow(extreme(document, bag_after_a_thousand_hours)) < 0.5 * flow(document)


def test_less_fan_more_hose_and_thinner_air_move_less_mass(document: Document) -> None:
    assert flow(extreme(document, a_toy_vacuum)) < flow(extreme(document, fifty_metres_of_hose)) < flow(document)
    assert flow(extreme(document, a_blower)) > flow(document)


@pytest.mark.parametrize("changes", [0, 1e-9])
def test_a_room_that_nothing_renews_locks_no_page(client: FlaskClient, shop: Database, changes: float) -> None:
    with shop.session() as session:
        owned = shop_state(session).file
        change_shop(session, edit_shop(owned, {"room.air_changes_per_h": float(changes)}), "shut")
    for page in ("/lines/1", "/lines/1/dust", "/lines/2/dust?of=week", "/lines/3", "/lines/3/dust", "/shop?list=room"):
        answer = client.get(page)
        assert answer.status_code == 200, page
        assert BROKEN.search(shown(answer.text)) is None, page
    assert "Stay masked after the cut" in shown(client.get("/lines/3/dust").text)
