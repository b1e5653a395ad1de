"""Jobs from what was measured: tyres and brakes by axle, the earlier of what is done together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date

import numpy as np

from hakutsu.core.beyond import SURE, chance_beyond
from hakutsu.core.corners.tyres import age_years, new_depth, ruling_depth
from hakutsu.core.life.jobs import Basis, Job, Strand, strand, together
from hakutsu.core.life.measured import Wear, WearCase, new_life, wear, wear_table
from hakutsu.core.life.reckon import Given, Proof
from hakutsu.core.life.survival import AHEAD, MONTHS, Floats, failing
from hakutsu.core.life.use import effect_words, wear_factor
from hakutsu.entries.corners import Brake, Method, Tyre
from hakutsu.vehicle.mechanics import BrakeKind, Drive
from hakutsu.vehicle.rules import RuleSet

AXLES = ("front", "rear")
WHEELS_OF = {axle: (f"wheel_{axle}_left", f"wheel_{axle}_right") for axle in AXLES}


@dataclass(frozen=True, slots=True)
class Corners:
    """What was measured at the wheels, by wheel, with the rule set and the day.

    `out` is why a tyre (by its wheel) or the brakes of an axle are done with, whatever their thickness.
    """

    tyres: Mapping[str, Tyre]
    brakes: Mapping[str, Brake]
    rules: RuleSet
    now: date
    out: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class _Measured:
    """One measured part: its curve with and without the owner's factor, what replaces it, and its basis."""

    strand: Strand
    basis: tuple[str, ...]
    cap: float | None = None


def worn_jobs(given: Given, corners: Corners) -> list[Job]:
    """Tyres and brakes of both axles; what nobody measured counts as anything between new and worn out."""
    found = [_tyres(axle, given, corners) for axle in AXLES]
    return found + [job for axle in AXLES if (job := _brakes(axle, given, corners)) is not None]


def _drive(given: Given) -> str | None:
    drive = given.mechanics.drive
    return None if drive is Drive.UNKNOWN else drive.value


def _since(given: Given, proof: Proof | None) -> tuple[float, float] | None:
    """Distance since a part was new by its proof [km]: what the meter says, or the vehicle's usual distance in that
    time, give or take a quarter.
    """
    if proof is None:
        return None
    if proof.km is not None:
        return proof.km, proof.km
    if proof.years is not None and given.age_years and given.odometer_km is not None:
        km = min(proof.years * given.odometer_km / given.age_years, given.odometer_km)
        return 0.75 * km, min(1.25 * km, given.odometer_km)
    return None


def _nearly_new(given: Given, component: str, axle: str) -> tuple[float, float] | None:
    """No part has run further than its vehicle, which tells something while one set of them is hardly used up."""
    usual = new_life(WearCase("", component, axle, _drive(given), None, regenerative=given.mechanics.regenerative))
    odometer = given.odometer_km
    return (0.0, odometer) if usual is not None and odometer is not None and odometer < usual[0] else None


def _proof(given: Given, what: str, wheel: str) -> Proof | None:
    return given.proofs.get(f"{what}:{wheel.removeprefix('wheel_')}") or given.proofs.get(what)


def tyre_case(wheel: str, tyre: Tyre | None, given: Given, corners: Corners) -> WearCase:
    """A tyre as the measured-wear rules see it."""
    axle = wheel.split("_")[1]
    depth = ruling_depth(tyre, corners.rules.tread_mm) if tyre else None
    age = age_years(tyre, corners.now) if tyre else None
    since = _since(given, _proof(given, "tyres", wheel))
    if since is None and age is not None and given.odometer_km is not None:
        rate = given.odometer_km / given.age_years if given.age_years else wear_table()["reach"]["km_a_year"]
        since = (0.0, min(given.odometer_km, 1.25 * age * rate))
    since = since or (_nearly_new(given, "tyre", axle) if age is None else None)
    new = new_depth(tyre) if tyre else 8.0
    return WearCase(
        wheel, "tyre", axle, _drive(given), depth.mm if depth else None, str(depth.method) if depth else "gauge",
        new_mm=None if new == 8.0 else new, limit_mm=corners.rules.tread_mm, since_km=since, age_years=age,
        km_per_year=given.km_per_year, use=wear_factor("tyre", given.future),
    )  # fmt: skip


