"""Every job that waits on a vehicle, from what was measured, graded and proven."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from typing import Any

import numpy as np

from hakutsu.core.life.components import Component, Piece, Scheduled, fitted, life_factors, pieces, scheduled_items
from hakutsu.core.life.jobs import Basis, Job, Strand, apart, due_at, in_cases, strand
from hakutsu.core.life.survival import (
    AHEAD,
    MONTHS,
    Ages,
    Cases,
    Clocks,
    Floats,
    failing,
    first_of,
    likely_ages,
    new_survival,
    proven_age,
    proven_ages,
    survival,
)
from hakutsu.core.life.tables import GradesTable
from hakutsu.core.life.use import effect_words, hazard_factor
from hakutsu.entries.corners import Grade
from hakutsu.entries.settings import LifeFigures
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class Proof:
    """What is known of a part's age: distance [km] and time [years] since it was new or last done, and from what.

    `by_eye`: it looks new, and nothing else is known.
    """

    km: float | None
    years: float | None
    words: str
    by_eye: bool = False


@dataclass(frozen=True, slots=True)
class Given:
    """All that a vehicle's lives are reckoned from, beside what was measured.

    `km_per_year` is the buyer's, or assumed; `age_years` and `odometer_km` none where not known. `grades`, `proofs` and
    how it was `tested` by piece, `own` the inspector's figures by component; circumstances of `past` and `future` use;
    `because` says, by piece, from what a grade follows that nobody gave by hand.
    """

    mechanics: Mechanics
    doors: int
    km_per_year: float
    age_years: float | None = None
    odometer_km: float | None = None
    past: tuple[str, ...] = ()
    future: tuple[str, ...] = ()
    grades: Mapping[str, Grade] = field(default_factory=dict)
    proofs: Mapping[str, Proof] = field(default_factory=dict)
    own: Mapping[str, LifeFigures] = field(default_factory=dict)
    because: Mapping[str, str] = field(default_factory=dict)
    tested: Mapping[str, str] = field(default_factory=dict)


@cache
def grade_table() -> GradesTable:
    """How grades scale the hazard, and what is assumed of a vehicle of unknown age or distance."""
    return read_table("core.life", "grades", GradesTable)


def vehicle_ages(given: Given) -> tuple[list[tuple[float, float]], str]:
    """Distances [km] and ages [years] a vehicle may have, equally likely, and what was assumed; empty where nothing."""
    table = grade_table()["unknown"]
    rate = float(table["km_per_year"])
    age, km = given.age_years, given.odometer_km
    if age is not None and km is not None:
        return [(km, age)], ""
    if age is not None:
        return [(age * rate, age)], f"distance not known: {{distance {rate:.0f}}} a year assumed"
    if km is not None:
        return [(km, km / rate)], f"age not known: {{distance {rate:.0f}}} a year assumed"
    return [(y * rate, y) for y in table["years"]], "age and distance of the vehicle not known: wide"


def sees(tested: str) -> float:
    """What a way of testing does to the hazard of a part it found sound: the more it can see, the less is to come."""
    return next((float(row.hazard) for row in grade_table().sees if row.words in tested), 1.0)


def clocks_of(one: Component, given: Given, grade: Grade | None = None, tested: str = "") -> Clocks:
    """Its clocks: the inspector's figures where there are any, use, grade and how that was tested in the hazards."""
    own = given.own.get(one.key)
    km, years, beta = one.km, one.years, one.beta
    if one.stainless_years and given.mechanics.stainless_exhaust:
        years = one.stainless_years
    if own is not None:
        km, years = own.km and own.km * 1000, own.years
        beta = own.beta or beta
    scale = float(grade_table()["hazard"].get(grade.value if grade else "", 1.0))
    if grade in (Grade.FRESH, Grade.SOUND):
        scale *= sees(tested)
    return Clocks(
        km, years, beta, hazard_factor(one.key, given.past), hazard_factor(one.key, given.future) * scale
    )  # fmt: skip


