"""Film surveys as CSV: read with every fault named, written back the same."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import TypeVar

from hakutsu.core.film.survey import FilmSurvey, Observation
from hakutsu.entries.film import MOST_UM
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.units import from_um, to_um
from hakutsu.vehicle.vocabulary import Finish, ReadingStatus, Substrate, Unit

REQUIRED = ("panel", "reading", "unit", "status", "substrate", "finish")
OPTIONAL = ("survey", "u", "v", "gauge_limit", "resolution", "edge", "simulated")
COLUMNS = (
    "survey", "panel", "u", "v", "reading", "unit", "status", "substrate", "finish", "gauge_limit", "resolution",
    "edge", "simulated",
)  # fmt: skip
LONGEST_FIELD = 200
WordT = TypeVar("WordT", bound=StrEnum)


@dataclass(frozen=True, slots=True)
class BadRow:
    """A fault: the line of the file (the header is line 1), the column, what stood there, and why it does not do."""

    row: int
    column: str
    value: str
    reason: str

    def __str__(self) -> str:
        shown = f" “{self.value}”" if self.value else ""
        return f"row {self.row}, {self.column}{shown}: {self.reason}"


@dataclass(frozen=True, slots=True)
class Row:
    """One good row: its line in the file, its survey, its unit as written, and what it says."""

    row: int
    survey: str
    finish: Finish
    unit: Unit
    observation: Observation


@dataclass
class FilmFile:
    """What a file holds: good rows in file order, every fault, and remarks that are no faults."""

    rows: list[Row] = field(default_factory=list)
    bad: list[BadRow] = field(default_factory=list)
    remarks: list[str] = field(default_factory=list)

    def survey_ids(self) -> list[str]:
        """Ids of the surveys that have good rows, in file order; a file without ids holds the survey ""."""
        return list(dict.fromkeys(row.survey for row in self.rows))

    def finish(self, survey: str) -> Finish:
        """The finish declared in a survey's rows."""
        return next(row.finish for row in self.rows if row.survey == survey)

    def surveys(self) -> list[FilmSurvey]:
        """All surveys, ready to be analysed."""
        grouped: dict[str, list[Row]] = {}
        for row in self.rows:
            grouped.setdefault(row.survey, []).append(row)
        return [FilmSurvey(key, [row.observation for row in rows], rows[0].finish) for key, rows in grouped.items()]


class _Fault(ValueError):
    def __init__(self, column: str, reason: str) -> None:
        super().__init__(reason)
        self.column = column
        self.reason = reason


def read_film_csv(data: bytes, most_rows: int | None = None) -> FilmFile:
    """Read a film survey file (UTF-8, header required, columns in any order); of more rows than are taken none.

    Never raises for what is in the file: whatever is wrong is in `bad`, and then the good rows are still there.
    """
    found = FilmFile()
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data.count(b"\n", 0, error.start) + 1
        found.bad.append(BadRow(line, "file", "", f"not UTF-8 text (byte {error.start + 1}): save the file as UTF-8"))
        return found
    if "\x00" in text:
        found.bad.append(BadRow(text.count("\n", 0, text.index("\x00")) + 1, "file", "", "not a text file"))
        return found
    reader = csv.reader(io.StringIO(text, newline=""), strict=True)
    header = _header(reader, found)
    if header:
        _rows(reader, header, found, most_rows)
        _one_finish_each(found)
    return found


def _header(reader: Iterable[list[str]], found: FilmFile) -> list[str]:
    try:
        names = [name.strip() for name in next(iter(reader), [])]
    except csv.Error as error:
        found.bad.append(BadRow(1, "header", "", f"not CSV: {error}"))
        return []
    missing = [name for name in REQUIRED if name not in names]
    for name in sorted({name for name in names if names.count(name) > 1}):
        found.bad.append(BadRow(1, name or "header", name, "this column stands in the header twice"))
    if missing:
        hint = "; columns are parted by commas" if len(names) == 1 and ";" in names[0] else ""
        found.bad.append(
            BadRow(1, "header", "", f"missing column{'s' * (len(missing) > 1)} {', '.join(missing)}{hint}")
        )
    unknown = [name for name in names if name and name not in COLUMNS]
    if unknown and not missing:
        found.remarks.append(f"columns not used: {', '.join(name[:40] for name in unknown)}")
    return [] if found.bad else names


