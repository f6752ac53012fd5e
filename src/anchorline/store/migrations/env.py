"""Alembic's environment: migrations run on the connection they are handed."""

from alembic import context

from anchorline.store.schema_documents import DocumentRow

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=DocumentRow.metadata,
    compare_type=False,
)
with context.begin_transaction():
    context.run_migrations()
