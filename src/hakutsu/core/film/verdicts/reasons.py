"""Why a panel is judged as it is, in words that come from its readings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from hakutsu.core.film.cues import cue_kinds
from hakutsu.core.film.model.numeric import Floats
from hakutsu.core.film.survey import STATES, Cover, CueLooked, Observation, State
from hakutsu.core.film.verdicts.spots import film_um
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import CoverKind, ReadingStatus, Unit

FEW = 3
CONSISTENT, LIKELY = 0.9, 0.7
NOTEWORTHY_UM = 20.0
UNDER_UM = 13.0
ALIKE_UM = 35.0
STANDS_OUT_UM = 100.0

STATE_WORDS = {
    State.ORIGINAL: "the original film",
    State.THINNED: "film thinned by polishing or sanding",
    State.BLENDED: "paint blended in from a neighbour",
    State.REFINISHED: "refinish",
    State.REBUILT: "more than one refinish",
    State.FILLED: "filler under refinish",
}


@dataclass(frozen=True, slots=True)
class Context:
    """What a panel is compared with: the car's baseline and the mirror panel's median [µm], where known; what was felt,
    seen and tried on it; whether the car's build explains its level; and what else is said about it.
    """

    baseline_um: float | None
    mirror_um: float | None
    terms: Terms = PLAIN
    is_sill: bool = False
    cues: Sequence[CueLooked] = ()
    cover: Cover | None = None
    magnets: Sequence[str] = ()
    by_design: bool = False
    more: Sequence[str] = ()


def chance_words(chance: float) -> str:
    """A probability that never claims certainty."""
    if chance >= 0.995:
        return "> 99 %"
    return "< 1 %" if chance < 0.005 else f"{100 * chance:.0f} %"


# Evidence by how far it moves the log2 odds [bits]: from here on some, and strong (odds two and eight times as high).
SOME_BITS, STRONG_BITS = 1.0, 3.0
LEAST_BITS = 0.1


def evidence_words(bits: float) -> str:
    """Evidence for or against a repaint in words of strength, from what it moves the log2 odds [bits]."""
    if abs(bits) < LEAST_BITS:
        return "no evidence either way"
    strength = "strong" if abs(bits) >= STRONG_BITS else "some" if abs(bits) >= SOME_BITS else "slight"
    return f"{strength} evidence {'for' if bits > 0 else 'against'} a repaint"


def tier(chances: Sequence[float] | Floats) -> tuple[int, int]:
    """The likeliest state and the tier of its words: 2 consistent with, 1 likely, 0 not settled."""
    first = max(range(len(STATES)), key=lambda i: chances[i])
    return first, int(chances[first] >= LIKELY) + int(chances[first] >= CONSISTENT)


def sureness(state: State, probability: float, runner_up: State) -> str:
    """The state in words that carry how sure it is."""
    if probability >= CONSISTENT:
        return f"consistent with {STATE_WORDS[state]}"
    if probability >= LIKELY:
        return f"likely {STATE_WORDS[state]}"
    return f"not settled: {STATE_WORDS[state]} or {STATE_WORDS[runner_up]}"


def film_spread(films_um: Sequence[float]) -> float | None:
    """Unevenness of a panel: sample standard deviation over mean, or none below three readings."""
    count = len(films_um)
    if count < FEW:
        return None
    mean = sum(films_um) / count
    return float((sum((film - mean) ** 2 for film in films_um) / (count - 1)) ** 0.5 / mean)


def judged_by(context: Context) -> str:
    """What a panel without gauge readings is judged by; empty if by nothing."""
    what = [name for name, some in (("magnet", context.magnets), ("eye", context.cues)) if some]
    return f"by {' and '.join(what)}" if what else ""


def panel_reasons(observations: Sequence[Observation], prior_only: str, context: Context) -> list[str]:
    """Sentences for one metal panel; `observations` are all of its readings, edge and `none` included."""
    counted = [o for o in observations if o.counts]
    said = [*_level(counted, context), *_shape(counted, context), *_oddities(observations)]
    said += [*_cover(counted, context), *_cues(context), *context.more]
    if context.by_design and counted:
        said.append("roof and pillars are alike thicker than the rest: two-tone by design explains it")
    if not counted and (by := judged_by(context)):
        said.insert(0, f"judged {by}, no gauge reading")
    elif not counted:
        said.append(f"no reading: this is only what is usual for {prior_only} and beside the rest of this car")
    elif len(counted) < FEW:
        said.append(f"only {len(counted)} reading{'s' if len(counted) > 1 else ''}: more would settle it")
    return [context.terms.say(words) for words in said]


def _level(counted: Sequence[Observation], context: Context) -> list[str]:
    base, unit = context.baseline_um, context.terms.film
    said = []
    if base is not None and counted:
        more = sorted(film_um(o) - base for o in counted)
        over = [d for d in more if d > NOTEWORTHY_UM]
        under = [d for d in more if d < -UNDER_UM]
        if over:
            said.append(f"{len(over)} of {len(more)} readings {_range(over, unit)} over this car’s baseline")
        if under:
            said.append(f"{len(under)} of {len(more)} readings {_range([-d for d in under], unit)} below the baseline")
        if not over and not under:
            one = "the reading is" if len(more) == 1 else f"all {len(more)} readings are"
            said.append(f"{one} within {show(NOTEWORTHY_UM, unit)} of this car’s baseline")
    if context.mirror_um is not None and counted:
        said.append(f"the same panel on the other side reads {show(context.mirror_um, unit)}")
        middle = median([film_um(o) for o in counted])
        thick = base is not None and min(middle, context.mirror_um) - base > 2 * NOTEWORTHY_UM
        if context.is_sill and thick and abs(middle - context.mirror_um) < ALIKE_UM:
            said.append("both sills alike: stone guard of the factory explains it")
    return said


def _range(amounts: Sequence[float], unit: Unit) -> str:
    low, high = show(min(amounts), unit, with_unit=False), show(max(amounts), unit)
    return high if low == show(max(amounts), unit, with_unit=False) else f"{low} to {high}"


def _shape(counted: Sequence[Observation], context: Context) -> list[str]:
    said = []
    films = [film_um(o) for o in counted if not o.censored]
    spread = film_spread(films)
    if spread is not None:
        said.append(f"unevenness {100 * spread:.0f} % (factory film 2 to 5 %)")
    over = [o for o in counted if o.censored]
    if over:
        limit = show(min(film_um(o) for o in over), context.terms.film)
        said.append(f"{len(over)} beyond the gauge’s range: film is at least {limit}")
    if len(films) >= FEW and max(films) - median(films) > STANDS_OUT_UM:
        said.append(
            f"highest reading {show(max(films) - median(films), context.terms.film)} above the panel’s own middle"
        )
    return said


def _oddities(observations: Sequence[Observation]) -> list[str]:
    said = []
    if any(o.status is ReadingStatus.NONE for o in observations):
        said.append("the gauge read nothing at a place that should be metal: is the panel what it should be?")
    kinds = {o.substrate for o in observations if o.counts and o.substrate.is_metal}
    if len(kinds) > 1:
        said.append("the metal under the film changes within the panel: zinc repair, lead, or another panel")
    stand_in = sum(o.simulated for o in observations)
    if stand_in:
        said.append(f"{stand_in} of the readings are simulated, for practice")
    edges = sum(o.edge for o in observations)
    if edges:
        said.append(f"{edges} at an edge, left out")
    return said


def _cues(context: Context) -> list[str]:
    there = [cue_kinds()[one.kind].name for one in context.cues if one.there and not one.words]
    absent = [cue_kinds()[one.kind].name for one in context.cues if not one.there and not one.words]
    said = [f"magnet: {', '.join(context.magnets)}"] if context.magnets else []
    said += [one.words for one in context.cues if one.words]
    said += [f"seen: {', '.join(there)}"] if there else []
    return [*said, f"looked and not there: {', '.join(absent)}"] if absent else said


COVER_UM = (70.0, 270.0)
EVEN = 0.06


def _cover(counted: Sequence[Observation], context: Context) -> list[str]:
    """What lies on the paint, or the question that even film at such a height asks first."""
    cover = context.cover
    if cover is not None and cover.thickness_um is not None:
        return [f"{cover.kind} of {show(cover.thickness_um, context.terms.film)} taken off every reading"]
    if cover is not None and cover.hides:
        return [f"{cover.kind} of unknown thickness: the paint under it cannot be measured"]
    if cover is not None:
        felt = cover.kind is CoverKind.NOTHING
        return ["no edge of a film or wrap felt" if felt else "an edge felt: film or wrap, not known which"]
    films = [film_um(o) for o in counted if not o.censored]
    spread = film_spread(films)
    if context.baseline_um is None or spread is None or spread > EVEN:
        return []
    if COVER_UM[0] <= median(films) - context.baseline_um <= COVER_UM[1]:
        return ["as even as film or wrap lies: feel for its edge first"]
    return []
