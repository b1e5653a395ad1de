from hakutsu.entries.day import DayConditions
from hakutsu.entries.money import Line, MechanicsSaid
from hakutsu.entries.under import Leak, UnderZone
from tests.builders import NOON
from tests.web.case import RoundCase


class UnderStation(RoundCase):
    def test_body_mounts_only_where_the_frame_is_separate(self):
        self.assertNotIn("ody mounts", self.client.get(f"{self.here}/under").text)
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"separate_frame": True}))
        text = self.client.get(f"{self.here}/under").text
        self.assertIn("0 of 25 zones", text)
        self.assertIn('data-zone="body_mounts_left"', text)
        self.assertEqual(
            sum(part.check.key == "under" for one in self.dossier().place_coverage() for part in one.parts), 25
        )

    def text(self, zone=""):
        return self.client.get(f"{self.here}/under", params={"zone": zone}).text

    def zone(self, key, **body):
        return self.write("under.zone", UnderZone(zone=key, **body))

    def fragments(self):
        return self.client.get(f"{self.here}/fragments?view=under").json()

    def test_it_stands_empty_and_a_zone_of_the_address_is_chosen(self):
        text = self.text("tank")
        self.assertIn("0 of 23 zones looked at", text)
        self.assertIn('<option value="tank" selected>', text)
        self.assertIn("All 23: looked, nothing found", text)

    def test_looks_fill_the_schematic_and_the_list(self):
        self.zone("bay_floor")
        self.zone("under_sill_left", rust="pitted", size_mm=40)
        self.zone("rear_end", not_visible="cover riveted on")
        found = self.fragments()
        self.assertEqual(found["under_drawing"].count("ud-grave"), 2)  # wide and upright
        self.assertIn("ud-hidden", found["under_drawing"])
        self.assertIn("Underside of the sill, left: rust on structure, pitted", found["under_list"])
        self.assertIn("not visible: cover riveted on", found["under_list"])

    def test_coverage_by_station_and_place_agree_and_hidden_is_limited(self):
        at = {one.place: one.open for one in self.dossier().place_coverage()}
        self.zone("tank", clear=("rust",))
        self.zone("rear_end", not_visible="covered")
        self.zone("rear_rail_left", exhaust="sound")  # of the zone itself nobody spoke
        place = self.place("under_rear")
        self.assertEqual(place.open, at["under_rear"] - 3)  # two zones, and the look at the place
        self.assertEqual(place.limited, 1)
        station = next(one for one in self.dossier().station_coverage() if one.station == "Underside")
        self.assertEqual((station.expected, station.done, station.limited), (23, 1, 1))
        self.assertIn(f"{self.here}/under?zone=tank", self.client.get(f"{self.here}/place/under_rear").text)

    def test_rust_through_stands_down_and_fuel_too(self):
        self.zone("front_rail_right", rust="perforated")
        self.write("leak.seen", Leak(fluid="fuel", origin="rail", stage="seep"))
        standing = self.fragments()["standing"]
        self.assertIn("perforated sill, rail or jacking point", standing)
        self.assertIn("fuel wet", standing)

    def test_a_dripping_radiator_sets_its_life_and_is_one_line_with_a_price(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol"}))
        self.write("leak.seen", Leak(fluid="coolant", origin="radiator seam", stage="drip"), place="bay")
        lives = self.client.app.state.desk.reckoning(self.inspection).lives
        job = next(one for one in lives.jobs if one.key == "radiator")
        self.assertTrue(job.settle)
        self.assertIn("coolant from radiator seam: drip: counted as failing", job.reasons)
        [line] = [one for one in lives.sheet.lines if "radiator" in str(one.item.key)]
        self.assertEqual(line.item.key, ("job", "radiator"))
        self.assertEqual([code for code, _ in line.item.of], ["under.leak_drip"])
        self.assertIsNotNone(line.amount)

    def test_a_price_said_of_a_leak_before_its_part_was_known_is_kept(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol"}))
        self.write("leak.seen", Leak(fluid="coolant", origin="radiator seam", stage="drip"), place="bay")
        self.write("money.line", Line(code="under.leak", subject="coolant:radiator_seam:bay", treat="settle",
                                      amount="444"))  # fmt: skip
        sheet = self.client.app.state.desk.reckoning(self.inspection).lives.sheet
        self.assertEqual([line.amount for line in sheet.lines if line.item.key == ("job", "radiator")], [444])

    def test_without_a_lift_it_says_so(self):
        self.write("day.conditions", DayConditions(begins=NOON, available=90, lift=False))
        self.assertIn("There was no lift", self.text())

    def test_the_report_draws_and_tells_it(self):
        self.assertNotIn('id="underside"', self.client.get(f"{self.here}/report").text)
        self.zone("tunnel", catalyst=False)
        self.write("leak.seen", Leak(fluid="oil", origin="sump", stage="weep"))
        text = self.client.get(f"{self.here}/report").text
        for said in ("catalytic converter not there", "Engine oil from sump: weep", "23 zones were not looked at"):
            self.assertIn(said, text)