def _tyres(axle: str, given: Given, corners: Corners) -> Job:
    parts = [_tyre(wheel, given, corners) for wheel in WHEELS_OF[axle]]
    known = [corners.tyres.get(wheel) for wheel in WHEELS_OF[axle]]
    found = (ruling_depth(one, corners.rules.tread_mm) for one in known if one is not None)
    depths = [one for one in found if one is not None]
    caps = [one.cap for one in parts if one.cap is not None]
    job = Job(
        f"tyres:{axle}", f"tyres, {axle}", "tyre_axle", f"wheels, {axle}",
        Basis.MEASURED if depths else Basis.NOT_MEASURED, _first(parts), _reasons(parts, "tyre", given),
        cap=min(caps, default=None), places=WHEELS_OF[axle],
    )  # fmt: skip
    if any(wheel in corners.out for wheel in WHEELS_OF[axle]):
        return _settled(job, sure=True)
    return _settled(job, sure=any(one.method is Method.GAUGE and one.mm <= corners.rules.tread_mm for one in depths))


def _tyre(wheel: str, given: Given, corners: Corners) -> _Measured:
    tyre = corners.tyres.get(wheel)
    case = tyre_case(wheel, tyre, given, corners)
    found = _curve(case, given)
    assert found is not None
    if wheel in corners.out:
        nothing = np.zeros(len(AHEAD))
        return _Measured(Strand(nothing, nothing, found.strand.new), (f"{_side(wheel)}: {corners.out[wheel]}",))
    if case.age_years is None:
        return found
    cap = max(0.0, wear_table()["tyre"]["years"] - case.age_years) * MONTHS
    return replace(
        found, cap=cap, basis=(*found.basis, f"{_side(wheel)}: ten years of age in {cap / MONTHS:.1f} years")
    )


def _side(wheel: str) -> str:
    return f"{{{wheel.rsplit('_', 1)[1]}}}"


def _curve(case: WearCase, given: Given) -> _Measured | None:
    found, fresh = wear(case), new_life(case)
    if not isinstance(found, Wear) or fresh is None:
        return None
    km = AHEAD * given.km_per_year / MONTHS
    alive, own = found.survival(km), found.survival(km, owner=False)
    new = failing(fresh[0] / given.km_per_year * MONTHS, fresh[1])
    side = f"{_side(case.case)}: " if case.case.startswith("wheel_") else ""
    return _Measured(Strand(alive, own, new), (side + "; ".join(found.basis),))


def _thinnest(cases: Sequence[WearCase]) -> list[WearCase]:
    """Those that can come due first: of parts alike but for their thickness, a thinner one never lasts longer."""
    found: dict[WearCase, WearCase] = {}
    for case in sorted(cases, key=lambda one: one.now_mm or 0.0, reverse=True):
        found[replace(case, case="", now_mm=None)] = case
    return list(found.values())


def _first(parts: Sequence[_Measured]) -> Strand:
    curves: list[list[Floats]] = [[one.strand.alive, one.strand.own, one.strand.new] for one in parts]
    alive, own, new = (together([one[i] for one in curves]) for i in range(3))
    return strand(alive, new, own)


def _reasons(parts: Sequence[_Measured], component: str, given: Given) -> tuple[str, ...]:
    lines = [line for one in parts for line in one.basis]
    return (*dict.fromkeys(lines), *(f"use to come: {one}" for one in effect_words(component, given.future, "wear")))


def pad_cases(axle: str, given: Given, corners: Corners) -> list[WearCase]:
    """The pads measured on an axle, each as the measured-wear rules see it; one not measured where none was."""
    common = {"regenerative": given.mechanics.regenerative, "km_per_year": given.km_per_year}
    use, drive, found = wear_factor("pad", given.future), _drive(given), list[WearCase]()
    bound = _nearly_new(given, "pad", axle)
    for wheel in WHEELS_OF[axle]:
        brake = corners.brakes.get(wheel)
        since = _since(given, _proof(given, "pads", wheel)) or bound
        if brake is None:
            continue
        for mm in (brake.pad_inner_mm, brake.pad_outer_mm):
            if mm is not None:
                case = WearCase(wheel, "pad", axle, drive, mm, str(brake.pad_method), since_km=since, use=use, **common)  # type: ignore[arg-type]
                found.append(case)
        if brake.pad_range_mm and not found:
            mm = sum(brake.pad_range_mm) / 2
            found.append(WearCase(wheel, "pad", axle, drive, mm, "eye", since_km=since, use=use, **common))  # type: ignore[arg-type]
    return found or [WearCase("", "pad", axle, drive, None, since_km=bound, use=use, **common)]  # type: ignore[arg-type]


