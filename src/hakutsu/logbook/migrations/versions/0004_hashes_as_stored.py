"""Hashes carry their version, entry ids are unique within an inspection, imports can be half in, checks are kept."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("inspection", sa.Column("importing_from", sa.Integer))
    op.add_column("inspection", sa.Column("imported_tip", sa.String(64)))
    op.create_table(
        "entry_as_stored",
        sa.Column("inspection_id", sa.String(36), sa.ForeignKey("inspection.id"), primary_key=True),
        sa.Column("seq", sa.Integer, primary_key=True),
        sa.Column("id", sa.String(36), nullable=False),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("hash", sa.String(64), nullable=False),
        sa.Column("hash_version", sa.Integer, nullable=False),
        sa.Column("draft", sa.Text, nullable=False),
        sa.UniqueConstraint("inspection_id", "id"),
    )
    # What is stored stays as it is, to the character; its hashes go on under their own version.
    op.execute(
        'INSERT INTO entry_as_stored (inspection_id, seq, id, "by", hash, hash_version, draft) '
        'SELECT inspection_id, seq, id, "by", hash, 1, draft FROM entry ORDER BY inspection_id, seq'
    )
    op.drop_table("entry")
    op.rename_table("entry_as_stored", "entry")
    op.create_table(
        "checked",
        sa.Column("inspection_id", sa.String(36), sa.ForeignKey("inspection.id"), primary_key=True),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("hash", sa.String(64), nullable=False),
        sa.Column("at", sa.String(32), nullable=False),
        sa.Column("fault_seq", sa.Integer),
        sa.Column("fault", sa.String(200), nullable=False),
    )


def downgrade() -> None:
    raise RuntimeError("hashes as stored cannot be turned back; restore the backup taken before")
