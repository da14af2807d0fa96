"""The shop file with its revisions; lines that were removed and can come back."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.add_column("shop", sa.Column("cursor", sa.Integer, nullable=False, server_default="0"))
    op.add_column("dust_line", sa.Column("removed", sa.Boolean, nullable=False, server_default=sa.false()))
    op.create_table(
        "shop_revision",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("shop_id", sa.Integer, sa.ForeignKey("shop.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("label", sa.String(300), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("shop_id", "number"),
    )


def downgrade() -> None:
    op.drop_table("shop_revision")
    op.drop_column("dust_line", "removed")
    op.drop_column("shop", "cursor")
