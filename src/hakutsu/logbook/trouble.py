"""What can be wrong with a data directory, each said in one sentence."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from alembic.util import CommandError
from sqlalchemy.exc import DBAPIError


class DataTrouble(RuntimeError):
    """The data directory cannot be used as asked; the message says why, and what to do."""


class DirectoryInUse(DataTrouble):
    """Another server already works on this data directory, or it is none."""


BRING_BACK = "bring back a backup with `hakutsu restore`"
_SENTENCES = (
    ("not a database", f"is no database any more: its beginning is overwritten; {BRING_BACK}"),
    ("malformed", f"is damaged and can only be read in part; `hakutsu check` names what is lost, or {BRING_BACK}"),
    ("corrupt", f"is damaged and can only be read in part; `hakutsu check` names what is lost, or {BRING_BACK}"),
    ("disk is full", "cannot grow: the disk is full; free some space, then go on where you were"),
    ("readonly", "cannot be written: the directory is read-only, so nothing new is stored"),
    ("locked", "is being written by another program; try again in a moment"),
    ("unable to open", "cannot be opened; see that the directory is there and may be read and written"),
    ("disk i/o", "cannot be read or written: the disk reports a fault"),
    ("no such", f"is not whole: a table is missing; {BRING_BACK}"),
    ("unsupported file format", "was written by a newer version of the database; update Hakutsu"),
)
FULL = "disk is full"


def words(error: BaseException) -> str:
    """What a fault of the database means, in one sentence about it."""
    said = str(getattr(error, "orig", None) or error).lower()
    for sign, sentence in _SENTENCES:
        if sign in said:
            return sentence
    return f"cannot be used: {said.splitlines()[0] if said else type(error).__name__}"


@contextmanager
def told(path: Path) -> Iterator[None]:
    """Turn faults of the database at `path` into sentences.

    Raises
    ------
    DataTrouble
        In the place of what the database, the file system or the migration raised.
    """
    try:
        yield
    except DBAPIError as error:
        raise DataTrouble(f"the database {path} {words(error)}") from error
    except CommandError as error:
        raise DataTrouble(f"the database {path} was written by a newer version; update Hakutsu") from error
    except OSError as error:
        raise DataTrouble(f"{error.filename or path} cannot be used: {error.strerror or error}") from error
