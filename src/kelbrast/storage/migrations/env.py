"""Runs the migrations on the connection that `open_database` hands over, all of them in its one transaction."""

from alembic import context

from kelbrast.storage.tables import Base

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=Base.metadata,
    render_as_batch=True,
    transactional_ddl=True,
)
with context.begin_transaction():
    context.run_migrations()
