"""The whole data directory as one file, while the server runs, and back."""

from __future__ import annotations

import json
import os
import shutil
import sqlite3
import zipfile
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from tempfile import TemporaryDirectory

from hakutsu import __version__
from hakutsu.logbook.directory import DATABASE
from hakutsu.logbook.files import PART, arriving_under, make_directory, sha256_of, sync_directory
from hakutsu.logbook.trouble import DataTrouble, words

FORMAT, FORMAT_VERSION, MANIFEST = "hakutsu backup", 1, "backup.json"
PAGES, REST_SECONDS = 500, 0.01  # copied at once, and the rest between: whoever writes is let in


def backup(directory: Path, target: Path) -> tuple[int, int]:
    """Write database and pictures into a file; it has its name only when it is whole.

    Returns
    -------
    How many pictures it holds, and its size [bytes].

    Raises
    ------
    DataTrouble
        If there is no database, it cannot be read, or the file cannot be written.
    """
    database = directory / DATABASE
    if not database.is_file():
        raise DataTrouble(f"{directory} holds no database")
    try:
        with TemporaryDirectory(prefix="hakutsu-backup-", dir=target.absolute().parent) as scratch:
            copied = Path(scratch) / DATABASE
            _copy(database, copied)
            originals = _originals(directory / "pictures" / "originals")
            with arriving_under(target) as file, zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as out:
                out.writestr(MANIFEST, json.dumps(_manifest(copied, len(originals)), indent=2))
                out.write(copied, DATABASE)
                for one in originals:
                    out.write(one, f"pictures/{one.name}", zipfile.ZIP_STORED)
    except sqlite3.Error as error:
        raise DataTrouble(f"the database {database} {words(error)}") from error
    except OSError as error:
        raise DataTrouble(f"{error.filename or target} cannot be written: {error.strerror or error}") from error
    return len(originals), target.stat().st_size


def _copy(database: Path, target: Path) -> None:
    with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as source:
        with closing(sqlite3.connect(target)) as copied:
            source.backup(copied, pages=PAGES, sleep=REST_SECONDS)
            copied.execute("PRAGMA journal_mode=DELETE")


def _originals(folder: Path) -> list[Path]:
    return sorted(one for one in folder.glob("??/*") if one.is_file() and len(one.name) == 64)


def _manifest(database: Path, pictures: int) -> dict[str, object]:
    return {
        "format": FORMAT,
        "version": FORMAT_VERSION,
        "program": __version__,
        "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
        "database_sha256": sha256_of(database),
        "pictures": pictures,
    }


def restore(file: Path, directory: Path) -> int:
    """Bring a backup back into a directory that is empty or not there; all of it or nothing. How many pictures.

    Raises
    ------
    DataTrouble
        If the directory holds something, or the file is no backup, damaged, or cannot be written out.
    """
    directory = directory.expanduser().absolute()
    if directory.exists() and (not directory.is_dir() or any(directory.iterdir())):
        raise DataTrouble(f"{directory} is not empty: a backup is brought back into an empty directory only")
    try:
        directory.parent.mkdir(parents=True, exist_ok=True)
        with TemporaryDirectory(prefix=f".{directory.name}.", suffix=PART, dir=directory.parent) as scratch:
            arrived = Path(scratch) / "data"
            arrived.mkdir()
            with zipfile.ZipFile(file) as archive:
                pictures = _unpack(archive, arrived)
            arrived.replace(directory)
            sync_directory(directory.parent)
    except (zipfile.BadZipFile, EOFError, KeyError, ValueError, RuntimeError) as error:
        raise DataTrouble(f"{file} is no backup that can be read: {error}") from error
    except OSError as error:
        raise DataTrouble(f"{error.filename or file} cannot be used: {error.strerror or error}") from error
    return pictures


def _unpack(archive: zipfile.ZipFile, target: Path) -> int:
    said = json.loads(archive.read(MANIFEST))
    if said.get("format") != FORMAT or said.get("version") != FORMAT_VERSION:
        raise ValueError("it is of another format or a newer version")
    if _write(archive, DATABASE, target / DATABASE) != said["database_sha256"]:
        raise ValueError("its database is not the one that was put in")
    pictures = 0
    for name in archive.namelist():
        if name in (MANIFEST, DATABASE):
            continue
        folder, _, sha256 = name.partition("/")
        if folder != "pictures" or len(sha256) != 64 or not all(one in "0123456789abcdef" for one in sha256):
            raise ValueError(f"“{name[:80]}” does not belong into a backup")
        place = target / "pictures" / "originals" / sha256[:2] / sha256
        make_directory(place.parent)
        if _write(archive, name, place) != sha256:
            raise ValueError(f"picture {sha256} is not the one that was put in")
        pictures += 1
    if pictures != said["pictures"]:
        raise ValueError(f"{said['pictures']} pictures were put in, {pictures} are there")
    return pictures


def _write(archive: zipfile.ZipFile, name: str, place: Path) -> str:
    with archive.open(name) as source, place.open("wb") as out:
        shutil.copyfileobj(source, out, 1 << 20)
        out.flush()
        os.fsync(out.fileno())
    return sha256_of(place)
