"""Remaining distance of tyres, pads and discs from one measurement, with its interval."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cache, lru_cache

import numpy as np

from hakutsu.core.life.spread import LEAST_WEIGHT, Floats, Prior, Spread, known, unknown, unmeasured
from hakutsu.core.life.tables import WearTable
from hakutsu.vehicle.tables import read_table

LOG_LOW, LOG_HIGH, BINS = np.log(1.0), np.log(3_000_000.0), 600
AT = (0.1, 0.5, 0.9)
WIDEN_FROM_SD = 3.0
UNUSUAL_FROM = 0.2  # chance that a distance is not this part's from which that is said
DOUBT_LEFT_OUT = 0.03  # what fits as well as this is not doubted at all
PROBES = (0.5, 1.0, 2.0)  # how much thinner [mm] it is asked whether the distance is doubted there
THINNER = ((0.05, 6), (0.1, 40), (0.5, 16))  # steps [mm] and how many of them
HALF = 0.5 + 1e-9
MONTHS = 12.0


@dataclass(frozen=True, slots=True)
class WearCase:
    """One measured part.

    `component` is tyre, pad or disc, `axle` front or rear, `drive` the driven axle: front, rear or all. Thicknesses in
    mm: `now_mm` measured by `method` (gauge or eye), none where nobody measured; `new_mm` where known, `limit_mm` where
    it is not the usual one. `since_km` bounds the distance [km] since the part was new, `age_years` its age,
    `km_per_year` the buyer's distance. `regenerative`: the motor brakes, pads last longer. `use` is how many times as
    fast as usual the next use wears it. `drive` none: not known which axle is driven.
    """

    case: str
    component: str
    axle: str
    drive: str | None
    now_mm: float | None
    method: str = "gauge"
    new_mm: float | None = None
    limit_mm: float | None = None
    since_km: tuple[float, float] | None = None
    age_years: float | None = None
    km_per_year: float | None = None
    regenerative: bool = False
    use: float = 1.0


@dataclass(frozen=True, slots=True)
class Quantiles:
    """The 10, 50 and 90 % quantiles: an 80 % interval about its median."""

    p10: float
    p50: float
    p90: float


@dataclass(frozen=True, slots=True)
class Life:
    """What is left: distance [km], months at the buyer's yearly distance, what limits it, and its basis.

    Without a distance `basis` says why none can be given. Its words hold quantities for `Terms.say`.
    """

    case: str
    km: Quantiles | None
    months: Quantiles | None
    limited_by: str | None
    basis: tuple[str, ...]


@cache
def wear_table() -> WearTable:
    """The priors of `data/wear.toml`."""
    return read_table("core.life", "wear", WearTable)


def _prior(case: WearCase) -> Prior | str:
    """Priors of a case, or why there are none."""
    row = wear_table()[case.component]
    mine = row if case.component == "tyre" else row[case.axle]
    if case.component == "tyre":
        drive = "all" if case.drive in ("all", None) else "driven" if case.drive == case.axle else "other"
        k_median, k_gsd = row["km_per_mm"][drive]
    else:
        k_median, k_gsd = mine["km_per_mm"]
    if case.regenerative and case.component == "pad":
        k_median, k_gsd = k_median * row["regenerative"][0], row["regenerative"][1]
    limit = case.limit_mm if case.limit_mm is not None else row.get("limit_mm")
    if limit is None:
        return "no minimum given: it is cast on the disc, never guessed"
    if case.new_mm is not None:
        new, new_sd = case.new_mm, float(row["given_new_sd_mm"])
    elif "new_mm" in mine:
        new, new_sd = mine["new_mm"]
    else:
        return "thickness when new is not known: a disc needs it"
    return Prior(k_median, k_gsd, new, new_sd, limit, float(row["sd_mm"][case.method]))


def remaining(case: WearCase) -> Life:
    """Remaining distance and time of a measured part.

    Notes
    -----
    With k the km a millimetre lasts (log-normal), n the thickness when new (normal) and D the distance so far (uniform
    between its bounds), the thickness now is n − D/k; each combination weighs prior · Normal(measured; now, sd). With D
    unknown, the share worn is uniform from 0 to 1. What remains is max(0, now − limit) · k · f with the same now and k,
    f the next owner's factor. Whatever the history, a part read at its limit or under it has at least an even chance
    that nothing is left: the reading rules. A part thicker than new by more than three standard deviations widens what
    is taken for new until it is likely. Tyres end at ten years: the earlier of wear and age. Without history an
    interval by eye is never narrower than the one a gauge would give: a glance cannot tell more.
    """
    worn = wear(case)
    if isinstance(worn, str):
        return Life(case.case, None, None, None, (worn,))
    found = [_quantile(worn.owned, at) for at in AT]
    if case.method == "eye" and case.now_mm is not None and _distance(case) is None:
        tight = wear(replace(case, method="gauge"))
        assert isinstance(tight, Wear)
        low, _, high = (_quantile(tight.owned, at) for at in AT)
        found[2] = max(found[2], found[0] + high - low)
    return _with_age(case, found, worn.basis)


@dataclass(frozen=True, slots=True)
class Wear:
    """Remaining distance as chances: that nothing is left, and weights over the grid of log distances; without the next
    owner's factor, and with it.
    """

    own: tuple[float, Floats]
    owned: tuple[float, Floats]
    basis: tuple[str, ...]
    doubt: float = 0.0  # chance that the distance told is not this part's

    def survival(self, km: Floats, *, owner: bool = True) -> Floats:
        """Chance that more than each distance [km] is left."""
        none, rest = self.owned if owner else self.own
        total = none + rest.sum()
        at = np.interp(np.log(np.maximum(km, 1e-9)), _log_edges(), np.concatenate([[0.0], np.cumsum(rest)]))
        return np.asarray(1 - (none + at) / total)


@lru_cache(maxsize=4096)
def wear(case: WearCase) -> Wear | str:
    """The distribution of the remaining distance, before age; or why there is none.

    Where a distance is doubted, more thickness could speak for another part that wears faster; thicker never means
    less life, so that at every distance the best of this and of thinner readings stands.
    """
    found = _alone(case)
    if isinstance(found, str) or case.now_mm is None or case.since_km is None:
        return found
    below = [_alone(replace(case, now_mm=max(0.0, case.now_mm - mm))) for mm in PROBES]
    if not any(isinstance(one, Wear) and one.doubt > 0 for one in (found, *below)):
        return found
    steps = [np.floor(case.now_mm / step) * step - step * np.arange(count) for step, count in THINNER]
    thinner = [_alone(replace(case, now_mm=float(mm))) for mm in np.concatenate(steps) if mm >= 0]
    every = [found, *(one for one in thinner if isinstance(one, Wear))]
    own, owned = (_longest([getattr(one, name) for one in every]) for name in ("own", "owned"))
    return replace(found, own=own, owned=owned)


def _longest(every: Sequence[tuple[float, Floats]]) -> tuple[float, Floats]:
    """At each distance the best chance that it is reached."""
    spent = [np.concatenate([[none], none + np.cumsum(rest)]) / (none + rest.sum()) for none, rest in every]
    least = np.minimum.reduce(spent)
    return float(least[0]), np.diff(least)


def _alone(case: WearCase) -> Wear | str:
    prior = _prior(case)
    if isinstance(prior, str):
        return prior
    basis = [_basis(case, prior)]
    prior, widened = _widened(case, prior)
    if widened:
        basis.append("thicker than new ones usually are: what is taken for new was widened")
    parts, said, doubt = _spreads(case, prior)
    basis += said
    if case.regenerative and case.component == "pad":
        basis.append("the motor brakes too: pads last about twice as long, less certain")
    owner, none = float(np.log(wear_table()["owner"]["gsd"])), 0.0
    own, owned = np.zeros(BINS), np.zeros(BINS)
    for share, spread in parts:
        gone, mass = _distribution(spread.left * spread.rate / case.use, spread.weight)
        none += share * gone
        own += share * np.convolve(mass, _kernel(spread.log_sd), mode="same")
        owned += share * np.convolve(mass, _kernel(float(np.hypot(spread.log_sd, owner))), mode="same")
    if case.now_mm is not None and case.now_mm <= prior.limit_mm:
        basis.append("read at its limit or under it: as likely as not nothing is left")
        if none < HALF:
            own, owned, none = own * ((1 - HALF) / own.sum()), owned * ((1 - HALF) / owned.sum()), HALF
    return Wear((none, own), (none, owned), tuple(basis), doubt)


def _spreads(case: WearCase, prior: Prior) -> tuple[list[tuple[float, Spread]], list[str], float]:
    """What may be left and the rate, each way with its chance; what the distance told in words; how far it is doubted.

    A distance may not be this part's: how likely that is follows from how badly it fits the thickness.
    """
    if case.now_mm is None:
        most = None if case.since_km is None else case.since_km[1]
        return [(1.0, unmeasured(prior, most))], [] if most is None else [_told(0.0, most)], 0.0
    bounds, free = _distance(case), unknown(prior, case.now_mm)
    if bounds is None:
        return [(1.0, free)], ["distance since new not known: wide"], 0.0
    told, found = _told(*bounds), known(prior, case.now_mm, bounds)
    odds = float(wear_table()["doubt"]["share"])
    fits = 0.0 if found is None else (1 - odds) * found.evidence
    another = 1.0 if found is None else odds * free.evidence / (odds * free.evidence + fits)
    another = max(0.0, (another - DOUBT_LEFT_OUT) / (1 - DOUBT_LEFT_OUT))
    if found is None or another > HALF:
        parts = [(another, free)] + ([(1 - another, found)] if found is not None else [])
        return parts, [f"{told} contradicts the thickness: likelier not this part’s, check both"], another
    parts = [(1 - another, found), (another, free)]
    if another > UNUSUAL_FROM:
        much = "little" if found.unusual > 0 else "much"
        return parts, [told, f"unusually {much} worn for that distance: check both"], another
    return parts, [told], another


def _told(low: float, high: float) -> str:
    if high <= 0:
        return "just put on"
    if high - low < 1:
        return f"{{distance {high:.0f}}} since new"
    return (
        f"{{distance {low:.0f}}} to {{distance {high:.0f}}} since new"
        if low > 0
        else f"at most {{distance {high:.0f}}} since new"
    )


def new_life(case: WearCase) -> tuple[float, float] | None:
    """A new part's life: median distance [km] and geometric standard deviation; none where it cannot be told."""
    prior = _prior(case)
    if isinstance(prior, str) or prior.new_mm <= prior.limit_mm:
        return None
    usable = prior.new_mm - prior.limit_mm
    spread = float(np.hypot(np.log(prior.k_gsd), prior.new_sd / usable))
    return usable * prior.k_median / case.use, float(np.exp(spread))


