"""A shop opens on the line with the most tools; of several the first; on none where it is empty."""

from __future__ import annotations

from sqlmodel import Session, select

from fenwick.data.demo import demo_rig
from fenwick.data.lines import first_line_id
from fenwick.data.shops import the_shop
from fenwick.data.tables import Revision
from fenwick.services import lines
from fenwick.services.lines import line_to_open


def test_the_line_with_the_most_tools_is_opened(session: Session) -> None:
    assert first_line_id(session) == 1
    assert line_to_open(session) == 2


def test_of_several_with_as_many_the_first_is(session: Session) -> None:
    lines.add(session, the_shop(session), demo_rig("demo_bench"))
    assert line_to_open(session) == 2


def test_one_that_cannot_be_read_is_passed_over(session: Session) -> None:
    for one in session.exec(select(Revision).where(Revision.line_id == 2)).all():
        one.document = "{"
        session.add(one)
    session.commit()
    assert line_to_open(session) in (1, 3)
