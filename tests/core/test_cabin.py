import unittest

from pydantic import ValidationError

from hakutsu.core.cabin import against_distance, looks_found, usual_wear, wear_found
from hakutsu.entries.cabin import CabinLooked, CabinWear, Wear
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.vocabulary import Consequence


def graded(**wear):
    return {part: CabinWear(part=part, wear=one) for part, one in wear.items()}


class AgainstDistance(unittest.TestCase):
    def test_what_is_usual_rises_with_the_distance(self):
        # rim: light from 40,000, clear from 110,000, heavy from 200,000 km
        for km, wear in (
            (0, Wear.NEW),
            (39_999, Wear.NEW),
            (40_000, Wear.LIGHT),
            (150_000, Wear.CLEAR),
            (250_000, Wear.HEAVY),
        ):
            self.assertIs(usual_wear("rim", km), wear)
        self.assertIsNone(usual_wear("dash", 100_000))

    def test_wear_as_usual_says_nothing(self):
        self.assertEqual(wear_found(graded(rim="clear", pedals="clear", bolster="clear"), 150_000), [])

    def test_one_part_two_grades_off_is_told_apart(self):
        [renewed] = wear_found(graded(rim="new"), 150_000)
        self.assertIn("only the distance since", renewed.words)
        [worn] = wear_found(graded(belt_edge="heavy"), 80_000)
        self.assertEqual(worn.consequence, Consequence.BUDGET)

    def test_all_of_them_together_question_the_distance_shown(self):
        found = wear_found(graded(rim="heavy", pedals="heavy", bolster="clear", belt_edge="light"), 60_000)
        self.assertEqual(found[-1].consequence, Consequence.SETTLE)
        self.assertIn("papers", found[-1].words)
        two = wear_found(graded(rim="clear", pedals="clear"), 60_000)
        self.assertFalse(any(one.subject == "" for one in two))  # two parts are too few

    def test_renewed_parts_and_an_unknown_distance_tell_nothing(self):
        renewed = {"rim": CabinWear(part="rim", wear="new", renewed=True)}
        self.assertEqual(against_distance(renewed, 200_000), [])
        self.assertEqual(wear_found(graded(rim="heavy"), None), [])

    def test_only_parts_that_are_graded(self):
        with self.assertRaises(ValidationError):
            CabinWear(part="hood_ornament", wear="light")
        self.assertTrue(all(part.place for part in cabin_parts().values()))


class Looks(unittest.TestCase):
    def words(self, *looks):
        return [one.words for one in looks_found(CabinLooked(**look) for look in looks)]

    def test_roof_and_floor_are_one_story_over_several_looks(self):
        found = self.words({"moist": ("roof",)}, {"moist": ("mats_front",), "smells": ("damp",)})
        self.assertEqual(found, ["water from the roof opening ends in the floor"])

    def test_each_alone(self):
        self.assertIn("look for its way in", self.words({"moist": ("boot",)})[0])
        self.assertIn("lift every mat", self.words({"smells": ("damp",)})[0])
        self.assertIn("heater matrix", self.words({"smells": ("coolant",)})[0])
        self.assertIn("overspray", self.words({"signs": ("overspray",)})[0])
        self.assertIn("stood in water", self.words({"signs": ("silt",)})[0])
        self.assertEqual(self.words({"no_smell": True, "dry": ("boot",)}), [])

    def test_fuel_stands_down(self):
        self.assertEqual(CabinLooked(smells=("fuel",)).causes(), ("fuel_smell",))
