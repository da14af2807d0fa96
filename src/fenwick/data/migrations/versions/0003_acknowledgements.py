"""Checks that somebody has seen and given a reason for."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "acknowledgement",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("check_id", sa.String(60), nullable=False),
        sa.Column("part", sa.String(60), nullable=False),
        sa.Column("level", sa.Integer, nullable=False),
        sa.Column("sentence", sa.String(500), nullable=False),
        sa.Column("reason", sa.String(500), nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("withdrawn_at", sa.DateTime, nullable=True),
    )


def downgrade() -> None:
    op.drop_table("acknowledgement")
