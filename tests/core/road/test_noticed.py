"""What was noticed on the road: candidates by hand, what moves them, what stays unsettled, grades of parts."""

import unittest

from pydantic import ValidationError

from hakutsu.core.consequence import base
from hakutsu.core.findings import found
from hakutsu.core.road.noticed import Elsewhere, behind, graded, noticed_found, told_more
from hakutsu.core.road.tables import road_table
from hakutsu.entries.corners import Grade
from hakutsu.entries.road import Noticed
from hakutsu.vehicle.road import Level, road_signs, road_subjects, subjects_of
from hakutsu.vehicle.vocabulary import Consequence

NOTHING = Elsewhere()
WHEEL = "wheel_front_right"


def shares(sign, place=None, elsewhere=NOTHING, **more):
    return {one.name: one.probability for one in behind(Noticed(sign=sign, **more), place, elsewhere)}


class Tables(unittest.TestCase):
    def test_every_sign_has_its_consequence_and_every_candidate_its_share(self):
        for key in road_signs():
            self.assertIsNotNone(base(f"road.{key}"))
        for key, row in road_table().sign.items():
            with self.subTest(key):
                self.assertIn(key, road_signs())
                self.assertAlmostEqual(sum(one.share for one in row.of), 1)
                names = {one.name for one in row.of}
                self.assertTrue(all(one.name in names for one in row.moved))
                self.assertTrue(all(one.grade in [*Grade] for one in row.of if one.piece))

    def test_no_sign_is_seen_below_its_subject(self):
        for subject in road_subjects().values():
            for sign in subject.signs:
                self.assertGreaterEqual(sign.level.rank, subject.level.rank, sign.key)

    def test_gearboxes_have_their_own_subjects(self):
        keys = {
            box: [one.key for one in subjects_of(box, opens=False)]
            for box in ("manual", "automatic", "unknown", "single")
        }
        self.assertIn("clutch", keys["manual"])
        self.assertNotIn("automatic", keys["manual"])
        self.assertNotIn("clutch", keys["automatic"])
        self.assertTrue({"clutch", "automatic"} <= set(keys["unknown"]))
        self.assertFalse({"clutch", "automatic", "manual", "roof"} & set(keys["single"]))


class Candidates(unittest.TestCase):
    def test_alone_they_are_the_table(self):
        self.assertAlmostEqual(shares("rumbles_turning")["wheel bearing of the loaded side"], 0.7)

    def test_a_cupped_tyre_speaks_for_the_tyre(self):
        told = shares("rumbles_turning", elsewhere=Elsewhere([found("corners.tyre_cups", WHEEL, "cups")]))
        self.assertAlmostEqual(told["tyres"], 0.25 * 4 / (0.7 + 0.25 * 4 + 0.05))

    def test_play_speaks_for_the_bearing_and_tight_against_it(self):
        loose = shares("hums", elsewhere=Elsewhere((), {"wheel_bearing:front_right": Grade.WORN}))
        tight = shares("hums", elsewhere=Elsewhere((), {"wheel_bearing:front_right": Grade.SOUND}))
        plain = shares("hums")["wheel bearing"]
        self.assertGreater(loose["wheel bearing"], plain)
        self.assertLess(tight["wheel bearing"], plain)

    def test_recent_work_there_is_a_candidate(self):
        told = shares("whines_revs", elsewhere=Elsewhere((), {}, ["auxiliary belt"]))
        self.assertAlmostEqual(told["belt or its pulleys"], 1.0 / 1.5)

    def test_an_excused_finding_moves_nothing(self):
        mine = found("corners.tyre_cups", WHEEL, "cups").excuse("own_doing")
        self.assertEqual(shares("hums", elsewhere=Elsewhere([mine])), shares("hums"))


class Findings(unittest.TestCase):
    def told(self, sign, place=None, level=Level.NORMAL, elsewhere=NOTHING, **more):
        return noticed_found(Noticed(sign=sign, **more), place, level, elsewhere)

    def test_it_says_how_when_and_at_which_level(self):
        one = self.told("rumbles_turning", side="left", kmh=[60, 90])
        self.assertEqual((one.code, one.subject), ("road.rumbles_turning", "inside_front"))
        self.assertIn("turning left, which loads the right", one.words)
        self.assertTrue(any("normal roads" in reason for reason in one.reasons))
        self.assertTrue(any("loaded side 70 %" in reason for reason in one.reasons))

    def test_one_direction_a_bad_road_and_a_known_leak_settle_nothing(self):
        one_way = self.told("pulls", ways="one")
        self.assertIn("one direction", one_way.open.why)
        self.assertLessEqual(one_way.sureness, 0.5)
        self.assertNotIn("direction", self.told("pulls", ways="both").open.why)
        self.assertIn("too bad", self.told("clunks_bumps", doubtful=True).open.why)
        leak = Elsewhere((), {"charge_hose": Grade.FAILING})
        self.assertIn("charge air", self.told("power_down", elsewhere=leak).open.why)
        self.assertNotIn("charge air", self.told("clunks_bumps", elsewhere=leak).open.why)

    def test_what_keeps_from_driving_is_settled(self):
        for sign in ("slips", "park_slips", "brake_sinks", "steer_play", "parking_fails"):
            self.assertIs(self.told(sign).consequence, Consequence.SETTLE)

    def test_a_part_is_graded_where_one_candidate_is_likely_and_located(self):
        bearing = Noticed(sign="rumbles_turning", side="left")
        self.assertEqual(graded(bearing, WHEEL, NOTHING)[:2], ("wheel_bearing:front_right", Grade.FAILING))
        self.assertIsNone(graded(bearing, None, NOTHING))
        self.assertIsNone(graded(Noticed(sign="hums"), WHEEL, NOTHING))
        self.assertEqual(graded(Noticed(sign="slips"), None, NOTHING)[:2], ("clutch", Grade.FAILED))
        self.assertIsNone(graded(Noticed(sign="slips", doubtful=True), None, NOTHING))


class Entries(unittest.TestCase):
    def test_bands_the_wrong_way_round_and_unknown_signs_are_refused(self):
        for body in ({"sign": "hums", "kmh": [90, 60]}, {"sign": "flies"}, {"sign": "hums", "kmh": [60, 400]}):
            with self.assertRaises(ValidationError):
                Noticed(**body)


class Taps(unittest.TestCase):
    def test_a_tap_is_swallowed_by_the_form_that_says_more_and_only_by_that(self):
        tap, form, other = Noticed(sign="pulls"), Noticed(sign="pulls", ways="both"), Noticed(sign="wanders")
        said = [(tap, None), (form, None), (other, None)]
        self.assertEqual([told_more(said, at) for at in range(3)], [True, False, False])
        self.assertFalse(told_more([(tap, None), (tap, None)], 0))
        self.assertTrue(told_more([(tap, None), (tap, WHEEL)], 0))
        self.assertFalse(told_more([(tap, WHEEL), (form, None)], 0))

    def test_what_was_found_at_another_wheel_moves_nothing(self):
        here = Elsewhere((), {"link:front_right": Grade.FAILING, "damper:front_left": Grade.WORN})
        told = shares("clunks_bumps", WHEEL, here)
        self.assertAlmostEqual(told["anti-roll bar link"], 1.6 / (1.6 + 0.25 + 0.2 + 0.15))
