"""The application as gunicorn loads it: once, before the workers are forked.

Nothing here may connect to the database: connections must not be shared between workers.
"""

from __future__ import annotations

from flask import Flask

from anchorline.store.database import Database

from .app import create_app
from .logs import set_up_logs
from .settings import SettingsError, read_settings


def application() -> Flask:
    """The application, from the environment."""
    settings = read_settings()
    set_up_logs(settings.log_level)
    if settings.database_url is None:
        raise SettingsError(
            "A worker needs ANCHORLINE_DATABASE_URL: start it by `anchorline serve`."
        )
    return create_app(settings, Database(settings.database_url))
