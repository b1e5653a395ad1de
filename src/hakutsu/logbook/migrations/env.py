"""Alembic's environment: runs on the connection that the data directory hands over."""

from alembic import context

from hakutsu.logbook.tables import Base

context.configure(
    connection=context.config.attributes["connection"], target_metadata=Base.metadata, render_as_batch=True
)
with context.begin_transaction():
    context.run_migrations()
