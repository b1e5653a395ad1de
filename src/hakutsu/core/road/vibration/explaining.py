"""Every way the tones of a record may be explained, weighed by Bayes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.road.vibration.record import EvenRecord
from hakutsu.core.road.vibration.sources import SD, Family, Source
from hakutsu.core.road.vibration.tracking import ToneDensity

Floats = NDArray[np.float64]

# Prior weights of what a record holds (ours).
NOTHING = 0.30
ONE_SOURCE = 0.50
ANOTHER_SOURCE = 0.12
HUMP = 0.3  # of the weight of nothing: the noise has a hump
ALIASED = 0.12  # of the weight of a source that could be read itself
OTHER_TONE = 0.06
HARMONIC = {2: 0.30, 3: 0.08}
SPURIOUS = 0.03  # something that stands out and is no tone of the vehicle's, beside what is
ALIAS_MOST = 0.6
ALIAS_COUNTS = 0.005
WAYS = np.linspace(-3.2, 3.2, 129)  # standard deviations of the common error


@dataclass(frozen=True, slots=True)
class Label:
    """A way to explain a tone: nothing, an other tone, a source's own frequency, a harmonic of one, or its alias."""

    kind: str
    source: Source | None = None
    times: int = 1


@dataclass(frozen=True, slots=True)
class Tone:
    """A tone: where it lies if it is one, its evidence, and for every label the likelihood over the common error."""

    hz: float
    evidence: float
    density: ToneDensity


def explained(tones: Sequence[Tone], every: Sequence[Source], flat: EvenRecord) -> tuple[dict[str, float], float]:
    """Shares of the sources (and `other`), and of nothing: every way to explain all tones, weighed."""
    labels = _labels(every, flat)
    likelihoods = [
        {label: _likelihoods(tone, label, flat, float(tone.density.log_ratio.max())) for label in labels}
        for tone in tones
    ]  # fmt: skip
    weights, credits = [], []
    for chosen in product(labels, repeat=len(tones)):
        prior = _prior(chosen, len(every))
        if prior is None:
            continue
        weights.append(np.log(prior) + _joint(chosen, likelihoods))
        credits.append(_credits(chosen, tones))
    log = np.asarray(weights)
    share = np.exp(log - log.max())
    share /= share.sum()
    totals: dict[str, float] = {}
    for one, credit in zip(share, credits, strict=True):
        for key, part in credit:
            totals[key] = totals.get(key, 0.0) + float(one) * part
    return _with_aliases_capped(totals)


def _labels(every: Sequence[Source], flat: EvenRecord) -> list[Label]:
    own = [Label("source", one) for one in every]
    harmonics = [Label("harmonic", one, times) for one in every for times in HARMONIC]
    aliases = [Label("alias", one) for one in every if one.hz * (1 + 3 * SD[one.family]) > flat.rate_hz / 2]
    return [Label("nothing"), Label("other"), *own, *harmonics, *aliases]


def _likelihoods(tone: Tone, label: Label, flat: EvenRecord, highest: float) -> Floats:
    """Log likelihood ratio of the tone under a label, over the ways of the common error (of shape ``WAYS``)."""
    if label.kind == "nothing":
        humps = tone.density.log_hump
        hump = np.logaddexp.reduce(humps) - np.log(len(humps))
        return np.full_like(WAYS, np.logaddexp(np.log(1 - HUMP), np.log(HUMP) + hump))
    if label.source is None:
        ratios = tone.density.log_ratio - highest
        return np.full_like(WAYS, np.log(np.mean(np.exp(ratios))) + highest)
    hz = label.source.hz * label.times * (1 + SD[label.source.family] * WAYS)
    if label.kind == "alias":
        folded = np.abs(hz - np.round(hz / flat.rate_hz) * flat.rate_hz)
        hz = np.where(hz > flat.rate_hz / 2, folded, 0.0)
    density = tone.density
    inside = (hz >= density.hz[0]) & (hz <= density.hz[-1])
    read = np.interp(np.log(np.maximum(hz, 1e-6)), np.log(density.hz), density.log_ratio)
    return np.where(inside, read, -1e4)


def _prior(chosen: Sequence[Label], count: int) -> float | None:
    """The weight of explaining the tones so; none where it contradicts itself."""
    fundamentals = [one.source for one in chosen if one.source is not None and one.kind in ("source", "alias")]
    if len(set(fundamentals)) < len(fundamentals):
        return None
    if any(_is_harmonic(one, two) for one in fundamentals for two in fundamentals):
        return None
    weight = NOTHING if not fundamentals else ONE_SOURCE / count * (ANOTHER_SOURCE / count) ** (len(fundamentals) - 1)
    beside, seen = 0, set[tuple[Source, int]]()
    for one in chosen:
        if one.kind == "harmonic":
            if one.source is None or one.source not in fundamentals or (one.source, one.times) in seen:
                return None
            seen.add((one.source, one.times))
            weight *= HARMONIC[one.times]
        elif one.kind == "alias":
            weight *= ALIASED
        elif one.kind == "other":
            weight *= OTHER_TONE / NOTHING if not fundamentals and not beside else SPURIOUS
            beside += 1
    return weight


def _is_harmonic(one: Source, of: Source) -> bool:
    return one.part == of.part and one.order > of.order and (one.order / of.order) % 1 == 0


def _joint(chosen: Sequence[Label], likelihoods: Sequence[dict[Label, Floats]]) -> float:
    prior = -0.5 * WAYS**2
    prior = prior - np.logaddexp.reduce(prior)
    total = 0.0
    for family in Family:
        mine = [
            likelihood[label]
            for label, likelihood in zip(chosen, likelihoods, strict=True)
            if label.source is not None and label.source.family is family
        ]
        if mine:
            total += float(np.logaddexp.reduce(prior + np.sum(mine, axis=0)))
    total += sum(
        float(likelihood[label][0])
        for label, likelihood in zip(chosen, likelihoods, strict=True)
        if label.source is None
    )
    return total


def _credits(chosen: Sequence[Label], tones: Sequence[Tone]) -> list[tuple[str, float]]:
    """What an explanation counts for: its sources by how strong their tones are; an other tone where it is alone."""
    strong: dict[str, float] = {}
    for label, tone in zip(chosen, tones, strict=True):
        if label.source is not None:
            key = f"alias:{label.source.key}" if label.kind == "alias" else label.source.key
            strong[key] = strong.get(key, 0.0) + max(tone.evidence, 1.0) ** 2
    if not strong:
        return [("other" if any(one.kind == "other" for one in chosen) else "none", 1.0)]
    total = sum(strong.values())
    return [(key, value / total) for key, value in strong.items()]


def _with_aliases_capped(totals: dict[str, float]) -> tuple[dict[str, float], float]:
    """No name above `ALIAS_MOST` where what is heard may be the alias of something above half the rate."""
    none = totals.pop("none", 0.0)
    aliased = {key.removeprefix("alias:"): share for key, share in totals.items() if key.startswith("alias:")}
    named = {key: share for key, share in totals.items() if not key.startswith("alias:")}
    for key, share in aliased.items():
        named[key] = named.get(key, 0.0) + share
    if sum(aliased.values()) > ALIAS_COUNTS:
        over = 0.0
        for key, share in named.items():
            if key != "other" and share > ALIAS_MOST:
                over, named[key] = over + share - ALIAS_MOST, ALIAS_MOST
        named["other"] = named.get("other", 0.0) + over
    return named, none
