"""What the rules make of the corners of one vehicle."""

from __future__ import annotations

from datetime import date
from functools import cached_property
from typing import TYPE_CHECKING

from hakutsu.core.corners.brakes import brake_axle_found, brake_found, fluid_found, fluid_tests_good, pedal_found
from hakutsu.core.corners.found import Follows, Found
from hakutsu.core.corners.gear import gear_found, sides_found
from hakutsu.core.corners.tyres import axle_found, tyre_found
from hakutsu.core.corners.wheels import set_found, wheel_found
from hakutsu.entries.corners import Grade, Hose, Pipe
from hakutsu.vehicle.places import WHEELS

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

HOSES = {Hose.SOUND: Grade.SOUND, Hose.HARD: Grade.WORN, Hose.TO_CORD: Grade.FAILED, Hose.SWELLING: Grade.FAILED}
PIPES = {
    Pipe.CLEAN: Grade.FRESH, Pipe.SURFACE: Grade.SOUND, Pipe.SCALE: Grade.WORN, Pipe.PITTED: Grade.FAILING,
    Pipe.PERFORATED: Grade.FAILED,
}  # fmt: skip
GRADES = list(Grade)


class CornersReckoned:
    """Findings at every wheel, by axle and on the whole."""

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning
        self._corners = reckoning.dossier.corners

    @property
    def on(self) -> date:
        """The day of the inspection: that of its newest entry."""
        return self._reckoning.dossier.entries[-1].at.date()

    @cached_property
    def tyres(self) -> list[Found]:
        """Of tyres, each and by axle."""
        rules, mechanics = self._reckoning.rules, self._corners.mechanics
        bodies = {wheel: one.body for wheel, one in self._corners.tyres.items()}
        each = [found for wheel, tyre in bodies.items() for found in tyre_found(wheel, tyre, rules, mechanics, self.on)]
        return each + axle_found({k: v for k, v in bodies.items() if k in WHEELS}, rules, mechanics)

    @cached_property
    def brakes(self) -> list[Found]:
        """Of brakes, each and by axle."""
        bodies = {wheel: one.body for wheel, one in self._corners.brakes.items()}
        motor = self._corners.mechanics.regenerative
        each = [found for wheel, one in bodies.items() for found in brake_found(wheel, one, regenerative=motor)]
        return each + brake_axle_found(bodies)

    @cached_property
    def gear(self) -> list[Found]:
        """Of graded parts, each and left against right."""
        graded = {key: one.body for key, one in self._corners.gear.items()}
        each = [f for one in self._corners.gear.values() for f in gear_found(one.place, one.body)]
        heights = {wheel: one.body.height_mm for wheel, one in self._corners.heights.items()}
        return each + sides_found(graded, heights)

    @cached_property
    def wheels(self) -> list[Found]:
        """Of wheels and how they are held."""
        bodies = {wheel: one.body for wheel, one in self._corners.wheels.items()}
        return [found for wheel, one in bodies.items() for found in wheel_found(wheel, one)] + set_found(bodies)

    @cached_property
    def fluid(self) -> list[Found]:
        """Of the brake fluid."""
        return fluid_found(self._corners.fluid.body) if self._corners.fluid else []

    @property
    def fluid_good(self) -> bool:
        """Whether the brake fluid was tested, and is good."""
        return self._corners.fluid is not None and fluid_tests_good(self._corners.fluid.body)

    @cached_property
    def pedal(self) -> list[Found]:
        """Of pedal and parking brake."""
        brakes = {wheel: one.body for wheel, one in self._corners.brakes.items()}
        return pedal_found(self._corners.pedal.body, brakes) if self._corners.pedal else []

    @property
    def every(self) -> list[Found]:
        """All of them, in the order the eye meets them."""
        return [*self.wheels, *self.tyres, *self.brakes, *self.fluid, *self.pedal, *self.gear]

    def at(self, where: str) -> list[Found]:
        """Those of one wheel, axle, or (empty) the whole."""
        return [one for one in self.every if one.where == where]

    @cached_property
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
        return found | {key: one.body.grade for key, one in self._corners.gear.items()}

    @cached_property
    def out(self) -> dict[str, str]:
        """Why tyres (by wheel) and brakes (by axle) are done with, whatever their thickness."""
        found: dict[str, list[str]] = {}
        for one in self.tyres:
            if one.follows is Follows.SETTLE and not one.by_wear and one.where:
                wheel = one.where if one.where in WHEELS else f"wheel_{one.where}_left"
                found.setdefault(wheel, []).append(one.words)
        for one in self.brakes:
            if one.follows is Follows.SETTLE and not one.by_wear and one.friction:
                axle = one.where if one.where in ("front", "rear") else one.where.split("_")[1]
                found.setdefault(axle, []).append(one.words)
        return {where: "; ".join(words) for where, words in found.items() if where != "wheel_spare"}
