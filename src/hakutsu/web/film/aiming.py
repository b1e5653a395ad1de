"""Where the probe goes next when it follows the pattern: repeats first, then the panel's spots, then the walk."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from hakutsu.core.film import Surprise
from hakutsu.dossier import Covered
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import Spot, planned_spots, spot_pattern, spot_words

TAKEN_WITHIN = 0.13
REPEAT_BESIDE = 0.02


@dataclass(frozen=True, slots=True)
class Aim:
    """Where the next reading belongs: a panel, a place where one is known, and the reading it repeats."""

    panel: str
    u: float | None = None
    v: float | None = None
    repeats: UUID | None = None

    @property
    def words(self) -> str:
        """The place in words; empty where none is known."""
        if self.u is None or self.v is None:
            return ""
        return spot_words(panels()[self.panel], self.u, self.v)


def spots_left(reckoning: Reckoning, panel: str, *, all_spots: bool = False) -> list[Spot]:
    """Spots of the pattern not yet read; those the protocol expects, or all of them."""
    dossier = reckoning.dossier
    read = [r.body for r in dossier.film.on_panel(panel) if not r.body.edge]
    places = [(body.u, body.v) for body in read if body.u is not None and body.v is not None]
    known = panels()[panel]
    wanted = spot_pattern(known) if all_spots else planned_spots(known, dossier.opening.brief.protocol)
    return [spot for spot in wanted if not any(near(spot, place) for place in places)]


def near(one: Spot, other: Spot) -> bool:
    """True when two places count as the same spot of a pattern."""
    return max(abs(one[0] - other[0]), abs(one[1] - other[1])) < TAKEN_WITHIN


def next_aim(reckoning: Reckoning, panel: str) -> Aim | None:
    """Where to read after what was last read on `panel`.

    Its open repeat, its spots, the next open panel's, then repeats left open elsewhere; none when the protocol wants
    no more.
    """
    repeats = [aim for s in reckoning.film.analysis.open_surprises if (aim := _repeat(s)) is not None]
    here = next((aim for aim in repeats if aim.panel == panel), None)
    if here is not None:
        return here
    open_panels = [c.panel for c in reckoning.dossier.film_coverage() if c.state is Covered.OPEN]
    walk = reckoning.dossier.vehicle.panel_keys()
    start = walk.index(panel) if panel in walk else 0
    for key in [*walk[start:], *walk[:start]]:
        left = spots_left(reckoning, key) if key in open_panels else []
        if left:
            return Aim(key, *left[0])
    return repeats[0] if repeats else None


def _repeat(surprise: Surprise) -> Aim | None:
    """Beside a surprising reading, within 20 mm, on one side and then on the other."""
    seen = surprise.observation
    if not isinstance(seen.key, UUID):
        return None
    if seen.u is None or seen.v is None:
        return Aim(seen.panel, repeats=seen.key)
    beside = REPEAT_BESIDE if surprise.repeats else -REPEAT_BESIDE
    return Aim(seen.panel, min(max(seen.u + beside, 0.0), 1.0), seen.v, seen.key)
