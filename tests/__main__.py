"""Run all tests, or the modules named; the last line says how many passed and failed."""

from __future__ import annotations

import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent


def main(names: list[str]) -> int:
    """Load, run, sum up."""
    loader = unittest.TestLoader()
    suite = (
        loader.loadTestsFromNames(names)
        if names
        else loader.discover(str(ROOT), pattern="test_*.py", top_level_dir=str(ROOT.parent))
    )
    result = unittest.TextTestRunner(verbosity=1).run(suite)
    # A test with several failing subtests is one test.
    broken = {str(getattr(test, "test_case", test)) for test, _ in (*result.failures, *result.errors)}
    failed = len(broken) + len(result.unexpectedSuccesses)
    skipped = len(result.skipped)
    awaited = len(result.expectedFailures)
    passed = result.testsRun - failed - skipped - awaited
    if awaited:
        print(f"{awaited} expected to fail: wanted, and not so yet")
    print(f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""))
    return 1 if failed or not result.testsRun else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
