"""Tests with their runs, devices, particle logs."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def _id() -> sa.Column[int]:
    return sa.Column("id", sa.Integer, primary_key=True)


def _of(name: str, table: str) -> sa.Column[int]:
    return sa.Column(name, sa.Integer, sa.ForeignKey(f"{table}.id", ondelete="CASCADE"), nullable=False, index=True)


def upgrade() -> None:
    op.create_table(
        "trial",
        _id(),
        _of("line_id", "dust_line"),
        sa.Column("title", sa.String(120), nullable=False),
        sa.Column("plan", sa.Text, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("removed_at", sa.DateTime, nullable=True),
    )
    op.create_table(
        "trial_run",
        _id(),
        _of("trial_id", "trial"),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("variant", sa.Integer, nullable=False),
        sa.Column("state", sa.String(10), nullable=False),
        sa.Column("step", sa.Integer, nullable=False),
        sa.Column("spoilt", sa.String(300), nullable=False),
        sa.Column("note", sa.String(2000), nullable=False),
        sa.Column("ticked", sa.String(300), nullable=False),
        sa.Column("clock_from", sa.DateTime, nullable=True),
        sa.Column("clock_before", sa.Float, nullable=False),
        sa.Column("started_at", sa.DateTime, nullable=True),
        sa.Column("finished_at", sa.DateTime, nullable=True),
        sa.UniqueConstraint("trial_id", "number"),
    )
    op.create_table(
        "run_entry",
        _id(),
        _of("run_id", "trial_run"),
        sa.Column("key", sa.String(40), nullable=False),
        sa.Column("text", sa.String(200), nullable=False),
        sa.Column("system", sa.String(10), nullable=False),
        sa.Column("source", sa.String(60), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("run_id", "key"),
    )
    op.create_table(
        "run_photo",
        _id(),
        _of("run_id", "trial_run"),
        sa.Column("words", sa.String(200), nullable=False),
        sa.Column("picture", sa.LargeBinary, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "device",
        _id(),
        _of("shop_id", "shop"),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("kind", sa.String(12), nullable=False),
        sa.Column("address", sa.String(200), nullable=False),
        sa.Column("baud", sa.Integer, nullable=False),
        sa.Column("unit", sa.String(12), nullable=False),
        sa.Column("removed_at", sa.DateTime, nullable=True),
    )
    op.create_table(
        "air_log",
        _id(),
        _of("line_id", "dust_line"),
        sa.Column("run_id", sa.Integer, sa.ForeignKey("trial_run.id", ondelete="SET NULL"), nullable=True, index=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("cuts", sa.String(2000), nullable=False),
        sa.Column("unreadable", sa.Integer, nullable=False),
        sa.Column("notes", sa.String(1000), nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("ended_at", sa.DateTime, nullable=True),
        sa.Column("removed_at", sa.DateTime, nullable=True),
    )
    op.create_table(
        "air_log_row",
        _id(),
        _of("log_id", "air_log"),
        sa.Column("time", sa.Float, nullable=False),
        sa.Column("value", sa.Float, nullable=False),
    )


def downgrade() -> None:
    for table in ("air_log_row", "air_log", "device", "run_photo", "run_entry", "trial_run", "trial"):
        op.drop_table(table)
