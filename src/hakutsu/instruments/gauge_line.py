"""The line protocol of a film gauge on a serial link; documented in docs/format.md.

Every line is ASCII, ends in a line feed, and carries a two-digit hexadecimal check sum behind " #": the sum of all
bytes before that, modulo 256. A line whose sum does not agree is no reading.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from hakutsu.vehicle.units import MICROMETRES_PER_MIL, to_um
from hakutsu.vehicle.vocabulary import ReadingStatus, Substrate, Unit

LONGEST_LINE = 160
MOST_UM, MOST_STEP_UM, LEAST_LIMIT_UM = 25_000.0, 100.0, 100.0
_FILM = re.compile(r"film (over|none|\d{1,6}(?:\.\d{1,2})?) (um|mil) (steel|aluminium|unknown)(?: battery (\d{1,3}))?")
_HELLO = re.compile(r"gauge (um|mil) step (\d{1,4}(?:\.\d{1,3})?) limit (\d{1,6}(?:\.\d{1,2})?) name (.{1,60})")
_SHARE = r"0(?:\.\d{1,4})?|1(?:\.0{1,4})?"
_PROBE = re.compile(rf"probe ([a-z_]{{2,30}}) ({_SHARE}) ({_SHARE})")


class Garbled(ValueError):
    """A line that cannot be trusted: shown, and dropped."""


@dataclass(frozen=True, slots=True)
class FilmLine:
    """A reading: its number in `unit` (none when over range or nothing was read), substrate, charge left [%]."""

    value: float | None
    unit: Unit
    status: ReadingStatus
    substrate: Substrate
    battery: int | None = None

    @property
    def value_um(self) -> float | None:
        """The number in µm."""
        return None if self.value is None else to_um(self.value, self.unit)


@dataclass(frozen=True, slots=True)
class HelloLine:
    """What a gauge says of itself when the link opens: unit, display step and range limit in that unit, name."""

    unit: Unit
    step: float
    limit: float
    name: str

    @property
    def step_um(self) -> float:
        """Display step [µm]."""
        return to_um(self.step, self.unit)

    @property
    def limit_um(self) -> float:
        """Limit of the range [µm]."""
        return to_um(self.limit, self.unit)


@dataclass(frozen=True, slots=True)
class ProbeLine:
    """Application → stand-in: the probe was set down there."""

    panel: str
    u: float
    v: float


@dataclass(frozen=True, slots=True)
class WhoLine:
    """Application → gauge: say who you are. A gauge that does not know the question leaves it."""


Line = FilmLine | HelloLine | ProbeLine | WhoLine
WHO = "who"


def check_sum(words: str) -> str:
    """Two hexadecimal digits: the sum of the bytes modulo 256."""
    return f"{sum(words.encode('ascii', 'replace')) % 256:02x}"


def write_line(line: Line) -> bytes:
    """A line as it goes over the link."""
    if isinstance(line, FilmLine):
        value = line.status.value if line.value is None else f"{line.value:.2f}".rstrip("0").rstrip(".")
        battery = "" if line.battery is None else f" battery {line.battery}"
        words = f"film {value} {line.unit} {line.substrate}{battery}"
    elif isinstance(line, HelloLine):
        words = f"gauge {line.unit} step {line.step:g} limit {line.limit:g} name {line.name}"
    elif isinstance(line, WhoLine):
        words = WHO
    else:
        words = f"probe {line.panel} {line.u:.4f} {line.v:.4f}"
    return f"{words} #{check_sum(words)}\n".encode("ascii", "replace")


def read_line(raw: bytes) -> Line:
    """Read a line.

    Raises
    ------
    Garbled
        If it is too long, not ASCII, its check sum does not agree, or its words are not understood.
    """
    if len(raw) > LONGEST_LINE:
        raise Garbled("too long")
    try:
        words, mark, sum_said = raw.decode("ascii").strip().rpartition(" #")
    except UnicodeDecodeError as error:
        raise Garbled("not ASCII") from error
    if not mark or check_sum(words) != sum_said.lower():
        raise Garbled("check sum does not agree")
    if found := _FILM.fullmatch(words):
        return _film(*found.groups())
    if found := _HELLO.fullmatch(words):
        return _hello(*found.groups())
    if words == WHO:
        return WhoLine()
    if found := _PROBE.fullmatch(words):
        panel, u, v = found.groups()
        return ProbeLine(panel, float(u), float(v))
    raise Garbled("not understood")


def _hello(unit: str, step: str, limit: str, name: str) -> HelloLine:
    line = HelloLine(Unit(unit), float(step), float(limit), name.strip())
    if not line.name:
        raise Garbled("a gauge says its name")
    if not (0 < line.step_um <= MOST_STEP_UM and LEAST_LIMIT_UM <= line.limit_um <= MOST_UM):
        raise Garbled(f"no film gauge has a step of {step} and a limit of {limit} {unit}")
    return line


def _film(value: str, unit: str, substrate: str, battery: str | None) -> FilmLine:
    status = ReadingStatus(value) if value in ("over", "none") else ReadingStatus.OK
    number = float(value) if status is ReadingStatus.OK else None
    if number is not None and not 0 < number * (MICROMETRES_PER_MIL if unit == "mil" else 1) <= MOST_UM:
        raise Garbled("no film can be that thick or that thin")
    return FilmLine(
        number, Unit(unit), status, Substrate(substrate), None if battery is None else min(int(battery), 100)
    )
