"""Grades of every part, from whichever station; each against what is usual at this age and distance."""

from __future__ import annotations

from typing import TYPE_CHECKING

from hakutsu.core.cabin import GRADES as WEAR
from hakutsu.core.cabin import against_age, against_distance
from hakutsu.core.condition import Standing, Stands, rust_stands, standing_of, stands, usual_grade, usual_rust_band
from hakutsu.core.life.components import components, pieces
from hakutsu.core.life.reckon import clocks_of, vehicle_ages
from hakutsu.dossier.memo import kept, kept_as_value
from hakutsu.entries.body import Coating
from hakutsu.entries.corners import Grade
from hakutsu.entries.under import RepairSign, UnderZone, ZoneClear
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.under import zones

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning


class ConditionReckoned:
    """Grades by piece with where they come from, and the condition of the vehicle against its age."""

    key = "condition"

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning
        self.memo = reckoning.memo

    @kept_as_value
    def derived(self) -> dict[str, tuple[Grade, str]]:
        """Grades that follow from measurements and tries, with the reason; a grade given by hand goes before them."""
        found = {key: one for station in self._reckoning.stations.values() for key, one in station.graded.items()}
        by_hand = self._reckoning.corners.grades
        return {key: one for key, one in found.items() if key not in by_hand}

    @kept_as_value
    def grades(self) -> dict[str, Grade]:
        """Every grade by piece."""
        return {key: grade for key, (grade, _) in self.derived.items()} | self._reckoning.corners.grades

    @kept_as_value
    def due(self) -> dict[str, tuple[str, bool]]:
        """What fluids say of something due by the calendar: words, and whether it is settled before paying."""
        found: dict[str, tuple[str, bool]] = {}
        for one in (fluid.finding for fluid in self._reckoning.engine.fluids):
            if one.job:
                settle = one.settles or found.get(one.job, ("", False))[1]
                found[one.job] = (one.words, settle)
        return found

    @property
    def _known(self) -> tuple[float, float] | None:
        """Distance [km] and age [years], where one of them at least is known."""
        given = self._reckoning.lives.given
        if given.age_years is None and given.odometer_km is None:
            return None
        return vehicle_ages(given)[0][0]

    @kept
    def against(self) -> list[Stands]:
        """Every grade against what is usual, the worse first; empty where neither age nor distance is known."""
        if self._known is None:
            return []
        found = [*self._parts(*self._known), *self._rust(self._known[1]), *self._cabin(*self._known)]
        order = [Standing.WORSE, Standing.BETTER, Standing.USUAL]
        return sorted(found, key=lambda one: order.index(one.standing))

    def _parts(self, km: float, years: float) -> list[Stands]:
        given, found = self._reckoning.lives.given, []
        for piece in pieces(given.mechanics, given.doors):
            grade = self.grades.get(piece.key)
            clocks = clocks_of(piece.component, given)
            if grade is None or piece.component.looked_only or not (clocks.km or clocks.years):
                continue
            why = self.derived[piece.key][1] if piece.key in self.derived else ""
            found.append(stands(piece.name, grade, usual_grade(clocks, km, years), why))
        return found

    def _rust(self, years: float) -> list[Stands]:
        """Zones of which somebody said how much rust there is; one seen in part only is not free of it."""
        past = self._reckoning.dossier.opening.brief.past_factors
        band = usual_rust_band(years, salt="salt" in past, dry="dry" in past)
        looks = {key: seen.body for key, seen in self._reckoning.dossier.under.zones.items()}
        return [
            rust_stands(zones()[key].name, look.rust, band, self._renewed(look, salt="salt" in past))
            for key, look in looks.items()
            if look.rust is not None or (ZoneClear.RUST in look.clear and not look.partly)
        ]

    @staticmethod
    def _renewed(look: UnderZone, *, salt: bool) -> bool:
        """Whether anything but the grade speaks for metal that was cleaned, coated or renewed."""
        worked = look.coating in (Coating.FRESH, Coating.LATER) or RepairSign.NEWER in look.repair
        return not look.aged_evenly and (worked or salt)

    def _cabin(self, km: float, years: float) -> list[Stands]:
        grades = {part: seen.body for part, seen in self._reckoning.dossier.cabin.wear.items()}
        found = []
        for one in (*against_distance(grades, km), *against_age(grades, years)):
            usual, seen = WEAR.index(one.usual), WEAR.index(grades[one.part].wear)
            name, words = cabin_parts()[one.part].name, str(grades[one.part].wear)
            found.append(Stands(name, standing_of(seen, usual), words, str(one.usual), (seen, usual, len(WEAR))))
        return found

    @property
    def beyond_taste(self) -> list[str]:
        """What goes beyond the buyer's taste, whatever is usual: parts of the cabin, in words."""
        names = components() | cabin_parts()
        return [names[part].name for part in self._reckoning.cabin.beyond_taste]
