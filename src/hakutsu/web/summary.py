"""One inspection summed up for the day, for timers and for gauges: from its stored entries at a glance, or reckoned."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, field, replace
from datetime import datetime
from typing import Any, Self
from uuid import UUID

from hakutsu import __version__
from hakutsu.dossier import Covered, Dossier
from hakutsu.dossier.scan import ScanDossier
from hakutsu.entries.opening import Stage
from hakutsu.entries.registry import EntryError, parse_body
from hakutsu.logbook.derived import SummaryRow
from hakutsu.logbook.ends import End
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.keyed import Keyed
from hakutsu.web.next_step import next_step, phase_of
from hakutsu.web.rail import rail


class Show(Keyed):
    """Which inspections a list shows."""

    LISTED = "listed", "all but archived"
    OPEN = "open"
    DONE = "done"
    ARCHIVED = "archived"

    def holds(self, *, finished: bool, archived: bool) -> bool:
        """Whether one in that state is among them."""
        if self is Show.ARCHIVED or archived:
            return archived and self is Show.ARCHIVED
        return self is Show.LISTED or finished == (self is Show.DONE)


@dataclass(frozen=True, slots=True)
class Summary:
    """An inspection at its end: vehicle, buyer and state; timers that run; when which gauge was verified last.

    `last_at` is when its last entry was made, `phase` (a key) how far the work is, `following` what comes next with its
    page `room`, `waits` what asks for somebody; these but the first are known once it was reckoned.

    `done` and `expected` count panels of the film survey; they and `retests` are none until it was reckoned, as is
    `honest`, what its film teaches about the next of its `kind`: level [µm], spread, unevenness; `by` read it. `units`
    are control units that were read, and whether they held codes. `fault`
    says why it cannot be shown, `vehicle` is empty where none was named yet.
    """

    inspection: UUID
    end: End
    opened_at: str
    vehicle: str = ""
    detail: str = ""
    buyer: str = ""
    finished: bool = False
    archived: bool = False
    last_at: str = ""
    phase: str = ""
    following: str = ""
    room: str = ""
    waits: Sequence[str] = ()
    readings: int = 0
    done: int | None = None
    expected: int | None = None
    retests: int | None = None
    timers: bool = False
    verified: Mapping[str, str] = field(default_factory=dict)
    kind: str = ""
    registration: str = ""
    by: str = ""
    honest: Sequence[float] | None = None
    units: Mapping[str, bool] | None = None
    fault: str = ""

    @property
    def worked_on(self) -> tuple[str, str]:
        """When it was worked on last, as far as is known, and when it was opened."""
        return self.last_at or self.opened_at, self.opened_at

    def is_shown(self, show: Show, words: Sequence[str]) -> bool:
        """Whether it belongs to what is asked for, and holds every one of some words (in small letters)."""
        if not show.holds(finished=self.finished, archived=self.archived):
            return False
        told = f"{self.vehicle} {self.detail} {self.buyer}".casefold() if words else ""
        return all(one in told for one in words)

    @property
    def reckoned(self) -> bool:
        """Whether it comes of a reckoning, or cannot be reckoned at all."""
        return self.expected is not None or bool(self.fault)

    @property
    def row(self) -> SummaryRow:
        """As it is kept."""
        said = asdict(self) | {"verified": dict(self.verified)}
        del said["inspection"], said["end"]
        return SummaryRow(self.inspection, *self.end, __version__, said)

    @classmethod
    def read(cls, row: SummaryRow) -> Self | None:
        """As it was kept; nothing where another version kept it."""
        if row.made != __version__:
            return None
        try:
            return cls(row.inspection, End(row.seq, row.hash), **row.said)
        except TypeError:
            return None


def _named(vehicle: VehicleDescription) -> dict[str, str]:
    detail = ", ".join(part for part in (vehicle.registration, vehicle.colour) if part)
    return {
        "vehicle": vehicle.name, "detail": detail, "kind": vehicle.kind, "registration": vehicle.registration.casefold()
    }  # fmt: skip


def reckoned_summary(reckoning: Reckoning, end: End, opened_at: str, now: datetime) -> Summary:
    """Sum up a reckoning as it stands at `now`."""
    dossier: Dossier = reckoning.dossier
    coverage = [c for c in dossier.film_coverage() if c.expected or c.state is Covered.LIMITED]
    verified: dict[str, str] = {}
    for kept in dossier.film.verifications.values():
        verified[kept.body.gauge] = max(kept.at.isoformat(), verified.get(kept.body.gauge, ""))
    last = dossier[ScanDossier].last
    taught = reckoning.film.teaches if dossier.opening.stage.done else None
    following = next_step(reckoning, now)
    return Summary(
        dossier.inspection, end, opened_at, **_named(dossier.vehicle), phase=phase_of(reckoning).value,
        last_at=dossier.entries[-1].at.isoformat(), following=following.words, room=following.room,
        waits=tuple(one.words for one in rail(reckoning, now) if one.now), buyer=dossier.opening.brief.buyer,
        finished=dossier.opening.stage.done, archived=dossier.opening.stage is Stage.ARCHIVED,
        readings=len(dossier.film.readings),
        done=sum(c.state is not Covered.OPEN for c in coverage), expected=len(coverage),
        retests=len(reckoning.film.analysis.open_surprises), timers=bool(dossier.timers.running), verified=verified,
        by=next((one.by for one in dossier.film.readings), ""),
        units=_units(last.body.model_dump(mode="json")) if last and not last.body.simulated else None,
        honest=(taught.level_um, taught.spread, taught.unevenness) if taught else None,
    )  # fmt: skip


def _last_at(said: Sequence[Mapping[str, Any]], before: str = "") -> str:
    """When the last of some entries was made; that of `before` where there is none that says so."""
    try:
        return datetime.fromisoformat(str(said[-1]["at"])).isoformat() if said else before
    except (KeyError, ValueError):
        return before


def glanced_summary(inspection: UUID, end: End, opened_at: str, drafts: Iterable[str]) -> Summary:
    """Sum up entries as they are stored, of which only those that say what is wanted are read."""
    said = [one for stored in drafts if (one := _read(stored)) is not None]
    struck: set[str] = set()
    for one in reversed(said):
        if one.get("strikes") and one.get("id") not in struck:
            struck.add(one["strikes"])
    found, running, verified = _told([one for one in said if one.get("id") not in struck])
    return Summary(inspection, end, opened_at, **found, last_at=_last_at(said), timers=bool(running), verified=verified)


def gone_on(before: Summary, end: End, drafts: Iterable[str]) -> Summary | None:
    """A summary with the entries that came since, at a glance; none where they change what was said before."""
    said = [one for stored in drafts if (one := _read(stored)) is not None]
    if before.fault or any(one.get("strikes") or one.get("kind") == "timer.stopped" for one in said):
        return None
    found, running, verified = _told(said)
    found["readings"] += before.readings
    for gauge, at in before.verified.items():
        verified[gauge] = max(at, verified.get(gauge, ""))
    return replace(
        before, end=end, last_at=_last_at(said, before.last_at), done=None, expected=None, retests=None, honest=None,
        following="", room="", waits=(), phase="", timers=before.timers or bool(running),
        verified=verified, **found,
    )  # fmt: skip


def _told(stand: Sequence[Mapping[str, Any]]) -> tuple[dict[str, Any], set[str], dict[str, str]]:
    """What entries that stand say of a summary, timers that run, and when which gauge was verified last."""
    found: dict[str, Any] = {"readings": sum(one.get("kind") == "film.reading" for one in stand)}
    running, verified = set[str](), dict[str, str]()
    for one in stand:
        body = one.get("body") or {}
        match one.get("kind"):
            case "inspection.vehicle":
                found |= _vehicle(one)
            case "inspection.brief":
                found["buyer"] = str(body.get("buyer", ""))
            case "inspection.stage":
                found["finished"] = body.get("stage") != Stage.BEGUN.value
                found["archived"] = body.get("stage") == Stage.ARCHIVED.value
            case "scan.read" if not body.get("simulated"):
                found["units"] = _units(body)
            case "timer.started":
                running.add(str(one.get("id")))
            case "timer.stopped":
                running.discard(str(body.get("of")))
            case "film.verification":
                gauge = str(body.get("gauge", ""))
                verified[gauge] = max(str(one.get("at", "")), verified.get(gauge, ""))
    return found, running, verified


def _units(body: Mapping[str, Any]) -> dict[str, bool]:
    """Units of a read, and whether each held codes; one whose codes were not read is none."""
    modules = body.get("modules")
    rows = [one for one in modules if isinstance(one, dict)] if isinstance(modules, list) else []
    return {str(one.get("address")): bool(held) for one in rows if isinstance(held := one.get("codes", []), list)}


def _read(stored: str) -> dict[str, Any] | None:
    try:
        said = json.loads(stored)
    except (ValueError, RecursionError):
        return None
    return said if isinstance(said, dict) else None


def _vehicle(said: Mapping[str, Any]) -> dict[str, str]:
    try:
        body = parse_body("inspection.vehicle", int(said.get("version", 1)), said.get("body") or {})
    except (EntryError, ValueError):
        return {}
    return _named(body.vehicle)  # type: ignore[attr-defined]
