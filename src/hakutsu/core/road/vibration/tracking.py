"""How well the record bears out a tone at every frequency, followed as it wanders with the speed.

A tone is a base frequency and a wandering beside it: a first-order Gauss–Markov process, summed over by the forward
algorithm of a hidden Markov model (Rabiner 1989). In each window the power of noise alone is chi-square with six
degrees of freedom (three axes), that of a tone noncentral chi-square; its strength, not known, is summed over.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaln, ive

from hakutsu.core.road.vibration.spectrum import RATIO, Standing

Floats = NDArray[np.float64]

STRENGTHS = (6.0, 12.0, 24.0, 48.0, 96.0)  # noncentrality in one window
WANDERS = (0.003, 0.012)  # standard deviation of the wandering, as a share of the frequency
REMEMBERS_S = 8.0  # after so long little is left of where it was
WANDER_STEP = 2  # steps of the grid of frequencies
WANDER_MOST = 8  # so many of these to either side
HUMPS = (1.4, 2.0, 3.0)
ABSENT = 0.1  # of the windows may lack the tone, or be spoilt
Z_READ = np.linspace(0.0, 250.0, 2501)
FREEDOM = 6


@dataclass(frozen=True, slots=True)
class ToneDensity:
    """`log_ratio` (f,): log of how much better a tone of that base frequency explains the record than noise does;
    `log_hump` (f,) that of noise that is louder there, as over a resonance of the body: it flickers, a tone does not.
    """

    hz: Floats
    log_ratio: Floats
    log_hump: Floats


def log_ratios(z: Floats, strength: float) -> Floats:
    """Log of the density of `z` (twice the power over noise) with a tone of `strength` over that without one."""
    return np.interp(z, Z_READ, _table(strength))


@cache
def _table(strength: float) -> Floats:
    z, order = Z_READ, FREEDOM / 2 - 1
    root = np.sqrt(np.maximum(strength * z, 1e-12))
    bessel = np.log(ive(order, root)) + root + gammaln(order + 1) - order * np.log(root / 2)
    return np.asarray(np.log((1 - ABSENT) * np.exp(bessel - strength / 2) + ABSENT))


def tone_density(standing: Standing) -> ToneDensity:
    """The evidence for a tone at every frequency of the grid, its strength and wandering summed over."""
    found = []
    for strength in STRENGTHS:
        seen = standing.counts * log_ratios(standing.z, strength)
        found += [_forward(seen, wander) for wander in WANDERS]
    humps = [
        _forward(standing.counts * hump_ratios(standing.z, scale), WANDERS[0]) - np.log(len(HUMPS)) for scale in HUMPS
    ]
    tones = np.asarray(np.logaddexp.reduce(found) - np.log(len(found)))
    return ToneDensity(standing.hz, tones, np.asarray(np.logaddexp.reduce(humps)))


def hump_ratios(z: Floats, scale: float) -> Floats:
    """Log of the density of `z` where the noise itself is louder by `scale`, over that of noise as beside it."""
    return np.asarray(0.5 * np.minimum(z, Z_READ[-1]) * (1 - 1 / scale) - FREEDOM / 2 * np.log(scale))


def _moves(wander: float) -> tuple[Floats, Floats]:
    """Where the wandering starts (w,), and how it goes on from one second to the next (w, w)."""
    offsets = np.arange(-WANDER_MOST, WANDER_MOST + 1) * WANDER_STEP * RATIO
    start = np.exp(-0.5 * (offsets / wander) ** 2)
    kept = np.exp(-1.0 / REMEMBERS_S)
    spread = max(wander * np.sqrt(1 - kept**2), 0.4 * WANDER_STEP * RATIO)
    moves = np.exp(-0.5 * ((offsets[None, :] - kept * offsets[:, None]) / spread) ** 2)
    return start / start.sum(), moves / moves.sum(axis=1, keepdims=True)


def _forward(emissions: Floats, wander: float) -> Floats:
    start, moves = _moves(wander)
    reach = WANDER_MOST * WANDER_STEP
    padded = np.pad(emissions, ((0, 0), (reach, reach)))
    size = emissions.shape[1]
    shifts = range(0, 2 * reach + 1, WANDER_STEP)
    alpha, log_scale = np.tile(start, (size, 1)), np.zeros(size)
    for index in range(len(emissions)):
        seen = np.stack([padded[index, shift : shift + size] for shift in shifts], axis=1)
        most = seen.max(axis=1)
        alpha = alpha * np.exp(seen - most[:, None])
        total = alpha.sum(axis=1)
        log_scale += most + np.log(total)
        alpha = (alpha / total[:, None]) @ moves
    return log_scale


def followed(standing: Standing, hz: float) -> NDArray[np.intp]:
    """The likeliest course of a tone of that base frequency: its place in the grid in every window (Viterbi)."""
    base = int(np.argmin(np.abs(standing.hz - hz)))
    offsets = np.arange(-WANDER_MOST, WANDER_MOST + 1) * WANDER_STEP
    places = np.clip(base + offsets, 0, len(standing.hz) - 1)
    emissions = standing.counts[places] * log_ratios(standing.z[:, places], STRENGTHS[3])
    start, moves = (np.log(one + 1e-300) for one in _moves(WANDERS[-1]))
    score, back = start + emissions[0], []
    for seen in emissions[1:]:
        ways = score[:, None] + moves
        back.append(ways.argmax(axis=0))
        score = ways.max(axis=0) + seen
    course = [int(score.argmax())]
    for came in reversed(back):
        course.append(int(came[course[-1]]))
    return np.asarray(places[course[::-1]], dtype=np.intp)