def disc_cases(axle: str, given: Given, corners: Corners) -> list[WearCase]:
    """The discs measured on an axle; what they were when new falls back on nothing."""
    found = []
    for wheel in WHEELS_OF[axle]:
        brake = corners.brakes.get(wheel)
        if brake is None or not brake.disc_mm:
            continue
        since = _since(given, _proof(given, "discs", wheel))
        found.append(
            WearCase(
                wheel, "disc", axle, _drive(given), min(brake.disc_mm), str(brake.disc_method), brake.disc_new_mm,
                brake.disc_min_mm, since, km_per_year=given.km_per_year, use=wear_factor("disc", given.future),
            )
        )  # fmt: skip
    return found


def _brakes(axle: str, given: Given, corners: Corners) -> Job | None:
    here = [brake for wheel in WHEELS_OF[axle] if (brake := corners.brakes.get(wheel)) is not None]
    pads = pad_cases(axle, given, corners)
    measured = pads[0].now_mm is not None
    kind = getattr(given.mechanics, f"{axle}_brakes")
    drums = kind == BrakeKind.DRUM or (axle == "rear" and kind == BrakeKind.UNKNOWN)
    if (drums or any(one.lining_mm is not None for one in here)) and not measured:
        return None
    parts = [one for case in _thinnest(pads) if (one := _curve(case, given)) is not None]
    read = disc_cases(axle, given, corners)
    discs = [one for case in _thinnest(read) if (one := _curve(case, given)) is not None]
    reasons = _reasons(parts, "pad", given)
    if discs:
        reasons += tuple(f"disc {line}" for line in _reasons(discs, "disc", given))
    elif any(one.disc_mm for one in here):
        reasons += ("discs: not reckoned without their minimum and their thickness when new",)
    if given.mechanics.regenerative:
        reasons += ("the motor brakes too: corrosion may end the discs before wear",)
    job = Job(
        f"brakes:{axle}", f"brake pads, {axle}", "pads_axle", f"wheels, {axle}",
        Basis.MEASURED if measured else Basis.NOT_MEASURED, _first(parts), reasons,
        major=_first(discs) if discs else None, major_cost="discs_axle", places=WHEELS_OF[axle],
    )  # fmt: skip
    if axle in corners.out:
        nothing = np.zeros(len(AHEAD))
        gone = strand(nothing, job.strand.new)
        job = replace(job, strand=gone, cost="discs_axle", reasons=(corners.out[axle], *reasons), basis=Basis.FOUND)
    return _settled(job, sure=axle in corners.out or any(map(_at_its_limit, pads + read)))


def _at_its_limit(case: WearCase) -> bool:
    """Whether a gauge read it under its limit beyond doubt."""
    row = getattr(wear_table(), case.component)
    limit = row.get("limit_mm") if case.limit_mm is None else case.limit_mm
    if case.method != Method.GAUGE or case.now_mm is None or limit is None:
        return False
    return chance_beyond(limit - case.now_mm, float(row.sd_mm[Method.GAUGE.value])) >= SURE


def _settled(job: Job, *, sure: bool) -> Job:
    """A job that was measured and whose median is nothing is settled now: where something sure says so, condemned or
    below what law asks by a gauge; else only where it is all but sure.
    """
    median = job.months().median
    limited = job.cap is not None and job.cap <= median
    known = job.basis is not Basis.NOT_MEASURED or sure
    now = known and median <= 0 and (sure or limited or 1 - float(job.alive[0]) >= SURE)
    return replace(job, settle=now, limited_by="age" if limited else "wear")
