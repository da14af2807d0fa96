"""Odd requests over every endpoint: none answered with an error that nobody foresaw, none that takes long."""

from __future__ import annotations

import random
import re
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from io import BytesIO
from urllib.parse import quote, urlencode

from flask import Flask
from flask.testing import FlaskClient

SLOW = 5.0  #: [s]
DIGITS = "9" * 400
NASTY = (
    "", "0", "-1", "1", "2.5", "1e400", "1e-400", "nan", "inf", "-inf", "²", "١٢", "1 9**9**9", "9**9**9", f"{DIGITS}",
    f"{DIGITS}/{DIGITS}", "1/0", "0x10", "1_000", "1,5 mm", "38 mm", "1.5 in", "1 1/2", "5 furlong", "mm", "1 mm mm",
    "\x00", "\r\nX: y", "‮", "<script>alert(1)</script>", "{{7*7}}", "'; DROP TABLE revision; --", "../../etc/passwd",
    "x" * 2000, "[]", "{}", "null", "true", "hose-a", "hose-b", "sep", "vacuum", "drum-sander", "bandsaw", "cyclone",
    "slotted-disc", "hose", "reducer", "leak", "wet-stage", "metric", "inch", "1.5", "0.0015", "1000000", "5–6; 7–8",
)  # fmt: skip
TABLES = (
    b"", b"a,b\n1,2\n", b"flow (9**9**9),suction (Pa)\n1,2\n2,1\n3,0\n", b"time,dust\n" + b"9" * 400 + b",1\n1,2\n",
    b"time (s),dust (ug/m3)\n0,1\n1,2\n", b"x" * 200_000 + b",1\n1,2\n", b"\xff\xfe\x00", b'{"format": "fenwick-rig"}',
    b"{" * 3000, b"flow (L/s);suction (kPa)\n1;20\n20;15\n40;8\n", b"=1+1,@x\n-1,+1\n",
)  # fmt: skip
FILE_FIELDS = ("rig", "shop", "runs", "photo", "log", "file", "copy")
WITH_FIELDS = (
    "/lines/1", "/lines/1?part=hose-a", "/lines/1/separator", "/lines/1/ports/drum-sander/hood", "/lines/1/vacuum",
    "/lines/1/checks", "/lines/1/ageing", "/shop", "/start", "/lines/1/tests/plan", "/lines/1/joints",
)  # fmt: skip
LEFT_ALONE = ("static", "device.stream", "backups.restore")  #: endless, or slow on purpose


@dataclass
class Fuzzed:
    """What came of it."""

    asked: int = 0
    statuses: dict[int, int] = field(default_factory=dict)
    failures: list[str] = field(default_factory=list)
    slow: list[tuple[float, str]] = field(default_factory=list)


def fuzz(app: Flask, count: int, seed: int = 1) -> Fuzzed:
    """Send so many requests to a shop, the same for every seed."""
    rng, client, found = random.Random(seed), app.test_client(), Fuzzed()
    names = field_names(client)
    rules = [rule for rule in app.url_map.iter_rules() if rule.endpoint not in LEFT_ALONE]
    for _ in range(count):
        rule = rng.choice(rules)
        method = rng.choice(sorted((rule.methods or set()) & {"GET", "POST"}) or ["GET"])
        address = re.sub(r"<(?:([^:<>]+):)?[^<>]+>", lambda gap: _filled(rng, gap[1] or ""), rule.rule)
        _ask(client, rng, names, method, address, found)
    return found


def field_names(client: FlaskClient) -> list[str]:
    """Names of fields, as the pages have them."""
    pages = (
        "/lines/1",
        "/lines/1?part=hose-a",
        "/lines/1/separator",
        "/lines/1/ports/drum-sander/hood",
        "/lines/1/vacuum",
    )
    pages += ("/lines/1/checks", "/lines/1/ageing", "/shop", "/start", "/lines/1/tests/plan", "/lines/1/joints")
    found = {name for page in pages for name in re.findall(r'name="([^"]{1,120})"', client.get(page).text)}
    return sorted(found - {"csrf_token", "viewport", "htmx-config"})


def _filled(rng: random.Random, kind: str) -> str:
    if kind == "int":
        return rng.choice(("1", "2", "3", "4", "99", "0", "9" * 30))
    if kind.startswith("any("):
        return rng.choice([one.strip() for one in kind[4:-1].split(",")])
    return quote(rng.choice(NASTY) or "x", safe="")


def _ask(client: FlaskClient, rng: random.Random, names: list[str], method: str, address: str, found: Fuzzed) -> None:
    sent = dict(_fields(rng, names))
    headers = {"HX-Request": "true"} if rng.random() < 0.5 else {}
    if rng.random() < 0.05:
        headers["Last-Event-ID"] = rng.choice(NASTY).replace("\r\n", "").replace("\x00", "")
    began = time.perf_counter()
    if method == "GET":
        answer = client.get(f"{address}?{urlencode(sent)}", headers=headers)
    else:
        body: dict[str, object] = dict(sent)
        if rng.random() < 0.3:
            body |= {name: (BytesIO(rng.choice(TABLES)), "x.csv") for name in FILE_FIELDS}
        answer = client.post(address, data=body, headers=headers)
    took = time.perf_counter() - began
    found.asked += 1
    found.statuses[answer.status_code] = found.statuses.get(answer.status_code, 0) + 1
    if answer.status_code == 500:
        found.failures.append(f"{method} {address} {sent}"[:400])
    if took > SLOW:
        found.slow.append((took, f"{method} {address} {sent}"[:300]))
    answer.close()


def _fields(rng: random.Random, names: list[str]) -> Iterator[tuple[str, str]]:
    for _ in range(rng.randint(0, 6)):
        yield rng.choice(names), rng.choice(NASTY)
