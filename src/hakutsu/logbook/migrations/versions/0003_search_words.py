"""Words of inspections kept for searching; derived, and made again when they are gone."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "search_words",
        sa.Column("inspection_id", sa.String(36), sa.ForeignKey("inspection.id"), primary_key=True),
        sa.Column("key", sa.Text, nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("words", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("search_words")
