import itertools
import time
from unittest.mock import patch

from hakutsu.entries.engine import EngineStart
from hakutsu.web.engine import link as link_module
from tests.web.case import RoundCase

PATIENCE_SECONDS = 30


class Link(RoundCase):
    def setUp(self):
        super().setUp()
        self.link = f"{self.here}/engine/link"
        self.addCleanup(self.client.app.state.scans.close)

    def wait(self, condition):
        end = time.monotonic() + PATIENCE_SECONDS
        while not (found := condition()):
            self.assertLess(time.monotonic(), end, "it did not happen")
            time.sleep(0.05)
        return found

    def engine(self):
        return self.dossier().engine

    def test_samples_come_by_the_minute_and_closing_ends_the_stand_in(self):
        state = self.client.post(self.link, json={"engine": "overheating", "fast": 120}).json()
        self.assertEqual((state["open"], state["standIn"]), (True, True))
        session = self.client.app.state.scans.of(self.inspection)
        owned = session._owned
        self.wait(lambda: len(self.engine().samples) >= 3)
        bodies = [one.body for one in self.engine().samples]
        self.assertTrue(all(one.by_link and one.rpm and one.coolant_c is not None for one in bodies))
        self.assertTrue(all(b.minute - a.minute >= 1 for a, b in itertools.pairwise(bodies)))
        self.assertIn("coolant", self.client.get(self.link).json()["words"])
        self.assertIn("by link", self.client.get(f"{self.here}/engine/run").text)
        self.wait(lambda: self.client.app.state.desk.reckoning(self.inspection).stand_downs)
        self.assertFalse(self.client.delete(self.link).json()["open"])
        self.assertTrue(owned.ended)

    def test_speeds_at_idle_become_one_entry(self):
        self.assertEqual(self.client.post(f"{self.link}/idle", json={}).status_code, 409)
        with patch.object(link_module, "IDLE_READINGS", 60), patch.object(link_module, "IDLE_HERTZ", 50.0):
            self.client.post(self.link, json={"engine": "rough", "fast": 600})
            self.wait(lambda: (self.client.get(self.link).json()["now"].get("coolant_c") or 0) > 80)
            self.client.post(f"{self.link}/idle", json={"switched": False, "carburettor": False})
            (idle,) = self.wait(lambda: self.engine().idles)
        self.assertEqual((len(idle.body.rpm), idle.body.warm, idle.body.by_link), (60, True, True))
        text = self.client.get(f"{self.here}/engine/run").text
        self.assertIn("Idle: <strong>rough</strong>", text)
        self.assertIn("idles rough", self.client.get(f"{self.here}/report").text.casefold())

    def test_what_cannot_be_opened_says_why(self):
        answer = self.client.post(self.link, json={"url": "socket://127.0.0.1:1"})
        self.assertEqual(answer.status_code, 503)
        self.assertIn("no adapter at", answer.text)
        self.assertEqual(self.client.post(self.link, json={"engine": "steam"}).status_code, 422)
        self.assertFalse(self.client.get(self.link).json()["open"])


class Doubts(RoundCase):
    def asked(self, kind="engine.sample", **body):
        return self.client.post(f"{self.here}/engine/doubts", json={"kind": kind, "body": body}).json()

    def test_they_are_told_by_field_in_the_units_of_the_reader_and_nothing_is_stored(self):
        self.write("engine.start", EngineStart(coolant_c=14))
        before = len(self.dossier().entries)
        self.assertEqual(self.asked(minute=0.5, coolant_c=18), [])
        (one,) = self.asked(minute=0.5, coolant_c=190)
        self.assertEqual(one["field"], "coolant_c")
        self.assertIn("190 °C is no usual coolant: typed in Fahrenheit?", one["message"])
        self.assertEqual(len(self.dossier().entries), before)
        self.assertEqual(self.asked("engine.look", steam=True), [])
