"""Names of lines stand in a column of their own, not in their documents alone."""

import json

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"

HERE = """
    SELECT dust_line.id, revision.document FROM dust_line
    JOIN revision ON revision.line_id = dust_line.id AND revision.number = dust_line.cursor
"""


def _name(document: str) -> str:
    try:
        return str(json.loads(document).get("name", "Dust line"))
    except (ValueError, AttributeError):  # the page of the line says what is wrong with it
        return "Dust line"


def upgrade() -> None:
    with op.batch_alter_table("dust_line") as table:
        table.add_column(sa.Column("name", sa.String(200), nullable=False, server_default="Dust line"))
    connection = op.get_bind()
    for line_id, document in connection.execute(sa.text(HERE)).all():
        connection.execute(
            sa.text("UPDATE dust_line SET name = :name WHERE id = :id"), {"name": _name(document), "id": line_id}
        )


def downgrade() -> None:
    with op.batch_alter_table("dust_line") as table:
        table.drop_column("name")
