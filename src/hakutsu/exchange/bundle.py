"""An inspection as one file: its logbook as JSON Lines, pictures, tables, and the schema of every kind of entry."""

from __future__ import annotations

import json
import mimetypes
import zipfile
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import UUID

from hakutsu import __version__
from hakutsu.dossier import gather_dossier
from hakutsu.entries import Draft, kinds
from hakutsu.entries.settings import Settings
from hakutsu.exchange.film_csv import write_film_csv
from hakutsu.exchange.measurements_csv import measurements_csv
from hakutsu.logbook import Logbook
from hakutsu.logbook.files import arriving_under
from hakutsu.logbook.pictures import SUFFIXES, PictureFiles
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.film import observation
from hakutsu.vehicle.vocabulary import Unit

FORMAT, FORMAT_VERSION = "hakutsu logbook", 1
LOGBOOK, MANIFEST, README = "logbook.jsonl", "manifest.json", "README.txt"
FILM, MEASUREMENTS = "film.csv", "measurements.csv"
ABOUT = f"""One inspection, written by Hakutsu {__version__}.

{LOGBOOK}      every entry in its order, one JSON object a line; nothing is ever removed, so that what was taken back
                   is here too (the line whose "strikes" names it)
{MANIFEST}      which inspection, when it was opened, its last hash
{FILM}           readings of the film gauge as it showed them
{MEASUREMENTS}   every number of every entry, with its unit
pictures/          pictures, clips and sound byte for byte, named by their SHA-256
schema/            JSON Schema of the envelope and of the body of every kind of entry

"hash" binds a line to the one before it: the SHA-256 of the hash before, a line feed, then of version 2 the JSON array
[2, inspection, seq, by], a line feed, and the entry as it was stored: the other fields as JSON with sorted keys and no
spaces, in UTF-8. Readings of a simulated gauge say so in their "source".
"""


def lines(logbook: Logbook, inspection: UUID) -> Iterator[dict[str, Any]]:
    """Every entry as it is stored, with author, number and hash; one that is no JSON under `stored`."""
    for row in logbook.rows(inspection):
        try:
            said = json.loads(row.draft)
        except (ValueError, RecursionError):
            said = None
        about = {"inspection": str(inspection), "by": row.by, "seq": row.seq, "hash": row.hash,
                 "hash_version": row.hash_version}  # fmt: skip
        yield {**said, **about} if isinstance(said, dict) else {"stored": row.draft, **about}


def as_line(entry: dict[str, Any]) -> str:
    """An entry as one line of JSON."""
    return json.dumps(entry, ensure_ascii=False, separators=(",", ":")) + "\n"


def film_table(reckoning: Reckoning) -> str:
    """The film survey in the exchange format, in the gauge's unit and as the gauge showed it.

    Readings at an edge stay out: the format has no word for them, and elsewhere they would pass for film of the panel.
    """
    film, vehicle = reckoning.dossier.film, reckoning.dossier.vehicle
    kept = [one for one in film.readings if not one.body.edge]
    shown = [observation(one, film.gauge, vehicle.substrate(one.panel)) for one in kept]
    survey = replace(reckoning.film.survey, observations=shown)
    return write_film_csv([survey], Unit(film.gauge.unit))


def schemas() -> dict[str, dict[str, Any]]:
    """JSON Schema of the envelope and of the body of every kind, by file name."""
    found = {"envelope.json": Draft.model_json_schema()}
    return found | {f"{kind.name}.json": kind.model.model_json_schema() for kind in kinds().values()}


def export_bundle(logbook: Logbook, pictures: PictureFiles, inspection: UUID, target: Path) -> list[str]:
    """Write an inspection into a file; it is there under its name only when it is whole.

    Returns
    -------
    What could not be put in: pictures whose file is gone.
    """
    entries, unread = logbook.read(inspection)
    reckoning = Reckoning(gather_dossier(inspection, entries, unread), Settings())
    missing = []
    with arriving_under(target) as file, zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as out:
        stored = list(lines(logbook, inspection))
        with out.open(LOGBOOK, "w") as logged:
            for one in stored:
                logged.write(as_line(one).encode())
        out.writestr(MANIFEST, json.dumps(_manifest(logbook, inspection, stored), indent=2))
        out.writestr(README, ABOUT)
        if reckoning.dossier.opening.vehicle is not None:
            out.writestr(FILM, film_table(reckoning))
        out.writestr(MEASUREMENTS, measurements_csv(reckoning.dossier.entries, reckoning.dossier.struck))
        for name, schema in schemas().items():
            out.writestr(f"schema/{name}", json.dumps(schema, indent=1))
        for sha256, mime in _pictures(stored).items():
            original = pictures.original(sha256)
            if original.is_file():
                out.write(original, f"pictures/{sha256}{_suffix(mime)}", zipfile.ZIP_STORED)
            else:
                missing.append(f"picture {sha256} is gone from the data directory")
    return missing


def _manifest(logbook: Logbook, inspection: UUID, stored: list[dict[str, Any]]) -> dict[str, Any]:
    return {
        "format": FORMAT,
        "version": FORMAT_VERSION,
        "program": __version__,
        "inspection": str(inspection),
        "opened_at": logbook.opened_at(inspection),
        "entries": len(stored),
        "last_hash": stored[-1]["hash"] if stored else "",
        "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
    }


def _pictures(stored: list[dict[str, Any]]) -> dict[str, str]:
    """Files that entries name, struck ones too: SHA-256 and type."""
    found = {}
    for one in stored:
        body = one.get("body")
        if one.get("kind") == "picture.taken" and isinstance(body, dict):
            found[str(body.get("sha256"))] = str(body.get("mime"))
    return found


def _suffix(mime: str) -> str:
    return (mimetypes.guess_extension(mime) or "") if mime in SUFFIXES else ""
