"""Readings of a line."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "reading",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("purpose", sa.String(10), nullable=False, server_default="tuning"),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("value", sa.Float, nullable=False),
        sa.Column("sd", sa.Float, nullable=False),
        sa.Column("port", sa.String(60), nullable=False),
        sa.Column("station", sa.String(60), nullable=False),
        sa.Column("dust", sa.String(40), nullable=False),
        sa.Column("note", sa.String(300), nullable=False),
        sa.Column("left_out", sa.String(300), nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("removed_at", sa.DateTime, nullable=True),
    )


def downgrade() -> None:
    op.drop_table("reading")
