"""What a form has done once, by the name of chance that it carries."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "done_once",
        sa.Column("token", sa.String(40), primary_key=True),
        sa.Column("at", sa.DateTime, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("done_once")
