"""What is kept: in MariaDB through SQLAlchemy, and editions as files.

`database` holds the connection and translates its errors; `schema` the tables; `forms`,
`records`, `datasets`, `users` and `keys` hand plain values in and out, never rows.
`edition_files` keeps built editions; `local_server` runs a MariaDB of the project's own.
"""

from .database import Database, DatabaseUnavailableError, StoreError

__all__ = ["Database", "DatabaseUnavailableError", "StoreError"]
