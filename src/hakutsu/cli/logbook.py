"""Logbooks: checked, taken out and in again; the whole directory backed up and brought back."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated

import typer
from sqlalchemy import text

from hakutsu.cli.common import DEFAULT_DATA, DataOption, Inspection, app, fail, imports, logbook_at
from hakutsu.logbook import DataTrouble, Integrity, Logbook
from hakutsu.logbook.files import sha256_of
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.logbook.trouble import told

DAMAGED = 1


def _pictures(data: Path) -> PictureFiles:
    with told(data):
        return PictureFiles(data.expanduser().resolve() / "pictures")


@app.command()
def check(data: DataOption = DEFAULT_DATA) -> None:
    """See that every logbook and picture is as it was written; status 1 names inspections and entries that are not."""
    database = data.expanduser() / "hakutsu.sqlite"
    if not database.is_file():
        fail(f"{data} holds no database")
    logbook = logbook_at(data, DAMAGED)
    try:
        with told(logbook.database):
            faults = [*_file_faults(logbook), *_chain_faults(logbook), *_picture_faults(data, logbook)]
            entries, inspections = logbook.count(), len(logbook.inspections())
    except DataTrouble as error:
        fail(error, code=DAMAGED)
    if faults:
        fail(*faults, code=DAMAGED)
    print(
        f"{inspections} inspections, {entries:,} entries: each follows from the one before, every picture is as it came"
    )


def _file_faults(logbook: Logbook) -> list[str]:
    """What the database says of its own file."""
    with told(logbook.database), logbook.engine.connect() as connection:
        found = [str(row[0]) for row in connection.execute(text("PRAGMA quick_check(20)"))]
    return [] if found == ["ok"] else [f"the database {logbook.database}: {one}" for one in found]


def _chain_faults(logbook: Logbook) -> list[str]:
    found = Integrity(logbook).check_all(lambda: datetime.now(UTC), whole=True)
    return [
        f"inspection {inspection}, entry {one.fault_seq}: {one.fault}"
        for inspection, one in found
        if one.fault_seq is not None
    ]


def _picture_faults(data: Path, logbook: Logbook) -> list[str]:
    root = data.expanduser().resolve() / "pictures" / "originals"
    found = []
    for inspection in logbook.inspections():
        with told(logbook.database):
            entries = logbook.entries(inspection)
        for entry in entries:
            if entry.kind != "picture.taken":
                continue
            sha256 = str(entry.body.get("sha256", ""))
            path = root / sha256[:2] / sha256
            if not path.is_file():
                found.append(f"inspection {inspection}, entry {entry.seq}: the file of its picture is gone")
            elif sha256_of(path) != sha256:
                found.append(f"inspection {inspection}, entry {entry.seq}: the file of its picture was changed")
    return found


@app.command()
def export(
    inspection: Inspection,
    file: Annotated[Path, typer.Argument(help="The file to write, a .zip.")],
    data: DataOption = DEFAULT_DATA,
) -> None:
    """Write an inspection into one file: logbook, pictures, tables, schemas."""
    from hakutsu.exchange.bundle import export_bundle

    logbook = logbook_at(data)
    try:
        with told(logbook.database):
            if not logbook.holds(inspection):
                fail(f"no inspection {inspection} in {data}")
            missing = export_bundle(logbook, _pictures(data), inspection, file)
    except DataTrouble as error:
        fail(error)
    print(f"{file}: inspection {inspection}", *missing, sep="\n")


@imports.command("logbook")
def import_logbook(
    file: Annotated[Path, typer.Argument(help="An exported inspection (.zip), or its lines alone (.jsonl).")],
    data: DataOption = DEFAULT_DATA,
    new_id: Annotated[bool, typer.Option("--new-id", help="As one more inspection, with an id of its own.")] = False,
) -> None:
    """Take an exported inspection in; twice is harmless, and with a bad line nothing is stored."""
    from hakutsu.exchange.bundle_file import BundleFile, BundleRefused
    from hakutsu.exchange.bundle_import import NotImported, import_bundle

    if not file.is_file():
        fail(f"{file} cannot be read: there is no such file")
    logbook = logbook_at(data)
    pictures = _pictures(data)
    try:
        with told(logbook.database), BundleFile(file) as bundle:
            done = import_bundle(bundle, logbook, pictures, new_id=new_id)
    except BundleRefused as error:
        fail(f"{file}: {error}", "nothing stored")
    except NotImported as error:
        fail(*error.faults, "nothing stored")
    except DataTrouble as error:
        fail(error, "nothing stored")
    finally:
        pictures.close()
    for remark in done.remarks:
        typer.echo(remark, err=True)
    print(f"inspection {done.inspection}: {done.added:,} entries and {done.pictures} pictures imported, "
          f"{done.known:,} entries were there already")  # fmt: skip


@app.command()
def backup(
    file: Annotated[Path, typer.Argument(help="The file to write, a .zip.")], data: DataOption = DEFAULT_DATA
) -> None:
    """Write everything in the data directory into one file, also while the server runs."""
    from hakutsu.logbook.backup import backup as write

    try:
        pictures, size = write(data.expanduser(), file)
    except DataTrouble as error:
        fail(error)
    print(f"{file}: database and {pictures} pictures, {size / 1e6:,.1f} MB")


@app.command()
def restore(
    file: Annotated[Path, typer.Argument(help="A backup.")],
    data: Annotated[Path, typer.Option("--data", help="An empty directory, or one that is not there yet.")],
) -> None:
    """Bring a backup back into an empty directory."""
    from hakutsu.logbook.backup import restore as bring_back

    try:
        pictures = bring_back(file, data)
    except DataTrouble as error:
        fail(error)
    print(f"{data}: database and {pictures} pictures are back; see with: hakutsu check --data {data}")
