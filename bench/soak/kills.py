"""A server killed at random moments: what was acknowledged is there, what was not is there whole or not at all."""

from __future__ import annotations

import os
import random
import select
import signal
import sqlite3
import time
from dataclasses import dataclass, field
from io import BytesIO
from pathlib import Path

from fenwick.data import open_database
from fenwick.data.demo import seed_demo
from fenwick.web import create_app

ROWS = 6  #: of each table that is read in
KINDS = ("line", "shop", "note", "import")


@dataclass
class Killed:
    """What came of it."""

    kills: int = 0
    acknowledged: int = 0
    lost: list[str] = field(default_factory=list)
    damaged: list[str] = field(default_factory=list)


def kills(folder: Path, count: int, seed: int = 1) -> Killed:
    """Kill a server of one shop so many times, each at a moment of chance, and look what is left."""
    rng, found, path = random.Random(seed), Killed(), folder / "shop.db"
    seed_demo(path).close()
    number = 0
    for _ in range(count):
        reading, writing = os.pipe()
        child = os.fork()
        if child == 0:
            os.close(reading)
            _work(path, writing, number, rng.random())
        os.close(writing)
        if rng.random() < 0.6:  # well under way; else at any moment, its opening included
            select.select([reading], [], [], 10.0)
        time.sleep(rng.uniform(0.0, 0.5))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        with os.fdopen(reading) as said:
            acknowledged = [line.split() for line in said.read().splitlines() if line.count(" ") == 1]
        found.kills += 1
        found.acknowledged += len(acknowledged)
        number = max([number, *(int(n) for _, n in acknowledged)]) + 100  # what was under way may be there, too
        _look(path, acknowledged, found)
    return found


def _work(path: Path, writing: int, first: int, seed: float) -> None:
    """Change the shop without an end, and say of each change that it was acknowledged."""
    rng = random.Random(seed)
    shop = open_database(path)
    app = create_app(shop, "soak")
    app.config.update(WTF_CSRF_ENABLED=False)
    client, number = app.test_client(), first
    head = client.get("/tests/1/runs.csv").text.splitlines()
    row = next(line for line in head[1:] if ",done," in line).rpartition(",")[0]
    while True:
        number, kind = number + 1, rng.choice(KINDS)
        if kind == "line":
            answer = client.post("/lines/1/name", data={"name": f"L{number}"})
        elif kind == "shop":
            answer = client.post("/shop/room", data={"name": f"S{number}"})
        elif kind == "note":
            answer = client.post("/runs/1/entries", data={"key": "note", "text": f"N{number}"})
        else:
            rows = [f"{row},I{number}" for _ in range(ROWS)]
            table = "\r\n".join([head[0], *rows]).encode()
            sent = {"runs": (BytesIO(table), "runs.csv"), "once": f"{number:024x}"}
            answer = client.post("/tests/1/runs.csv", data=sent)
        if answer.status_code in (200, 302):
            os.write(writing, f"{kind} {number}\n".encode())


def _look(path: Path, acknowledged: list[list[str]], found: Killed) -> None:
    shop = open_database(path)
    if shop.healed:
        found.damaged += shop.healed
    shop.close()
    with sqlite3.connect(path) as left:
        (verdict,) = left.execute("PRAGMA integrity_check").fetchone()
        if verdict != "ok":
            found.damaged.append(verdict)
        lines = {label.rpartition(" ")[2] for (label,) in left.execute("SELECT label FROM revision WHERE line_id = 1")}
        shops = " ".join(document for (document,) in left.execute("SELECT document FROM shop_revision"))
        (note,) = left.execute("SELECT note FROM trial_run WHERE id = 1").fetchone()
        runs = dict(left.execute("SELECT note, count(*) FROM trial_run WHERE note LIKE 'I%' GROUP BY note"))
    left.close()
    for kind, number in acknowledged:
        there = {
            "line": f"L{number}" in lines,
            "shop": f'"S{number}"' in shops,
            "note": note.startswith("N") and int(note[1:]) >= int(number),
            "import": runs.get(f"I{number}") == ROWS,
        }
        if not there[kind]:
            found.lost.append(f"{kind} {number}")
    found.damaged += [f"half a table: {note}, {count} runs" for note, count in runs.items() if count != ROWS]
