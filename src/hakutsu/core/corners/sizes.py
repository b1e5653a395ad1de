"""Tyre sizes as text, and what follows from them.

References
----------
ISO 4000-1 (metric designations); ETRTO: rolling circumference 3.05·d of radial tyres, 2.99·d of bias tyres.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

INCH_MM = 25.4
USUAL_ASPECT = 82.0  # of sizes that name none, per cent
# Heights [% of the width] of sections in inches and of tyres on rims in millimetres: ours, from usual diameters.
OLD_ASPECT, MILLIMETRE_ASPECT = 97.0, 78.0
# Highest speed [km/h] by symbol (ETRTO); ZR without a symbol is above 240.
SPEEDS = {
    "J": 100, "K": 110, "L": 120, "M": 130, "N": 140, "P": 150, "Q": 160, "R": 170, "S": 180, "T": 190, "U": 200,
    "H": 210, "V": 240, "ZR": 241, "W": 270, "Y": 300,
}  # fmt: skip
RADIAL, BIAS = 3.05, 2.99

_METRIC = re.compile(
    r"(?P<prefix>P|LT|T|HL)?\s*(?P<width>\d{3})\s*(?:/\s*(?P<aspect>\d{2,3}))?\s*(?P<build>ZRF|ZR|RF|[SHV]R|R|D|B|-)\s*"
    r"(?P<rim>\d{2}(?:\.5)?)\s*(?P<light>C|LT)?",
    re.I,
)
_INCH = re.compile(
    r"(?P<over>\d{2}(?:\.\d+)?)\s*[x×]\s*(?P<width>\d{1,2}(?:\.\d+)?)\s*(?P<build>R|-)\s*(?P<rim>\d{2}(?:\.5)?)\s*(?P<light>LT)?",
    re.I,
)
_SECTION = re.compile(r"(?P<width>\d{1,2}\.\d{2})\s*(?P<build>[SH]?R|-|[x×])\s*(?P<rim>\d{2})(?!\d)", re.I)
_MM_RIM = re.compile(r"(?P<width>1\d{2})\s*(?P<build>/|-|R|[x×])\s*(?P<rim>3[0-9]{2}|4[0-9]{2})(?!\d)", re.I)
_SERVICE = re.compile(r"\(?\s*(?P<load>\d{2,3})(?:\s*/\s*(?P<dual>\d{2,3}))?\s*(?P<speed>[A-HJ-NP-WYZ]\d?)\s*\)?", re.I)


@dataclass(frozen=True, slots=True)
class TyreSize:
    """A size read from its text: width [mm], aspect [%], rim [in], diameter overall [mm]; load and speed if given."""

    text: str
    prefix: str
    width_mm: float
    aspect: float | None
    radial: bool
    rim_in: float
    diameter_mm: float
    light_truck: bool
    load: int | None
    dual_load: int | None
    speed: str
    extra_load: bool

    @property
    def circumference_m(self) -> float:
        """Rolling circumference [m]."""
        return (RADIAL if self.radial else BIAS) * self.diameter_mm / 1000

    @property
    def plain(self) -> tuple[float, float, float]:
        """Width, diameter and rim: what makes two sizes the same."""
        return round(self.width_mm, 1), round(self.diameter_mm, 1), self.rim_in


def tyre_size(text: str) -> TyreSize | None:
    """Read a size such as "205/55 R16 91V", "P205/75R15", "185 R14 C 102/100R", "31x10.50R15LT"; none if it is none.

    Old ones too: "6.40-13", "7.00 R16" (section in inches), "155 SR 13", "165/400" (rim in millimetres).
    """
    said = " ".join(text.split())
    for pattern, inches in ((_SECTION, True), (_MM_RIM, False)):
        if old := pattern.match(said):
            return _old_size(said, old, inches=inches)
    found, metric = _METRIC.match(said), True
    if found is None:
        found, metric = _INCH.match(said), False
    if found is None:
        return None
    rim = float(found["rim"])
    if metric:
        width = float(found["width"])
        aspect = float(found["aspect"]) if found["aspect"] else None
        diameter = rim * INCH_MM + 2 * width * (aspect or USUAL_ASPECT) / 100
    else:
        width, aspect, diameter = float(found["width"]) * INCH_MM, None, float(found["over"]) * INCH_MM
    rest = said[found.end() :]
    service = _SERVICE.search(re.sub(r"\bXL\b|\bRF\b|\bM\+S\b", " ", rest))
    build = found["build"].upper()
    prefix = (found["prefix"] or "").upper() if metric else ""
    return TyreSize(
        said,
        prefix,
        width,
        aspect,
        build not in ("-", "D", "B"),
        rim,
        diameter,
        bool(found["light"]) or prefix == "LT",
        int(service["load"]) if service else None,
        int(service["dual"]) if service and service["dual"] else None,
        _speed(build, service["speed"] if service else ""),
        bool(re.search(r"\bXL\b", rest, re.I)) or build == "RF",
    )


def _speed(build: str, symbol: str) -> str:
    """The speed symbol: as it stands behind the load, else the letter before R, as "SR" or "ZR"."""
    if symbol:
        return symbol.upper()
    return "ZR" if build.startswith("ZR") else build[0] if build in ("SR", "HR", "VR") else ""


def _old_size(said: str, found: re.Match[str], *, inches: bool) -> TyreSize:
    """A size of old: section in inches on a rim in inches, or section and rim in millimetres."""
    unit, aspect = (INCH_MM, OLD_ASPECT) if inches else (1.0, MILLIMETRE_ASPECT)
    width, rim_mm = float(found["width"]) * unit, float(found["rim"]) * unit
    service, build = _SERVICE.search(said[found.end() :]), found["build"].upper()
    symbol = build[0] if len(build) == 2 else ""
    return TyreSize(
        said, "", width, None, build.endswith("R"), rim_mm / INCH_MM, rim_mm + 2 * width * aspect / 100, False,
        int(service["load"]) if service else None, None, service["speed"].upper() if service else symbol, False,
    )  # fmt: skip


def fastest_km_h(symbol: str) -> int | None:
    """Highest speed [km/h] of a symbol; none of one that is not known. Source: ETRTO, speed symbols."""
    return SPEEDS.get(symbol)
