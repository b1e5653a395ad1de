from hakutsu.entries.facts import Fact, Fitted, OriginSaid, Restored
from hakutsu.entries.general import Limit, NothingFound
from tests.web.case import RoundCase


class KeyFacts(RoundCase):
    def text(self, page="facts"):
        return self.client.get(f"{self.here}/{page}").text

    def fact(self, fact, value, **more):
        return self.write("vehicle.fact", Fact(fact=fact, value=value, **more))

    def test_nothing_said_asks_for_everything_and_says_what_is_taken(self):
        text = self.text()
        self.assertIn("Each is saved when you leave its field", text)
        self.assertIn("not said: discs", text)  # of a vehicle of which nobody said the year
        self.assertNotIn("told in two ways", text)

    def test_what_follows_from_the_year_is_proposed_and_what_is_not_of_its_time_left_out(self):
        self.fact("first_used", "1950")
        self.fact("power", "petrol")
        text = self.text()
        self.assertIn('data-take="front_brakes" data-value="drums"', text)
        self.assertIn("Not of its age or kind: left out", text)
        self.assertNotIn("Airbag lamp", self.text("functions"))
        self.assertIn("Horn", self.text("functions"))

    def test_two_mentions_stand_side_by_side_on_page_and_in_the_report(self):
        self.fact("first_used", "1958", source="papers")
        self.fact("first_used", "1959", source="seller")
        for page in ("facts", "report"):
            text = self.text(page)
            self.assertIn("told in two ways", text)
            self.assertIn("1958 (from the papers)", text)
            self.assertIn("1959 (said by the seller)", text)

    def test_one_tap_clears_a_list(self):
        self.fact("first_used", "1980")
        self.assertIn("Hazard warning lamps", self.text("functions"))
        self.write("vehicle.fitted", Fitted(absent=("hazard_lamps", "abs_unit")))
        self.assertNotIn('data-item="hazard_lamps"', self.text("functions"))
        self.assertIn("Said so far (2)", self.text())

    def test_origins_and_what_was_restored_reach_the_report(self):
        self.write(
            "vehicle.origin", OriginSaid(part="engine", origin="swapped", when="2004", proof="bill"), place="bay"
        )
        self.write("vehicle.restored", Restored(what=("paint", "seats"), when="1994", source="seller"))
        text = self.text("report")
        self.assertIn("Engine: from another vehicle 2004, bill", text)
        self.assertIn("Restored: paint; seats, 1994, said by the seller", text)
        self.assertIn("ask what happened to the one it was built with", text)

    def test_a_key_nobody_knows_is_refused(self):
        body = {"id": "3b1f4f0e-5c1a-4c6e-9a51-222222222222", "at": "2026-11-24T10:00:00Z", "kind": "vehicle.fitted",
                "body": {"there": ["flux_capacitor"]}}  # fmt: skip
        reply = self.client.post(f"{self.here}/entries", json={"entries": [body]}).json()
        self.assertIn("flux_capacitor", reply["refused"][0]["message"])


class Limits(RoundCase):
    def test_every_limit_is_printed_whole_or_in_part_with_and_without_a_place(self):
        self.write("general.limit", Limit(station="under", because="no lift", partly=True, hides="the tunnel"))
        self.write("general.limit", Limit(station="engine", because="it was warm"))
        self.write("general.limit", Limit(station="general", because="mats glued"), place="boot")
        self.write("general.nothing_found", NothingFound(station="engine", text="leaks, as far as the lamp reaches"))
        text = self.client.get(f"{self.here}/report").text
        self.assertIn("Underside:</strong> looked at in part: no lift; not seen: the tunnel", text)
        self.assertIn("Engine:</strong> not looked at: it was warm", text)
        self.assertIn("not looked at: mats glued", text)
        self.assertIn("Engine:</strong> leaks, as far as the lamp reaches", text)
