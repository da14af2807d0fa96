"""Cuts of a log are rows with times of their own, not a text that is cut off at its end."""

import re

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"

CUT = re.compile(r"(-?[0-9.]+)-(-?[0-9.]+)")


def upgrade() -> None:
    op.create_table(
        "air_log_cut",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("log_id", sa.Integer, sa.ForeignKey("air_log.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("start", sa.Float, nullable=False),
        sa.Column("stop", sa.Float, nullable=False),
    )
    connection = op.get_bind()
    for log_id, cuts in connection.execute(sa.text("SELECT id, cuts FROM air_log WHERE cuts != ''")).all():
        for one in cuts.split(";"):
            found = CUT.fullmatch(one)
            if found is not None:  # the last one of a text that was cut off is half a cut
                connection.execute(
                    sa.text("INSERT INTO air_log_cut (log_id, start, stop) VALUES (:log, :start, :stop)"),
                    {"log": log_id, "start": float(found[1]), "stop": float(found[2])},
                )
    op.execute("ALTER TABLE air_log DROP COLUMN cuts")


def downgrade() -> None:
    op.drop_table("air_log_cut")
    op.execute("ALTER TABLE air_log ADD COLUMN cuts VARCHAR(2000) NOT NULL DEFAULT ''")
