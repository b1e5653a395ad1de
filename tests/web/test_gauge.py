import json
import time
from pathlib import Path
from unittest.mock import patch
from uuid import UUID

from hakutsu.entries import Draft
from hakutsu.entries.film import Shim, Verification, VerifiedWhen
from hakutsu.instruments.gauge_line import FilmLine
from hakutsu.vehicle.vocabulary import ReadingStatus, Substrate, Unit
from hakutsu.web.film.aiming import Aim, next_aim, spots_left
from tests.builders import NOON, opened, reading
from tests.web.case import WebCase

PATIENCE_SECONDS = 20


def film_line(value, unit=Unit.UM):
    return FilmLine(value, unit, ReadingStatus.OK, Substrate.STEEL, 80)


class GaugeCase(WebCase):
    def setUp(self):
        super().setUp()
        self.inspection = opened(self.logbook)
        self.link = f"/inspections/{self.inspection}/film/link"
        self.session = self.client.app.state.gauges.of(self.inspection)
        self.addCleanup(self.client.app.state.gauges.close)

    def reckoning(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def wait(self, condition):
        end = time.monotonic() + PATIENCE_SECONDS
        while not condition():
            self.assertLess(time.monotonic(), end, "it did not happen")
            time.sleep(0.03)

    def bodies(self):
        return [(e["place"], e["body"]) for e in self.film_readings(self.inspection)]


class Readings(GaugeCase):
    def test_a_reading_lands_where_the_probe_is_aimed_and_is_told(self):
        self.session.take_aim(Aim("bonnet", 0.25, 0.75))
        self.session._on_line(film_line(121))
        ((place, body),) = self.bodies()
        self.assertEqual((place, body["u"], body["v"], body["source"]), ("bonnet", 0.25, 0.75, "gauge"))
        said = [one for _, one in self.session.since(0) if one["type"] == "reading"]
        self.assertEqual(said[0]["words"], "121 µm on Bonnet")

    def test_garbled_lines_are_told_and_never_stored(self):
        self.session._on_garbled(b"film 1\xff2", "check sum does not agree")
        self.assertEqual(self.bodies(), [])
        self.assertEqual(self.session.since(0)[-1][1]["why"], "check sum does not agree")

    def test_following_goes_through_the_pattern_and_then_along_the_walk(self):
        self.session.follows = True
        self.session.take_aim(Aim("roof", 0.5, 0.5))
        for value in (118, 121, 119, 120):
            self.session._on_line(film_line(value))
        places = [(place, body["u"]) for place, body in self.bodies()]
        self.assertEqual(places, [("roof", 0.5), ("roof", 0.25), ("roof", 0.75), ("bonnet", 0.5)])

    def test_a_surprise_is_repeated_beside_it_before_the_walk_goes_on(self):
        self.session.follows = True
        self.session.take_aim(Aim("bonnet", 0.5, 0.5))
        for value in (118, 121, 119, 117, 119, 410, 409, 412, 118):
            self.session._on_line(film_line(value))
        repeats = [body for _, body in self.bodies() if "retest_of" in body]
        self.assertEqual([body["value_um"] for body in repeats], [409, 412])
        self.assertEqual(self.reckoning().film.analysis.open_surprises, [])

    def test_without_following_the_panel_stays_and_no_place_is_made_up(self):
        self.session.take_aim(Aim("roof"))
        for value in (118, 121):
            self.session._on_line(film_line(value))
        self.assertEqual([(place, "u" in body) for place, body in self.bodies()], [("roof", False)] * 2)

    def test_the_next_place_is_none_when_the_protocol_wants_no_more(self):
        metal = [c for c in self.reckoning().dossier.film_coverage() if c.expected]
        count = 0
        for covered in metal:
            for spot in spots_left(self.reckoning(), covered.panel):
                self.post(self.inspection, reading(covered.panel, 118, u=spot[0], v=spot[1], after=count))
                count += 1
        self.assertIsNone(next_aim(self.reckoning(), "roof"))


class Link(GaugeCase):
    def test_the_stand_in_is_started_probed_walked_stopped_and_ended(self):
        state = self.client.post(self.link, json={}).json()
        self.assertTrue(state["standIn"])
        process = self.session._process
        self.wait(lambda: self.session.gauge)
        self.assertIn("Stand-in gauge", self.session.gauge)
        answer = self.client.post(f"{self.link}/aim", json={"panel": "roof", "u": 0.3, "v": 0.6, "probe": True})
        self.assertEqual(answer.status_code, 200)
        self.wait(lambda: len(self.bodies()) == 1)
        self.assertEqual((self.bodies()[0][0], self.bodies()[0][1]["v"]), ("roof", 0.6))
        self.assertTrue(self.bodies()[0][1]["simulated"])
        self.assertIn("readings are simulated", self.client.get(f"/inspections/{self.inspection}/report").text)
        self.client.post(f"{self.link}/walk")
        self.wait(lambda: len(self.bodies()) >= 6)
        self.client.delete(f"{self.link}/walk")
        held = len(self.bodies())
        self.assertEqual(len(self.bodies()), held)
        self.assertFalse(self.client.delete(self.link).json()["open"])
        self.assertTrue(process.ended)

    def test_the_walk_reads_the_whole_protocol_with_progress(self):
        self.client.post(self.link, json={})
        self.wait(lambda: self.session.gauge)
        self.client.post(f"{self.link}/walk")
        self.wait(lambda: self.session.walked is None and len(self.bodies()) > 20)
        self.assertTrue(all(c.state != "open" for c in self.reckoning().dossier.film_coverage()))
        told = [one["walked"] for _, one in self.session.since(0) if one.get("walked")]
        self.assertGreater(len(told), 5)
        self.assertLessEqual(told[0][0], told[-1][0])

    def test_what_cannot_be_is_refused_with_a_reason(self):
        for path, body, status in (
            ("/walk", {}, 409),
            ("/aim", {"panel": "keel"}, 422),
            ("/aim", {"panel": "roof", "u": 2, "v": 0}, 422),
            ("/aim", {"panel": "roof", "probe": True}, 409),
        ):
            with self.subTest(path, body=body):
                answer = self.client.post(self.link + path, json=body, headers={"accept": "application/json"})
                self.assertEqual(answer.status_code, status)
                self.assertTrue(answer.json()["message"])

    def test_a_port_that_is_not_there_keeps_being_looked_for(self):
        state = self.client.post(self.link, json={"url": "/dev/no-such-port"}).json()
        self.assertTrue(state["open"])
        self.assertFalse(state["connected"])
        self.client.delete(self.link)

    def test_two_inspections_have_two_links(self):
        other = opened(self.logbook)
        self.assertIsNot(self.client.app.state.gauges.of(other), self.session)
        self.assertIs(self.client.app.state.gauges.of(self.inspection), self.session)


class Kept(GaugeCase):
    def keep(self, **more):
        values = {"name": "Pocket gauge", "unit": "mil", "step": "0.5", "limit": "40", **more}
        return self.client.post("/gauges", data=values, follow_redirects=False)

    def test_a_gauge_is_kept_listed_offered_at_the_station_and_dropped(self):
        self.assertEqual(self.keep().status_code, 303)
        self.assertIn("0.5 mil", self.client.get("/gauges").text)
        self.assertIn('data-name="Pocket gauge"', self.client.get(f"/inspections/{self.inspection}/film").text)
        (kept,) = self.logbook.library.gauges()
        self.assertAlmostEqual(kept.gauge.step_um, 12.7)
        self.client.post(f"/gauges/{kept.id}/drop")
        self.assertIn("No gauge is kept", self.client.get("/gauges").text)

    def test_the_same_name_replaces(self):
        self.keep()
        self.keep(step="1", unit="um", limit="2000")
        (kept,) = self.logbook.library.gauges()
        self.assertEqual((kept.gauge.unit, kept.gauge.step_um), (Unit.UM, 1))

    def test_bad_values_are_refused_at_the_form_and_nothing_typed_is_lost(self):
        for wrong in ({"step": "thin"}, {"limit": "-4"}, {"name": ""}, {"unit": "inch"}, {"step": "9000"}):
            with self.subTest(wrong):
                answer = self.keep(**wrong)
                self.assertEqual(answer.status_code, 422)
                self.assertIn('role="alert"', answer.text)
        self.assertEqual(self.logbook.library.gauges(), [])

    def test_the_last_verification_is_read_from_the_logbooks(self):
        self.keep()
        checks = (Shim(reference_um=0, shown_um=1), Shim(reference_um=125, shown_um=126))
        body = Verification(when=VerifiedWhen.START, gauge="Pocket gauge", checks=checks)
        self.post(self.inspection, Draft.write("film.verification", body, NOON))
        self.assertEqual(self.client.app.state.desk.summaries.verified()["Pocket gauge"], NOON)
        self.assertIn("20 Nov 2026", self.client.get("/gauges").text)
        self.assertIn("Gauge verified at the start only", self.client.get(f"/inspections/{self.inspection}/film").text)


class News(GaugeCase):
    def test_news_are_numbered_and_begin_with_the_state(self):
        self.assertEqual(json.loads(json.dumps(self.session.state()))["type"], "state")
        self.session.tell(type="garbled", line="x", why="y")
        (number, said) = self.session.since(self.session.last - 1)[0]
        self.assertEqual((number, said["type"]), (self.session.last, "garbled"))
        self.assertIsInstance(self.inspection, UUID)


class Addresses(GaugeCase):
    def open(self, url):
        return self.client.post(self.link, json={"url": url}, headers={"accept": "application/json"})

    def test_a_link_empties_no_file_and_reaches_no_other_machine(self):
        victim = Path(self.directory.name) / "victim"
        victim.write_text("precious")
        scan = f"/inspections/{self.inspection}/engine/link"
        for url in (f"spy://{victim}", f"spy:///dev/null?file={victim}", "socket://192.0.2.7:7000", str(victim)):
            for address in (self.link, scan):
                answer = self.client.post(address, json={"url": url}, headers={"accept": "application/json"})
                self.assertEqual(answer.status_code, 503, (address, url))
                self.assertRegex(answer.json()["message"], "write a port|another machine")
        self.assertEqual(victim.read_text(), "precious")
        self.assertFalse(self.session.state()["open"])

    def test_a_host_the_account_names_may_be_reached(self):
        form = {key: value for key, value in self.settings_form().items() if value}
        answer = self.client.post("/settings", data=form | {"link_hosts": "gauge-bridge, 192.0.2.7"})
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(self.client.app.state.desk.settings.link_hosts, ("gauge-bridge", "192.0.2.7"))
        self.assertIn("gauge-bridge 192.0.2.7", self.client.get("/settings").text)
        with patch("hakutsu.web.film.link.GaugeLink.start"):
            self.assertEqual(self.open("socket://gauge-bridge:7000").status_code, 200)
        bad = self.client.post("/settings", data=form | {"link_hosts": "http://x/y"})
        self.assertEqual(bad.status_code, 422)
        self.assertIn("apart by blanks, such as gauge-bridge", bad.text)

    def settings_form(self):
        said = self.client.app.state.desk.settings.model_dump(mode="json")
        return {key: value for key, value in said.items() if isinstance(value, str)} | {
            "start": "front", "direction": "left_first"}  # fmt: skip

    def test_what_ended_the_reader_is_shown_on_its_page(self):
        with patch("hakutsu.web.film.link.GaugeLink.start"):
            self.open("/dev/ttyUSB7")
        self.session._on_end("the link broke off: it broke")
        state = self.session.since(0)[-1][1]
        self.assertEqual((state["open"], state["ended"]), (False, "the link broke off: it broke"))
