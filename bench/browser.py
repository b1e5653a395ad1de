"""From Enter to the changed profile in the browser, and the bytes of the first load.

Run: .venv/bin/python -m bench.browser
"""

from __future__ import annotations

from statistics import median

from selenium.webdriver.common.keys import Keys
from tests.browser.driving import RunningServer, browser

from hakutsu.demo.building import demo_id

WATCH = """
window.taken = [];
document.querySelector("#line").addEventListener("keydown", (event) => {
  if (event.key === "Enter") window.pressed = performance.now();
});
new MutationObserver(() => requestAnimationFrame(() => window.taken.push(performance.now() - window.pressed)))
  .observe(document.querySelector("[data-fragment=drawing]"), { childList: true });
"""
BYTES = """
const all = [performance.getEntriesByType("navigation")[0], ...performance.getEntriesByType("resource")];
return all.map((one) => [one.name.split("/").pop() || "page", one.transferSize]);
"""


def main() -> None:
    """Measure and print."""
    with RunningServer(demo=True) as server:
        driver = browser()
        try:
            driver.get(f"{server.address}/inspections/{demo_id('estate')}/film?panel=roof")
            driver.implicitly_wait(5)
            driver.find_element("css selector", "html[data-ready=film]")
            loaded = driver.execute_script(BYTES)
            driver.execute_script(WATCH)
            for i in range(25):
                driver.find_element("id", "line").send_keys(str(110 + i % 9), Keys.ENTER)
                while driver.execute_script("return window.taken.length") <= i:
                    pass
            taken = driver.execute_script("return window.taken")
        finally:
            driver.quit()
    print("Enter to changed profile, 85 readings and rising:", end=" ")
    print(f"median {median(taken):.0f} ms, slowest {max(taken):.0f} ms")
    print(f"first load: {sum(size for _, size in loaded):,} bytes in {len(loaded)} files")
    for name, size in sorted(loaded, key=lambda one: -one[1]):
        print(f"  {size:8,}  {name}")


if __name__ == "__main__":
    main()
