"""What was done of a build, with its history and its photos."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "build",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("line_id", sa.Integer, sa.ForeignKey("dust_line.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("what", sa.String(80), nullable=False),
        sa.Column("cursor", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("line_id", "what"),
    )
    op.create_table(
        "build_revision",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("build_id", sa.Integer, sa.ForeignKey("build.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("label", sa.String(300), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("build_id", "number"),
    )
    op.create_table(
        "build_photo",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("build_id", sa.Integer, sa.ForeignKey("build.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("step", sa.String(80), nullable=False),
        sa.Column("picture", sa.LargeBinary, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("build_photo")
    op.drop_table("build_revision")
    op.drop_table("build")
