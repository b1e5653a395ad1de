"""Run all tests on every core, or the modules named; `--quick` leaves the browser out.

The last line says how many passed and failed. Browser tests run beside the others: one worker begins with those, the
others with the rest, and whoever is done helps. There is one worker more than cores, since many tests wait.
"""

from __future__ import annotations

import argparse
import os
import sys
import time
import unittest
from collections.abc import Iterator
from pathlib import Path

from tests.running import Group, run_groups

ROOT = Path(__file__).resolve().parent
BROWSER = "tests.browser."
SLOWEST = 8
LONGEST = ("tests.browser.test_accessibility.", "tests.web.test_every_value.", "tests.browser.test_engine.")


def flat(suite: unittest.TestSuite) -> Iterator[unittest.TestCase]:
    """Every test of a suite."""
    for one in suite:
        if isinstance(one, unittest.TestSuite):
            yield from flat(one)
        else:
            yield one


def groups(names: list[str], *, quick: bool) -> list[Group]:
    """Tests by class: a class is run by one worker, with one set-up."""
    loader = unittest.TestLoader()
    top = str(ROOT.parent)
    suite = loader.loadTestsFromNames(names) if names else loader.discover(str(ROOT), "test_*.py", top)
    found: dict[str, list[str]] = {}
    for test in flat(suite):
        found.setdefault(test.id().rpartition(".")[0], []).append(test.id())
    mine = [Group(name, tuple(ids)) for name, ids in found.items() if not (quick and name.startswith(BROWSER))]
    return sorted(
        mine, key=lambda group: not group.name.startswith(LONGEST)
    )  # so that none of them is left for the end


def main(arguments: list[str]) -> int:
    """Load, run, sum up."""
    parser = argparse.ArgumentParser(prog="scripts/test", description=__doc__)
    parser.add_argument("names", nargs="*", help="modules, classes or tests; all by default")
    parser.add_argument("--quick", action="store_true", help="leave the browser out")
    parser.add_argument("--workers", type=int, default=(os.cpu_count() or 1) + 1)
    asked = parser.parse_args(arguments)
    mine = groups(asked.names, quick=asked.quick)
    began = time.monotonic()
    done = run_groups(mine, BROWSER, max(1, min(asked.workers, len(mine))))
    for report in done.reports:
        print(report)
    slowest = sorted(done.seconds.items(), key=lambda one: -one[1])[:SLOWEST]
    print("slowest: " + ", ".join(f"{name.removeprefix('tests.')} {seconds:.0f} s" for name, seconds in slowest))
    print(f"{time.monotonic() - began:.0f} s with {asked.workers} workers on {os.cpu_count()} cores")
    skipped = f", {done.skipped} skipped" if done.skipped else ""
    print(f"{done.passed} passed, {done.failed} failed{skipped}")
    return 1 if done.failed or not done.passed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
