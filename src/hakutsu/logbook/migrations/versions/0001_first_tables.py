"""The first tables: inspections, their entries, settings."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "inspection",
        sa.Column("id", sa.String(36), primary_key=True),
        sa.Column("opened_at", sa.String(32), nullable=False),
    )
    op.create_table(
        "entry",
        sa.Column("id", sa.String(36), primary_key=True),
        sa.Column("inspection_id", sa.String(36), sa.ForeignKey("inspection.id"), nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("hash", sa.String(64), nullable=False),
        sa.Column("draft", sa.JSON, nullable=False),
        sa.UniqueConstraint("inspection_id", "seq"),
    )
    op.create_index("ix_entry_inspection_id", "entry", ["inspection_id"])
    op.create_table(
        "setting",
        sa.Column("key", sa.String(60), primary_key=True),
        sa.Column("value", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("setting")
    op.drop_table("entry")
    op.drop_table("inspection")
