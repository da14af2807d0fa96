"""Hunts for practice: what was read, what was named, and how long it took."""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    op.create_table(
        "practice_hunt",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("seed", sa.Integer, nullable=False),
        sa.Column("level", sa.String(10), nullable=False),
        sa.Column("read", sa.String(2000), nullable=False),
        sa.Column("named", sa.String(200), nullable=False),
        sa.Column("ended", sa.Boolean, nullable=False),
        sa.Column("right", sa.Boolean, nullable=False),
        sa.Column("minutes", sa.Float, nullable=False),
        sa.Column("good_minutes", sa.Float),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("line_id", "seed", "level"),
    )


def downgrade() -> None:
    op.drop_table("practice_hunt")
