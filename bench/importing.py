"""The most rows of a film survey imported while another inspection is written: rows a second, and how writers wait.

Run: .venv/bin/python -m bench.importing
"""

from __future__ import annotations

import tempfile
import threading
import time
from statistics import median

from tests.builders import NOON, logbook_in, opened, reading

from hakutsu.exchange.film_import import MOST_ROWS
from hakutsu.logbook.adding import Signed, checked
from hakutsu.logbook.importing import Arriving, import_entries


def main() -> None:
    """Import beside a writer."""
    with tempfile.TemporaryDirectory() as directory:
        logbook = logbook_in(directory)
        mine, other = opened(logbook), opened(logbook)
        drafts = [reading("roof", 100 + i % 60) for i in range(MOST_ROWS)]
        stop, waits = threading.Event(), []

        def write() -> None:
            while not stop.is_set():
                began = time.perf_counter()
                logbook.append(other, [reading("roof", 118)], "Ina")
                waits.append(time.perf_counter() - began)
                time.sleep(0.01)

        thread = threading.Thread(target=write)
        thread.start()
        time.sleep(0.5)
        alone = len(waits)
        began = time.perf_counter()
        looked_at = checked(Signed(draft, "Ada") for draft in drafts)
        looked = time.perf_counter() - began
        import_entries(logbook, Arriving(mine, NOON), looked_at)
        seconds = time.perf_counter() - began
        stop.set()
        thread.join()
    during = waits[alone:]
    rate = MOST_ROWS / seconds
    print(f"{MOST_ROWS:,} rows in {seconds:.2f} s ({rate:,.0f} a second, {looked:.2f} s of it looking at them)")
    print(f"{len(during)} appends elsewhere meanwhile: median {1000 * median(during):.1f} ms, longest "
          f"{1000 * max(during):.0f} ms; before, median {1000 * median(waits[:alone]):.1f} ms")  # fmt: skip


if __name__ == "__main__":
    main()
