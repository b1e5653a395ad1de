"""What the rules make of everything seen outside: remedies, costs, contacts, fit, glass, hail."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import hypot
from typing import ClassVar
from uuid import UUID

from hakutsu.core.body.contacts import proposed_events
from hakutsu.core.body.costing import BLEND, Costs, Wanted, cost_range, costs
from hakutsu.core.body.fit import FitFound, fit_found
from hakutsu.core.body.found import (
    addition_found,
    fits_found,
    glass_found,
    mark_code,
    mark_found,
    rust_found,
    trim_found,
)
from hakutsu.core.body.glass import glass_words, odd_marks
from hakutsu.core.body.hail import HailClass, hail_class
from hakutsu.core.body.remedy import Film, Remedy, remedy
from hakutsu.core.body.rust import rust_traps
from hakutsu.core.consequence import Looks, base
from hakutsu.core.costs import cost_table
from hakutsu.core.film import Observation, State, parameters, polish_headroom
from hakutsu.core.film.result import Headroom
from hakutsu.core.findings import Finding, found
from hakutsu.core.negotiation import ON_SHEET
from hakutsu.core.taste import OfMark, of_mark
from hakutsu.dossier import BodyDossier
from hakutsu.dossier.body import Seen
from hakutsu.dossier.memo import kept
from hakutsu.entries.body import Blemish, BlemishKind, Event, Glass, Supply
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.mechanics import Parts
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import On, parts
from hakutsu.vehicle.shell import Patch, neighbours, shell
from hakutsu.vehicle.vocabulary import Consequence, Substrate

NEAR_CM = 15.0
REFINISHED_FROM = 0.5  # from this chance on a part counts as refinished
WEATHER: tuple[On, ...] = ("folding", "plastic_pane", "lamp")  # marks there let water in, or dim: more than looks


@dataclass(frozen=True, slots=True)
class Contact:
    """Blemishes that one contact explains: joined by the inspector, or proposed (`event` is none)."""

    marks: tuple[Seen[Blemish], ...]
    event: Seen[Event] | None = None


class Outside(StationRules):
    """Everything computed from what was seen outside one vehicle."""

    key: ClassVar[str] = "body"

    @property
    def _body(self) -> BodyDossier:
        return self._reckoning.dossier.body

    def findings(self) -> list[Finding]:
        """Marks, fit, glass and lamps, rust, trim and additions."""
        body, rules = self._body, self._reckoning.rules
        told = [
            mark_found(mark, mark_code(mark.body.kind, self.carrier(mark.place)), *self.asked[key])
            for key, mark in body.blemishes.items()
        ]
        told += [one for panel, fit in self.fits.items() for one in fits_found(body.fits[panel], fit)]
        told += [one for pane in body.glass for one in glass_found(pane, rules, self.odd_marks.get(pane.place))]
        told += [rust_found(one) for one in body.rust]
        told += [one for piece in body.trim for one in trim_found(piece)]
        told += [one for addition in body.additions for one in addition_found(addition)]
        return told + self._blends()

    def _blends(self) -> list[Finding]:
        """Blends into neighbours of what is refinished, as far as that is on the sheet."""
        if not self.sheet_costs.blends:
            return []
        usual = cost_range(cost_table(self._reckoning.settings.costs)[BLEND], (), self._reckoning.settings.labour_rate)
        likely = [
            key for key, cost in self.sheet_costs.blends.items() if cost.expected >= REFINISHED_FROM * usual.expected
        ]
        names = ", ".join(f"{{place {key}}}" for key in likely or self.sheet_costs.blends)
        refinished = {one.part for one in self.sheet_costs.parts if one.refinished >= REFINISHED_FROM}
        marks = [mark for mark in self.asked_for if not refinished or refinished & {mark.place, *mark.body.also_on}]
        settle = bool(refinished) and any(self.asked[one.entry.id][0] is Consequence.SETTLE for one in marks)
        asked = Consequence.SETTLE if settle else None
        words = "blend into the neighbours of what is refinished"
        return [
            found("body.blends", "body", words, (names,), consequence=asked).seen_in(*(one.entry.id for one in marks))
        ]

    @kept
    def asked(self) -> dict[UUID, tuple[Consequence | None, str]]:
        """What every mark asks for by the buyer's taste, and why; none where its code has it."""
        taste = self._reckoning.dossier.opening.brief.taste
        found = {}
        for key, mark in self._body.blemishes.items():
            on, mend = self.carrier(mark.place), self.remedy(mark)
            looks = base(mark_code(mark.body.kind, on)).looks is Looks.MARK and on not in WEATHER
            refinish = mend.first == "panel" or (mend.otherwise == "panel" and mend.chance < REFINISHED_FROM)
            of = OfMark(metal=self._rusts(mark.place), refinish=refinish, nothing_to_do=mend.first == "none")
            found[key] = of_mark(mark.body, taste, of) if looks else (None, "")
        return found

    def _rusts(self, place: str) -> bool:
        """Whether steel lies under the paint somewhere, as far as is known."""
        if place in panels():
            return self._reckoning.dossier.vehicle.substrate(place) in (Substrate.STEEL, Substrate.UNKNOWN)
        return place in parts() and parts()[place].group == "metal"

    @property
    def asked_for(self) -> list[Seen[Blemish]]:
        """Marks that are on the negotiation sheet."""

        def asks(key: UUID, mark: Seen[Blemish]) -> Consequence:
            return self.asked[key][0] or base(mark_code(mark.body.kind, self.carrier(mark.place))).consequence

        return [mark for key, mark in self._body.blemishes.items() if asks(key, mark) in ON_SHEET]

    @kept
    def sheet_costs(self) -> Costs:
        """What putting right costs of those marks that are on the negotiation sheet."""
        return self.cost_of(self.asked_for)

    @kept
    def patches(self) -> Mapping[str, Patch]:
        """The skin of this vehicle."""
        vehicle = self._reckoning.dossier.vehicle
        return shell(vehicle.body_style, vehicle.doors, tuple(vehicle.panel_keys()))

    def carrier(self, place: str) -> On:
        """What a mark at a place lies on; what is neither panel nor part counts as trim."""
        if place in parts():
            return parts()[place].on
        if place not in panels():
            return "trim"
        kind = self._reckoning.dossier.vehicle.substrate(place)
        return "plastic" if kind in (Substrate.PLASTIC, Substrate.COMPOSITE) else "panel"

    def film_at(self, mark: Seen[Blemish]) -> Film | None:
        """Headroom at a mark: by the readings within 150 mm, else by the panel's thinnest; none off the panels."""
        if mark.place not in panels():
            return None
        panel = self._reckoning.film.analysis.panel(mark.place)
        if panel is None or panel.probabilities is None:
            return Film()
        filled = panel.probabilities[State.FILLED]
        near = self._near(mark)
        if near:
            p, survey = parameters(), self._reckoning.film.survey
            base = self._reckoning.film.analysis.baseline
            here: Headroom | None = polish_headroom(near, panel.probabilities, base, survey.paint, p.headroom,
                                   (p.gauge.offset_sd_um, p.gauge.gain_sd))  # fmt: skip
        else:
            here = panel.headroom
        if here is None:
            return Film(None, filled)
        return Film(here.um, filled, 1.0 if here.chance is None else here.chance)

    def _near(self, mark: Seen[Blemish]) -> list[Observation]:
        patch = self.patches.get(mark.place)
        if patch is None or not mark.body.path:
            return []
        points = [patch.at(u, v) for u, v in mark.body.path]
        found = []
        for o in self._reckoning.film.observations_on(mark.place):
            if o.u is not None and o.v is not None and o.counts:
                x, y = patch.at(o.u, o.v)
                if min(hypot(x - a, y - b) for a, b in points) <= NEAR_CM:
                    found.append(o)
        return found

    def remedy(self, mark: Seen[Blemish]) -> Remedy:
        """What to do about a mark; hail that is too dense to lift is refinished."""
        found = remedy(mark.body, self.carrier(mark.place), self.film_at(mark), self._reckoning.terms)
        hail = self.hail(mark)
        if hail is not None and not hail.lifts and found.first == "hail":
            return Remedy("panel", 1.0, None, (*found.because, f"{hail.words} hail: too many dents to lift"))
        return found

    def hail(self, mark: Seen[Blemish]) -> HailClass | None:
        """Class of a hail field on a panel."""
        patch = self.patches.get(mark.place)
        return hail_class(mark.body, patch.area_cm2) if mark.body.kind is BlemishKind.HAIL and patch else None

    @kept
    def costs(self) -> Costs:
        """What putting all blemishes right costs."""
        return self.cost_of(self._body.blemishes.values())

    def wanted(self, mark: Seen[Blemish]) -> list[tuple[str, Wanted]]:
        """A mark with its remedy on every part it runs over."""
        body, mechanics = mark.body, self._reckoning.dossier.mechanics
        supply = mechanics.parts if body.supply is Supply.VEHICLE else Parts(body.supply.value)
        one = Wanted(mark.entry.id, self.remedy(mark), body.count, supply, body.seized or mechanics.seized)
        return [(place, one) for place in dict.fromkeys((mark.place, *mark.body.also_on))]

    def cost_of(self, marks: Iterable[Seen[Blemish]]) -> Costs:
        """What putting some of them right costs by themselves, as one job: a contact for instance."""
        found: dict[str, list[Wanted]] = {}
        for mark in marks:
            for place, one in self.wanted(mark):
                found.setdefault(place, []).append(one)
        settings = self._reckoning.settings
        return costs(found, self.painted_neighbours, cost_table(settings.costs), settings.labour_rate)

    @kept
    def painted_neighbours(self) -> dict[str, list[str]]:
        """Metal panels in the same plane that each panel touches, the largest first."""
        vehicle, known = self._reckoning.dossier.vehicle, panels()
        return {
            panel: sorted(
                (
                    other
                    for other in others
                    if vehicle.substrate(other).is_metal
                    and known[other].plane == known[panel].plane
                    and known[other].size == "large"
                ),
                key=lambda other: -self.patches[other].area_cm2,
            )
            for panel, others in neighbours(self.patches).items()
        }

    @kept
    def contacts(self) -> list[Contact]:
        """Contacts joined by the inspector, then those proposed."""
        marks = self._body.blemishes
        joined = [
            Contact(tuple(marks[key] for key in event.body.blemishes if key in marks), event)
            for event in self._body.events.values()
        ]
        return [*joined, *(Contact(group) for group in proposed_events(self._body, self.patches))]

    @kept
    def fits(self) -> dict[str, FitFound]:
        """What the fit of every panel says."""
        return fit_found(self._body.fits)

    @kept
    def odd_marks(self) -> dict[str, str]:
        """Panes with a date mark unlike that of the others, with the others' mark."""
        return odd_marks(self._body.glass)

    def glass_words(self, one: Seen[Glass]) -> Sequence[str]:
        """What rule set and kind of fault make of a pane or lamp."""
        return glass_words(one, self._reckoning.rules)

    @property
    def rust_traps(self) -> tuple[str, ...]:
        """Where this body rusts first."""
        return tuple(self._reckoning.terms.say(one) for one in rust_traps(self._reckoning.dossier.vehicle.body_style))
