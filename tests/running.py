"""Workers that run groups of tests, each in a process of its own, and what they report."""

from __future__ import annotations

import io
import multiprocessing
import sys
import time
import unittest
from collections import deque
from dataclasses import dataclass, field
from multiprocessing.connection import Connection, wait


@dataclass(frozen=True)
class Group:
    """A class of tests, and the ids of its tests."""

    name: str
    ids: tuple[str, ...]


@dataclass(frozen=True)
class Outcome:
    """What became of a group: counts, a report of every failure, and how long it took [s]."""

    name: str
    passed: int
    failed: int
    skipped: int
    report: str
    seconds: float


@dataclass
class Done:
    """What became of all groups."""

    passed: int = 0
    failed: int = 0
    skipped: int = 0
    reports: list[str] = field(default_factory=list)
    seconds: dict[str, float] = field(default_factory=dict)

    def add(self, one: Outcome) -> None:
        """Count a group in, and show that it is done."""
        self.passed, self.failed, self.skipped = (
            self.passed + one.passed, self.failed + one.failed, self.skipped + one.skipped,
        )  # fmt: skip
        self.seconds[one.name] = one.seconds
        if one.report:
            self.reports.append(one.report)
        print("F" if one.failed else ".", end="", flush=True)


def run_group(group: Group) -> Outcome:
    """Run one group here."""
    began = time.monotonic()
    suite = unittest.TestLoader().loadTestsFromNames(group.ids)
    said = io.StringIO()
    result = unittest.TextTestRunner(stream=said, verbosity=0).run(suite)
    # A test with several failing subtests is one test; a class that cannot be set up fails with all of its tests.
    broken = {str(getattr(test, "test_case", test)) for test, _ in (*result.failures, *result.errors)}
    failed = len(broken) + len(result.unexpectedSuccesses)
    if result.testsRun == 0 and broken:
        failed = len(group.ids)
    passed = max(0, result.testsRun - failed - len(result.skipped) - len(result.expectedFailures))
    report = said.getvalue() if failed else ""
    return Outcome(group.name, passed, failed, len(result.skipped), report, time.monotonic() - began)


def work(line: Connection) -> None:
    """Run what comes down the line until nothing more does."""
    while (group := line.recv()) is not None:
        line.send(run_group(group))


class Worker:
    """A process with the group it has in hand; `browser_first` is what it takes first."""

    def __init__(self, *, browser_first: bool) -> None:
        self.browser_first = browser_first
        self.group: Group | None = None
        self.line, theirs = multiprocessing.get_context("spawn").Pipe()
        self.process = multiprocessing.get_context("spawn").Process(target=work, args=(theirs,))
        self.process.start()
        theirs.close()

    def take(self, group: Group | None) -> None:
        """Give it a group, or tell it that there is none left."""
        self.group = group
        self.line.send(group)

    def outcome(self) -> Outcome:
        """What became of the group in hand; a worker that died has failed all of it."""
        group = self.group
        assert group is not None
        try:
            found: Outcome = self.line.recv()
        except (EOFError, ConnectionError):
            self.process.join()
            report = f"{group.name}: the process that ran it ended with status {self.process.exitcode}"
            return Outcome(group.name, 0, len(group.ids), 0, report, 0.0)
        return found

    @property
    def alive(self) -> bool:
        """Whether it can take another group."""
        return self.process.is_alive()


def run_groups(groups: list[Group], browser: str, workers: int) -> Done:
    """Run all groups; those whose names begin with `browser` by one worker first, the rest by the others."""
    queues = {True: deque(g for g in groups if g.name.startswith(browser)),
              False: deque(g for g in groups if not g.name.startswith(browser))}  # fmt: skip
    done = Done()
    busy = [Worker(browser_first=i == 0) for i in range(workers)]
    for worker in busy:
        worker.take(_next(queues, worker))
    busy = [worker for worker in busy if worker.group is not None]
    while busy:
        ready = wait([worker.line for worker in busy])
        for worker in [one for one in busy if one.line in ready]:
            done.add(worker.outcome())
            if not worker.alive:
                busy.remove(worker)
                worker = Worker(browser_first=worker.browser_first)
                busy.append(worker)
            worker.take(_next(queues, worker))
            if worker.group is None:
                busy.remove(worker)
                worker.process.join()
    print(file=sys.stderr)
    return done


def _next(queues: dict[bool, deque[Group]], worker: Worker) -> Group | None:
    queue = queues[worker.browser_first] or queues[not worker.browser_first]
    return queue.popleft() if queue else None
