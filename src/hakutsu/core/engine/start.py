"""What standing, the first start, looks at the running engine and signs under the bonnet say; `data/start.toml`."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable
from functools import cache
from importlib.resources import files
from typing import Any

from hakutsu.core.corners.found import Follows, Found
from hakutsu.core.engine.fluids import FOLLOWS
from hakutsu.entries.day import Arrival, Moved
from hakutsu.entries.engine import Bay, Effect, EngineLook, EngineStart, Fumes

WHERE = "bay"


@cache
def start_table() -> dict[str, Any]:
    """Words and limits of `data/start.toml`."""
    return tomllib.loads((files("hakutsu.core.engine") / "data" / "start.toml").read_text(encoding="utf-8"))


def stood_found(arrival: Arrival) -> list[Found]:
    """What standing says; the longest time it reached speaks for the shorter ones."""
    table, found, days = start_table(), list[Found](), arrival.stood_days
    reached = [row for row in table["stood"] if days is not None and days >= row["days"]]
    if reached:
        found.append(_row(reached[-1], (f"stood {days} days, {arrival.moved}",)))
    if arrival.moved is Moved.IDLED:
        found.append(Found(WHERE, table["start"]["idled"], Follows.LOOK))
    return found


def start_found(start: EngineStart) -> list[Found]:
    """What the first start says."""
    row, found = start_table()["start"], list[Found]()
    if start.cranking_s is not None and start.cranking_s >= row["cranked_s"]:
        found.append(Found(WHERE, row["cranked"], Follows.LOOK, (f"{start.cranking_s:g} s",)))
    if start.jump_started:
        found.append(Found(WHERE, row["jump"], Follows.NOTE, ("carried forward",)))
    if start.effect is Effect.NONE:
        found.append(Found(WHERE, row["no_effect"], Follows.LOOK, (start.procedure,) if start.procedure else ()))
    return found + noise_found(start.noise, start.noise_s)


def noise_found(noise: str, seconds: float | None) -> list[Found]:
    """What a noise says by how long it lasted [s]; without seconds nothing but that it was heard."""
    if not noise:
        return []
    row = start_table()["noise"]
    if seconds is None:
        return [Found(WHERE, f"{noise}: how long it lasted is not told", Follows.LOOK)]
    stays = seconds >= row["gone_s"]
    words = f"{noise} for {seconds:g} s: {row['stays'] if stays else row['gone']}"
    return [Found(WHERE, words, Follows.LOOK if stays else Follows.NOTE)]


def looks_found(looks: Iterable[EngineLook]) -> list[Found]:
    """What crankcase fumes and noises say, the worst of each once."""
    every = list(looks)
    table, seen = start_table()["fumes"], {one.fumes for one in every}
    found = []
    if Fumes.PUFFING in seen:
        found.append(Found(WHERE, table["puffing"], Follows.SETTLE))
    elif Fumes.WISPS in seen:
        found.append(Found(WHERE, table["wisps"], Follows.LOOK))
    for one in every:
        found += noise_found(one.noise, one.noise_s)
    return found


def bay_found(bay: Bay) -> list[Found]:
    """What signs under the bonnet say."""
    side, seen = (f"on the {{{bay.side}}}",) if bay.side else (), {str(one) for one in bay.signs}
    return [_row(row, side if row.get("sided") else ()) for row in start_table()["sign"] if row["is"] in seen]


def _row(row: dict[str, Any], reasons: tuple[str, ...]) -> Found:
    return Found(WHERE, row["says"], FOLLOWS[row["follows"]], reasons, job=row.get("job", ""))
