"""Tables of the shop's log. An entry is never written over: a change is another row, and a step says which counts."""

from __future__ import annotations

from datetime import UTC, datetime

from pydantic import NaiveDatetime
from sqlalchemy import LargeBinary, Text, UniqueConstraint
from sqlmodel import Column, Field, SQLModel


def _now() -> datetime:
    return datetime.now(UTC)


class LogEntry(SQLModel, table=True):
    """One entry, in SI; what is not said is empty."""

    __tablename__ = "log_entry"

    id: int | None = Field(default=None, primary_key=True)
    shop_id: int = Field(foreign_key="shop.id", ondelete="CASCADE", index=True)
    line_id: int | None = Field(default=None, foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    kind: str = Field(max_length=12)
    at: NaiveDatetime = Field(index=True)  #: by the shop's clock, without a zone
    thing: str = Field(default="", max_length=60)
    job: str = Field(default="", max_length=60)
    finding: str = Field(default="", max_length=12)
    words: str = Field(default="", max_length=2000)
    level: float | None = None  #: [m]
    volume: float | None = None  #: [m^3]
    mass: float | None = None  #: [kg]
    hours: float | None = None  #: [h]
    count: float | None = None
    money: float | None = None
    suction: float | None = None  #: [Pa]
    kept: float | None = None
    grade: float | None = None
    pitch: float | None = None
    quiet: float | None = None
    created_at: datetime = Field(default_factory=_now)
    removed_at: datetime | None = None  #: taken back, taken away, or changed: another row counts


class LogPhoto(SQLModel, table=True):
    """A photo of an entry, made small enough to keep; it goes with every change of the entry."""

    __tablename__ = "log_photo"

    id: int | None = Field(default=None, primary_key=True)
    shop_id: int = Field(foreign_key="shop.id", ondelete="CASCADE", index=True)
    entry_id: int = Field(foreign_key="log_entry.id", ondelete="CASCADE", index=True)  #: that it was taken for
    picture: bytes = Field(sa_column=Column(LargeBinary, nullable=False))  #: JPEG
    at: datetime = Field(default_factory=_now)


class LogStep(SQLModel, table=True):
    """One change of the log: which entries count since, and which no longer."""

    __tablename__ = "log_step"
    __table_args__ = (UniqueConstraint("shop_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    shop_id: int = Field(foreign_key="shop.id", ondelete="CASCADE", index=True)
    number: int
    label: str = Field(max_length=300)
    added: str = Field(sa_column=Column(Text, nullable=False))  #: ids, as a JSON list
    removed: str = Field(sa_column=Column(Text, nullable=False))
    created_at: datetime = Field(default_factory=_now)
