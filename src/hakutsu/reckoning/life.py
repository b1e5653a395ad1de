"""Remaining life, money and the negotiation sheet of one vehicle."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from functools import cached_property
from typing import TYPE_CHECKING

from hakutsu.core.corners.found import Follows, Found
from hakutsu.core.costs import cost_table
from hakutsu.core.life.components import Component, Scheduled, not_told
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
from hakutsu.core.negotiation import Item, Sheet, negotiation
from hakutsu.entries.corners import PartProof
from hakutsu.entries.money import Treat
from hakutsu.vehicle.mechanics import Power

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

FLUID = "brake_fluid"
PACKED = (Power.ELECTRIC, Power.HYBRID)
REFINISHED_FROM = 0.5
NAMED = 5


class Lives:
    """Everything that waits on a vehicle; `km_per_year` and `future` stand in for the buyer's, to see what they do."""

    def __init__(
        self, reckoning: Reckoning, km_per_year: float | None = None, future: tuple[str, ...] | None = None
    ) -> None:
        self._reckoning = reckoning
        self._corners = reckoning.dossier.corners
        brief = reckoning.dossier.opening.brief
        self.assumed = km_per_year is None and brief.km_per_year is None
        self.km_per_year = float(
            km_per_year or brief.km_per_year or grade_table()["unknown"]["buyer_km_per_year"]
        )  # fmt: skip
        self.future = brief.use_factors if future is None else future

    @property
    def on(self) -> date:
        """The day from which time is counted."""
        return self._reckoning.corners.on

    @cached_property
    def given(self) -> Given:
        """All that lives are reckoned from."""
        mechanics = self._corners.mechanics
        return Given(
            mechanics, self._reckoning.dossier.vehicle.doors, self.km_per_year, mechanics.age_years(self.on),
            mechanics.odometer_km, self._reckoning.dossier.opening.brief.past_factors, self.future,
            self._reckoning.condition.grades, self._proofs(), self._reckoning.settings.lives,
            {key: words for key, (_, words) in self._reckoning.condition.derived.items()},
        )  # fmt: skip

    def _proofs(self) -> dict[str, Proof]:
        found = {key: self._proof(seen.body) for key, seen in self._corners.proofs.items()}
        if FLUID not in found and self._reckoning.corners.fluid_good:
            found[FLUID] = Proof(None, 1.0, "tested good: counted as a year old")
        return found

    def _proof(self, body: PartProof) -> Proof:
        years, odometer = None, self._corners.mechanics.odometer_km
        if body.when:
            year, month = (int(one) for one in (body.when if "-" in body.when else f"{body.when}-07").split("-"))
            years = max(0.0, (self.on - date(year, month, 1)).days / 365.25)
        km = max(0.0, odometer - body.at_km) if odometer is not None and body.at_km is not None else None
        at = "" if body.at_km is None else f"at {{distance {body.at_km}}}"
        return Proof(km, years, " ".join(word for word in ("new", body.when, at, f"({body.proof})") if word))

    @cached_property
    def jobs(self) -> list[Job]:
        """Every job, the earliest first."""
        rules, corners = self._reckoning.rules, self._corners
        measured = Corners(
            {wheel: one.body for wheel, one in corners.tyres.items()},
            {wheel: one.body for wheel, one in corners.brakes.items()},
            rules,
            self.on,
            self._reckoning.corners.out,
        )
        found = worn_jobs(self.given, measured) + survival_jobs(self.given) + scheduled_jobs(self.given) + self._pack()
        return sorted((self._condemned(job) for job in found), key=lambda job: (not job.settle, job.months().median))

    def _pack(self) -> list[Job]:
        """The high-voltage pack, where this vehicle has one of known age."""
        mechanics, seen = self._corners.mechanics, self._reckoning.dossier.engine.pack
        known = vehicle_ages(self.given)[0] if mechanics.age_years(self.on) is not None else []
        if mechanics.power not in PACKED or not known:
            return []
        (km, years), body = known[0], seen.body if seen is not None else None
        health, cycles = (body.health, body.cycles) if body is not None else (None, None)
        return [pack_job(PackGiven(str(mechanics.power), years, km, self.km_per_year, health, cycles))]

    def _condemned(self, job: Job) -> Job:
        """Fluids that a test or a look condemns are due now; settled where the rule says so."""
        said = dict(self._reckoning.condition.due)
        bad = [one.words for one in self._reckoning.corners.fluid if one.follows is Follows.SETTLE]
        said |= {FLUID: (bad[0], True)} if bad else {}
        if job.key not in said:
            return job
        words, settle = said[job.key]
        return replace(job, due=0.0, settle=settle, basis=Basis.MEASURED, reasons=(words, *job.reasons[1:]))

    @cached_property
    def prices(self) -> dict[str, Price]:
        """What every job of the cost table usually costs: the middle of its range."""
        settings = self._reckoning.settings
        rate = float(settings.labour_rate)
        found = {}
        for key, job in cost_table(settings.costs).items():
            hours, materials = (sum(one) / 2 for one in (job.figures.hours, job.figures.materials))
            found[key] = Price(hours * rate, materials)
        return found

    def price(self, job: Job) -> float:
        """What a job usually costs; the larger one where its strand ends as early."""
        if job.major is not None and job.settle and job.major.alive[1] < 0.5:
            return self.prices[job.major_cost].total
        return self.prices[job.cost].total

    @property
    def settle(self) -> list[Job]:
        """Jobs found that are due now, to be settled before paying."""
        return [job for job in self.jobs if job.settle]

    @cached_property
    def _charged_now(self) -> set[str]:
        """Jobs that the negotiation sheet settles: they are not charged a second time below."""
        return {
            line.item.key.removeprefix("job:")
            for line in self.sheet.treated(Treat.SETTLE)
            if line.item.key.startswith("job:")
        }

    @cached_property
    def spending(self) -> list[Spending]:
        """Spending within 12, 24 and 36 months after what is settled now was done: one defect is charged once."""
        return spending(
            [without_found(job) if job.key in self._charged_now else job for job in self.jobs], self.prices
        )  # fmt: skip

    @cached_property
    def sheet(self) -> Sheet:
        """The negotiation sheet."""
        brief = self._reckoning.dossier.opening.brief
        said = {key: seen.body for key, seen in self._corners.lines.items()}
        items = [*self._claim_items(), *self._job_items(), *self._unpriced_items(), *self._body_items()]
        return negotiation(items, said, brief.asking_price, brief.currency)

    def _job_items(self) -> list[Item]:
        return [
            Item(f"job:{job.key}", job.name, self.price(job), "; ".join(job.reasons[:1])) for job in self.settle
        ]  # fmt: skip

    def _unpriced_items(self) -> list[Item]:
        """What was found at any station and has no job of its own: priced by the inspector."""
        found = []
        for one in self._found:
            if one.follows is Follows.SETTLE and not one.job:
                said = f"{{place {one.where}}}: {one.words}" if one.where else one.words
                found.append(Item(f"found:{one.where}:{one.words}"[:80], said, None, "; ".join(one.reasons)))
        return found

    @property
    def _found(self) -> list[Found]:
        """Findings of all stations that no measured part carries on."""
        reckoned = self._reckoning
        corners, engine, under = reckoned.corners, reckoned.engine, reckoned.under
        fluids = [
            Found("bay", one.words, one.follows, (one.next,) if one.next else (), job=one.due) for one in engine.fluids
        ]
        leaks = [
            Found(one.zone or "bay", f"{one.fluid} from {one.origin} leaks", one.follows, (str(one.stage), *one.linked))
            for one in under.leaks
        ]
        return [
            *corners.wheels, *corners.pedal, *(one for one in corners.tyres if not one.where), *engine.run_found,
            *engine.bay_found, *fluids, *under.zones, *leaks, *reckoned.cabin.found,
        ]  # fmt: skip

    def _body_items(self) -> list[Item]:
        costs = self._reckoning.outside.costs
        found = [
            Item(f"part:{one.part}", f"{{place {one.part}}}: put right what is marked", one.cost.expected, "",
                 Treat.SETTLE if one.refinished >= REFINISHED_FROM else Treat.BUDGET)
            for one in costs.parts
        ]  # fmt: skip
        if costs.blends:
            sure = any(item.treat is Treat.SETTLE for item in found)
            names = ", ".join(f"{{place {key}}}" for key in costs.blends)
            expected = sum(cost.expected for cost in costs.blends.values())
            treat = Treat.SETTLE if sure else Treat.BUDGET
            found.append(Item("blends", "blend into the neighbours of what is refinished", expected, names, treat))
        return found

    def _claim_items(self) -> list[Item]:
        said = {str(entry.id): claim for entry, claim in self._reckoning.dossier.claims.said}
        return [
            Item(f"claim:{of}", f"claimed: “{said[of].words}”", float(seen.body.amount), seen.body.because)
            for of, seen in self._corners.claims_priced.items()
            if of in said
        ]

    @property
    def left_out(self) -> list[Component | Scheduled]:
        """Parts not reckoned, because it is not told whether the vehicle has them: what is spent is too low."""
        return not_told(self.given.mechanics)

    @cached_property
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
