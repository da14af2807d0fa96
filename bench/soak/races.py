"""Several clients at once on one line and one shop: every acknowledged change is a state of its own, without a hole."""

from __future__ import annotations

import threading
from dataclasses import dataclass

from flask import Flask
from sqlmodel import select

from fenwick.data import Database
from fenwick.data.tables import DustLine, Revision, Shop, ShopRevision

HX = {"HX-Request": "true"}
#: fields of the first line that nobody else changes: (part, path)
FIELDS = (
    ("hose-a", "line.branches[0].elements[0].length_m"),
    ("hose-b", "line.branches[0].elements[2].length_m"),
    ("vacuum", "vacuum.electrical_power_w"),
    ("sep", "line.elements[0].bin.fill_height_m"),
    ("link", "line.elements[1].length_m"),
    ("drum-sander", "line.branches[0].port.bore_m"),
)


@dataclass(frozen=True)
class Raced:
    """What came of it."""

    sent: int
    acknowledged: int
    kept: int  #: states that are there for them
    holes: int  #: numbers of states that are missing, or there twice
    unopened: int  #: steps back after which the page did not open


def races(app: Flask, clients: int, changes: int) -> Raced:
    """Let clients change the first line and the shop at once, each its own fields, then take everything back."""
    shop: Database = app.extensions["fenwick-shop"]
    before, acknowledged = _states(shop), [0] * clients
    tools = [tool["id"] for tool in app.test_client().get("/shop/shop.json").json["tools"]]  # type: ignore[index]

    def work(i: int) -> None:
        client, (part, path) = app.test_client(), FIELDS[i % len(FIELDS)]
        for n in range(changes):
            if n % 2:
                place = {"x_m": f"{0.5 + 0.05 * (n % 40)}", "y_m": f"{0.5 + 0.05 * i}"}
                answer = client.post(f"/shop/place/{tools[i % len(tools)]}", data=place, headers=HX)
            else:
                text = f"{1000 + n} W" if part == "vacuum" else f"{60 + i + 0.5 * n / changes:.4f} mm"
                answer = client.post(f"/lines/1/parts/{part}", data={path: text}, headers=HX)
            acknowledged[i] += answer.status_code == 200

    threads = [threading.Thread(target=work, args=(i,)) for i in range(clients)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    after = _states(shop)
    kept = sum(len(after[key]) - len(before[key]) for key in after)
    holes = sum(numbers != list(range(1, len(numbers) + 1)) for numbers in after.values())
    return Raced(clients * changes, sum(acknowledged), kept, holes, _unopened(app, len(after["line"])))


def _states(shop: Database) -> dict[str, list[int]]:
    with shop.session() as session:
        lines = select(Revision.number).join(DustLine).where(DustLine.id == 1, Revision.number > 0)
        shops = select(ShopRevision.number).join(Shop).where(ShopRevision.number > 0)
        return {"line": sorted(session.exec(lines).all()), "shop": sorted(session.exec(shops).all())}


def _unopened(app: Flask, steps: int) -> int:
    client, unopened = app.test_client(), 0
    for i in range(steps - 1):
        answer = client.post("/lines/1/undo", headers=HX)
        unopened += answer.status_code != 200
        if i % 50 == 0:
            unopened += client.get("/lines/1").status_code != 200
    return unopened
