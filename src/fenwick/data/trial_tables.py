"""Tables of tests. A run keeps every text as it was typed; figures are made of it when it is judged."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import LargeBinary, Text, UniqueConstraint
from sqlmodel import Column, Field, SQLModel


def _now() -> datetime:
    return datetime.now(UTC)


class Trial(SQLModel, table=True):
    """A test of a line: its plan is a document; removed, it stays in the record."""

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    title: str = Field(max_length=120)
    plan: str = Field(sa_column=Column(Text, nullable=False))
    revision: int  #: of the line when it was planned
    created_at: datetime = Field(default_factory=_now)
    removed_at: datetime | None = None


class TrialVariant(SQLModel, table=True):
    """The line that a state of a test is; a state without one is only named."""

    __tablename__ = "trial_variant"
    __table_args__ = (UniqueConstraint("trial_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    trial_id: int = Field(foreign_key="trial.id", ondelete="CASCADE", index=True)
    number: int  #: place of the state in the plan
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    revision: int  #: of that line when the test was planned


class TrialRun(SQLModel, table=True):
    """One run of a test, in the order drawn."""

    __tablename__ = "trial_run"
    __table_args__ = (UniqueConstraint("trial_id", "number"),)

    id: int | None = Field(default=None, primary_key=True)
    trial_id: int = Field(foreign_key="trial.id", ondelete="CASCADE", index=True)
    number: int
    variant: int
    state: str = Field(default="waiting", max_length=10)  #: waiting, running, paused, done or aborted
    step: int = 0
    spoilt: str = Field(default="", max_length=300)  #: why it does not count; empty: it does
    note: str = Field(default="", max_length=2000)
    ticked: str = Field(default="", max_length=300)  #: what has been set back, by its keys
    clock_from: datetime | None = None  #: since when the clock of its step runs; None: it stands
    clock_before: float = 0.0  #: what it had counted before that [s]
    started_at: datetime | None = None
    finished_at: datetime | None = None


class RunEntry(SQLModel, table=True):
    """One text of a run."""

    __tablename__ = "run_entry"
    __table_args__ = (UniqueConstraint("run_id", "key"),)

    id: int | None = Field(default=None, primary_key=True)
    run_id: int = Field(foreign_key="trial_run.id", ondelete="CASCADE", index=True)
    key: str = Field(max_length=40)
    text: str = Field(max_length=200)
    system: str = Field(max_length=10)
    source: str = Field(default="", max_length=60)
    at: datetime = Field(default_factory=_now)


class RunPhoto(SQLModel, table=True):
    """A photo of a run, made small enough to keep."""

    __tablename__ = "run_photo"

    id: int | None = Field(default=None, primary_key=True)
    run_id: int = Field(foreign_key="trial_run.id", ondelete="CASCADE", index=True)
    words: str = Field(default="", max_length=200)
    picture: bytes = Field(sa_column=Column(LargeBinary, nullable=False))  #: JPEG
    at: datetime = Field(default_factory=_now)


class Device(SQLModel, table=True):
    """A device of the shop that sends lines of text."""

    id: int | None = Field(default=None, primary_key=True)
    shop_id: int = Field(foreign_key="shop.id", ondelete="CASCADE", index=True)
    name: str = Field(max_length=60)
    kind: str = Field(max_length=12)  #: scale, monitor or manometer
    address: str = Field(max_length=200)  #: a serial port, or an address of the serial library's handlers
    baud: int = 9600
    unit: str = Field(default="", max_length=12)  #: of lines that name none
    removed_at: datetime | None = None


class AirLog(SQLModel, table=True):
    """A particle monitor's log, from a file or read live."""

    __tablename__ = "air_log"

    id: int | None = Field(default=None, primary_key=True)
    line_id: int = Field(foreign_key="dust_line.id", ondelete="CASCADE", index=True)
    run_id: int | None = Field(default=None, foreign_key="trial_run.id", ondelete="SET NULL", index=True)
    name: str = Field(max_length=120)
    unreadable: int = 0  #: rows that could not be read
    notes: str = Field(default="", max_length=1000)  #: what was said of it when it was read
    created_at: datetime = Field(default_factory=_now)
    ended_at: datetime | None = None  #: None: it is being read live
    removed_at: datetime | None = None


class AirLogCut(SQLModel, table=True):
    """One cut of a log; one that stops as it starts is still open."""

    __tablename__ = "air_log_cut"

    id: int | None = Field(default=None, primary_key=True)
    log_id: int = Field(foreign_key="air_log.id", ondelete="CASCADE", index=True)
    start: float  #: by the log's own clock [s]
    stop: float  #: [s]


class AirLogRow(SQLModel, table=True):
    """One row of a log, as it was read: sorted and cleaned only when it is judged."""

    __tablename__ = "air_log_row"

    id: int | None = Field(default=None, primary_key=True)
    log_id: int = Field(foreign_key="air_log.id", ondelete="CASCADE", index=True)
    time: float  #: since its first row [s]
    value: float  #: [kg/m^3]
