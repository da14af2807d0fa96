"""Acknowledged checks: recorded with a reason and a date, covering no worse, taken back but never forgotten."""

from __future__ import annotations

import re

import pytest
from sqlalchemy import inspect
from sqlmodel import select

from fenwick.data import Database
from fenwick.data.acknowledgements import acknowledge, acknowledged, withdraw
from fenwick.data.lines import NotFoundError
from fenwick.data.tables import Acknowledgement


def test_an_acknowledgement_is_dated_and_covers_its_check_while_it_gets_no_worse(shop: Database) -> None:
    with shop.session() as session:
        acknowledge(session, 1, "headroom", "sep", 1, "It fits, but…", "It rolls out")
        (one,) = acknowledged(session, 1)
    assert re.fullmatch(r"\d{4}-\d\d-\d\d", one.on)
    assert one.reason == "It rolls out"
    assert one.covers("headroom", "sep", 1)
    assert one.covers("headroom", "sep", 0)
    assert not one.covers("headroom", "sep", 2)
    assert not one.covers("headroom", "other", 1)
    assert not one.covers("tips", "sep", 1)


def test_each_line_has_its_own(shop: Database) -> None:
    with shop.session() as session:
        acknowledge(session, 2, "static", "", 1, "Dry dust…", "Known")
        assert acknowledged(session, 1) == ()
        assert len(acknowledged(session, 2)) == 1


def test_taken_back_it_stays_in_the_record(shop: Database) -> None:
    with shop.session() as session:
        acknowledge(session, 1, "static", "", 1, "Dry dust…", "Known")
        (one,) = acknowledged(session, 1)
        assert not withdraw(session, 2, one.id)  # not this line's
        assert withdraw(session, 1, one.id)
        assert not withdraw(session, 1, one.id)
        assert acknowledged(session, 1) == ()
        kept = session.exec(select(Acknowledgement)).one()
        assert kept.withdrawn_at is not None
        assert kept.sentence == "Dry dust…"


def test_the_newest_comes_first_and_long_words_are_cut(shop: Database) -> None:
    with shop.session() as session:
        acknowledge(session, 1, "static", "", 1, "x" * 900, "first")
        acknowledge(session, 1, "static", "", 2, "x", "second " + "y" * 900)
        newest, oldest = acknowledged(session, 1)
    assert newest.reason.startswith("second")
    assert len(newest.reason) == 500
    assert oldest.reason == "first"


def test_a_line_that_is_not_there(shop: Database) -> None:
    with shop.session() as session, pytest.raises(NotFoundError):
        acknowledge(session, 99, "static", "", 1, "x", "y")


def test_the_migration_made_the_table(shop: Database) -> None:
    columns = {column["name"] for column in inspect(shop.engine).get_columns("acknowledgement")}
    assert {"line_id", "check_id", "part", "level", "sentence", "reason", "created_at", "withdrawn_at"} <= columns
