"""Remaining life, money and the negotiation sheet of one vehicle."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from typing import TYPE_CHECKING

from hakutsu.core.body.remedy import remedy_table
from hakutsu.core.claims import against
from hakutsu.core.costs import cost_table
from hakutsu.core.findings import Finding, axle_of, found, named_place
from hakutsu.core.life.components import CORNERS, Component, Scheduled, not_told
from hakutsu.core.life.jobs import Basis, Job
from hakutsu.core.life.money import Price, Spending, spending
from hakutsu.core.life.pack import PackGiven, pack_job
from hakutsu.core.life.reckon import (
    Given,
    Proof,
    grade_table,
    scheduled_jobs,
    survival_jobs,
    vehicle_ages,
    without_found,
)
from hakutsu.core.life.worn import Corners, worn_jobs
from hakutsu.core.negotiation import Priced, Sheet, items, negotiation
from hakutsu.dossier import CornersDossier
from hakutsu.dossier.memo import Memo, kept, kept_as_value
from hakutsu.entries.corners import PartProof
from hakutsu.entries.money import BLENDS, CLAIMS, JOBS, MARKS
from hakutsu.entries.opening import Brief
from hakutsu.reckoning.papers import PapersReckoned
from hakutsu.reckoning.service import ServiceReckoned
from hakutsu.vehicle.mechanics import Power
from hakutsu.vehicle.vocabulary import Consequence

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

FLUID = "brake_fluid"
PACKED = (Power.ELECTRIC, Power.HYBRID)
AXLE = "_axle"  # rows of the cost table that are done for both sides of an axle
NAMED = 5
SEIZED = ":seized"


def _middle(ends: Sequence[float]) -> float:
    return sum(ends) / len(ends)


class Lives:
    """Everything that waits on a vehicle; `km_per_year` and `future` stand in for the buyer's, to see what they do."""

    key = "lives"

    def __init__(
        self,
        reckoning: Reckoning,
        km_per_year: float | None = None,
        future: tuple[str, ...] | None = None,
        on: date | None = None,
    ) -> None:
        self._reckoning = reckoning
        self._tried = km_per_year, future
        self._on = on
        tries = km_per_year is not None or future is not None or on is not None
        self.memo = Memo(reckoning.stamp) if tries else reckoning.memo

    @property
    def _corners(self) -> CornersDossier:
        return self._reckoning.dossier.corners

    @property
    def _brief(self) -> Brief:
        return self._reckoning.dossier.opening.brief

    @property
    def _service(self) -> ServiceReckoned:
        return self._reckoning.station(ServiceReckoned)

    @property
    def _papers(self) -> PapersReckoned:
        return self._reckoning.station(PapersReckoned)

    @property
    def assumed(self) -> bool:
        """Whether nobody said how far the buyer drives."""
        return self._tried[0] is None and self._brief.km_per_year is None

    @property
    def km_per_year(self) -> float:
        """The buyer's distance in a year [km]."""
        usual = grade_table()["unknown"]["buyer_km_per_year"]
        return float(self._tried[0] or self._brief.km_per_year or usual)

    @property
    def future(self) -> tuple[str, ...]:
        """Uses to come, by their keys."""
        return self._brief.use_factors if self._tried[1] is None else self._tried[1]

    @property
    def on(self) -> date:
        """The day from which time is counted."""
        return self._on or self._reckoning.corners.on

    @kept_as_value
    def given(self) -> Given:
        """All that lives are reckoned from."""
        mechanics = self._reckoning.dossier.mechanics
        return Given(
            mechanics, self._reckoning.dossier.vehicle.doors, self.km_per_year, mechanics.age_years(self.on),
            self._papers.probable_km, self._reckoning.dossier.opening.brief.past_factors, self.future,
            self._reckoning.condition.grades, self._proofs(),
            self._service.intervals() | self._reckoning.settings.lives,
            {key: words for key, (_, words) in self._reckoning.condition.derived.items()},
            {key: seen.body.tested for key, seen in self._corners.gear.items() if seen.body.tested},
        )  # fmt: skip

    def _proofs(self) -> dict[str, Proof]:
        found = {key: self._proof(seen.body) for key, seen in self._reckoning.dossier.money.proofs.items()}
        if FLUID not in found and self._reckoning.corners.fluid_good:
            found[FLUID] = Proof(None, 1.0, "tested good: counted as a year old")
        for key, proof in self._service.proofs().items():
            told = found.get(key)
            if told is None or (proof.years is not None and (told.years is None or proof.years < told.years)):
                found[key] = proof
        for part, (years, made) in self._papers.part_ages().items():
            found.setdefault(part, Proof(None, years, f"dated {made}"))
        return found

    def _proof(self, body: PartProof) -> Proof:
        years, odometer = None, self._reckoning.dossier.mechanics.odometer_km
        if body.when:
            year, month = (int(one) for one in (body.when if "-" in body.when else f"{body.when}-07").split("-"))
            years = max(0.0, (self.on - date(year, month, 1)).days / 365.25)
        km = max(0.0, odometer - body.at_km) if odometer is not None and body.at_km is not None else None
        at = "" if body.at_km is None else f"at {{distance {body.at_km}}}"
        known = years is not None or km is not None
        new = "looks new" if body.looks_new and not known else "new"
        words = " ".join(word for word in (new, body.when, at, f"({body.proof})") if word)
        return Proof(km, years, words, by_eye=body.looks_new and not known)

    @kept
    def _worn(self) -> list[Job]:
        """Jobs of what was measured."""
        rules = self._reckoning.rules
        measured = Corners(
            self._reckoning.corners.tyres_told,
            self._reckoning.corners.brakes_told,
            rules,
            self.on,
            self._reckoning.corners.out,
        )
        return worn_jobs(self.given, measured)

    @kept
    def _others(self) -> list[Job]:
        """Jobs of what was not measured."""
        return survival_jobs(self.given) + scheduled_jobs(self.given) + self._pack()

    @kept
    def jobs(self) -> list[Job]:
        """Every job, the earliest first."""
        found = [self._seized(self._condemned(job)) for job in self._worn + self._others]
        return sorted(found, key=lambda job: (not job.settle, job.months().median))

    def _pack(self) -> list[Job]:
        """The high-voltage pack, where this vehicle has one of known age."""
        mechanics, body = self._reckoning.dossier.mechanics, self._reckoning.engine.pack_read
        known = vehicle_ages(self.given)[0] if mechanics.age_years(self.on) is not None else []
        if mechanics.power not in PACKED or not known:
            return []
        km, years = known[0]
        health, cycles = (body.health, body.cycles) if body is not None else (None, None)
        return [pack_job(PackGiven(mechanics.power.value, years, km, self.km_per_year, health, cycles))]

    def _condemned(self, job: Job) -> Job:
        """Fluids that a test or a look condemns are due now; settled where the rule says so."""
        said = dict(self._reckoning.condition.due)
        bad = [one.words for one in self._reckoning.corners.fluid if one.settles]
        said |= {FLUID: (bad[0], True)} if bad else {}
        if job.key not in said:
            return job
        words, settle = said[job.key]
        return replace(job, due=0.0, settle=settle, basis=Basis.MEASURED, reasons=(words, *job.reasons[1:]))

    @kept
    def prices(self) -> dict[str, Price]:
        """What every job of the cost table usually costs: the middle of its range, by how parts for this vehicle are to
        be had, and of each also with fixings that are seized.
        """
        settings, mechanics, table = self._reckoning.settings, self._reckoning.dossier.mechanics, remedy_table()
        supply, access = (_middle(one) for one in (table.supply[mechanics.parts.value], table.seized.hours))
        rate, found = float(settings.labour_rate), {}
        for key, job in cost_table(settings.costs).items():
            hours, materials = _middle(job.figures.hours) * rate, _middle(job.figures.materials) * supply
            found[key] = Price(hours * access if mechanics.seized else hours, materials)
            found[key + SEIZED] = Price(hours * access, materials)
        return found

    def _seized(self, job: Job) -> Job:
        """The job as dear as it is where fixings of one of its pieces are seized."""
        gear, (part, _, end) = self._corners.gear, job.key.partition(":")
        keys = {job.key} | {f"{part}:{corner}" for corner in CORNERS if end in ("", corner.partition("_")[0])}
        if not any(gear[key].body.seized for key in keys if key in gear):
            return job
        why = "fixings seized or corroded: it takes longer"
        return replace(job, cost=job.cost + SEIZED, major_cost=job.major_cost and job.major_cost + SEIZED,
                       reasons=(*job.reasons, why))  # fmt: skip

    def price(self, job: Job) -> float:
        """What a job usually costs; the larger one where its strand ends as early."""
        if job.major is not None and job.settle and job.major.alive[1] < 0.5:
            return self.prices[job.major_cost].total
        return self.prices[job.cost].total

    @property
    def settle(self) -> list[Job]:
        """Jobs found that are due now, to be settled before paying."""
        return [job for job in self.jobs if job.settle]

    @kept_as_value
    def _charged_now(self) -> set[str]:
        """Jobs that the negotiation sheet settles: they are not charged a second time below."""
        return {line.item.subject for line in self.sheet.treated(Consequence.SETTLE) if line.item.code == JOBS}

    @kept
    def spending(self) -> list[Spending]:
        """Spending within 12, 24 and 36 months after what is settled now was done: one defect is charged once."""
        return spending(
            [without_found(job) if job.key in self._charged_now else job for job in self.jobs], self.prices
        )  # fmt: skip

    @kept
    def sheet(self) -> Sheet:
        """The negotiation sheet: every finding that is on it by the one rule."""
        brief = self._reckoning.dossier.opening.brief
        said = {key: seen.body for key, seen in self._reckoning.dossier.money.lines.items()}
        on_top = [(name, amount) for name, amount in (("fees", brief.fees), ("transport", brief.transport)) if amount]
        return negotiation(
            items(self._reckoning.findings, self.priced), said, brief.asking_price, brief.currency,
            on_top if brief.auction else None,
        )  # fmt: skip

    def priced(self, finding: Finding) -> Priced | None:
        """What mends a finding: a job that waits, the marks of its part, a claim as priced, a row of the costs."""
        if finding.code == CLAIMS:
            dossier = self._reckoning.dossier
            amount = dossier.money.claims_priced[finding.subject].body.amount
            kind = next(claim.kind for entry, claim in dossier.claims.said if str(entry.id) == finding.subject)
            return Priced(CLAIMS, finding.subject, finding.words, float(amount), against(kind))
        if finding.code == BLENDS:
            expected = sum(cost.expected for cost in self._reckoning.outside.sheet_costs.blends.values())
            return Priced(BLENDS, finding.subject, finding.words, expected)
        if finding.subject in self._marked and finding.evidence[0] in self._reckoning.dossier.body.blemishes:
            words = f"{{place {finding.subject}}}: put right what is marked"
            return Priced(MARKS, finding.subject, words, self._marked[finding.subject])
        job = self.job_of(finding)
        if job is not None:
            return Priced(JOBS, job.key, job.name, self.price(job))
        if finding.job in self.prices:
            name, where = cost_table(self._reckoning.settings.costs)[finding.job].name, finding.at
            axle = axle_of(finding.subject)
            key = f"{finding.job}:{axle if finding.job.endswith(AXLE) and axle else where}"
            place = named_place(finding.subject)
            where = f"{{place {place}}}: {name}" if place else name
            words = f"{name}, {axle}" if finding.job.endswith(AXLE) and axle else where
            return Priced(JOBS, key, words, self.prices[finding.job].total)
        return None

    @kept
    def _marked(self) -> dict[str, float]:
        """Expected cost of putting right the marks of each part that are on the sheet; what a mark costs on parts it
        runs on over counts where it was noted, unless these have marks of their own.
        """
        outside = self._reckoning.outside
        found = {mark.place: 0.0 for mark in outside.asked_for}
        for one in outside.sheet_costs.parts:
            noted = {mark.entry.id: mark.place for mark in outside.asked_for}
            found[one.part if one.part in found else noted[one.wanted[0].entry]] += one.cost.expected
        return found

    @kept
    def _by_key(self) -> dict[str, Job]:
        return {job.key: job for job in self.jobs}

    def job_of(self, finding: Finding) -> Job | None:
        """The job that mends a finding: of its own piece, of its corner, of its axle, or of the whole vehicle."""
        if not finding.job:
            return None
        part, _, corner = finding.job.partition(":")
        corner = corner or finding.at.removeprefix("wheel_")
        axle = corner.partition("_")[0] if corner in CORNERS else axle_of(finding.subject)
        wanted = (f"{part}:{corner}", f"{part}:{axle}", part)
        return next((self._by_key[key] for key in wanted if key in self._by_key), None)

    def worn_out(self, findings: Sequence[Finding]) -> list[Finding]:
        """Jobs due now by what was measured or graded that no other finding speaks of."""
        told = {job.key for one in findings if (job := self.job_of(one)) is not None}
        dossier, seen = self._reckoning.dossier, []
        for job in self.settle:
            if job.key not in told:
                tables = (dossier.corners.tyres, dossier.corners.brakes)
                mine = [table[wheel].entry.id for table in tables for wheel in job.places if wheel in table]
                part = job.key.partition(":")[0]
                mine += [one.entry.id for key, one in dossier.corners.gear.items() if key.partition(":")[0] == part]
                facts = dossier.facts.entry
                mine = mine or ([facts.id] if facts is not None else [dossier.first.id])
                words = f"{job.name}: due now"
                seen.append(found("life.worn_out", job.key, words, job.reasons[:1], job=job.key).seen_in(*mine))
        return seen

    @property
    def left_out(self) -> list[Component | Scheduled]:
        """Parts not reckoned, because it is not told whether the vehicle has them: what is spent is too low."""
        return not_told(self.given.mechanics)

    @kept
    def unknown(self) -> list[str]:
        """What is not known and makes this wide, in words."""
        found = []
        _, assumed = vehicle_ages(self.given)
        if assumed:
            found.append(assumed)
        if rows := self.left_out:
            names = ", ".join(row.name for row in rows[:NAMED])
            more = f" and {len(rows) - NAMED} more" if len(rows) > NAMED else ""
            found.append(f"not reckoned, because it is not told what this vehicle has: {names}{more}")
        if not self._corners.tyres:
            found.append("no tyre measured: anything between new and worn out")
        if not self._corners.brakes:
            found.append("no brake measured: anything between new and worn out")
        if self.assumed:
            found.append(f"the buyer’s yearly distance is not known: {{distance {self.km_per_year}}} assumed")
        return found
