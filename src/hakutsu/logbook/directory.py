"""The data directory: one database, and a lock that only one server holds."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from filelock import FileLock, Timeout
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.pool import ConnectionPoolEntry

MIGRATIONS = Path(__file__).parent / "migrations"


class DirectoryInUse(RuntimeError):
    """Another server already works on this data directory."""


def _durable(connection: DBAPIConnection, _record: ConnectionPoolEntry) -> None:
    # SQLAlchemy opens transactions itself (see `_begin`), so that a writer takes its lock before it reads.
    connection.isolation_level = None
    cursor = connection.cursor()
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=10000"):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


class DataDirectory:
    """A directory with the database `hakutsu.sqlite`; created and migrated when opened."""

    def __init__(self, path: Path) -> None:
        self.path = path.expanduser().resolve()
        try:
            self.path.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise DirectoryInUse(f"{self.path} cannot be used as a data directory: {error.strerror}") from error
        self._lock = FileLock(self.path / "server.lock")

    def hold(self) -> None:
        """Take the server's lock until the process ends.

        Raises
        ------
        DirectoryInUse
            If another server holds it.
        """
        try:
            self._lock.acquire(timeout=0)
        except Timeout as error:
            raise DirectoryInUse(
                f"another Hakutsu server already works on {self.path}; stop it, or choose another with --data"
            ) from error

    def release(self) -> None:
        """Give the lock back."""
        self._lock.release()

    def engine(self) -> Engine:
        """Open the database, brought to the newest schema."""
        address = f"sqlite:///{self.path / 'hakutsu.sqlite'}"
        engine = create_engine(address)
        event.listen(engine, "connect", _durable)
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        with FileLock(self.path / "migrate.lock"), engine.connect() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")
            connection.commit()
        return engine
