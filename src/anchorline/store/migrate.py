"""Bringing the database's tables up to this release."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy.orm import Session

from .database import Database


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).with_name("migrations")))
    return config


def migrate(database: Database) -> None:
    """Runs every migration that has not run yet."""
    config = _config()
    with database.engine.connect() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def is_migrated(database: Database) -> bool:
    """Whether the tables are those of this release."""
    head = ScriptDirectory.from_config(_config()).get_current_head()

    def work(session: Session) -> bool:
        context = MigrationContext.configure(session.connection())
        return bool(context.get_current_revision() == head)

    return database.run(work)
