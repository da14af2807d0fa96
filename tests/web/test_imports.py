"""Files that are read in: whole or not at all, once only, and with a copy of the shop beside them."""

import io
import re

import pytest
from flask.testing import FlaskClient

from fenwick.data import Database
from fenwick.data.air_logs import add_rows, logs_of
from fenwick.data.backups import IMPORT, backups_of
from fenwick.data.once import KEPT_FOR, first_time
from fenwick.data.tables import DoneOnce
from fenwick.data.trials import trial_state


def table_of(client: FlaskClient, runs: int) -> bytes:
    """A table of so many runs of the first test."""
    head, *rows = client.get("/tests/1/runs.csv").text.splitlines()
    whole = [row for row in rows if ",done," in row]
    return "\r\n".join([head, *(whole[i % len(whole)] for i in range(runs))]).encode()


def once_of(client: FlaskClient, page: str) -> str:
    found = re.search(r'name="once" value="([0-9a-f]+)"', client.get(page).text)
    assert found is not None
    return found[1]


def count_runs(shop: Database) -> int:
    with shop.session() as session:
        return len(trial_state(session, 1).runs)


def test_a_table_sent_again_since_its_answer_was_lost_doubles_nothing(client: FlaskClient, shop: Database) -> None:
    before, table, once = count_runs(shop), table_of(client, 40), once_of(client, "/tests/1")
    for _ in range(3):
        sent = {"runs": (io.BytesIO(table), "runs.csv"), "once": once}
        assert client.post("/tests/1/runs.csv", data=sent).status_code == 302
    assert count_runs(shop) == before + 40
    again = {"runs": (io.BytesIO(table), "runs.csv"), "once": once_of(client, "/tests/1")}
    client.post("/tests/1/runs.csv", data=again)  # meant so: from a page of its own
    assert count_runs(shop) == before + 80


def test_a_table_that_stops_in_its_middle_leaves_nothing(
    client: FlaskClient, shop: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    before, table, once = count_runs(shop), table_of(client, 40), once_of(client, "/tests/1")

    def stopping(*_: object) -> None:
        raise RuntimeError("the power went")

    sent = {"once": once}
    with monkeypatch.context() as patch:
        patch.setattr("fenwick.data.runs.kept", stopping)
        answer = client.post("/tests/1/runs.csv", data={**sent, "runs": (io.BytesIO(table), "runs.csv")})
    assert answer.status_code == 500
    assert count_runs(shop) == before
    client.post("/tests/1/runs.csv", data={**sent, "runs": (io.BytesIO(table), "runs.csv")})
    assert count_runs(shop) == before + 40  # what went back was not done: it is done now


def test_a_log_sent_again_is_one_log(client: FlaskClient, shop: Database) -> None:
    once = once_of(client, "/lines/1/air")
    for _ in range(2):
        file = io.BytesIO(b"time (s),dust (ug/m3)\n0,1\n1,2\n2,3\n")
        client.post("/lines/1/air", data={"log": (file, "bench.csv"), "once": once})
    with shop.session() as session:
        assert [log.name for log in logs_of(session, 1)].count("bench.csv") == 1


def test_a_copy_of_the_shop_is_there_before_a_file_is_read(client: FlaskClient, shop: Database) -> None:
    client.post("/tests/1/runs.csv", data={"runs": (io.BytesIO(b"no table"), "x.csv")})
    assert backups_of(shop.path) == []  # nothing was read in
    client.post("/tests/1/runs.csv", data={"runs": (io.BytesIO(table_of(client, 3)), "runs.csv")})
    assert [copy.why for copy in backups_of(shop.path)] == [IMPORT]


def test_what_was_done_once_is_forgotten_after_a_while(shop: Database) -> None:
    with shop.session(to_write=True) as session:
        assert first_time(session, "a")
        assert not first_time(session, "a")
        assert first_time(session, "")
        assert first_time(session, "")
        old = session.get(DoneOnce, "a")
        assert old is not None
        old.at -= 2 * KEPT_FOR
        session.add(old)
        session.flush()
        assert first_time(session, "b")
        session.expire_all()
        assert session.get(DoneOnce, "a") is None


def test_a_full_disk_delays_rows_of_a_recording_and_loses_none(
    client: FlaskClient, shop: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    from fenwick.data import ShopDatabaseError
    from fenwick.data.air_logs import begin_log, log_state
    from fenwick.devices.reader import LivePoint
    from fenwick.web.kit import recording

    class Quiet:
        def drop_sink(self, _sink: object) -> None: ...

        def add_sink(self, _sink: object) -> None: ...

    with shop.session(to_write=True) as session:
        log_id = begin_log(session, 1, "live")
    recorded = recording.Recording(shop, log_id, Quiet())  # type: ignore[arg-type]
    monkeypatch.setattr(recording, "EVERY", 0.0)

    def full(*_: object) -> None:
        raise ShopDatabaseError("The disk is full, so nothing was saved.")

    for i in range(10):
        with monkeypatch.context() as patch:
            patch.setattr(recording, "add_rows", full if i % 3 else add_rows)
            recorded.take([LivePoint(i, float(i), 1e-8, None)], 0)
    with monkeypatch.context() as patch:
        patch.setattr(recording, "add_rows", full)
        recorded.take([LivePoint(10, 10.0, 1e-8, None)], 1)
        assert recorded.trouble
        with pytest.raises(ShopDatabaseError, match="disk is full"):
            recorded.end()
    recorded.end()
    assert recorded.rows == 11
    with shop.session() as session:
        found = log_state(session, log_id)
        assert found.log.time.tolist() == [float(i) for i in range(11)]
        assert found.log.unreadable == 1