def _basis(case: WearCase, prior: Prior) -> str:
    limit = _mm(case, prior.limit_mm)
    if case.now_mm is None:
        return f"not measured: anything between new ({_mm(case, prior.new_mm)}) and the limit ({limit})"
    new = f"{_mm(case, prior.new_mm)} ± {prior.new_sd:.2g} mm"
    return f"{_mm(case, case.now_mm)} by {case.method}, limit {limit}, new {new}"


def _mm(case: WearCase, thickness: float) -> str:
    """A thickness [mm] in words that take the reader's unit; discs stay in the millimetres cast on them."""
    return f"{thickness:g} mm" if case.component == "disc" else f"{{depth {thickness:.2f}}}"


def _widened(case: WearCase, prior: Prior) -> tuple[Prior, bool]:
    if case.now_mm is None:
        return prior, False
    over = case.now_mm - prior.new_mm
    spread = float(np.hypot(prior.new_sd, prior.sd_mm))
    if over <= WIDEN_FROM_SD * spread:
        return prior, False
    wider = Prior(prior.k_median, prior.k_gsd, prior.new_mm, over, prior.limit_mm, prior.sd_mm)
    return wider, True


def _distance(case: WearCase) -> tuple[float, float] | None:
    if case.since_km is None:
        return None
    low, high = case.since_km
    if case.component == "tyre" and case.age_years is not None:
        high = max(low, min(high, case.age_years * wear_table()["reach"]["km_a_year"]))
    return low, high


