"""Ten years of a busy shop, and how long its pages take."""

from __future__ import annotations

import random
import statistics
import time
from datetime import UTC, datetime
from pathlib import Path

from flask import Flask
from sqlalchemy import insert
from sqlmodel import select

from fenwick.core.tuning.readings import Reading
from fenwick.data import Database
from fenwick.data.air_logs import add_rows, begin_log, end_log, set_cuts
from fenwick.data.demo import demo_rig, seed_demo
from fenwick.data.lines import add_line, change_line
from fenwick.data.readings import readings_of
from fenwick.data.shops import the_shop
from fenwick.data.tables import ReadingRow
from fenwick.data.trial_tables import RunEntry, Trial, TrialRun
from fenwick.rig import edit_rig

LINES, REVISIONS, TESTS, READINGS, LOGS, LOG_ROWS = 200, 5_000, 1_000, 3_000, 20, 100_000
PAGES = (
    "/lines/1", "/lines/1/separator", "/lines/1/ports", "/lines/1/dust", "/lines/1/ageing", "/lines/1/joints",
    "/lines/1/vacuum", "/lines/1/checks", "/lines/1/tests", "/lines/1/tests?page=30", "/tests/1", "/lines/3/test",
    "/lines/1/air", "/lines/1/air?log=1", "/lines/1/devices", "/shop", "/lines/1/compare/2", "/backups", "/runs/1",
    "/lines/1/tests/plan", "/start",
)  # fmt: skip


def decade(path: Path, share: float = 1.0) -> Database:
    """A shop with ten years behind it, or a share of them."""
    shop = seed_demo(path)
    rng = random.Random(1)
    with shop.session(to_write=True) as session:
        for i in range(int(LINES * share)):
            add_line(session, the_shop(session), edit_rig(demo_rig(), {"name": f"Line {i}"}))
        for i in range(int(REVISIONS * share)):
            length = 1.0 + 0.001 * (i % 500)
            change_line(session, 1, edit_rig(demo_rig(), {"line.branches[0].elements[0].length_m": length}), f"to {i}")
        pattern = session.exec(select(Trial).where(Trial.id == 1)).one()
        runs = session.exec(select(TrialRun).where(TrialRun.trial_id == 1)).all()
        entries = {run.id: session.exec(select(RunEntry).where(RunEntry.run_id == run.id)).all() for run in runs}
        for i in range(int(TESTS * share)):
            trial = Trial(line_id=1, title=f"Test {i}", plan=pattern.plan, revision=1)
            session.add(trial)
            session.flush()
            for run in runs:
                copy = TrialRun(**{**run.model_dump(exclude={"id"}), "trial_id": trial.id})
                session.add(copy)
                session.flush()
                session.add_all(
                    RunEntry(run_id=copy.id or 0, key=one.key, text=one.text, system=one.system)
                    for one in entries[run.id]
                )
        taken = [one.reading for one in readings_of(session, 3)]
        session.execute(insert(ReadingRow), [_reading(rng.choice(taken), rng) for _ in range(int(READINGS * share))])
        for i in range(int(LOGS * share) or 1):
            log = begin_log(session, 1, f"Log {i}")
            rows = [(float(t), abs(rng.gauss(2e-8, 3e-9)) + (4e-7 if t % 4000 < 300 else 0.0)) for t in range(LOG_ROWS)]
            add_rows(session, log, rows)
            set_cuts(session, log, [(4000.0 * n, 4000.0 * n + 300.0) for n in range(1, 20)])
            end_log(session, log)
    return shop


def _reading(one: Reading, rng: random.Random) -> dict[str, object]:
    return {
        "line_id": 3, "purpose": "tuning", "kind": one.kind, "value": one.value * rng.gauss(1.0, 0.02), "sd": one.sd,
        "port": one.port, "station": one.station, "dust": one.dust, "note": "", "left_out": "",
        "created_at": datetime.now(UTC),
    }  # fmt: skip


def page_times(app: Flask, repeats: int = 5) -> dict[str, float]:
    """Median time of every page [s]."""
    client, found = app.test_client(), {}
    for page in PAGES:
        times = []
        for _ in range(repeats):
            began = time.perf_counter()
            answer = client.get(page, follow_redirects=True)
            times.append(time.perf_counter() - began)
            assert answer.status_code == 200, (page, answer.status_code)
        found[page] = statistics.median(times)
    return found
