"""Right, wrong and not settled at minutes 5, 10, 20, 30 on simulated runs: `python -m bench.warm_up [runs [0]]`;
a 0 after them: nobody measured before the start.

A sample a minute, 1 °C of noise, one in ten missing, three in a hundred wrong (anything from 0 to 150 °C), also
of those read again at once because they were asked for.
"""

from __future__ import annotations

import sys
from collections import Counter

import numpy as np

from hakutsu.core.engine.warm_up import Sample, Warming, judge

AT = (5, 10, 20, 30)
KINDS = ("healthy", "stuck open", "overheating", "slow diesel in the cold")
RIGHT = {
    "healthy": {Warming.USUAL},
    "stuck open": {Warming.COLD},
    "overheating": {Warming.STOP, Warming.HOT},
    "slow diesel in the cold": {Warming.INCONCLUSIVE},
}
OPEN = {Warming.TOO_FEW, Warming.NOT_SETTLED}


def truth(kind: str, rng: np.random.Generator) -> tuple[np.ndarray, float, bool]:
    """A run's temperatures minute by minute [°C], the air outside [°C], and whether it is a diesel."""
    outside = float(rng.uniform(-5, 4) if kind == "slow diesel in the cold" else rng.uniform(5, 25))
    start = outside + rng.normal(0, 1)
    tau = 14 * 1.3 ** rng.normal()
    minutes = np.arange(0, 31)
    end, settle = rng.normal(125, 12), rng.normal(91, 3)
    if kind == "stuck open":
        settle = rng.uniform(52, 70)
    if kind == "overheating":
        settle, end, tau = 200.0, rng.uniform(135, 170), tau * 0.7
    if kind == "slow diesel in the cold":
        end, settle, tau = rng.uniform(48, 70), 88.0, tau * 0.8
    return np.minimum(start + (end - start) * (1 - np.exp(-minutes / tau)), settle), outside, kind.startswith("slow")


def run(kind: str, rng: np.random.Generator, *, start_known: bool = True) -> dict[int, Warming]:
    """What is said at each of the minutes; a run that is stopped stays stopped. Every reading may be wrong, also one
    that was asked for.
    """
    true, outside, diesel = truth(kind, rng)
    start = float(true[0]) if start_known else None
    samples, said, found = list[Sample](), dict[int, Warming](), None

    def read(minute: float, degrees: float) -> None:
        value = float(rng.uniform(0, 150)) if rng.random() < 0.03 else float(degrees + rng.normal())
        samples.append(Sample(minute, value, bool(degrees > 100)))

    for minute, degrees in enumerate(true):
        if found is not Warming.STOP and rng.random() >= 0.1:
            read(minute, degrees)
            for again in (0.2, 0.4):
                if minute not in AT and samples[-1].coolant_c < 108:
                    break
                verdict = judge(samples, start_c=start, outside_c=outside, diesel=diesel)
                found = verdict.warming
                if not verdict.repeat:
                    break
                read(minute + again, degrees)
        if minute in AT:
            if found is not Warming.STOP:
                found = judge(samples, start_c=start, outside_c=outside, diesel=diesel).warming
            said[minute] = found
    return said


def main(runs: int = 300, start_known: int = 1) -> None:
    """Print right / wrong / not settled [%] by kind and minute, and how many healthy engines were stopped."""
    for i, kind in enumerate(KINDS):
        rng = np.random.default_rng(100 + i)
        every = [run(kind, rng, start_known=bool(start_known)) for _ in range(runs)]
        words = []
        for minute in AT:
            count = Counter(
                "right" if one[minute] in RIGHT[kind] else "open" if one[minute] in OPEN else "wrong" for one in every
            )
            words.append(" / ".join(f"{100 * count[name] / runs:4.1f}" for name in ("right", "wrong", "open")))
        stopped = sum(any(said is Warming.STOP for said in one.values()) for one in every)
        print(
            f"{kind:24} "
            + "   ".join(f"{m:2} min: {w}" for m, w in zip(AT, words, strict=True))
            + f"   stopped {stopped}"
        )


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:]))