def _rows(reader: Iterable[list[str]], header: list[str], found: FilmFile, most_rows: int | None) -> None:
    lines = iter(reader)
    while True:
        if most_rows is not None and len(found.rows) + len(found.bad) > most_rows:
            line = lines.line_num  # type: ignore[attr-defined]
            found.rows = []
            found.bad = [BadRow(line, "file", "", f"more than {most_rows:,} rows: is this one vehicle's survey?")]
            return
        try:
            cells = next(lines)
        except StopIteration:
            break
        except csv.Error as error:
            found.bad.append(BadRow(lines.line_num, "row", "", f"not CSV: {error}"))  # type: ignore[attr-defined]
            break
        line = lines.line_num  # type: ignore[attr-defined]
        if not any(cell.strip() for cell in cells):
            continue
        if len(cells) != len(header):
            found.bad.append(BadRow(line, "row", "", f"{len(cells)} fields where the header has {len(header)}"))
            continue
        row = {name: cell.strip() for name, cell in zip(header, cells, strict=True)}
        try:
            found.rows.append(_row(line, row))
        except _Fault as fault:
            found.bad.append(BadRow(line, fault.column, row.get(fault.column, "")[:LONGEST_FIELD], fault.reason))
    if not found.rows and not found.bad:
        found.bad.append(BadRow(1, "file", "", "no rows below the header"))


def _row(line: int, row: Mapping[str, str]) -> Row:
    panel = row["panel"]
    if panel not in panels():
        raise _Fault("panel", "not a panel name")
    unit = _word(row, "unit", Unit)
    status = _word(row, "status", ReadingStatus)
    limit = _number(row, "gauge_limit")
    step = _number(row, "resolution")
    shown = _number(row, "reading")
    if status is ReadingStatus.NONE and shown is not None:
        raise _Fault("reading", "status none carries no number")
    if status is ReadingStatus.OK and shown is None:
        raise _Fault("reading", "status ok needs a number")
    value = None if shown is None else to_um(shown, unit)
    if value is not None and value > MOST_UM:
        raise _Fault("reading", f"more than {MOST_UM:,.0f} µm is no film")
    u, v = _number(row, "u", _fraction), _number(row, "v", _fraction)
    if (u is None) != (v is None):
        u = v = None  # half a position is no position
    substrate, finish = _word(row, "substrate", Substrate), _word(row, "finish", Finish)
    edge, simulated = _yes(row, "edge"), _yes(row, "simulated")
    observation = Observation(panel, value, status, u, v, step, limit, substrate, edge=edge, simulated=simulated)
    return Row(line, row.get("survey", ""), finish, unit, observation)


def _word(row: Mapping[str, str], column: str, words: type[WordT]) -> WordT:
    try:
        return words(row[column])
    except ValueError as error:
        raise _Fault(column, f"must be one of {', '.join(words)}") from error


def _yes(row: Mapping[str, str], column: str) -> bool:
    text = row.get(column, "")
    if text not in ("", "yes"):
        raise _Fault(column, "must be yes or empty")
    return text == "yes"


def _above_zero(value: float) -> str | None:
    return None if value > 0 else "must be above 0"


def _fraction(value: float) -> str | None:
    return None if 0 <= value <= 1 else "must lie between 0 and 1"


def _number(row: Mapping[str, str], column: str, fault: Callable[[float], str | None] = _above_zero) -> float | None:
    text = row.get(column, "")
    if not text:
        return None
    try:
        # float() also takes "1_000", "nan" and "inf"; none of them is a number somebody read.
        value = float(text) if "_" not in text else math.nan
    except ValueError as error:
        raise _Fault(column, "not a number") from error
    if not math.isfinite(value):
        raise _Fault(column, "not a number")
    if (reason := fault(value)) is not None:
        raise _Fault(column, reason)
    return value


def _one_finish_each(found: FilmFile) -> None:
    """A row whose finish differs from the first of its survey is a fault."""
    declared: dict[str, Finish] = {}
    kept = []
    for row in found.rows:
        first = declared.setdefault(row.survey, row.finish)
        if row.finish is first:
            kept.append(row)
        else:
            reason = f"this survey was declared {first} in an earlier row"
            found.bad.append(BadRow(row.row, "finish", row.finish, reason))
    found.rows = kept
    found.bad.sort(key=lambda bad: bad.row)


def write_film_csv(surveys: Iterable[FilmSurvey], unit: Unit = Unit.UM) -> str:
    """Write surveys in the same format; readings in `unit`, limit and resolution in µm."""
    out = io.StringIO(newline="")
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for survey in surveys:
        for o in survey.observations:
            value = None if o.value_um is None else from_um(o.value_um, unit)
            writer.writerow([
                survey.id, o.panel, _text(o.u), _text(o.v), _text(value), unit, o.status, o.substrate,
                survey.finish, _text(o.limit_um), _text(o.step_um), "yes" if o.edge else "",
                "yes" if o.simulated else "",
            ])  # fmt: skip
    return out.getvalue()


def _text(value: float | None) -> str:
    return "" if value is None else f"{value:.6g}"
