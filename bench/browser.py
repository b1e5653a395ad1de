"""From Enter to the changed profile in the browser, on a processor four times slower too; how much the layout shifts;
and the bytes of the first load.

Run: .venv/bin/python -m bench.browser
"""

from __future__ import annotations

import time
from statistics import median

from selenium.webdriver import Chrome
from selenium.webdriver.common.keys import Keys
from tests.browser.driving import RunningServer, browser

from hakutsu.demo.building import demo_id

ADDRESS: list[str] = []
WATCH = """
window.taken = [];
document.querySelector("#line").addEventListener("keydown", (event) => {
  if (event.key === "Enter") window.pressed = performance.now();
});
new MutationObserver(() => requestAnimationFrame(() => window.taken.push(performance.now() - window.pressed)))
  .observe(document.querySelector("[data-fragment=drawing]"), { childList: true });
"""
SHIFTS = """
window.shifts = [];
new PerformanceObserver((list) => {
  for (const one of list.getEntries()) window.shifts.push([one.value, one.hadRecentInput, ...one.sources.map((source) =>
    source.node?.closest?.("[id], [data-fragment], section")?.outerHTML.slice(0, 80) ?? "")]);
}).observe({ type: "layout-shift", buffered: true });
"""
BYTES = """
const all = [performance.getEntriesByType("navigation")[0], ...performance.getEntriesByType("resource")];
return all.map((one) => [one.name.split("/").pop() || "page", one.transferSize]);
"""


def typed(driver: Chrome, times: int, slower: int) -> tuple[list[float], list[list[object]]]:
    """Milliseconds from Enter to the changed profile, and the layout shifts meanwhile and while the page came."""
    driver.get("about:blank")
    driver.execute_cdp_cmd("Emulation.setCPUThrottlingRate", {"rate": slower})
    driver.get(ADDRESS[0])
    driver.find_element("css selector", "html[data-ready=film]")
    driver.execute_script(SHIFTS)
    driver.execute_script(WATCH)
    for i in range(times):
        driver.find_element("id", "line").send_keys(str(110 + i % 9), Keys.ENTER)
        while driver.execute_script("return window.taken.length") <= i:
            time.sleep(0.02)
    return driver.execute_script("return window.taken"), driver.execute_script("return window.shifts")


def main() -> None:
    """Measure and print."""
    with RunningServer(demo=True) as server:
        driver = browser()
        ADDRESS.append(f"{server.address}/inspections/{demo_id('estate')}/film?panel=roof")
        try:
            driver.implicitly_wait(10)
            driver.get(ADDRESS[0])
            driver.find_element("css selector", "html[data-ready=film]")
            loaded = driver.execute_script(BYTES)
            for slower in (1, 4):
                taken, shifts = typed(driver, 25, slower)
                print(f"Enter to changed profile, processor {slower} times slower: median {median(taken):.0f} ms, "
                      f"slowest {max(taken):.0f} ms; layout shift {sum(one[0] for one in shifts):.4f}")  # fmt: skip
                for one in shifts[:5]:
                    print("  shifted", one)
        finally:
            driver.quit()
    print(f"first load: {sum(size for _, size in loaded):,} bytes in {len(loaded)} files")
    for name, size in sorted(loaded, key=lambda one: -one[1]):
        print(f"  {size:8,}  {name}")


if __name__ == "__main__":
    main()
