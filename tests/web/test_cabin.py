from hakutsu.entries.cabin import CabinLooked, CabinWear, Control, Inventory
from hakutsu.entries.money import MechanicsSaid
from hakutsu.entries.opening import Brief
from hakutsu.vehicle.inventory import expected_belongings
from tests.web.case import RoundCase


class CabinStation(RoundCase):
    def text(self):
        return self.client.get(f"{self.here}/cabin").text

    def grade(self, part, wear, **more):
        return self.write("cabin.wear", CabinWear(part=part, wear=wear, **more))

    def fragments(self):
        return self.client.get(f"{self.here}/fragments?view=cabin").json()

    def test_it_asks_for_the_distance_and_then_says_what_is_usual(self):
        self.assertIn("say the distance", self.text())
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"odometer_km": 150_000}))
        self.assertIn("usual clear", self.text())

    def test_against_distance_and_apart_against_taste(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"odometer_km": 30_000}))
        self.write("inspection.brief", Brief(taste="show"))
        for part in ("rim", "pedals", "bolster"):
            self.grade(part, "clear")
        found = self.fragments()["cabin_found"]
        self.assertIn("Worn more than the distance shown explains", found)
        self.assertIn("a buyer who wants it “show” accepts", found)
        report = self.client.get(f"{self.here}/report").text
        self.assertIn("hold the papers against it", report)
        self.assertIn("steering wheel rim: clear", report)

    def test_coverage_at_its_place_and_without_confusing_names(self):
        before = self.place("inside_rear").open
        self.grade("rear_seats", "light")
        self.assertEqual(self.place("inside_rear").open, before - 2)  # the seats, and the place itself is looked over
        sheet = self.client.get(f"{self.here}/place/inside_rear").text
        self.assertIn("rear seats fold and lock", sheet)
        self.assertIn("Cabin: ", sheet)

    def test_smells_and_moisture_are_told_and_fuel_stands_down(self):
        self.write("cabin.looked", CabinLooked(smells=("fuel",), moist=("boot",)))
        found = self.fragments()
        self.assertIn("Moisture boot floor: look for its way in", found["cabin_found"])
        self.assertIn("strong smell of fuel", found["standing"])

    def test_what_belongs_to_it_and_controls_without_a_mark(self):
        self.assertIn("Charging cables", self.text())
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol"}))
        self.assertNotIn("Charging cables", self.text())
        self.write("cabin.inventory", Inventory(thing="lock_nut", there="missing"))
        self.write("cabin.inventory", Inventory(thing="jack", there="present"))
        self.write("cabin.control", Control(looks="toggle", where="under the dash", picture="114"))
        self.assertIn("No key for the wheel locks", self.fragments()["cabin_found"])
        report = self.client.get(f"{self.here}/report").text
        self.assertIn("Missing:</strong> key of the wheel locks", report)
        self.assertIn("There: jack and wheel wrench", report)
        self.assertIn("toggle, under the dash, nobody knows what it does, picture 114", report)

    def test_the_inventory_is_done_once_everything_usual_is_said(self):
        def state():
            return next(p.state for p in self.place("inside_front").parts if p.part == "cabin_all_inventory")

        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol"}))
        usual = [one.key for one in expected_belongings("petrol") if not one.optional]
        for key in usual[:-1]:
            self.write("cabin.inventory", Inventory(thing=key, there="present"))
        self.assertEqual(state(), "open")
        self.write("cabin.inventory", Inventory(thing=usual[-1], there="missing"))
        self.assertEqual(state(), "done")
