"""The shop's log, its photos and its history; whether a line shows what the log says of today."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"

AMOUNTS = ("level", "volume", "mass", "hours", "count", "money", "suction", "kept", "grade")


def upgrade() -> None:
    shop = sa.ForeignKey("shop.id", ondelete="CASCADE")
    op.create_table(
        "log_entry",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("shop_id", sa.Integer, shop, nullable=False, index=True),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), index=True),
        sa.Column("kind", sa.String(12), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False, index=True),
        sa.Column("thing", sa.String(60), nullable=False),
        sa.Column("job", sa.String(60), nullable=False),
        sa.Column("finding", sa.String(12), nullable=False),
        sa.Column("words", sa.String(2000), nullable=False),
        *(sa.Column(name, sa.Float) for name in AMOUNTS),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("removed_at", sa.DateTime),
    )
    op.create_table(
        "log_photo",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("shop_id", sa.Integer, sa.ForeignKey("shop.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column(
            "entry_id", sa.Integer, sa.ForeignKey("log_entry.id", ondelete="CASCADE"), nullable=False, index=True
        ),
        sa.Column("picture", sa.LargeBinary, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "log_step",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("shop_id", sa.Integer, sa.ForeignKey("shop.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("label", sa.String(300), nullable=False),
        sa.Column("added", sa.Text, nullable=False),
        sa.Column("removed", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("shop_id", "number"),
    )
    op.add_column("shop", sa.Column("log_cursor", sa.Integer, nullable=False, server_default="0"))
    op.add_column("dust_line", sa.Column("by_log", sa.Boolean, nullable=False, server_default=sa.true()))


def downgrade() -> None:
    with op.batch_alter_table("dust_line") as table:
        table.drop_column("by_log")
    with op.batch_alter_table("shop") as table:
        table.drop_column("log_cursor")
    for name in ("log_step", "log_photo", "log_entry"):
        op.drop_table(name)
