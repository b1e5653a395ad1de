from hakutsu.entries.facts import FACTS, Fact, Fitted
from hakutsu.entries.functions import FittedSaid, Tried
from hakutsu.entries.general import Strike
from hakutsu.entries.money import MechanicsSaid
from hakutsu.vehicle.facts import FACT_NAMES
from hakutsu.vehicle.mechanics import BrakeKind, Power
from hakutsu.vehicle.terms import Terms
from tests.inspection import InspectionCase


class KeyFacts(InspectionCase):
    def fact(self, fact, value="", **more):
        return self.write("vehicle.fact", Fact(fact=fact, value=value, **more))

    def test_one_small_entry_corrects_one_fact(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol", "odometer_km": 61_000}))
        self.fact("odometer_km", 16_000, corrects=True)
        mechanics = self.dossier().mechanics
        self.assertEqual((mechanics.odometer_km, mechanics.power), (16_000, Power.PETROL))
        self.assertEqual(len(self.dossier().facts.mentions["odometer_km"]), 1)

    def test_a_second_mention_is_kept_beside_the_first_and_taking_it_back_brings_that_back(self):
        self.fact("first_used", "1958", source="papers")
        other = self.fact("first_used", "1959", source="seller")
        self.assertEqual(self.dossier().mechanics.year, 1959)
        self.assertEqual(len(self.dossier().facts.mentions["first_used"]), 2)
        self.strike(other)
        self.assertEqual(self.dossier().mechanics.year, 1958)

    def test_a_mention_is_told_as_it_was_said_in_the_units_of_the_reader(self):
        miles = Terms(distance="mi", pressure="psi")
        for fact, value, source, words in (
            ("first_used", "1958", "papers", "1958 (from the papers)"),
            ("first_used", "1958-05", "unknown", "1958-05"),
            ("odometer_km", 61_858, "seen", "38,437 mi (seen on the vehicle)"),
            ("front_bar", 2.3, "unknown", "33 psi"),
            ("rear_axle", "rigid", "unknown", "rigid axle"),
        ):
            self.fact(fact, value, source=source)
            with self.subTest(fact=fact):
                self.assertEqual(miles.say(self.dossier().facts.mentions[fact][-1].words), words)

    def test_every_fact_has_a_name(self):
        self.assertEqual(set(FACT_NAMES), set(FACTS))

    def test_what_is_fitted_stands_in_the_order_it_was_said(self):
        self.write("vehicle.fitted", Fitted(there=("turbo", "cruise"), absent=("horn", "audio", "camera")))
        mechanics = self.dossier().mechanics
        self.assertEqual(
            (mechanics.also_fitted, mechanics.not_fitted), (("turbo", "cruise"), ("horn", "audio", "camera"))
        )

    def strike(self, entry):
        self.write("general.strike", Strike(), strikes=entry)

    def test_the_whole_form_later_keeps_what_was_said_apart_and_it_leaves_open(self):
        self.fact("front_brakes", "drums")
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol"}))
        self.assertIs(self.dossier().mechanics.front_brakes, BrakeKind.DRUM)

    def test_a_fact_not_known_after_all(self):
        self.fact("drive", "rear")
        self.fact("drive")
        self.assertEqual(self.dossier().mechanics.drive.value, "unknown")
        self.assertEqual(self.dossier().facts.mentions.get("drive"), None)

    def test_what_it_has_and_has_not(self):
        self.write("vehicle.fitted", Fitted(there=("turbo", "cruise"), absent=("horn",)))
        dossier = self.dossier()
        self.assertIn("turbo", dossier.mechanics.also_fitted)
        tried = {one.key for one in dossier.functions.items(dossier.vehicle, dossier.mechanics)}
        self.assertIn("cruise", tried)
        self.assertNotIn("horn", tried)
        self.write("vehicle.fitted", Fitted(there=("horn",), absent=("turbo",)))
        self.assertNotIn("turbo", self.dossier().mechanics.also_fitted)

    def test_the_inspector_names_what_the_list_does_not_know(self):
        self.write("function.tried", Tried(item="own", name="Roof vent", result="fails"))
        self.write("function.tried", Tried(item="own", name="roof  vent", result="works"))
        dossier = self.dossier()
        (own,) = [one for one in dossier.functions.items(dossier.vehicle, dossier.mechanics) if one.base == "own"]
        self.assertEqual((own.key, own.name), ("own:roof_vent", "Roof vent"))
        self.assertEqual(len(dossier.functions.tried["own:roof_vent"]), 2)
        with self.assertRaises(ValueError):
            Tried(item="own", name="…", result="works")
        self.write("function.fitted", FittedSaid(item="own", name="roof vent", there=False))
        self.assertNotIn("own:roof_vent", self.dossier().functions.named)
