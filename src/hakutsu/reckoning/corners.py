"""What the rules make of the corners of one vehicle."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import ClassVar

from hakutsu.core.corners.brakes import brake_axle_found, brake_found, fluid_found, fluid_tests_good, pedal_found
from hakutsu.core.corners.gear import gear_found, sides_found
from hakutsu.core.corners.told import pads_told, treads_told
from hakutsu.core.corners.tyres import axle_found, tyre_found
from hakutsu.core.corners.wheels import set_found, wheel_found
from hakutsu.core.findings import AXLES, Finding, at, axle_of
from hakutsu.core.life.components import components
from hakutsu.dossier import CornersDossier
from hakutsu.dossier.memo import kept, kept_as_value
from hakutsu.entries.corners import Brake, Grade, Hose, Pipe, Tyre
from hakutsu.reckoning.station import StationRules, resting_on
from hakutsu.vehicle.places import SPARE, WHEELS

HOSES = {Hose.SOUND: Grade.SOUND, Hose.HARD: Grade.WORN, Hose.TO_CORD: Grade.FAILED, Hose.SWELLING: Grade.FAILED}
PIPES = {
    Pipe.CLEAN: Grade.FRESH, Pipe.SURFACE: Grade.SOUND, Pipe.SCALE: Grade.WORN, Pipe.PITTED: Grade.FAILING,
    Pipe.PERFORATED: Grade.FAILED,
}  # fmt: skip
GRADES = list(Grade)


def _wheels(subject: str) -> Iterable[str]:
    """Wheels a finding lies at: its own, or both of its axle."""
    axle = AXLES.get(subject)
    return [f"wheel_{axle}_{side}" for side in ("left", "right")] if axle else [at(subject)]


def _pieces(subject: str) -> Iterable[str]:
    """Graded pieces a finding rests on: its own, or both sides of an axle."""
    part, _, where = subject.partition(":")
    return [subject] if f"wheel_{where}" in WHEELS or not where else [f"{part}:{where}_{s}" for s in ("left", "right")]


class CornersReckoned(StationRules):
    """Findings at every wheel, by axle and on the whole."""

    key: ClassVar[str] = "corners"

    @property
    def on(self) -> date:
        """The day of the inspection: that of its newest entry."""
        return self._reckoning.dossier.last_day

    @kept
    def _corners(self) -> CornersDossier:
        return self._reckoning.dossier.corners

    @kept
    def tyres_told(self) -> dict[str, Tyre]:
        """Tyres with what was told of their depth as a span."""
        bodies = {wheel: one.body for wheel, one in self._corners.tyres.items()}
        return treads_told(bodies, self._reckoning.rules.tread_mm)

    @kept
    def brakes_told(self) -> dict[str, Brake]:
        """Brakes with what was told of their pads and linings as a span."""
        return pads_told({wheel: one.body for wheel, one in self._corners.brakes.items()})

    @kept
    def tyres(self) -> list[Finding]:
        """Of tyres, each and by axle."""
        rules, mechanics = self._reckoning.rules, self._reckoning.dossier.mechanics
        bodies = self.tyres_told
        each = [one for wheel, tyre in bodies.items() for one in tyre_found(wheel, tyre, rules, mechanics, self.on)]
        axles = axle_found({k: v for k, v in bodies.items() if k in WHEELS}, rules, mechanics)
        return resting_on([*each, *axles], self._corners.tyres, _wheels)

    @kept
    def brakes(self) -> list[Finding]:
        """Of brakes, each and by axle."""
        bodies = self.brakes_told
        motor = self._reckoning.dossier.mechanics.regenerative
        each = [one for wheel, body in bodies.items() for one in brake_found(wheel, body, regenerative=motor)]
        return resting_on([*each, *brake_axle_found(bodies)], self._corners.brakes, _wheels)

    @kept
    def gear(self) -> list[Finding]:
        """Of graded parts, each and left against right; of ride height."""
        graded = {key: one.body for key, one in self._corners.gear.items()}
        heights = {wheel: one.body.height_mm for wheel, one in self._corners.heights.items()}
        each = [one for piece, body in graded.items() for one in gear_found(piece, body)]
        sides = sides_found(graded, heights)
        parts = [one for one in sides if one.subject not in AXLES]
        stands = [one for one in sides if one.subject in AXLES]
        return resting_on([*each, *parts], self._corners.gear, _pieces) + resting_on(
            stands, self._corners.heights, _wheels
        )  # fmt: skip

    @kept
    def wheels(self) -> list[Finding]:
        """Of wheels and how they are held."""
        bodies = {wheel: one.body for wheel, one in self._corners.wheels.items()}
        each = [one for wheel, body in bodies.items() for one in wheel_found(wheel, body)]
        return resting_on([*each, *set_found(bodies)], self._corners.wheels, _wheels)

    @kept_as_value
    def fluid(self) -> list[Finding]:
        """Of the brake fluid."""
        seen = self._corners.fluid
        return [one.seen_in(seen.entry.id) for one in fluid_found(seen.body)] if seen else []

    @property
    def fluid_good(self) -> bool:
        """Whether the brake fluid was tested, and is good."""
        return self._corners.fluid is not None and fluid_tests_good(self._corners.fluid.body)

    @kept
    def pedal(self) -> list[Finding]:
        """Of pedal and parking brake."""
        seen, brakes = self._corners.pedal, {wheel: one.body for wheel, one in self._corners.brakes.items()}
        return [one.seen_in(seen.entry.id) for one in pedal_found(seen.body, brakes)] if seen else []

    def findings(self) -> list[Finding]:
        """All of them, in the order the eye meets them."""
        return [*self.wheels, *self.tyres, *self.brakes, *self.fluid, *self.pedal, *self.gear]

    def lies_at(self, wheel: str) -> list[Finding]:
        """Those of one wheel."""
        return [one for one in self.findings() if one.at == wheel]

    @property
    def between(self) -> list[Finding]:
        """Those between wheels: by axle, or of all wheels together."""
        return [one for one in self.findings() if one.at not in (*WHEELS, SPARE) and one not in self.whole]

    @property
    def whole(self) -> list[Finding]:
        """Those of the brakes as a whole."""
        return [*self.fluid, *self.pedal]

    @kept_as_value
    def grades(self) -> dict[str, Grade]:
        """Grades by piece: as they were given; hoses and pipes as they were seen, pipes by the worst."""
        found = {}
        pipes = []
        for wheel, seen in self._corners.brakes.items():
            if seen.body.hose in HOSES:
                found[f"brake_hose:{wheel.removeprefix('wheel_')}"] = HOSES[seen.body.hose]
            if seen.body.pipe in PIPES:
                pipes.append(PIPES[seen.body.pipe])
        if pipes:
            found["brake_pipes"] = max(pipes, key=GRADES.index)
        graded = {key: one.body.grade for key, one in self._corners.gear.items() if one.body.grade is not None}
        for key, grade in graded.items():  # a detail speaks for what it is part of: the worst of them all
            part, _, corner = key.partition(":")
            whole = components()[part].part_of if part in components() else ""
            if whole:
                piece = f"{whole}:{corner}" if corner else whole
                found[piece] = max(grade, found.get(piece, grade), key=GRADES.index)
        return found | graded

    @kept_as_value
    def out(self) -> dict[str, str]:
        """Why tyres (by wheel) and brakes (by axle) are done with, whatever their thickness."""
        found: dict[str, list[str]] = {}
        for one in self.tyres:
            if one.condemns:
                axle = AXLES.get(one.subject)
                found.setdefault(f"wheel_{axle}_left" if axle else one.subject, []).append(one.words)
        for one in self.brakes:
            if one.condemns:
                found.setdefault(axle_of(one.subject), []).append(one.words)
        return {where: "; ".join(words) for where, words in found.items() if where != SPARE}
