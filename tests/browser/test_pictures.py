"""Pictures taken in, marked, put into the desk queue and settled by keyboard."""

import json
import tempfile
import time
import unittest
from base64 import b64encode
from http.client import HTTPConnection
from pathlib import Path
from uuid import uuid4

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys as Keyboard

from hakutsu.demo.pictures import sample_picture
from hakutsu.logbook import DataDirectory, Logbook
from tests.browser.case import BrowserCase
from tests.browser.driving import RunningServer
from tests.builders import opened


class Pictures(BrowserCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.folder = Path(directory.name)

    def file(self, name, data):
        path = self.folder / name
        path.write_bytes(data)
        return str(path)

    def taken_in(self, here, count=2):
        self.open(f"{here}/pictures")
        self.wait(lambda: self.all("html[data-ready=pictures]"))
        good = [self.file(f"{i}.jpg", sample_picture(seed=i, size=(320, 240))) for i in range(count)]
        self.one("[data-files]").send_keys("\n".join(good))
        self.wait(lambda: len(self.all("[data-fragment=grid] li")) == count)

    def test_chosen_files_arrive_a_broken_one_says_why_and_copies_follow(self):
        here = self.new_inspection()
        self.open(f"{here}/pictures")
        self.wait(lambda: self.all("html[data-ready=pictures]"))
        self.one("[data-tag]").send_keys("whole, from front left")
        good = self.file("good.jpg", sample_picture(size=(320, 240)))
        bad = self.file("bad.jpg", b"no picture at all")
        self.one("[data-files]").send_keys(f"{good}\n{bad}")
        self.wait(lambda: "bad.jpg: no picture" in self.text("[data-said]"))
        self.wait(lambda: len(self.all("[data-fragment=grid] li")) == 1)
        self.assertIn("1 of", self.text("[data-fragment=shots]"))
        wide = "return document.querySelector('[data-fragment=grid] img').naturalWidth"
        self.wait(lambda: self.driver.execute_script(wide) > 40, "the copy did not come")

    def test_dropped_and_pasted_files_arrive_as_chosen_ones_do(self):
        here = self.new_inspection()
        self.open(f"{here}/pictures")
        self.wait(lambda: self.all("html[data-ready=pictures]"))
        data = b64encode(sample_picture(size=(64, 48))).decode()
        carry = """
            const bytes = Uint8Array.from(atob(arguments[0]), (one) => one.charCodeAt(0));
            const files = new DataTransfer();
            files.items.add(new File([bytes], arguments[1] + ".jpg", { type: "image/jpeg" }));
            const dropped = new DragEvent("drop", { dataTransfer: files, bubbles: true });
            if (arguments[1] === "drop") document.querySelector("[data-drop]").dispatchEvent(dropped);
            else dispatchEvent(new ClipboardEvent("paste", { clipboardData: files }));
        """
        for count, way in enumerate(("drop", "paste"), 1):
            self.driver.execute_script(carry, data, way)
            self.wait(lambda wanted=count: len(self.all("[data-fragment=grid] li")) == wanted, way)

    def test_a_ring_is_drawn_kept_and_shown_again(self):
        here = self.new_inspection()
        self.taken_in(here, 1)
        self.press("[data-fragment=grid] a")
        self.wait(lambda: self.all("html[data-ready=picture]"))
        self.one("#mark-text").send_keys("rust?")
        self.press("[data-tool=ring]")
        chain = ActionChains(self.driver).move_to_element(self.one("[data-canvas]"))
        chain.click_and_hold().move_by_offset(40, 30).release().perform()
        self.wait_saved()
        self.driver.refresh()
        self.wait(lambda: self.all("[data-overlay] circle"))
        self.assertIn("rust?", self.driver.execute_script("return document.querySelector('.an-text').textContent"))

    def test_a_question_about_a_picture_is_settled_from_the_queue_by_keyboard(self):
        here = self.new_inspection()
        self.taken_in(here, 1)
        self.press("[data-fragment=grid] a")
        self.wait(lambda: self.all("html[data-ready=picture]"))
        for words in ("made so?", "which year?"):
            self.one("#q-words").send_keys(words, Keyboard.ENTER)
        self.wait_saved()
        self.open(f"{here}/desk")
        self.wait(lambda: self.all("html[data-ready=desk]"))
        self.assertIn("Desk queue: 2 open", self.text("main"))
        self.one("body").send_keys("j")
        self.wait(lambda: "which year?" in self.text("main h2"))
        self.one("#answer").send_keys("2019, by the mark", Keyboard.ENTER)
        self.wait(lambda: "Desk queue: 1 open" in self.text("main"))

    def test_two_are_compared(self):
        here = self.new_inspection()
        self.taken_in(here)
        for box in self.all("[data-pick]"):
            box.click()
        self.press("[data-compare]")
        self.wait(lambda: len(self.all("figure img")) == 2)


class Crash(unittest.TestCase):
    """A server killed in the middle of an upload."""

    def test_it_leaves_neither_half_a_file_nor_an_entry(self):
        with tempfile.TemporaryDirectory() as directory:
            data = Path(directory)
            inspection = opened(Logbook(DataDirectory(data).engine()))
            picture = sample_picture(size=(1600, 1200))
            path = f"/inspections/{inspection}/pictures/{uuid4()}"
            with RunningServer(data=data) as server:
                host = server.address.removeprefix("http://")
                sent = HTTPConnection(host, timeout=10)
                sent.putrequest("PUT", f"{path}?name=a.jpg&place=front")
                sent.putheader("Content-Length", str(len(picture)))
                sent.endheaders(picture[: len(picture) // 2])
                self.wait(lambda: any((data / "pictures" / "incoming").glob("*")))
                server.kill()
                sent.close()
                server.start()
                again = HTTPConnection(server.address.removeprefix("http://"), timeout=20)
                again.request("GET", f"/inspections/{inspection}/entries", headers={"accept": "application/json"})
                kinds = [entry["kind"] for entry in json.loads(again.getresponse().read())]
                self.assertNotIn("picture.taken", kinds)
                self.assertEqual(list((data / "pictures" / "incoming").iterdir()), [])
                self.assertEqual(list((data / "pictures" / "originals").rglob("*")), [])
                again.request("PUT", f"{path}?name=a.jpg&place=front", body=picture)
                answer = again.getresponse()
                self.assertEqual((answer.status, bool(answer.read())), (200, True))
                again.close()

    def wait(self, condition):
        for _ in range(200):
            if condition():
                return
            time.sleep(0.05)
        self.fail("the upload never began")
