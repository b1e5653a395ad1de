import unittest
from types import SimpleNamespace
from uuid import uuid4

from hakutsu.core.body.contacts import proposed_events
from hakutsu.core.body.cues import body_cues, cue_of_mark
from hakutsu.core.body.fit import fit_found, own_gap_mm
from hakutsu.core.body.glass import glass_words, odd_marks
from hakutsu.core.body.hail import hail_class
from hakutsu.core.body.trim import _table, trim_words
from hakutsu.dossier.body import BodyDossier, Seen
from hakutsu.entries.body import Blemish, Event, Fit, Glass, Trim, TrimState
from hakutsu.vehicle.panels import walk_order
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.shell import shell

PATCHES = shell("hatch", 5, tuple(walk_order("hatch", 5)))
RULES = rule_sets()["orrin"]


def seen(place, body, seq=1):
    return Seen(SimpleNamespace(id=uuid4(), place=place, seq=seq), body)


def scratch(panel, *path, kind="scratch"):
    return seen(panel, Blemish(kind=kind, path=path))


class Contacts(unittest.TestCase):
    def groups(self, *marks, events=(), apart=()):
        body = BodyDossier(blemishes={one.entry.id: one for one in marks}, apart=set(apart))
        body.events = {event.entry.id: event for event in events}
        return [{one.place for one in group} for group in proposed_events(body, PATCHES)]

    def test_a_scratch_that_goes_on_across_a_seam_is_one_contact(self):
        door = scratch("front_door_left", (0.7, 0.5), (0.98, 0.5))
        rear = scratch("rear_door_left", (0.02, 0.5), (0.3, 0.5))
        self.assertEqual(self.groups(door, rear), [{"front_door_left", "rear_door_left"}])

    def test_another_height_side_kind_or_direction_is_not(self):
        door = scratch("front_door_left", (0.7, 0.9), (0.98, 0.9))
        for other in (
            scratch("rear_door_left", (0.02, 0.1), (0.3, 0.1)),
            scratch("rear_door_right", (0.02, 0.9), (0.3, 0.9)),
            scratch("rear_door_left", (0.05, 0.75), (0.05, 1.0)),
            scratch("rear_door_left", (0.02, 0.9), (0.3, 0.9), kind="stain"),
            scratch("rear_door_left", (0.9, 0.9)),
            seen("rear_door_left", Blemish(kind="scratch")),
        ):
            with self.subTest(other.body):
                self.assertEqual(self.groups(door, other), [])

    def test_three_in_a_row_are_one_and_two_on_one_panel_are_none(self):
        one = scratch("front_wing_left", (0.8, 0.4), (0.98, 0.4))
        two = scratch("front_door_left", (0.02, 0.45), (0.9, 0.45))
        three = scratch("rear_door_left", (0.02, 0.45), (0.3, 0.45))
        self.assertEqual(len(self.groups(one, two, three)), 1)
        self.assertEqual(self.groups(two, scratch("front_door_left", (0.4, 0.45), (0.6, 0.45))), [])

    def test_joined_or_said_to_be_apart_they_are_not_proposed(self):
        door, rear = scratch("front_door_left", (0.9, 0.5)), scratch("rear_door_left", (0.1, 0.5))
        keys = (door.entry.id, rear.entry.id)
        self.assertEqual(self.groups(door, rear, events=[seen("", Event(blemishes=keys))]), [])
        self.assertEqual(self.groups(door, rear, apart=[frozenset(keys)]), [])


class Gaps(unittest.TestCase):
    def found(self, **fits):
        return fit_found({panel: seen(panel, Fit(**fit)) for panel, fit in fits.items()})

    def test_left_against_right(self):
        found = self.found(front_door_left={"front_mm": 4.0}, front_door_right={"front_mm": 6.0})
        self.assertIn("4 mm on the other side", found["front_door_right"].words[0])
        self.assertTrue(found["front_door_right"].cue)
        alike = self.found(front_door_left={"front_mm": 4.0}, front_door_right={"front_mm": 5.4})
        self.assertFalse(alike["front_door_right"].cue)

    def test_of_two_that_differ_the_one_farther_from_the_cars_own_was_moved(self):
        found = self.found(
            front_door_left={"front_mm": 4.0, "rear_mm": 4.0},
            front_door_right={"front_mm": 6.5, "rear_mm": 4.0},
            rear_door_left={"front_mm": 4.0, "rear_mm": 4.2},
        )
        self.assertEqual((found["front_door_left"].cue, found["front_door_right"].cue), (False, True))

    def test_without_a_twin_against_the_cars_own_median_of_four_and_more(self):
        few = {"bonnet": {"front_mm": 8.0}, "tailgate": {"top_mm": 4.0, "front_mm": 4.0}}
        self.assertFalse(self.found(**few)["bonnet"].cue)
        found = self.found(**few, rear_door_left={"front_mm": 4.2})
        self.assertTrue(found["bonnet"].cue)
        self.assertEqual(own_gap_mm({p: seen(p, Fit(front_mm=4)) for p in ("bonnet", "roof")}), None)

    def test_taper_step_and_how_it_moves(self):
        found = self.found(front_door_left={"taper_mm": 1.2, "step_mm": -2.0, "drop": True, "closing": "slam"})
        words = "; ".join(found["front_door_left"].words)
        for word in ("opens by 1.2 mm", "stands back by 2 mm", "drops when opened", "closing: slam"):
            self.assertIn(word, words)
        self.assertTrue(found["front_door_left"].cue)
        self.assertFalse(self.found(front_door_left={"taper_mm": 1.0, "step_mm": 1.9})["front_door_left"].cue)


