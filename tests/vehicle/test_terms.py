import tomllib
import unittest
from datetime import UTC, datetime
from importlib.resources import files

from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.places import places
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Names, SideNames, SteeringSide

AMERICAN = Terms(names=Names.AMERICAN)


class Words(unittest.TestCase):
    def test_names_of_panels_follow_the_vocabulary_and_keep_the_vehicles_own_side(self):
        names = [terms.panel("front_wing_left") for terms in (PLAIN, AMERICAN)]
        self.assertEqual(names, ["Front wing, left", "Front fender, left"])

    def test_whole_words_change_with_their_capital_and_the_longer_ones_first(self):
        said = AMERICAN.say("Boot or load space; bonnet, tyres and a rubber boots. Rear quarter, sill.")
        self.assertEqual(said, "Trunk or cargo space; hood, tires and a rubber boots. Quarter panel, rocker panel.")
        self.assertEqual(PLAIN.say("Boot, wing"), "Boot, wing")

    def test_quantities_inside_a_sentence_follow_the_unit(self):
        said = "coolant at {temperature 118} or more, tread {depth 1.6}"
        self.assertEqual(PLAIN.say(said), "coolant at 118 °C or more, tread 1.6 mm")
        self.assertEqual(Terms(temperature="f", depth="in32").say(said), "coolant at 244 °F or more, tread 2/32 in")

    def test_the_word_list_agrees_with_the_table_of_panels(self):
        for panel in panels().values():
            if panel.key not in ("front_bumper", "rear_bumper", "rear_panel"):  # a longer name, no other word
                self.assertEqual(AMERICAN.say(panel.british), panel.american)

    def test_no_word_of_the_second_vocabulary_is_changed_again(self):
        text = (files("hakutsu.vehicle") / "data" / "words.toml").read_text(encoding="utf-8")
        for word in tomllib.loads(text)["american"].values():
            self.assertEqual(AMERICAN.say(word), word)

    def test_every_place_and_panel_has_a_name_without_braces(self):
        for key in (*places(), *panels()):
            self.assertNotIn("{", PLAIN.place(key))
        self.assertEqual((PLAIN.place(None), PLAIN.place("elsewhere")), ("", "elsewhere"))


class Sides(unittest.TestCase):
    def sides(self, **more):
        terms = Terms(sides=SideNames.SPOKEN, **more)
        return terms.side("left"), terms.side("right")

    def test_the_kerb_side_is_near_in_the_first_vocabulary_whoever_sits_where(self):
        self.assertEqual(self.sides(steering=SteeringSide.LEFT), ("nearside", "offside"))
        self.assertEqual(self.sides(kerb="right"), ("offside", "nearside"))

    def test_the_second_goes_by_the_drivers_seat(self):
        american = {"names": Names.AMERICAN}
        self.assertEqual(self.sides(steering=SteeringSide.LEFT, **american), ("driver’s side", "passenger side"))
        self.assertEqual(self.sides(steering=SteeringSide.RIGHT, **american), ("passenger side", "driver’s side"))
        self.assertEqual(self.sides(**american), ("left", "right"))

    def test_sides_stand_in_places_and_steps(self):
        terms = Terms(sides=SideNames.SPOKEN)
        self.assertEqual(terms.place("front_corner_left"), "Front corner, nearside")
        self.assertEqual(terms.say("Front {right} wheel"), "Front offside wheel")


class Clock(unittest.TestCase):
    def test_times_are_told_on_the_readers_clock_summer_and_winter(self):
        oslo = Terms(zone="Europe/Oslo")
        self.assertEqual(oslo.clock(datetime(2026, 7, 1, 12, 0, tzinfo=UTC)), "14:00")
        self.assertEqual(oslo.moment(datetime(2026, 12, 31, 23, 30, tzinfo=UTC)), "1 Jan 2027, 00:30 CET")
        self.assertEqual(PLAIN.moment(datetime(2026, 7, 1, 9, 5, tzinfo=UTC)), "1 Jul 2026, 09:05 UTC")
