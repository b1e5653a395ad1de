"""The data directory: one database, and a lock that only one server holds."""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path

from alembic import command
from alembic.config import Config
from filelock import FileLock, Timeout
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.exc import DatabaseError
from sqlalchemy.pool import ConnectionPoolEntry

from hakutsu.logbook.files import make_directory
from hakutsu.logbook.trouble import BRING_BACK, DataTrouble, DirectoryInUse, told

MIGRATIONS = Path(__file__).parent / "migrations"
DATABASE = "hakutsu.sqlite"
HEAD = "0005"


def _durable(connection: DBAPIConnection, _record: ConnectionPoolEntry) -> None:
    # The store opens transactions itself, so that a writer takes its lock before it reads.
    connection.isolation_level = None
    _set(connection, "journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=10000")


def _reading_only(connection: DBAPIConnection, _record: ConnectionPoolEntry) -> None:
    connection.isolation_level = None
    _set(connection, "query_only=ON", "busy_timeout=10000")


def _salvaging(connection: DBAPIConnection, record: ConnectionPoolEntry) -> None:
    """Read what is left of a file that was cut off; without this SQLite reads none of it."""
    _reading_only(connection, record)
    _set(connection, "writable_schema=ON")


def _set(connection: DBAPIConnection, *pragmas: str) -> None:
    cursor = connection.cursor()
    for pragma in pragmas:
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


class DataDirectory:
    """A directory with the database `hakutsu.sqlite`; created and migrated when opened.

    One that cannot be written, or was cut off, is opened for reading: what is there is shown, nothing new is stored.
    """

    def __init__(self, path: Path) -> None:
        self.path = path.expanduser().resolve()
        self.database = self.path / DATABASE
        try:
            make_directory(self.path)
        except OSError as error:
            raise DirectoryInUse(f"{self.path} cannot be used as a data directory: {error.strerror}") from error
        self._lock = FileLock(self.path / "server.lock")

    @property
    def read_only(self) -> bool:
        """Whether nothing can be stored here."""
        wanted = (self.path, self.database) if self.database.exists() else (self.path,)
        return not all(os.access(one, os.W_OK) for one in wanted)

    def hold(self) -> None:
        """Take the server's lock until the process ends; where nothing can be written there is nothing to hold.

        Raises
        ------
        DirectoryInUse
            If another server holds it.
        """
        if self.read_only:
            return
        try:
            self._lock.acquire(timeout=0)
        except Timeout as error:
            raise DirectoryInUse(
                f"another Hakutsu server already works on {self.path}; stop it, or choose another with --data"
            ) from error
        except OSError as error:
            raise DataTrouble(f"{self.path} cannot be written: {error.strerror}") from error

    def release(self) -> None:
        """Give the lock back."""
        self._lock.release()

    def engine(self) -> Engine:
        """Open the database, brought to the newest schema.

        Raises
        ------
        DataTrouble
            If it is damaged, of a newer version, cannot be opened, or is old and cannot be written.
        """
        with told(self.database):
            self._refuse_an_empty_one()
            if self.read_only:
                return self._engine_for_reading(_reading_only)
            engine = create_engine(f"sqlite:///{self.database}")
            event.listen(engine, "connect", _durable)
            try:
                with FileLock(self.path / "migrate.lock"), engine.connect() as connection:
                    _migrate(connection)
            except DatabaseError as error:
                engine.dispose()
                if "malformed" not in str(error.orig):
                    raise
                return self._engine_for_reading(_salvaging)
            return engine

    def _refuse_an_empty_one(self) -> None:
        """Where pictures were kept there were entries: an empty database is a lost one, not a new one."""
        there = self.database.exists() and self.database.stat().st_size
        if not there and any((self.path / "pictures" / "originals").glob("??/*")):
            raise DataTrouble(f"the database {self.database} is gone or empty, its pictures are there; {BRING_BACK}")

    def _engine_for_reading(self, prepare: Callable[[DBAPIConnection, ConnectionPoolEntry], None]) -> Engine:
        if not self.database.exists():
            raise DataTrouble(f"{self.path} holds no database, and none can be made: the directory is read-only")
        waiting = self.database.with_name(f"{DATABASE}-wal")
        # Without a log that waits, nothing else will write: SQLite needs no files of its own beside it then.
        mode = "mode=ro" if waiting.exists() and waiting.stat().st_size else "mode=ro&immutable=1"
        engine = create_engine(f"sqlite:///file:{self.database}?{mode}&uri=true")
        event.listen(engine, "connect", prepare)
        with engine.connect() as connection:
            found = connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar()
        if found != HEAD:
            raise DataTrouble(f"the database {self.database} is of another version and cannot be changed: read-only")
        return engine


def _migrate(connection: Connection) -> None:
    """Bring the schema to the newest, all of it or nothing."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["connection"] = connection
    connection.exec_driver_sql("PRAGMA foreign_keys=OFF")
    connection.exec_driver_sql("BEGIN IMMEDIATE")
    try:
        command.upgrade(config, "head")
        connection.exec_driver_sql("COMMIT")
    except BaseException:
        if connection.connection.dbapi_connection.in_transaction:  # type: ignore[union-attr]
            connection.exec_driver_sql("ROLLBACK")
        raise
    connection.exec_driver_sql("PRAGMA foreign_keys=ON")
    connection.commit()
