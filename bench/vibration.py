"""How often the source of a recorded vibration is named, over worlds of different physics.

python -m bench.vibration [RECORDS A WORLD]
"""

import sys
import time
from concurrent.futures import ProcessPoolExecutor

import numpy as np

from hakutsu.core.road.vibration import match_vibration
from hakutsu.core.road.vibration.simulate import Made, World, make

WORLDS = {
    "road, swaying": World(),
    "white, swaying": World(noise="white"),
    "road, ramps": World(wandering="ramp"),
    "road, walk, own engine": World(wandering="walk", engine_follows=False),
    "bumps": World(bumps=12),
    "jitter": World(jitter=0.3, gaps=0.6),
    "short": World(lasts=(8.0, 15.0)),
    "long": World(lasts=(120.0, 240.0), wandering="walk"),
}


def judged(made: Made) -> dict[str, object]:
    """How one record was answered."""
    match = match_vibration(made.record, made.stated)
    top = max(match.candidates, key=lambda one: one.probability, default=None)
    share = top.probability if top and top.probability > match.none else match.none
    said = top.source if top and top.probability > match.none else "none"
    right = said in (made.truth or ("none",))
    return {"said": said, "share": share, "right": right, "none": match.none, "made": made}


def main() -> None:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 60
    for name, world in WORLDS.items():
        rng, began = np.random.default_rng(7), time.perf_counter()
        with ProcessPoolExecutor() as pool:
            rows = list(pool.map(judged, [make(rng, world) for _ in range(count)], chunksize=4))
        tones = [one for one in rows if one["made"].truth and not one["made"].aliased]
        named = [one for one in tones if "other" not in one["made"].truth]
        none = [one for one in rows if not one["made"].truth]
        sure = [one for one in rows if one["share"] > 0.9 and one["said"] != "none"]
        by = {k: np.mean([one["right"] for one in named if one["made"].strength == k]) for k in world.strengths}
        high = [one for one in rows if one["made"].aliased]
        over = sum(one["share"] > 0.605 and one["said"] not in ("none", "other") for one in high)
        strong = ", ".join(f"{k} {v:.2f}" for k, v in by.items())
        print(
            f"{name}: right {np.mean([o['right'] for o in named]):.2f} ({strong}),"
            f" other {np.mean([o['right'] for o in tones if 'other' in o['made'].truth]):.2f},"
            f" none {np.mean([o['none'] >= 0.5 for o in none]):.2f},"
            f" sure and wrong {sum(not o['right'] for o in sure)}/{len(rows)} of {len(sure)} sure,"
            f" alias over .6 {over}/{len(high)},"
            f" {(time.perf_counter() - began) / count:.2f} s"
        )


if __name__ == "__main__":
    main()
