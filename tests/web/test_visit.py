from datetime import timedelta
from uuid import UUID

from hakutsu.entries import Draft
from hakutsu.entries.day import Arrival
from hakutsu.entries.film import GaugeInUse, Shim, Verification
from tests.builders import opened, reading
from tests.web.case import RoundCase


class Visit(RoundCase):
    """Several vehicles of one visit: the yard's weather and the gauge check are entered once."""

    def setUp(self):
        super().setUp()
        self.desk = self.client.app.state.desk
        self.other = opened(self.logbook, name="Carran Vale", registration="PO 12")

    def there(self, kind, body, ago=0):
        at = self.desk.now() - timedelta(hours=ago)
        self.logbook.append(self.other, [Draft.write(kind, body, at)], "Test Inspector")

    def taken(self, of=None):
        data = {"of": str(of or self.other)}
        return self.client.post(f"{self.here}/visit", data=data, follow_redirects=False)

    def mine(self):
        return self.desk.reckoning(self.inspection).dossier

    def test_what_is_of_the_yard_is_taken_and_what_is_of_the_vehicle_is_not(self):
        self.there(
            "day.arrival", Arrival(weather="rain", light="daylight", there="Mr Pell", stood_days=90, stands="slope")
        )
        self.there("film.gauge", GaugeInUse(name="Long probe", limit_um=1500))
        self.there(
            "film.verification",
            Verification(when="start", gauge="Long probe", checks=[Shim(reference_um=0, shown_um=2)]),
        )
        self.assertIn("Carran Vale, PO 12", self.client.get(f"{self.here}/arrival").text)
        self.assertEqual(self.taken().status_code, 303)
        arrival = self.mine().day.arrival
        self.assertEqual((arrival.weather.value, arrival.there, arrival.stood_days), ("rain", "Mr Pell", None))
        self.assertEqual(arrival.stands.value, "unknown")
        self.assertEqual(self.mine().film.gauge.name, "Long probe")
        self.assertEqual([one.body.checks[0].shown_um for one in self.mine().film.verifications.values()], [2])
        self.assertNotIn("Same visit", self.client.get(f"{self.here}/arrival").text)

    def test_what_was_noted_here_stays(self):
        self.there("day.arrival", Arrival(weather="rain"))
        self.there("film.verification", Verification(when="start", checks=[Shim(reference_um=0, shown_um=2)]))
        self.write("day.arrival", Arrival(weather="dry"))
        self.post(self.inspection, reading("roof", 118))
        self.assertEqual(self.taken().status_code, 409)
        self.assertEqual(self.mine().day.arrival.weather.value, "dry")

    def test_another_day_is_another_visit(self):
        self.there("day.arrival", Arrival(weather="rain"), ago=30)
        self.assertNotIn("Same visit", self.client.get(f"{self.here}/arrival").text)

    def test_nothing_to_take_and_nobody_to_take_from(self):
        self.assertEqual(self.taken().status_code, 409)
        self.assertEqual(self.taken(UUID(int=5)).status_code, 404)
        self.assertEqual(self.taken(self.inspection).status_code, 404)
