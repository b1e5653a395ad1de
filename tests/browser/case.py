"""What browser tests share: one server and one browser per class, and words for what a user does."""

from __future__ import annotations

import unittest

from selenium.common.exceptions import ElementClickInterceptedException, StaleElementReferenceException
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.wait import WebDriverWait

from tests.browser.driving import RunningServer, shared_browser, sized

PATIENCE_SECONDS = 60


class BrowserCase(unittest.TestCase):
    demo = False
    width, height = 1280, 800

    @classmethod
    def setUpClass(cls):
        cls.server = RunningServer(demo=cls.demo)
        cls.server.start()
        cls.addClassCleanup(cls.server.__exit__)
        cls.driver = shared_browser()
        sized(cls.driver, cls.width, cls.height)
        cls.addClassCleanup(cls._forget)

    @classmethod
    def _forget(cls):
        """Leave nothing of this class in the browser: what it keeps is kept by address."""
        cls.driver.get("about:blank")
        what = {"origin": cls.server.address, "storageTypes": "all"}
        cls.driver.execute_cdp_cmd("Storage.clearDataForOrigin", what)

    def open(self, path):
        self.driver.get(self.server.address + path)

    def one(self, selector):
        return self.driver.find_element(By.CSS_SELECTOR, selector)

    def all(self, selector):
        return self.driver.find_elements(By.CSS_SELECTOR, selector)

    def press(self, selector):
        """Click; where the page moved at that moment, or the bar covers it, move it clear and click as a user would."""

        def clicked():
            try:
                self.one(selector).click()
            except ElementClickInterceptedException:
                script = "document.querySelector(arguments[0])?.scrollIntoView({ block: 'center' })"
                self.driver.execute_script(script, selector)
                return False
            return True

        self.wait(clicked, f"{selector} could not be clicked")

    def text(self, selector):
        """What a user reads there, nothing where nothing is; in one step, since fragments may be swapped."""
        read = "return document.querySelector(arguments[0])?.innerText ?? ''"
        return self.driver.execute_script(read, selector).strip()

    def texts(self, selector):
        read = "(one) => (one.innerText ?? one.textContent).trim()"
        script = f"return [...document.querySelectorAll(arguments[0])].map({read})"
        return self.driver.execute_script(script, selector)

    def wait(self, condition, message="", seconds=PATIENCE_SECONDS):
        # A fragment swapped between finding an element and reading it is found again at the next look.
        wait = WebDriverWait(self.driver, seconds, 0.05, [StaleElementReferenceException])
        return wait.until(lambda _: condition(), message)

    def wait_saved(self):
        """Until the server has everything, and the page shows what follows from it."""
        self.wait(lambda: self.text("#saved").endswith("saved"), "not saved")
        self.wait(lambda: not self.all("html[data-following]"), "parts did not follow")
        self.wait_arrived()

    def wait_arrived(self):
        """Wait until the parts of the panel gone to are there; its name is there at once."""
        self.wait(lambda: not self.all("main[aria-busy]"), "the panel's parts did not come")

    def type_line(self, text):
        """Type into the line as a keyboard does, then Enter, and wait until it is stored and shown."""
        line = self.one("#line")
        line.send_keys(text, Keys.ENTER)
        self.wait(lambda: line.get_property("value") == "", f"the line still holds {text}: {self.text('[data-said]')}")
        self.wait_saved()

    def new_inspection(self, name="Skarrow Fell", **more):
        """Open an inspection through the form, past its key facts to its film; returns its address."""
        self.open("/inspections/new")
        self.one("#name").send_keys(name)
        for field, value in more.items():
            self.driver.execute_script("document.getElementById(arguments[0]).value = arguments[1]", field, value)
        self.one("#name").send_keys(Keys.ENTER)
        self.wait(lambda: self.all("html[data-ready=facts]"), "the key facts did not get ready")
        here = self.driver.current_url.split("/facts")[0].removeprefix(self.server.address)
        self.open(f"{here}/film")
        self.wait(lambda: self.all("html[data-ready=film]"), "the film station did not get ready")
        return here

    def count_on(self, panel):
        """What the rail says beside a panel."""
        return self.text(f'nav [data-panel="{panel}"] [data-count]').split()[0]
