"""Two whole inspections as they were spoken, entry by entry in the order of a working day, and what must come of them.

They are demo data and tests at once: whatever changes, what nobody observed is not said, and what was is not lost.
"""

from __future__ import annotations

import json
from importlib.resources import files

from hakutsu.entries import Draft
from hakutsu.vehicle.tables import Row, Table, read_table

REFERENCES = ("sund", "carry")
BY = "Isla Varnock"


class Must(Row):
    """A finding that has to be there: its code, its subject where the code alone does not tell, and why."""

    code: str
    why: str
    subject: str = ""
    consequence: str = ""


class MustNot(Row):
    """What nobody observed: a code no finding may begin with, or words no page may say."""

    why: str
    code: str = ""
    says: str = ""


class Fits(Row):
    """What is asked for on this vehicle, and what is not: keys of things to try, of parts, of looks."""

    asked: tuple[str, ...] = ()
    not_asked: tuple[str, ...] = ()


class SheetSays(Row):
    """A line of the sheet that is settled, whether it has a price, and why."""

    code: str
    subject: str
    priced: bool
    why: str


class Prepare(Row):
    """Jobs of the preparation list, all of them, and why."""

    jobs: tuple[str, ...]
    why: str


class Expected(Table):
    """What must and must not come of a reference inspection; all that is settled, all that is lived with, every line of
    the sheet that is settled, and what would be prepared.
    """

    must: list[Must]
    must_not: list[MustNot]
    settles: list[Must]
    lives_with: list[Must]
    line: list[SheetSays]
    preparation: Prepare
    functions: Fits
    parts: Fits


def reference_drafts(name: str) -> list[Draft]:
    """Every entry of a reference inspection, in the order of the day."""
    text = (files("hakutsu.demo") / "data" / f"{name}.jsonl").read_text(encoding="utf-8")
    return [Draft.model_validate(json.loads(line)) for line in text.splitlines() if line.strip()]


def expected(name: str) -> Expected:
    """What must and must not come of it."""
    return read_table("demo", f"{name}_expected", Expected)
