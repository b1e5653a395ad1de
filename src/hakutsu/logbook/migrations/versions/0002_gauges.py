"""Gauges kept as records."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "gauge",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(60), nullable=False, unique=True),
        sa.Column("unit", sa.String(8), nullable=False),
        sa.Column("step_um", sa.Float, nullable=False),
        sa.Column("limit_um", sa.Float, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("gauge")
