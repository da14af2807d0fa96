"""Tables. A line's rig is a document; every change appends a revision, so undo is a step of the cursor."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import LargeBinary, Text, UniqueConstraint
from sqlmodel import Column, Field, SQLModel


def _now() -> datetime:
    return datetime.now(UTC)


class Shop(SQLModel, table=True):
    """Whose lines these are."""

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(max_length=120)
    cursor: int = 0  #: number of the shop file's revision in force; 0: none yet
    log_cursor: int = 0  #: number of the last step of the log that counts; 0: none yet
    created_at: datetime = Field(default_factory=_now)


class DustLine(SQLModel, table=True):
    """One line of a shop; `cursor` is the number of the revision in force."""

    __tablename__ = "dust_line"

    id: int | None = Field(default=None, primary_key=True)
    shop_id: int = Field(foreign_key="shop.id", ondelete="CASCADE", index=True)
    name: str = Field(default="Dust line", max_length=200)  #: that of the rig in force
    position: int = 0
    cursor: int = 1
    removed: bool = False  #: kept, so that removing it can be undone
    by_log: bool = True  #: whether its bin and filter are shown as the log has them today


class Revision(SQLModel, table=True):
    """A state of a line: the whole rig file, and what was done to get there."""

    __table_args__ = (UniqueConstraint("line_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    number: int
    label: str = Field(max_length=300)
    document: str = Field(sa_column=Column(Text, nullable=False))
    created_at: datetime = Field(default_factory=_now)


class ShopRevision(SQLModel, table=True):
    """A state of a shop: the whole shop file, and what was done to get there."""

    __tablename__ = "shop_revision"
    __table_args__ = (UniqueConstraint("shop_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    shop_id: int = Field(foreign_key="shop.id", ondelete="CASCADE", index=True)
    number: int
    label: str = Field(max_length=300)
    document: str = Field(sa_column=Column(Text, nullable=False))
    created_at: datetime = Field(default_factory=_now)


class Build(SQLModel, table=True):
    """What was done of one thing that is built for a line; `cursor` is the number of the state in force."""

    __table_args__ = (UniqueConstraint("line_id", "what"),)

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    what: str = Field(max_length=80)
    cursor: int = 0
    created_at: datetime = Field(default_factory=_now)


class BuildRevision(SQLModel, table=True):
    """A state of a build: the whole record, and what was done to get there."""

    __tablename__ = "build_revision"
    __table_args__ = (UniqueConstraint("build_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    build_id: int = Field(foreign_key="build.id", ondelete="CASCADE", index=True)
    number: int
    label: str = Field(max_length=300)
    document: str = Field(sa_column=Column(Text, nullable=False))
    created_at: datetime = Field(default_factory=_now)


class BuildPhoto(SQLModel, table=True):
    """A photo of a step, made small enough to keep."""

    __tablename__ = "build_photo"

    id: int | None = Field(default=None, primary_key=True)
    build_id: int = Field(foreign_key="build.id", ondelete="CASCADE", index=True)
    step: str = Field(max_length=80)
    picture: bytes = Field(sa_column=Column(LargeBinary, nullable=False))  #: JPEG
    at: datetime = Field(default_factory=_now)


class LineWay(SQLModel, table=True):
    """The way that a line is on; `cursor` is the number of the state in force."""

    __tablename__ = "line_way"
    __table_args__ = (UniqueConstraint("line_id"),)

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE")
    cursor: int = 0
    created_at: datetime = Field(default_factory=_now)


class LineWayRevision(SQLModel, table=True):
    """A state of a way: the whole record, and what was done to get there."""

    __tablename__ = "line_way_revision"
    __table_args__ = (UniqueConstraint("way_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    way_id: int = Field(foreign_key="line_way.id", ondelete="CASCADE", index=True)
    number: int
    label: str = Field(max_length=300)
    document: str = Field(sa_column=Column(Text, nullable=False))
    created_at: datetime = Field(default_factory=_now)


class Acknowledgement(SQLModel, table=True):
    """A check that somebody has seen and given a reason for; taken back, it stays in the record."""

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    check_id: str = Field(max_length=60)
    part: str = Field(default="", max_length=60)  #: what it concerned; empty: the line
    level: int  #: how bad it was; once it gets worse, it is open again
    sentence: str = Field(max_length=500)  #: as it read then
    reason: str = Field(max_length=500)
    created_at: datetime = Field(default_factory=_now)
    withdrawn_at: datetime | None = None


class DoneOnce(SQLModel, table=True):
    """What a form has done, by the name of chance that it carries: sent again, it does nothing."""

    __tablename__ = "done_once"

    token: str = Field(max_length=40, primary_key=True)
    at: datetime = Field(default_factory=_now)


class ReadingRow(SQLModel, table=True):
    """A reading of a line, in SI; one that does not count says why, one that was removed stays in the record."""

    __tablename__ = "reading"

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    purpose: str = Field(default="tuning", max_length=10)  #: tuning, or hunt for a fault
    kind: str = Field(max_length=20)
    value: float
    sd: float
    port: str = Field(default="", max_length=60)
    station: str = Field(default="", max_length=60)
    dust: str = Field(default="", max_length=40)
    fed: float = 0.0  #: in the run whose share was kept [kg]; 0: it is of the line as it stands
    level: float | None = None  #: share of the bin's height at which that run began; None: as the line stood
    note: str = Field(default="", max_length=300)
    left_out: str = Field(default="", max_length=300)  #: why it does not count; empty: it does
    created_at: datetime = Field(default_factory=_now)
    removed_at: datetime | None = None


class PracticeHunt(SQLModel, table=True):
    """A hunt for practice on a line: lists are kept as lines of text."""

    __tablename__ = "practice_hunt"
    __table_args__ = (UniqueConstraint("line_id", "seed", "level"),)

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    seed: int
    level: str = Field(max_length=10)
    read: str = Field(default="", max_length=2000)
    named: str = Field(default="", max_length=200)
    ended: bool = False
    right: bool = False
    minutes: float = 0.0
    good_minutes: float | None = None
    at: datetime
