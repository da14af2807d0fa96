"""The soak in short: a few kills, a small race, some odd requests and trees. `make soak` has them by the thousand."""

import json
from pathlib import Path

import pytest
from bench.soak.decade import decade, page_times
from bench.soak.fuzz import NASTY, fuzz
from bench.soak.kills import kills
from bench.soak.races import races
from bench.soak.rigs import random_rig
from bench.soak.trees import trees
from flask import Flask
from flask.testing import FlaskClient

from fenwick.rig import check_rig
from fenwick.web import create_app

LENGTH = "line.branches[0].elements[0].length_m"
HX = {"HX-Request": "true"}


def test_a_server_that_is_killed_loses_nothing_it_has_acknowledged(tmp_path: Path) -> None:
    found = kills(tmp_path, 6)
    assert found.kills == 6
    assert found.acknowledged > 0
    assert found.lost == []
    assert found.damaged == []


def test_six_clients_at_once_lose_nothing_and_leave_no_hole(app: Flask) -> None:
    found = races(app, 6, 8)
    assert found.acknowledged == found.sent == found.kept == 48
    assert (found.holes, found.unopened) == (0, 0)


@pytest.mark.parametrize("seed", [11, 12])
def test_odd_requests_are_answered_in_words_and_soon(app: Flask, seed: int) -> None:
    found = fuzz(app, 150, seed)
    assert found.failures == []
    assert found.slow == []
    assert app.test_client().get("/lines/2").status_code == 200


@pytest.mark.parametrize("text", NASTY)
def test_whatever_is_typed_into_a_number_is_a_number_or_refused_at_once(client: FlaskClient, text: str) -> None:
    answer = client.post("/lines/1/parts/hose-a", data={LENGTH: text}, headers=HX)
    assert answer.status_code in (200, 422)
    for address in (
        "/lines/1/drawer?reach=",
        "/lines/1/dust?minutes=",
        "/lines/1/ageing?hours=",
        "/lines/1/late?port=",
    ):
        assert client.get(address + text.replace("\r\n", ""), headers=HX).status_code < 500, address
    assert client.get("/lines/1").status_code == 200


def test_odd_trees_are_solved_or_told_why_not() -> None:
    found = trees(60, 4, first=100_000)
    assert found.valid >= 60
    assert found.tracebacks == []
    assert found.solved >= 59


def test_random_rigs_are_valid_and_the_same_for_each_seed() -> None:
    made = [(seed, random_rig(seed)) for seed in range(40)]
    rigs = [(seed, rig) for seed, rig in made if rig is not None]
    assert len(rigs) > 12
    for seed, rig in rigs:
        assert check_rig(json.loads(rig.model_dump_json())) == rig
        assert random_rig(seed) == rig


def test_a_shop_that_has_grown_old_opens_every_page(tmp_path: Path) -> None:
    shop = decade(tmp_path / "shop.db", 0.004)
    assert set(page_times(create_app(shop, "soak"), 1)) > {"/lines/1/air?log=1", "/lines/3/test"}
    shop.close()