class _Survivals:
    """Survival of pieces, each distinct one computed once."""

    def __init__(self, given: Given) -> None:
        self._given, self._kept = given, dict[Any, Cases]()
        self._ages = dict[Any, Ages]()
        self.vehicle, self.assumed = vehicle_ages(given)

    def alive(self, piece: Piece) -> Cases:
        """Survival of one piece by its grade and the age it may have."""
        grade = self._given.grades.get(piece.key)
        proof = self._given.proofs.get(piece.key)
        clocks = clocks_of(piece.component, self._given, grade, self._given.tested.get(piece.key, ""))
        key = (clocks, proof and (proof.km, proof.years, proof.by_eye), grade)
        if key not in self._kept:
            self._kept[key] = self._reckoned(clocks, grade, proof)
        return self._kept[key]

    def _reckoned(self, clocks: Clocks, grade: Grade | None, proof: Proof | None) -> Cases:
        found = survival(clocks, self.ages(clocks, proof), self._given.km_per_year)
        if grade is Grade.FAILED:
            return Cases(np.zeros_like(found.alive), found.weight)
        if grade is not Grade.FAILING:
            return found
        row = grade_table()["failing"]
        median = min(row["km"] / self._given.km_per_year * MONTHS, row["months"])
        return Cases(np.minimum(failing(median, row["gsd"]), found.alive), found.weight)

    def ages(self, clocks: Clocks, proof: Proof | None) -> Ages:
        """Ages of a part: proven, or by renewal over what the vehicle may be."""
        if proof is not None and (proof.km is not None or proof.years is not None):
            km, years = self.vehicle[len(self.vehicle) // 2]
            rate = km / years if years > 0 else self._given.km_per_year
            old = proof.years if proof.years is not None else (proof.km or 0.0) / max(rate, 1.0)
            return proven_age(clocks, proof.km if proof.km is not None else old * rate, old, life_factors())
        if proof is not None and proof.by_eye:
            return self._looks_new(clocks)
        key = (clocks.km, clocks.years, clocks.beta, clocks.past)
        if key not in self._ages:
            self._ages[key] = likely_ages(clocks, self.vehicle, life_factors())
        return self._ages[key]

    def _looks_new(self, clocks: Clocks) -> Ages:
        """Ages of a part that looks new: wide, and never older than the vehicle."""
        km, years = self.vehicle[len(self.vehicle) // 2]
        rate = km / years if years > 0 else self._given.km_per_year
        ages = [min(float(one), years) for one in grade_table().looks_new.years]
        return proven_ages(clocks, [(one * rate, one) for one in ages], life_factors())


def survival_jobs(given: Given) -> list[Job]:
    """A job for every piece the vehicle has; both sides of an axle are one where they are done together."""
    survivals = _Survivals(given)
    grouped: dict[str, list[Piece]] = {}
    for piece in pieces(given.mechanics, given.doors):
        if piece.component.looked_only and not _bad(given.grades.get(piece.key)):
            continue
        axle = piece.corner.split("_")[0] if piece.component.axle_job else piece.corner
        grouped.setdefault(f"{piece.component.key}:{axle}" if axle else piece.component.key, []).append(piece)
    return [_survival_job(key, mine, given, survivals) for key, mine in grouped.items()]


def _bad(grade: Grade | None) -> bool:
    return grade in (Grade.FAILING, Grade.FAILED)


def _survival_job(key: str, mine: Sequence[Piece], given: Given, survivals: _Survivals) -> Job:
    one = mine[0].component
    grades = [given.grades.get(piece.key) for piece in mine]
    if one.looked_only:
        ends = strand(apart([_looked(grade, given) for grade in grades]), np.ones(len(AHEAD)))
    else:
        new = new_survival(clocks_of(one, given), given.km_per_year, life_factors()).alive ** len(mine)
        ends = in_cases(first_of([survivals.alive(piece) for piece in mine]), new, one.key)
    name = mine[0].name
    if one.axle_job:
        name = f"{one.plural}, {mine[0].corner.split('_')[0]}"
    return Job(
        key, name, one.job, _labour(one, mine[0].corner), Basis.FOUND if any(grades) else Basis.SURVIVAL,
        ends, tuple(_reasons(one, mine, given, survivals.assumed)), settle=any(map(_bad, grades)),
        places=tuple(f"wheel_{piece.corner}" for piece in mine if piece.corner),
    )  # fmt: skip


def _looked(grade: Grade | None, given: Given) -> Floats:
    row = grade_table()["failing"]
    if grade is Grade.FAILED:
        return np.zeros(len(AHEAD))
    if grade is Grade.FAILING:
        return failing(min(row["km"] / given.km_per_year * MONTHS, row["months"]), row["gsd"])
    return np.ones(len(AHEAD))


def _labour(one: Component, corner: str) -> str:
    if not one.labour or not corner or one.corners == "doors":
        return one.labour
    return f"{one.labour}, {corner.split('_')[0] if one.axle_job else corner}"


def _reasons(one: Component, mine: Sequence[Piece], given: Given, assumed: str) -> Iterable[str]:
    for piece in mine:
        side = f"{{{piece.corner.split('_')[1]}}} " if len(mine) > 1 else ""
        if grade := given.grades.get(piece.key):
            words = given.because.get(piece.key)
            tested = given.tested.get(piece.key, "")
            how = f", {tested}" if tested and not words else ""
            yield f"{side}{words}: counted as {grade}" if words else f"{side}graded {grade}{how}"
            if grade in (Grade.FRESH, Grade.SOUND) and sees(tested) < 1:
                yield f"{side}tested that way less is to come: ×{sees(tested):g}"
        if proof := given.proofs.get(piece.key):
            yield f"{side}{proof.words}"
    if one.looked_only:
        return
    clocks = clocks_of(one, given)
    lives = [f"{{distance {clocks.km:.0f}}}" if clocks.km else "", f"{clocks.years:.3g} years" if clocks.years else ""]
    own = " by your own figures" if one.key in given.own else ""
    yield f"characteristic life {' or '.join(life for life in lives if life)}{own}: {one.basis}"
    if not all(piece.key in given.proofs for piece in mine):
        yield assumed or "age of the part not proven: it may be the first or a later one"
    for words in effect_words(one.key, given.future):
        yield f"use to come: {words}"
    for words in effect_words(one.key, given.past):
        yield f"use so far: {words}"


def scheduled_jobs(given: Given) -> list[Job]:
    """What is due by distance and time since it was last proven done; without proof it is due."""
    return [_scheduled(one, given) for one in scheduled_items().values() if fitted(one, given.mechanics)]


def own_rate(given: Given) -> float | None:
    """How far the vehicle has run a year [km] so far; none where its age or distance is not known."""
    age, km = given.age_years, given.odometer_km
    return km / max(age, 1 / MONTHS) if age is not None and km is not None else None


def _since(proof: Proof | None, given: Given) -> tuple[tuple[float, float] | None, str]:
    """Distance [km] and time [years] since something was last done, both clocks, and from what that is known.

    A clock that was not proven runs at the vehicle's own rate; nothing is longer ago than the vehicle is old.
    """
    age, odometer = given.age_years, given.odometer_km
    if proof is not None and proof.km is None and proof.years is None:
        return None, f"{proof.words}: when is not told, so due"
    rate = own_rate(given) or given.km_per_year
    if proof is None:
        if age is None and odometer is None:
            return None, "no proof that it was done: due"
        km = odometer if odometer is not None else (age or 0.0) * rate
        return (km, age if age is not None else km / rate), "too young for it: counted from new"
    if proof.years is not None:
        years = proof.years if age is None else min(proof.years, age)
        km = proof.km if proof.km is not None else years * rate
    else:
        km = proof.km or 0.0
        years = km / max(rate, 1.0) if age is None else min(km / max(rate, 1.0), age)
    return (km if odometer is None else min(km, odometer), years), proof.words


def _scheduled(one: Scheduled, given: Given) -> Job:
    own = given.own.get(one.key)
    km, years = (own.km and own.km * 1000, own.years) if own else (one.km, one.years)
    per_month = given.km_per_year / MONTHS
    ends = [km / per_month if km else None, years * MONTHS if years else None]
    every = min((one for one in ends if one is not None), default=float(AHEAD[-1]))
    since, said = _since(given.proofs.get(one.key), given)
    due = 0.0
    if since is not None:
        left = [(km - since[0]) / per_month] if km else []
        left += [(years - since[1]) * MONTHS] if years else []
        due = max(0.0, min(left, default=0.0))
        if due <= 0 and one.key not in given.proofs:
            said = "no proof that it was done: due"
    lives = [f"{{distance {km:.0f}}}" if km else "", ("year" if years == 1 else f"{years:g} years") if years else ""]
    reasons = (said, f"every {' or '.join(life for life in lives if life)}: the maker’s booklet rules")
    alive = due_at(due)
    return Job(
        one.key, one.name, one.job, one.labour, Basis.SCHEDULED, strand(alive, due_at(every)), reasons, every=every,
        due=due,
    )  # fmt: skip


def renewed(ends: Strand) -> Strand:
    """A strand with a new part in it."""
    alive = ends.new if ends.weight is None else ends.weight @ ends.new
    return Strand(alive, ends.new, ends.new, ends.weight, ends.kind)


def without_found(job: Job) -> Job:
    """The job as it stands once it was done: a new part in its place."""
    fresh = renewed(job.strand)
    major = None if job.major is None else renewed(job.major)
    return replace(job, strand=fresh, major=major, due=job.every, cap=None, settle=False)
