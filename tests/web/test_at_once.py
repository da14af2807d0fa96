"""Two changes at once: a second window, a second person at the shop's computer. Neither is lost, neither is refused."""

import json
import re
import threading
import time
from collections.abc import Callable
from typing import Any

import pytest
from flask import Flask

from fenwick.data import Database
from fenwick.data.lines import line_names
from fenwick.data.trials import run_row, trial_state
from fenwick.services import lines, solving

HX = {"HX-Request": "true"}
HOSE_A, HOSE_B = (f"line.branches[0].elements[{i}].length_m" for i in (0, 2))
Post = tuple[str, dict[str, str]]


@pytest.fixture
def slow(monkeypatch: pytest.MonkeyPatch) -> None:
    """Solving takes long enough for another request to come in between."""
    solve: Callable[..., Any] = solving.solve

    def slowly(rig: Any) -> Any:
        time.sleep(0.3)
        return solve(rig)

    monkeypatch.setattr(lines, "solve", slowly)


def at_once(app: Flask, *posts: Post) -> list[int]:
    """Send all of them at the same moment; how each was answered."""
    ready, answered = threading.Barrier(len(posts)), [0] * len(posts)

    def send(i: int) -> None:
        address, typed = posts[i]
        ready.wait()
        answered[i] = app.test_client().post(address, data=typed, headers=HX).status_code

    threads = [threading.Thread(target=send, args=(i,)) for i in range(len(posts))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return answered


def rig_of(app: Flask, line: int) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(app.test_client().get(f"/lines/{line}/rig.json").data)
    return found


@pytest.mark.usefixtures("slow")
def test_two_changes_of_one_line_are_both_kept_and_both_undone(app: Flask) -> None:
    before = rig_of(app, 1)
    first = ("/lines/1/parts/hose-a", {HOSE_A: "1.5"})
    second = ("/lines/1/parts/hose-b", {HOSE_B: "2.25"})
    assert at_once(app, first, second) == [200, 200]
    (branch,) = rig_of(app, 1)["line"]["branches"]
    lengths = {part["id"]: part.get("length_m") for part in branch["elements"]}
    assert (lengths["hose-a"], lengths["hose-b"]) == (1.5, 2.25)
    for _ in range(2):
        app.test_client().post("/lines/1/undo", headers=HX)
    assert rig_of(app, 1) == before


def test_an_undo_and_a_change_at_once_leave_a_whole_history(app: Flask) -> None:
    client = app.test_client()
    client.post("/lines/1/parts/hose-a", data={HOSE_A: "1.5"}, headers=HX)
    answers = at_once(app, ("/lines/1/undo", {}), ("/lines/1/parts/hose-b", {HOSE_B: "2.25"}))
    assert answers == [200, 200]
    for way in ("undo", "undo", "undo", "redo", "redo", "redo"):
        assert client.post(f"/lines/1/{way}", headers=HX).status_code == 200
        assert client.get("/lines/1").status_code == 200


def test_two_tools_moved_at_once_both_stand_where_they_were_put(app: Flask) -> None:
    saw = ("/shop/place/bandsaw", {"x_m": "1", "y_m": "1"})
    sander = ("/shop/place/drum-sander", {"x_m": "2", "y_m": "2"})
    assert at_once(app, saw, sander) == [200, 200]
    shop = json.loads(app.test_client().get("/shop/shop.json").data)
    stand = {tool["id"]: tool["place"] for tool in shop["tools"]}
    assert stand["bandsaw"] == {"x_m": 1.0, "y_m": 1.0}
    assert stand["drum-sander"] == {"x_m": 2.0, "y_m": 2.0}


def test_a_figure_that_is_waited_for_holds_nobody_up(app: Flask, monkeypatch: pytest.MonkeyPatch) -> None:
    """A scale takes seconds to come to rest; the bench goes on meanwhile."""
    from fenwick.web.device import routes

    waiting, done = threading.Event(), threading.Event()

    def at_rest(*_: object) -> tuple[str, str]:
        waiting.set()
        assert done.wait(10.0)
        return "1", ""

    monkeypatch.setattr(routes, "figure_at_rest", at_rest)
    app.test_client().post("/lines/1/devices", data={"kind": "scale", "name": "S", "address": "socket://127.0.0.1:9"})
    thread = threading.Thread(target=lambda: app.test_client().post("/devices/1/latest"))
    thread.start()
    try:
        assert waiting.wait(5.0)
        assert app.test_client().post("/lines/1/parts/hose-a", data={HOSE_A: "1.5"}, headers=HX).status_code == 200
    finally:
        done.set()
        thread.join()


def test_ticks_first_keystrokes_runs_and_copies_made_at_once_all_arrive(app: Flask) -> None:
    client = app.test_client()
    client.post("/tests/1/runs", data={"variant": "0"})
    page = client.get("/tests/1").text
    run = max(int(found) for found in re.findall(r"/runs/(\d+)", page))
    ticks = [(f"/runs/{run}/tick", {"key": key, "on": "1"}) for key in ("empty", "seal", "filter", "hose")]
    keys = [(f"/runs/{run}/entries", {"key": "note", "text": f"note {i}"}) for i in range(2)]
    copies = [("/lines/1/copy", {}) for _ in range(4)]
    more = [("/tests/1/runs", {"variant": "0"}) for _ in range(4)]
    assert set(at_once(app, *ticks, *keys, *copies, *more)) <= {200, 302}
    shop: Database = app.extensions["fenwick-shop"]
    with shop.session() as session:
        names = [name for _, name in line_names(session, 1)]
        assert len(names) == len(set(names)) == 3 + 4
        numbers = [one.number for one in trial_state(session, 1).runs]
        assert numbers == list(range(1, len(numbers) + 1))
        ticked = run_row(session, run).ticked.split(",")
        assert set(ticked) >= {"empty", "seal", "filter", "hose"}


def test_two_first_texts_of_one_figure_are_one(app: Flask) -> None:
    client = app.test_client()
    client.post("/tests/1/runs", data={"variant": "0"})
    run = max(int(found) for found in re.findall(r"/runs/(\d+)", client.get("/tests/1").text))
    posts = [(f"/runs/{run}/entries", {"key": "fed_feed", "text": f"{i}", "system": "metric"}) for i in range(5)]
    assert set(at_once(app, *posts)) == {200}


def test_a_crowd_loses_nothing(app: Flask) -> None:
    """Four clients, each at its own part of the shop, in a hurry."""
    shop = json.loads(app.test_client().get("/shop/shop.json").data)
    tools = [tool["id"] for tool in shop["tools"]][:4]
    assert len(tools) >= 2

    def hurry(tool: str, at: int) -> None:
        client = app.test_client()
        for i in range(5):
            place = {"x_m": f"{0.5 + 0.05 * i}", "y_m": f"{0.5 + 0.25 * at}"}
            assert client.post(f"/shop/place/{tool}", data=place, headers=HX).status_code == 200

    threads = [threading.Thread(target=hurry, args=(tool, i)) for i, tool in enumerate(tools)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    after = json.loads(app.test_client().get("/shop/shop.json").data)
    places = {tool["id"]: tool["place"] for tool in after["tools"]}
    for i, tool in enumerate(tools):
        assert places[tool] == {"x_m": 0.7, "y_m": pytest.approx(0.5 + 0.25 * i)}
    client, undone = app.test_client(), 0
    while "Nothing to undo" not in client.get("/shop").text:
        assert client.post("/shop/undo", headers=HX).status_code == 200
        undone += 1
    assert undone == 5 * len(tools)
