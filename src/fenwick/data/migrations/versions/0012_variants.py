"""Which line each state of a test is, and how a share that was kept was fed."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    op.create_table(
        "trial_variant",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("trial_id", sa.Integer, sa.ForeignKey("trial.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.UniqueConstraint("trial_id", "number"),
    )
    op.add_column("reading", sa.Column("fed", sa.Float, nullable=False, server_default="0"))
    op.add_column("reading", sa.Column("level", sa.Float))


def downgrade() -> None:
    with op.batch_alter_table("reading") as table:
        table.drop_column("level")
        table.drop_column("fed")
    op.drop_table("trial_variant")
