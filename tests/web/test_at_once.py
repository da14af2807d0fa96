"""Two changes at once: a second window, a second person at the shop's computer. Neither is lost, neither is refused."""

import json
import threading
import time
from collections.abc import Callable
from typing import Any

import pytest
from flask import Flask

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
