import unittest

from pydantic import ValidationError

from hakutsu.core.limitations import at_least, dirt_sd_um, limitations, proven_cold, unobserved
from hakutsu.entries.day import Arrival, DayConditions, Dirt, Engine, Light, Stands, Weather
from tests.builders import NOON


def told(arrival=None, conditions=None):
    return " | ".join(f"{one.because}: {one.hides}" for one in limitations(arrival, conditions))


class Limitations(unittest.TestCase):
    def test_a_dry_day_in_daylight_with_everything_known_hides_nothing_of_its_own(self):
        arrival = Arrival(engine=Engine.COLD, engine_c=12, surroundings_c=11, moved="driven")
        self.assertEqual(limitations(arrival, DayConditions(begins=NOON, lift=True)), [])

    def test_each_circumstance_says_what_it_hides(self):
        for arrival, word in (
            (Arrival(weather=Weather.RAIN), "fine scratches"),
            (Arrival(light=Light.DARK), "colour differences"),
            (Arrival(indoors=True), "reception"),
            (Arrival(stands=Stands.SLOPE), "ride height"),
            (Arrival(engine=Engine.WARM), "the cold start"),
            (Arrival(dirt={"front": Dirt.DIRTY}), "there may be more"),
        ):
            with self.subTest(word):
                self.assertIn(word, told(arrival))

    def test_no_lift_and_no_driving_are_limits_too(self):
        self.assertEqual(told(conditions=DayConditions(begins=NOON)), "")
        said = told(conditions=DayConditions(begins=NOON, may_drive=False, lift=False))
        self.assertIn("no lift", said)
        self.assertIn("road test", said)


class Cold(unittest.TestCase):
    def test_within_five_degrees_of_a_separate_thermometer_is_proven(self):
        for engine, around, proven in ((12, 10, True), (15, 10, True), (15.1, 10, False), (4, 10, False)):
            arrival = Arrival(engine=Engine.COLD, engine_c=engine, surroundings_c=around)
            self.assertEqual(proven_cold(arrival), proven, (engine, around))

    def test_words_prove_nothing(self):
        self.assertIsNone(proven_cold(Arrival(engine=Engine.SAID)))
        with self.assertRaises(ValidationError):
            Arrival(engine=Engine.COLD, engine_c=12)


class Dirty(unittest.TestCase):
    def test_dirt_widens_film_readings_of_the_panels_reached_from_there(self):
        arrival = Arrival(dirt={"front_corner_left": Dirt.DIRTY, "rear": Dirt.WASHED})
        self.assertEqual(dirt_sd_um(arrival, "front_wing_left"), 5)
        self.assertEqual(dirt_sd_um(arrival, "front_wing_right"), 0)
        self.assertEqual(dirt_sd_um(arrival, "tailgate"), 0)
        self.assertEqual(dirt_sd_um(None, "roof"), 0)


class Unobserved(unittest.TestCase):
    def why(self, arrival=None, conditions=None):
        return [one.because for one in unobserved(arrival, conditions)]

    def test_nothing_is_said_before_anything_is_known(self):
        self.assertEqual(self.why(), [])
        self.assertEqual(self.why(Arrival()), [])

    def test_no_lift_or_no_ground_to_lift_on(self):
        self.assertEqual(self.why(None, DayConditions(begins=NOON, lift=False)), ["there was no lift"])
        self.assertEqual(self.why(Arrival(stands=Stands.SLOPE)), ["it stood on a slope"])
        # a lift elsewhere makes the ground on arrival no matter
        self.assertEqual(self.why(Arrival(stands=Stands.SLOPE), DayConditions(begins=NOON, lift=True)), [])


class AtLeast(unittest.TestCase):
    def test_dirt_of_the_place_holds_for_its_panels(self):
        arrival = Arrival(dirt={"front": Dirt.WET, "rear": Dirt.WASHED})
        found = [at_least(arrival, place) for place in ("front", "bonnet", "rear", "tailgate", "roof", None)]
        self.assertEqual(found, ["wet", "wet", "", "", "", ""])
        self.assertEqual(at_least(None, "front"), "")
