"""Service papers over HTTP: from the entry to life, sheet and report."""

from hakutsu.entries.corners import Tyre
from hakutsu.entries.facts import Fact
from hakutsu.entries.service import (
    Advisory,
    Countdown,
    Cover,
    Keys,
    Owners,
    Plan,
    PlanRow,
    ServiceDone,
    TestHeld,
)
from hakutsu.reckoning.service import ServiceReckoned
from tests.web.case import RoundCase


class Service(RoundCase):
    def setUp(self):
        super().setUp()
        for fact, value in (
            ("first_used", "2016-11-20"),
            ("odometer_km", 150000.0),
            ("power", "petrol"),
            ("timing", "belt"),
        ):
            self.write("vehicle.fact", Fact(fact=fact, value=value))

    def reckoned(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def codes(self):
        return {one.code for one in self.reckoned().findings_of("service")}

    def room(self, name):
        return self.client.get(f"{self.here}/service/{name}").text

    def report(self):
        return self.client.get(f"{self.here}/report").text

    def test_empty_nothing_is_said_and_usual_intervals_stand(self):
        self.assertEqual(self.codes(), set())
        self.assertIn("By usual intervals", self.room("plan"))
        self.assertIn("No stamp and no invoice yet", self.room("plan"))
        self.assertEqual(self.client.get(f"{self.here}/service/nothing").status_code, 404)
        self.assertNotIn("Service papers", self.report())

    def test_a_proof_reaches_life_and_a_word_does_not(self):
        due = {one.key: one.due for one in self.reckoned().lives.jobs}
        self.assertEqual(due["timing_belt"], 0.0)
        self.write("service.done", ServiceDone(on="2025-11", proof="said", items=["timing_belt"]))
        self.assertIn("service.said_only", self.codes())
        self.assertEqual({one.key: one.due for one in self.reckoned().lives.jobs}["timing_belt"], 0.0)
        self.write("service.done", ServiceDone(on="2025-11", at_km=140000, proof="invoice", items=["timing_belt"]))
        self.assertGreater({one.key: one.due for one in self.reckoned().lives.jobs}["timing_belt"], 12)
        self.assertIn("last proven 15 November 2025", self.report())

    def test_missing_overdue_and_critical(self):
        self.write("service.done", ServiceDone(on="2018-11-20", at_km=30000, items=["engine_oil"]))
        self.write("service.done", ServiceDone(on="2024-11-20", at_km=120000, items=["engine_oil"]))
        self.assertTrue({"service.missing", "service.overdue", "service.critical"} <= self.codes())
        self.assertIn("pp-apart", self.room("plan"))
        self.assertIn("not proven", self.report())

    def test_the_makers_plan_takes_the_place_of_what_is_usual(self):
        self.write("service.plan", Plan(name="booklet", rows=[PlanRow(item="engine_oil", km=30000, months=24)]))
        self.write("service.done", ServiceDone(on="2025-11-20", at_km=135000, by="maker", whole=True))
        self.assertIn("By the maker’s plan", self.room("plan"))
        self.assertNotIn("service.overdue", self.codes())
        self.write("service.countdown", Countdown(remaining_km=29000))
        self.assertIn("service.countdown", self.codes())
        self.assertIn("44,000 km from the last service to the next", self.room("plan"))

    def test_the_same_invoice_twice_is_said_and_counts_once(self):
        for _ in range(2):
            body = ServiceDone(on="2025-11-20", proof="invoice", number="2511-9", items=["engine_oil"])
            self.write("service.done", body)
        self.assertIn("said twice: counts once", self.room("plan"))
        self.assertEqual(len(self.reckoned().station(ServiceReckoned).works), 1)

    def test_advisories_come_true_are_not_found_or_wait(self):
        self.write("service.advisory", Advisory(on="2026-05", topic="tyre_worn"), place="wheel_front_left")
        self.assertIn("not looked at yet", self.room("tests"))
        self.assertIn("service.advised_open", self.codes())
        self.write("corner.tyre", Tyre(depth_mm=[1.2, 1.2, 1.2]), place="wheel_front_left")
        self.assertIn("found again", self.room("tests"))
        self.assertIn("service.advised_true", self.codes())
        self.assertIn("advised by an earlier test", self.report())

    def test_a_tyre_of_the_other_side_makes_none_true(self):
        self.write("service.advisory", Advisory(topic="tyre_worn"), place="wheel_front_left")
        self.write("corner.tyre", Tyre(depth_mm=[1.2, 1.2, 1.2]), place="wheel_front_right")
        self.assertIn("looked at, not found", self.room("tests"))

    def test_a_test_that_has_run_out_is_settled(self):
        self.write("service.test", TestHeld(on="2024-05-01", until="2025-05-01"))
        self.assertIn("test expired 1 May 2025", self.client.get(f"{self.here}/life/sheet").text)
        self.write("service.test", TestHeld(on="2026-05-01", until="2027-05-01"))
        self.assertNotIn("service.test_expired", self.codes())

    def test_owners_are_off_by_one_and_agree(self):
        self.write("service.owners", Owners(count=2, counts="former", document="registration"))
        self.write("service.owners", Owners(count=3, counts="all", document="advert"))
        self.assertNotIn("service.owners_differ", self.codes())
        self.write("service.owners", Owners(count=1, counts="former", document="seller"))
        self.assertIn("service.owners_differ", self.codes())

    def test_keys_and_cover(self):
        self.write("service.keys", Keys(there=1))
        self.write("service.cover", Cover(until="2024-05", proof="booklet"))
        self.write("service.cover", Cover(kind="certified", by="a dealer", until="2028-05"))
        self.assertTrue(
            {"service.one_key", "service.cover_over", "service.cover_open", "service.cover_ask"} <= self.codes()
        )
        with self.assertRaises(ValueError):
            Keys(there=1, work=2)
        self.assertIn("Second key or remote: not looked for", self.room("owners"))
