"""One picture per main view, from demo data, into docs/screenshots."""

from __future__ import annotations

import sys
import time

from hakutsu.demo.building import demo_id
from tests.browser.driving import ROOT, RunningServer, browser

OUT = ROOT / "docs" / "screenshots"
ESTATE, HATCH, FELL, SUND = (f"/inspections/{demo_id(car)}" for car in ("estate", "hatch", "fell", "sund"))
WIDE, NARROW = (1280, 800), (390, 844)
PLAN = """document.querySelector("#available").value = "150"; document.querySelector("[name=lift]").value = "yes";
document.querySelector("[action$=conditions] button").click()"""
OPEN = "document.querySelector('[data-lines] details').open = true"

VIEWS = {
    "day": ("/", WIDE, ""),
    "overview": (HATCH, WIDE, ""),
    "place": (f"{ESTATE}/place/front_corner_left", WIDE, OPEN),
    "road": (f"{ESTATE}/road/measured", WIDE, "document.querySelector('#records').scrollIntoView()"),
    "film-station": (f"{ESTATE}/film?panel=rear_quarter_right", WIDE, ""),
    "film-station-narrow": (f"{HATCH}/film?panel=rear_quarter_left", NARROW, ""),
    "shell-sheet": (f"{ESTATE}/film?panel=rear_quarter_right&drawing=sheet", WIDE, ""),
    "outside": (f"{ESTATE}/outside/blemishes", WIDE, ""),
    "corners": (f"{ESTATE}/corners", WIDE, ""),
    "under": (f"{ESTATE}/under", WIDE, ""),
    "engine-run": (f"{ESTATE}/engine/run", WIDE, ""),
    "scan": (f"{ESTATE}/scan", WIDE, ""),
    "papers": (f"{FELL}/papers/distance", WIDE, ""),
    "life-calendar": (f"{ESTATE}/life/calendar", WIDE, ""),
    "negotiation": (f"{ESTATE}/life/sheet", WIDE, ""),
    "key-facts": (f"{SUND}/facts", WIDE, ""),
    "round": (f"{HATCH}/round", WIDE, "document.querySelector('[id^=q] details').open = true"),
    "run-sheet": (f"{HATCH}/runsheet", WIDE, PLAN),
    "report": (f"{ESTATE}/report", (1000, 1400), ""),
}


def main(names: list[str]) -> None:
    """Take the named views, or all."""
    OUT.mkdir(parents=True, exist_ok=True)
    with RunningServer(demo=True) as server:
        for name in names or VIEWS:
            path, (width, height), script = VIEWS[name]
            driver = browser(width, height)
            try:
                metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
                driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
                driver.get(server.address + path)
                time.sleep(0.6)
                driver.execute_script(script)
                time.sleep(1.2)
                driver.save_screenshot(str(OUT / f"{name}.png"))
                print(f"· {name}")
            finally:
                driver.quit()


if __name__ == "__main__":
    main(sys.argv[1:])
