"""What standing, the first start, looks at the running engine and signs under the bonnet say; `data/start.toml`."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache

from hakutsu.core.engine.tables import StartTable
from hakutsu.core.findings import Finding, found
from hakutsu.entries.day import Arrival, Moved
from hakutsu.entries.engine import Bay, Clears, Effect, Ended, EngineLook, EngineStart, Fumes, Smoke
from hakutsu.vehicle.tables import read_table

WHERE = "bay"


@cache
def start_table() -> StartTable:
    """Words and limits of `data/start.toml`."""
    return read_table("core.engine", "start", StartTable)


def stood_found(arrival: Arrival) -> list[Finding]:
    """What standing says; the longest time it reached speaks for the shorter ones."""
    table, seen, days = start_table(), list[Finding](), arrival.stood_days
    reached = [row for row in table["stood"] if days is not None and days >= row["days"]]
    if reached:
        row = reached[-1]
        seen.append(found(f"engine.{row['is']}", WHERE, row["says"], (f"stood {days} days, {arrival.moved}",)))
    if arrival.moved is Moved.IDLED:
        seen.append(found("engine.only_idled", WHERE, table["start"]["idled"]))
    return seen


def start_found(start: EngineStart) -> list[Finding]:
    """What the first start says."""
    row, seen = start_table()["start"], list[Finding]()
    if start.cranking_s is not None and start.cranking_s >= row["cranked_s"]:
        seen.append(found("engine.cranked_long", WHERE, row["cranked"], (f"{start.cranking_s:g} s",)))
    if start.jump_started:
        seen.append(found("engine.jump_started", WHERE, row["jump"], ("carried forward",)))
    if start.effect is Effect.NONE:
        why = (start.procedure,) if start.procedure else ()
        seen.append(found("engine.procedure_no_effect", WHERE, row["no_effect"], why))
    return seen + smoke_found(start.smoke, start.smoke_is) + noise_found(start.noise, start.noise_s, start.noise_is)


def smoke_found(smoke: Smoke, clears: Clears = Clears.UNKNOWN) -> list[Finding]:
    """What smoke of a colour may mean, and whether it cleared; thin white that vanishes is water, and nothing."""
    why = (str(clears),) if clears is not Clears.UNKNOWN else ()
    if smoke is Smoke.SOME:
        code = "engine.smoke_some_cleared" if clears is Clears.CLEARS else "engine.smoke_some"
        return [found(code, WHERE, "smoke, its colour was not told", why)]
    says = start_table()["smoke"].get(smoke.value)
    return [found(f"engine.smoke_{smoke.value}", WHERE, f"{smoke} smoke: {says}", why)] if says else []


def noise_found(noise: str, seconds: float | None, ended: Ended = Ended.UNKNOWN) -> list[Finding]:
    """What a noise says by how long it lasted [s], or by whether it ended; else nothing but that it was heard."""
    if not noise:
        return []
    row = start_table()["noise"]
    if ended is not Ended.UNKNOWN and (seconds is None or ended is Ended.STILL):
        stays = ended is Ended.STILL
        words = f"{noise}, {ended}: {row['stays'] if stays else row['gone']}"
        return [found(f"engine.noise_{'stays' if stays else 'gone'}", WHERE, words)]
    if seconds is None:
        return [found("engine.noise_not_timed", WHERE, f"{noise}: how long it lasted is not told")]
    stays = seconds >= row["gone_s"]
    words = f"{noise} for {seconds:g} s: {row['stays'] if stays else row['gone']}"
    return [found(f"engine.noise_{'stays' if stays else 'gone'}", WHERE, words)]


def looks_found(looks: Iterable[EngineLook]) -> list[Finding]:
    """What fumes, smoke, noises and what forbids running say, the worst of fumes once."""
    every = list(looks)
    table, fumes = start_table()["fumes"], {one.fumes for one in every}
    seen = []
    if Fumes.PUFFING in fumes:
        seen.append(found("engine.fumes_puffing", WHERE, table["puffing"]))
    elif Fumes.WISPS in fumes:
        seen.append(found("engine.fumes_wisps", WHERE, table["wisps"]))
    for one in every:
        seen += smoke_found(one.smoke, one.smoke_is) + noise_found(one.noise, one.noise_s, one.noise_is)
    must_stop = start_table()["stop"]
    seen += [
        found(f"engine.{key}", WHERE, must_stop[key]) for key in must_stop if any(getattr(one, key) for one in every)
    ]
    return seen


def bay_found(bay: Bay) -> list[Finding]:
    """What signs under the bonnet say; one on a side lies at that corner."""
    there = {one.value for one in bay.signs}
    found_here = []
    for row in start_table()["sign"]:
        if row["is"] in there:
            sided = bool(bay.side) and bool(row.get("sided"))
            subject, why = (f"front_corner_{bay.side}", (f"on the {{{bay.side}}}",)) if sided else (WHERE, ())
            found_here.append(found(f"engine.bay_{row['is']}", subject, row["says"], why))
    return found_here
