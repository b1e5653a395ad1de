"""A vehicle's memory as a file: JSON as `hakutsu scan read` gives it, CSV of codes by unit; both ways."""

from __future__ import annotations

import csv
import json
from io import StringIO
from typing import Any

from pydantic import ValidationError

from hakutsu.core.scan.codes import told
from hakutsu.core.scan.units import unit_name
from hakutsu.entries.scan import ModuleNoted, ScanByHand, ScanRead

COLUMNS = ("module", "code", "memory", "words", "count", "simulated")
MOST_BYTES = 2_000_000


class BadFile(ValueError):
    """A file that is neither; the message names the line or the key."""


def scan_csv(read: ScanRead) -> str:
    """Codes by unit, one a line; a unit without codes has a line with the count 0, one not read has none."""
    out = StringIO()
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    for unit in read.modules:
        if unit.codes is None:
            continue
        name = unit_name(unit)
        mark = {"simulated": "yes"} if read.simulated else {}
        for one in unit.codes:
            words = told(one.code).words
            writer.writerow({"module": name, "code": one.code, "memory": " ".join(one.memory), "words": words, **mark})
        if not unit.codes:
            writer.writerow({"module": name, "count": 0, **mark})
    return out.getvalue()


def scan_from_file(data: bytes) -> ScanRead | ScanByHand:
    """What a file says: JSON becomes a read, CSV a result noted by hand.

    Raises
    ------
    BadFile
        If it is neither, or a line of it does not hold.
    """
    if len(data) > MOST_BYTES:
        raise BadFile(f"the file has more than {MOST_BYTES // 1_000_000} MB")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadFile("the file is not text in UTF-8") from error
    return _from_json(text) if text.lstrip().startswith("{") else _from_csv(text)


def _from_json(text: str) -> ScanRead:
    try:
        said: dict[str, Any] = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise BadFile(f"not JSON: {error}") from error
    said.pop("cleared", None)
    try:
        return ScanRead.model_validate(said)
    except ValidationError as error:
        first = error.errors()[0]
        raise BadFile(f"{'.'.join(map(str, first['loc']))}: {first['msg'].lower()}") from error


def _from_csv(text: str) -> ScanByHand:
    reader = csv.DictReader(StringIO(text))
    if not {"module", "code"} <= set(reader.fieldnames or ()):
        raise BadFile("a CSV of codes has the columns module and code, perhaps words and count")
    modules: dict[str, dict[str, Any]] = {}
    for number, row in enumerate(reader, 2):
        if row.get("simulated"):
            raise BadFile(f"line {number}: codes of a simulated vehicle are not taken as somebody's reading")
        name = (row.get("module") or "").strip()
        one = modules.setdefault(name, {"module": name, "codes": [], "words": "", "count": None})
        code, words, count = ((row.get(key) or "").strip() for key in ("code", "words", "count"))
        one["codes"] += [code.upper()] if code else []
        one["words"] = one["words"] or ("" if code else words)
        one["count"] = count or one["count"]
        try:
            ModuleNoted.model_validate(one)
        except ValidationError as error:
            raise BadFile(f"line {number}: a unit, and a code such as P0301, words, or how many") from error
    try:
        return ScanByHand.model_validate({"modules": list(modules.values()), "tool": "file"})
    except ValidationError as error:
        raise BadFile("the file names no unit, or more than 60") from error
