"""What the tests share: the demo rig as a document, a fresh shop, an application and its client."""

from __future__ import annotations

import copy
import json
import os
import shutil
from collections.abc import Iterator
from importlib import resources
from pathlib import Path
from typing import Any

import pytest
from flask import Flask
from flask.testing import FlaskClient
from hypothesis import HealthCheck, settings
from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.demo import seed_demo
from fenwick.data.opening import create_database, open_database
from fenwick.rig import Rig, check_rig
from fenwick.web import create_app
from fenwick.web.app import open_on

#: the same examples every time, so that a change is judged by what it changed; new ones with HYPOTHESIS_PROFILE=explore
PATIENT = {"deadline": None, "suppress_health_check": [HealthCheck.too_slow], "max_examples": 60}
settings.register_profile("fenwick", **PATIENT, derandomize=True)
settings.register_profile("explore", **PATIENT)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "fenwick"))

OPEN_TO_TESTS = {"TESTING": True, "WORK_AT_ONCE": 60.0, "WTF_CSRF_ENABLED": False, "PROPAGATE_EXCEPTIONS": False}

_DEMO = json.loads(resources.files("fenwick.data").joinpath("demo_line.json").read_text())


@pytest.fixture
def document() -> dict[str, Any]:
    """The demo line as parsed JSON, free to be changed."""
    return copy.deepcopy(_DEMO)


@pytest.fixture
def rig(document: dict[str, Any]) -> Rig:
    """The demo line, checked."""
    return check_rig(document)


@pytest.fixture(scope="session")
def seeded(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A demo shop to copy: seeding one takes longer than most tests."""
    path = tmp_path_factory.mktemp("seeded") / "shop.db"
    seed_demo(path).close()
    return path


@pytest.fixture(scope="session")
def application(seeded: Path) -> Flask:
    """One for all tests, its routes and templates compiled once; forms need no token here."""
    app = create_app(Database(seeded, read_only=True), "for tests only")
    app.config.update(OPEN_TO_TESTS)
    return app


@pytest.fixture
def shop(tmp_path: Path, seeded: Path) -> Iterator[Database]:
    """A fresh demo shop."""
    for file in seeded.parent.iterdir():
        shutil.copy(file, tmp_path / file.name)
    database = open_database(tmp_path / "shop.db")
    yield database
    database.close()


@pytest.fixture
def session(shop: Database) -> Iterator[Session]:
    """A session of that shop."""
    with shop.session() as found:
        yield found


@pytest.fixture
def app(application: Flask, shop: Database) -> Flask:
    """The application on a fresh demo shop."""
    open_on(application, shop)
    return application


@pytest.fixture
def client(app: Flask) -> FlaskClient:
    """A client of it."""
    return app.test_client()


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[FlaskClient]:
    """A client of a shop with nothing in it; a test may have the demo shop beside it."""
    database = create_database(tmp_path / "empty.db")
    app = create_app(database, "for tests only")
    app.config.update(OPEN_TO_TESTS)
    yield app.test_client()
    database.close()
