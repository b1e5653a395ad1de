"""A headless Chromium, and the real server on a free port with a data directory of its own."""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Self

from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service

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


class RunningServer:
    """`hakutsu serve` or `hakutsu demo` as a process of its own; used as a context manager."""

    def __init__(self, *, demo: bool = False, data: Path | None = None, port: int = 0) -> None:
        self._own = tempfile.TemporaryDirectory() if data is None else None
        self.data = data or Path(self._own.name)  # type: ignore[union-attr]
        self.demo, self.port = demo, port

    def start(self) -> None:
        """Start and wait until the address is printed."""
        command = [str(HAKUTSU), "demo" if self.demo else "serve", "--data", str(self.data), "--port", str(self.port)]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
        line = self.process.stdout.readline()
        found = re.search(r"http://\S+/", line)
        if found is None:
            raise RuntimeError(line + self.process.stdout.read())
        self.address = found.group().rstrip("/")
        self.port = int(self.address.rsplit(":", 1)[1])

    def kill(self) -> None:
        """Stop it at once, as a power cut would (SIGKILL)."""
        self.process.kill()
        self.process.wait()
        self.process.stdout.close()

    def __enter__(self) -> Self:
        self.start()
        return self

    def __exit__(self, *_: object) -> None:
        self.kill()
        if self._own:
            self._own.cleanup()
