"""Words for searching lie in a database of their own: what is derived is not written with what must last."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("DROP TABLE IF EXISTS search_words")


def downgrade() -> None:
    op.create_table(
        "search_words",
        sa.Column("inspection_id", sa.String(36), sa.ForeignKey("inspection.id"), primary_key=True),
        sa.Column("key", sa.Text, nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("words", sa.JSON, nullable=False),
    )
