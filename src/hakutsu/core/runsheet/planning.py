"""The plan: hard order kept, conditions met, as much knowledge as the time allows, the usual order where it can be."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from math import inf

from hakutsu.core.runsheet.conditions import INSTEAD, WHY_NOT, Conditions
from hakutsu.core.runsheet.steps import Step, steps
from hakutsu.vehicle.vocabulary import Protocol

WHILE = {"seller": "while the seller is there", "daylight": "while there is light", "dry": "while it is dry"}
TOO_LATE = {"seller": "the seller will be gone", "daylight": "it will be dark", "dry": "it will be wet"}


@dataclass(frozen=True, slots=True)
class Planned:
    """A step in the plan, from and to [min], with why it stands where it stands, and the share of all knowledge the
    protocol would bring that leaving it out would cost.
    """

    step: Step
    start: float
    end: float
    because: str
    cost: float = 0.0


@dataclass(frozen=True, slots=True)
class Dropped:
    """A step left out, why, and what that costs [share of all knowledge the protocol would bring]."""

    step: Step
    because: str
    cost: float


@dataclass(frozen=True, slots=True)
class Plan:
    """Steps in order, those left out, when it ends [min], and the share of knowledge it brings."""

    steps: tuple[Planned, ...]
    dropped: tuple[Dropped, ...]
    finish: float
    knowledge: float

    @property
    def waits(self) -> list[tuple[float, float]]:
        """Stretches in which nothing can be done but wait [min]."""
        gaps, at = [], 0.0
        for one in self.steps:
            if one.start > at:
                gaps.append((at, one.start))
            at = one.end
        return gaps


RUNNING = ("cold_start", "start")  # from then on until its last step the engine runs


def plan(conditions: Conditions) -> Plan:
    """Plan the steps that are not done yet.

    Steps are left out in one fixed sequence, those with the least knowledge a minute first and those that must be done
    last; every prefix of that sequence is tried in the usual order and with steps whose conditions end brought forward,
    and the plan with most knowledge that ends in time is taken. More time only adds plans to choose from, so it never
    makes the plan worse.
    """
    protocol = conditions.protocol
    wanted = [_weighed(s, conditions) for s in steps().values() if s.takes(protocol) and s.key not in conditions.done]
    total = sum(s.value for s in wanted if not s.needs & INSTEAD) or 1.0
    impossible = {s.key: why for s in wanted if (why := _why_impossible(s, conditions))}
    possible = [s for s in wanted if s.key not in impossible]
    sequence = _left_out_first(possible, protocol)
    best: tuple[float, int, list[Planned], dict[str, str]] | None = None
    for left_out in range(len(sequence) + 1):
        dropped = {s.key for s in sequence[:left_out]}
        kept = _with_their_other([s for s in possible if s.key not in dropped], conditions.done)
        if best is not None and sum(s.value for s in kept) <= best[0] + 1e-9:
            break  # nothing shorter can bring more
        for forward in (False, True):
            found, missed = _planned(kept, conditions, forward=forward)
            if found and found[-1].end > conditions.available:
                continue
            value = sum(one.step.value for one in found)
            if best is None or value > best[0] + 1e-9:
                best = (value, left_out, found, missed)
    value, count, found, missed = best if best is not None else (0.0, len(sequence), [], {})
    there = conditions.done | {one.step.key for one in found}
    alone = {s.key: f"without it: {steps()[s.only_with].name.lower()}" for s in wanted if _lacks(s, there)}
    reasons = alone | impossible | missed | {s.key: "not enough time" for s in sequence[:count]} | {
        key: why for key, why in alone.items() if key not in impossible
    }  # fmt: skip
    left = [
        Dropped(s, reasons[s.key], s.value / total)
        for s in wanted
        if s.key in reasons and not (s.key in impossible and s.needs & INSTEAD)
    ]
    share = min(1.0, value / total)
    worth = tuple(replace(one, cost=one.step.value / total) for one in found)
    return Plan(worth, tuple(left), found[-1].end if found else 0.0, share)


def first_step(conditions: Conditions) -> Step | None:
    """The first step in the usual order that is not done and may begin; none where the time is over.

    What a plan would begin with, without planning the rest.
    """
    if conditions.available <= 0:
        return None
    wanted = [s for s in steps().values() if s.takes(conditions.protocol) and s.key not in conditions.done]
    possible = {s.key: s for s in wanted if not _why_impossible(s, conditions)}
    there = set(possible) | conditions.done
    for step in possible.values():
        if not _lacks(step, there) and not any(before in possible for before in step.after):
            return step
    return None


def _lacks(step: Step, there: Collection[str]) -> bool:
    """Whether the step without which it tells nothing is not there."""
    return bool(step.only_with) and step.only_with not in there


def _with_their_other(kept: Sequence[Step], done: Collection[str]) -> list[Step]:
    """Steps less those that tell nothing without another that is neither kept nor done."""
    there = {s.key for s in kept} | set(done)
    return [s for s in kept if not _lacks(s, there)]


def _planned(kept: Sequence[Step], conditions: Conditions, *, forward: bool) -> tuple[list[Planned], dict[str, str]]:
    """A schedule in which nothing stands that tells nothing: where a step was missed, what hangs on it goes too."""
    found, missed = _schedule(kept, conditions, forward=forward)
    there = {one.step.key for one in found} | conditions.done
    if any(_lacks(one.step, there) for one in found):
        left = [s for s in kept if s.key in there and not _lacks(s, there)]
        found, more = _schedule(left, conditions, forward=forward)
        missed |= more
    return found, missed


def _weighed(step: Step, conditions: Conditions) -> Step:
    weight = conditions.emphasis.get(step.key)
    return replace(step, value=step.value * weight.factor) if weight else step


def _why_impossible(step: Step, conditions: Conditions) -> str:
    if step.activity in conditions.blocked:
        return "a stand-down forbids it"
    for need in sorted(step.needs):
        if conditions.ends(need) <= 0:
            return WHY_NOT[need]
    return ""


def _schedule(kept: Sequence[Step], conditions: Conditions, *, forward: bool) -> tuple[list[Planned], dict[str, str]]:
    """One step after the other: the first in order whose predecessors are done and waited for.

    With `forward`, of the steps that may begin the one whose conditions end first is taken. What can no longer be done
    in time is missed.
    """
    protocol = conditions.protocol
    here = {s.key for s in kept}
    takes = {s.key: s.takes(protocol) for s in kept}
    ends = {s.key: _end(s, conditions) for s in kept}
    ready_at: dict[str, float] = {}
    left, now = list(kept), 0.0
    found: list[Planned] = []
    missed: dict[str, str] = {}
    while left:
        for step in [s for s in left if now + takes[s.key] > ends[s.key]]:
            left.remove(step)
            missed[step.key] = _why_missed(step, conditions)
            here.discard(step.key)
        begin = {s.key: _begin(s, here, ready_at, now) for s in left}
        if any(key in ready_at for key in RUNNING) and any(s.activity == "running" for s in left):
            beside = {key: at for key, at in begin.items() if not steps()[key].away}
            begin |= dict.fromkeys(begin.keys() - beside.keys(), inf) if min(beside.values(), default=inf) < inf else {}
        if not left:
            break
        soonest = min(begin.values())
        if soonest == inf:  # only a cycle of predecessors could leave none to begin, and the data forbid one
            break
        may = [s for s in left if begin[s.key] <= max(now, soonest)]
        step = min(may, key=lambda s: ends[s.key]) if forward else may[0]
        start = max(now, begin[step.key])
        end = start + takes[step.key]
        if end > ends[step.key]:
            left.remove(step)
            missed[step.key] = _why_missed(step, conditions)
            here.discard(step.key)
            continue
        because = _because(step, here, start, ready_at, conditions, forward)
        weight = conditions.emphasis.get(step.key)
        found.append(Planned(step, start, end, f"{because}; {weight.because}" if weight else because))
        ready_at[step.key] = end + step.waits(protocol)
        left.remove(step)
        now = end
    return found, missed


def _begin(step: Step, here: set[str], ready_at: dict[str, float], now: float) -> float:
    before = [one for one in step.after if one in here]
    return max([now, *(ready_at.get(one, inf) for one in before)])


def _end(step: Step, conditions: Conditions) -> float:
    return min((conditions.ends(need) for need in step.needs), default=inf)


def _why_missed(step: Step, conditions: Conditions) -> str:
    first = min(sorted(step.needs), key=conditions.ends)
    return TOO_LATE[first]


def _because(
    step: Step, here: set[str], start: float, ready_at: dict[str, float], conditions: Conditions, forward: bool
) -> str:
    if "cold" in step.needs:
        return "only while the engine is cold"
    if forward and _end(step, conditions) < inf:
        ending = min(sorted(step.needs), key=conditions.ends)
        return WHILE[ending]
    running = [key for key, ready in ready_at.items() if ready > start + 1e-9]
    if running and not any(one in running for one in step.after):
        return f"while waiting: {steps()[running[0]].name.lower()}"
    before = [one for one in step.after if one in here]
    return f"after: {steps()[before[-1]].name.lower()}" if before else "in the usual order"


def drop_order(protocol: Protocol) -> list[Step]:
    """The sequence in which steps of a protocol are left out when time is short."""
    return _left_out_first([s for s in steps().values() if s.takes(protocol)], protocol)


def _left_out_first(kept: Sequence[Step], protocol: Protocol) -> list[Step]:
    return sorted(kept, key=lambda s: (s.must, s.value / s.takes(protocol), s.key))