@cache
def _kernel(log_sd: float) -> Floats:
    """A log-normal factor as weights over steps of the grid of log distances."""
    if log_sd <= 0:
        return np.ones(1)
    sd = log_sd / ((LOG_HIGH - LOG_LOW) / BINS)
    reach = int(np.ceil(4 * sd))
    weight = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sd) ** 2)
    return np.asarray(weight / weight.sum())


def _distribution(km: Floats, weight: Floats) -> tuple[float, Floats]:
    """Chance that nothing is left, and weights over a grid of log distances."""
    counts = weight > weight.max() * LEAST_WEIGHT
    km, weight = km[counts], weight[counts]
    left = km > 1.0
    none = float(weight[~left].sum())
    weight = weight[left]
    place = (np.log(km[left]) - LOG_LOW) / (LOG_HIGH - LOG_LOW) * BINS - 0.5
    below = np.minimum(np.maximum(place, 0.0), BINS - 2.0).astype(np.int64)
    above = weight * np.minimum(np.maximum(place - below, 0.0), 1.0)
    mass = np.bincount(below, weight - above, BINS) + np.bincount(below + 1, above, BINS)
    return none, np.asarray(mass, dtype=np.float64)


@cache
def _log_edges() -> Floats:
    """Edges of the bins of log distances."""
    return np.linspace(LOG_LOW, LOG_HIGH, BINS + 1)


def _quantile(mass: tuple[float, Floats], at: float) -> float:
    """A quantile [km]: 0 while the chance that nothing is left reaches it."""
    none, rest = mass
    if at <= none:
        return 0.0
    total = none + rest.sum()
    rising = none + np.cumsum(rest)
    return float(np.exp(np.interp(at * total, rising, _log_edges()[1:])))


def _with_age(case: WearCase, km: list[float], basis: Sequence[str]) -> Life:
    said, limited = list(basis), "wear"
    if case.component == "tyre" and case.age_years is not None and case.km_per_year:
        years = max(0.0, wear_table()["tyre"]["years"] - case.age_years)
        by_age = years * case.km_per_year
        if by_age < km[1]:
            limited = "age"
        if by_age < km[2]:
            when = (
                f"in {years:.2g} years: {{distance {by_age:.0f}}} at the buyer’s distance"
                if years
                else "which it has reached"
            )
            said.append(f"replaced at ten years of age, {when}")
        km = [min(one, by_age) for one in km]
    months = None
    if case.km_per_year:
        months = Quantiles(*(one / case.km_per_year * MONTHS for one in km))
    return Life(case.case, Quantiles(*km), months, limited, tuple(said))
