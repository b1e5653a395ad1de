"""A headless Chromium, and the real server on a free port with a data directory of its own."""

from __future__ import annotations

import atexit
import json
import os
import re
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from contextlib import suppress
from functools import cache
from pathlib import Path
from typing import Self

from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service

from hakutsu.demo import add_demo
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.logbook.pictures import PictureFiles

ROOT = Path(__file__).resolve().parents[2]
HAKUTSU = Path(sys.executable).with_name("hakutsu")
FLAGS = (
    "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--hide-scrollbars",
    "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage",
)  # fmt: skip


def browser(width: int = 1280, height: int = 800, *, dark: bool = False) -> webdriver.Chrome:
    """A fresh headless browser of a size."""
    options = Options()
    options.binary_location = os.environ.get("CHROMIUM", "/usr/bin/chromium")
    for flag in (*FLAGS, f"--window-size={width},{height}"):
        options.add_argument(flag)
    if dark:
        options.add_argument("--force-dark-mode")
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    driver = webdriver.Chrome(options=options, service=Service(os.environ.get("CHROMEDRIVER", "/usr/bin/chromedriver")))
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    return driver


@cache
def shared_browser() -> webdriver.Chrome:
    """One browser for all classes of a process; it is ended with it."""
    driver = browser()
    atexit.register(driver.quit)
    return driver


def sized(driver: webdriver.Chrome, width: int, height: int) -> None:
    """Give a browser a screen of a size, as on a fresh start."""
    for other in driver.window_handles[1:]:
        driver.switch_to.window(other)
        driver.close()
    driver.switch_to.window(driver.window_handles[0])
    driver.get("about:blank")
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "", "features": []})
    driver.execute_cdp_cmd("Emulation.setCPUThrottlingRate", {"rate": 1})
    driver.get_log("browser")


class Forked:
    """A server that was forked: by its number, since it is no child of this process."""

    def __init__(self, number: int) -> None:
        self.number = number

    def poll(self) -> int | None:
        """None while it runs, as of any process."""
        try:
            os.kill(self.number, 0)
        except ProcessLookupError:
            return -signal.SIGKILL
        return None

    def kill(self) -> None:
        """Stop it at once, as a power cut would (SIGKILL), and wait until it is gone."""
        with suppress(ProcessLookupError):
            os.kill(self.number, signal.SIGKILL)
        while self.poll() is None:
            time.sleep(0.01)


@cache
def forge() -> subprocess.Popen[str]:
    """The process that forks servers, started when first asked for."""
    command = [sys.executable, "-m", "tests.browser.forge"]
    made = subprocess.Popen(command, cwd=ROOT, text=True, stdin=subprocess.PIPE, stdout=subprocess.PIPE)
    atexit.register(_end, made)
    return made


def _end(process: subprocess.Popen[str]) -> None:
    process.kill()
    process.wait()


@cache
def demo_data() -> Path:
    """A data directory with the demo's inspections, made once for each process and copied for each server."""
    place = tempfile.mkdtemp(prefix="hakutsu-demo-")
    atexit.register(shutil.rmtree, place, ignore_errors=True)
    engine = DataDirectory(Path(place)).engine()
    files = PictureFiles(Path(place) / "pictures")
    add_demo(Logbook(engine), files)
    files.close()
    engine.dispose()
    return Path(place)


class RunningServer:
    """`hakutsu serve` or `hakutsu demo` as a process of its own; used as a context manager."""

    def __init__(self, *, demo: bool = False, data: Path | None = None, port: int = 0) -> None:
        self._own = tempfile.TemporaryDirectory() if data is None else None
        self.data = data or Path(self._own.name)  # type: ignore[union-attr]
        self.demo, self.port = demo, port
        if demo and self._own:
            shutil.copytree(demo_data(), self.data, dirs_exist_ok=True)

    def start(self) -> None:
        """Start and wait until the address is printed."""
        made = forge()
        asked = {"with_demo": self.demo, "data": str(self.data), "port": self.port}
        made.stdin.write(json.dumps(asked) + "\n")
        made.stdin.flush()
        number, said = json.loads(made.stdout.readline())
        found = re.search(r"http://\S+/", said)
        if found is None:
            raise RuntimeError(said)
        self.process = Forked(number)
        self.address = found.group().rstrip("/")
        self.port = int(self.address.rsplit(":", 1)[1])

    def kill(self) -> None:
        """Stop it at once, as a power cut would (SIGKILL)."""
        self.process.kill()

    def __enter__(self) -> Self:
        self.start()
        return self

    def __exit__(self, *_: object) -> None:
        self.kill()
        if self._own:
            self._own.cleanup()
