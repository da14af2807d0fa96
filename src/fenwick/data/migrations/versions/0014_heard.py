"""Pitch and loudness of a motor in the log."""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    for name in ("pitch", "quiet"):
        op.add_column("log_entry", sa.Column(name, sa.Float))


def downgrade() -> None:
    with op.batch_alter_table("log_entry") as table:
        for name in ("quiet", "pitch"):
            table.drop_column(name)
