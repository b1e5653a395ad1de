"""After the drive everything is looked at once more: what was, and what is still to be."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from hakutsu.entries.engine import EngineIdle, EngineLook, EngineSample, Fumes, Smoke, When


@dataclass(frozen=True, slots=True)
class AgainAfter:
    """Something to look at again: what, in words, what it was before the drive, and whether that was done."""

    words: str
    before: str
    done: bool


def after_drive(
    drove: datetime | None,
    looks: Sequence[tuple[datetime, EngineLook]],
    samples: Sequence[tuple[datetime, EngineSample]],
    idles: Sequence[tuple[datetime, EngineIdle]],
    leaks: Sequence[tuple[str, Sequence[datetime]]],
) -> list[AgainAfter]:
    """What is looked at again after a drive; nothing before there was one.

    Parameters
    ----------
    drove : when the drive ended, none before it; a look that says it was after the drive counts as well
    looks, samples, idles : each with its time
    leaks : every leak in words, with the times of its looks
    """
    told = [at for at, body in looks if body.when is When.AFTER_DRIVE]
    if drove is None and not told:
        return []
    since = min(told) if drove is None else drove
    late = [body for at, body in looks if at >= since or body.when is When.AFTER_DRIVE]
    early = [body for at, body in looks if at < since and body.when is not When.AFTER_DRIVE]
    smoke = ", ".join(dict.fromkeys(str(one.smoke) for one in early if one.smoke is not Smoke.UNKNOWN))
    fumes = ", ".join(dict.fromkeys(str(one.fumes) for one in early if one.fumes is not Fumes.UNKNOWN))
    noise = "; ".join(dict.fromkeys(one.noise for one in early if one.noise))
    oil = [body.oil_bar for at, body in samples if at < since and body.oil_bar is not None]
    found = [
        AgainAfter("smoke, hot", smoke, any(one.smoke is not Smoke.UNKNOWN for one in late)),
        AgainAfter("crankcase fumes, hot", fumes, any(one.fumes is not Fumes.UNKNOWN for one in late)),
        AgainAfter("coolant temperature", "", any(at >= since and body.coolant_c is not None for at, body in samples)),
        AgainAfter("idle, hot", "", any(at >= since for at, _ in idles) or any(one.noise or one.note for one in late)),
    ]
    if noise:
        found.append(AgainAfter("noise", noise, any(one.noise or one.note for one in late)))
    if oil:
        again = any(at >= since and body.oil_bar is not None for at, body in samples)
        found.append(AgainAfter("oil pressure, hot", f"{{pressure {oil[-1]}}}", again))
    return found + [AgainAfter(words, "", any(at >= since for at in times)) for words, times in leaks]
