"""Files that are there under their name only when they are whole."""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import NamedTemporaryFile
from typing import IO

PART = ".part"


def sha256_of(path: Path) -> str:
    """SHA-256 [hex] of a file."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def sync_directory(path: Path) -> None:
    """Make the names in a directory survive a power cut."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def make_directory(path: Path) -> None:
    """Make a directory that a power cut does not take back."""
    if not path.is_dir():
        path.mkdir(parents=True, exist_ok=True)
        sync_directory(path.parent)


@contextmanager
def arriving_under(target: Path) -> Iterator[IO[bytes]]:
    """A file to write, which takes the name `target` when all of it is on the disk; whatever fails leaves none.

    What a killed process left half written beside it is cleared first.
    """
    folder = target.absolute().parent
    for left in folder.glob(f".{target.name}.*{PART}"):
        left.unlink(missing_ok=True)
    with NamedTemporaryFile(dir=folder, prefix=f".{target.name}.", suffix=PART, delete=False) as file:
        try:
            yield file
            file.flush()
            os.fsync(file.fileno())
            Path(file.name).chmod(0o644)
            Path(file.name).replace(target)
        except BaseException:
            Path(file.name).unlink(missing_ok=True)
            raise
    sync_directory(folder)