class Panes(unittest.TestCase):
    def marks(self, **marks):
        return odd_marks([seen(place, Glass(date_mark=mark)) for place, mark in marks.items()])

    def test_the_one_unlike_the_others_was_replaced(self):
        found = self.marks(
            windscreen="..9", rear_screen="..6", glass_front_door_left="..6", glass_front_door_right="..6"
        )
        self.assertEqual(found, {"windscreen": "..6"})

    def test_too_few_or_no_usual_mark_says_nothing_and_lamps_are_no_panes(self):
        self.assertEqual(self.marks(windscreen="..9", rear_screen="..6"), {})
        self.assertEqual(self.marks(windscreen="a", rear_screen="b", glass_front_door_left="c"), {})
        lamps = {"headlamp_left": "x", "headlamp_right": "y", "tail_lamp_left": "x"}
        self.assertEqual(self.marks(**lamps), {})

    def test_sight_zone_and_light_by_rule_set(self):
        for place, body, word in (
            ("windscreen", Glass(fault="chip", size_mm=12, in_sight=True), "larger than may be filled"),
            ("windscreen", Glass(fault="crack", in_sight=True), "a test may refuse it"),
            ("rear_screen", Glass(fault="crack", size_mm=60), "run on"),
            ("windscreen", Glass(light_percent=74), "at least 75 %: too dark"),
            ("glass_front_door_left", Glass(light_percent=70), "at least 70 %: within"),
            ("glass_front_door_left", Glass(tint="film"), "have the light through it measured"),
        ):
            with self.subTest(word):
                self.assertIn(word, "; ".join(glass_words(seen(place, body), RULES)))
        self.assertEqual(glass_words(seen("windscreen", Glass(fault="chip", size_mm=8, in_sight=True)), RULES), [])
        self.assertEqual(glass_words(seen("rear_screen", Glass(light_percent=20)), RULES), [])


class Hail(unittest.TestCase):
    def test_density_and_class_by_hand(self):
        found = hail_class(Blemish(kind="hail", count=60, length_mm=12), 12_000)
        self.assertEqual((found.per_dm2, found.words, found.lifts), (0.5, "middling", True))
        self.assertFalse(hail_class(Blemish(kind="hail", count=61, length_mm=20), 12_000).lifts)
        self.assertFalse(hail_class(Blemish(kind="hail", count=16, length_mm=45), 12_000).lifts)
        self.assertEqual(hail_class(Blemish(kind="hail", count=500), 12_000).words, "heavy")


class BrightWork(unittest.TestCase):
    def test_polish_cures_haze_and_never_pits(self):
        self.assertEqual(trim_words(Trim(state="hazed", material="plated")), "polish cures it")
        self.assertIn("never cures pits", trim_words(Trim(state="fine_pits", material="stainless")))
        self.assertEqual(trim_words(Trim(state="good", material="plated")), "")
        self.assertIn("washed", trim_words(Trim(state="dressed")))

    def test_every_state_of_the_table_exists(self):
        named = {state for rows in _table().values() for state in rows}
        self.assertEqual(named - {state.value for state in TrimState}, set())


class CuesOfTheFilm(unittest.TestCase):
    def body(self, marks=(), fits=None, glass=()):
        return BodyDossier(
            blemishes={one.entry.id: one for one in marks},
            fits={panel: seen(panel, fit) for panel, fit in (fits or {}).items()},
            glass=list(glass),
        )

    def test_paint_that_peels_and_bumpers_that_cracked(self):
        peel = seen("bonnet", Blemish(kind="peel"))
        stress = seen("front_bumper", Blemish(kind="stress_crack"))
        plain = seen("roof", Blemish(kind="scratch"))
        body = self.body([peel, stress, plain])
        found = body_cues(body)
        self.assertEqual(found["bonnet"], {"peeling": True, "stress_cracks": True})
        self.assertEqual(found["front_wing_left"], {"stress_cracks": True})
        self.assertNotIn("roof", found)
        self.assertEqual(cue_of_mark(body, plain.entry.id), [])

    def test_a_gap_in_line_is_an_absence_and_an_unmeasured_one_says_nothing(self):
        found = body_cues(self.body(fits={"bonnet": Fit(front_mm=4), "tailgate": Fit(closing="slam")}))
        self.assertEqual(found, {"bonnet": {"gap_out": False}})

    def test_panes_speak_once_one_is_odd(self):
        marks = {"glass_front_door_left": "9", "glass_front_door_right": "6", "rear_screen": "6", "windscreen": "6"}
        glass = [seen(place, Glass(date_mark=mark)) for place, mark in marks.items()]
        found = body_cues(self.body(glass=glass))
        self.assertEqual(
            found, {"front_door_left": {"glass_replaced": True}, "front_door_right": {"glass_replaced": False}}
        )
        self.assertEqual(body_cues(self.body(glass=glass[1:])), {})
