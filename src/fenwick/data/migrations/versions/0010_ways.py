"""The way that a line is on, with its history."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    op.create_table(
        "line_way",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), nullable=False),
        sa.Column("cursor", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("line_id"),
    )
    op.create_table(
        "line_way_revision",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("way_id", sa.Integer, sa.ForeignKey("line_way.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("label", sa.String(300), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("way_id", "number"),
    )


def downgrade() -> None:
    op.drop_table("line_way_revision")
    op.drop_table("line_way")
