from unittest.mock import patch
from uuid import uuid4

from hakutsu.entries.general import Seen
from tests.builders import NOON, opened
from tests.web.case import RoundCase


class Timers(RoundCase):
    def start(self, label="drip under the sump", minutes="10"):
        data = {"label": label, "minutes": minutes}
        return self.client.post(f"{self.here}/timers/start", data=data, follow_redirects=False)

    def test_a_timer_stands_on_every_page_until_stopped(self):
        self.start()
        for name in ("film", "round", "vehicle", "logbook", "report", "arrival", "place/bay"):
            self.assertIn("drip under the sump", self.client.get(f"{self.here}/{name}").text, name)
        for path in ("/", "/search", "/account", "/inspections/new", "/nowhere"):
            text = self.client.get(path).text
            self.assertIn("drip under the sump", text, path)
            self.assertIn("/static/js/timers.js", text, path)
        (running,) = self.dossier().timers.running
        self.assertEqual((running.rings - running.at).total_seconds(), 600)
        self.client.post(f"{self.here}/timers/stop", data={"of": str(running.entry)})
        for path in ("/", f"{self.here}/film"):
            self.assertNotIn("data-timer ", self.client.get(path).text)

    def test_every_look_is_an_entry(self):
        self.start()
        entry = str(self.dossier().timers.running[0].entry)
        for seen in ("dry", "one drop"):
            self.client.post(f"{self.here}/timers/look", data={"of": entry, "seen": seen})
        self.assertEqual([seen for _, seen in self.dossier().timers.running[0].looks], ["dry", "one drop"])
        self.assertIn("one drop", self.client.get(f"{self.here}/logbook").text)

    def test_it_leads_back_to_the_page_it_stood_on_and_nowhere_else(self):
        data = {"label": "x", "minutes": "5"}
        for path in (f"{self.here}/film?panel=roof", "/", "/search?q=salt"):
            headers = {"referer": f"http://127.0.0.1{path}"}
            back = self.client.post(f"{self.here}/timers/start", data=data, headers=headers, follow_redirects=False)
            self.assertEqual(back.headers["location"], path)
        here = f"http://127.0.0.1{self.here}"
        for referer in ("http://elsewhere.example/", "http://127.0.0.1//else.example/", f"{here}/round/settle", ""):
            headers = {"referer": referer}
            back = self.client.post(f"{self.here}/timers/start", data=data, headers=headers, follow_redirects=False)
            self.assertEqual(back.headers["location"], f"{self.here}/runsheet", referer)

    def test_cars_without_a_timer_are_looked_into_once_until_something_is_written(self):
        desk = self.client.app.state.desk
        self.assertEqual(desk.watched(), [])
        with patch.object(desk, "reckoning", side_effect=AssertionError("looked into again")):
            self.assertEqual(desk.watched(), [])
        self.start()
        self.assertEqual([one.inspection for one in desk.watched()], [self.inspection])

    def test_an_inspection_whose_first_entry_never_arrived_stops_no_page(self):
        lost = uuid4()
        self.logbook.open_inspection(lost, NOON)
        self.write("general.seen", Seen(text="salt"), place="rear")
        self.assertNotIn(lost, self.logbook.ends())
        for path in ("/", "/search?q=salt"):
            self.assertEqual(self.client.get(path).status_code, 200)

    def test_a_timer_of_another_car_names_it_and_this_cars_come_first(self):
        self.start()
        other = opened(self.logbook, name="Skarrow Fell")
        data = {"label": "idle", "minutes": "5"}
        self.client.post(f"/inspections/{other}/timers/start", data=data)
        text = self.client.get(f"{self.here}/round").text
        self.assertLess(text.index("drip under the sump"), text.index("idle"))
        self.assertIn(f'href="/inspections/{other}/runsheet"><span class="truncate">Skarrow Fell', text)

    def test_what_is_no_timer_is_refused(self):
        for label, minutes in (("", "5"), ("x", "0"), ("x", "soon"), ("x", "99999")):
            self.assertEqual(self.start(label, minutes).status_code, 422)
        self.assertEqual(self.dossier().timers.running, [])
