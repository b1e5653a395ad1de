"""Measured on the road, by hand: clutch, speedometer by UN R39, the dial over a distance, hubs in pairs."""

import unittest
from datetime import UTC, datetime, timedelta

from pydantic import ValidationError

from hakutsu.core.engine.after import AgainAfter
from hakutsu.core.road.after import Since, after_list
from hakutsu.core.road.measured import (
    Pair,
    clutch_found,
    clutch_grade,
    dial_most,
    dials_found,
    distances_found,
    hub_pairs,
    hubs_found,
    vibration_found,
)
from hakutsu.entries.corners import Grade
from hakutsu.entries.road import ClutchTried, DialRead, DistanceRead, DriveDone, HubRead, VibrationRecorded
from hakutsu.vehicle.rules import rule_sets

NOON = datetime(2026, 8, 1, 12, tzinfo=UTC)
RULES = next(iter(rule_sets().values()))


def codes(findings):
    return [one.code.removeprefix("road.") for one in findings]


class Clutch(unittest.TestCase):
    def test_bite_play_and_slip(self):
        for body, wanted in (
            ({"bites": 0.2, "clean": True}, []),
            ({"bites": 0.2, "clean": False}, ["clutch_drag"]),
            ({"bites": 0.5}, []),
            ({"bites": 0.8}, ["clutch_high"]),
            ({"bites": 0.8, "slip": "holds"}, []),
            ({"bites": 0.8, "slip": "slips"}, ["clutch_slips"]),
            ({"free_play_mm": 30, "linkage": "cable"}, ["clutch_play"]),
            ({"free_play_mm": 20, "linkage": "cable"}, []),
            ({"free_play_mm": 20, "linkage": "hydraulic"}, ["clutch_play"]),
            ({"free_play_mm": 20}, []),
        ):
            with self.subTest(body):
                self.assertEqual(codes(clutch_found(ClutchTried(**body))), wanted)

    def test_a_linkage_that_adjusts_itself_hides_wear(self):
        self.assertIs(clutch_grade(ClutchTried(bites=0.2, clean=True, linkage="cable"))[0], Grade.SOUND)
        self.assertIsNone(clutch_grade(ClutchTried(bites=0.2, clean=True, linkage="hydraulic")))
        self.assertIsNone(clutch_grade(ClutchTried(bites=0.2, clean=True, self_adjusting=True)))
        self.assertIs(clutch_grade(ClutchTried(slip="slips"))[0], Grade.FAILED)
        self.assertIs(clutch_grade(ClutchTried(bites=0.8))[0], Grade.FAILING)

    def test_nothing_said_is_no_entry(self):
        with self.assertRaises(ValidationError):
            ClutchTried(linkage="cable")


class Dials(unittest.TestCase):
    def test_never_under_and_at_most_a_tenth_and_four(self):
        self.assertAlmostEqual(dial_most(100, RULES), 114)
        under, over = ["dial_under"], ["dial_over"]
        for shown, true, wanted in ((100, 100, []), (113, 100, []), (117, 100, over), (96, 100, under), (99, 100, [])):
            self.assertEqual(codes(dials_found([DialRead(shown_kmh=shown, true_kmh=true)], RULES, None)), wanted)

    def test_tyres_fitted_explain_a_part_of_it(self):
        told = dials_found([DialRead(shown_kmh=90, true_kmh=95)], RULES, 1.03)
        self.assertIn("+3.0 %", told[0].reasons[0])
        self.assertEqual(codes(dials_found([], RULES, 1.03)), ["dial_tyres"])
        self.assertEqual(dials_found([], RULES, 1.01), [])

    def test_a_dial_that_counts_wrong_or_not_at_all(self):
        def told(*readings, drives=()):
            return codes(distances_found([DistanceRead(shown_km=a, true_km=b) for a, b in readings], drives))

        self.assertEqual(told((10.6, 10)), ["distance_over"])
        self.assertEqual(told((9.4, 10)), ["distance_under"])
        self.assertEqual(told((10.3, 10)), [])
        self.assertEqual(told((2.4, 2)), [])
        stood = DriveDone(level="normal", minutes=20, km_start=81230, km_end=81230)
        self.assertEqual(told(drives=[stood]), ["dial_stands"])
        self.assertEqual(told(drives=[DriveDone(level="yard", minutes=20, km_start=5, km_end=5)]), [])

    def test_what_cannot_be_is_refused(self):
        for body in (
            {"began": "10:30", "until": "10:05"},
            {"km_start": 100, "km_end": 99},
            {"top_kmh": 400},
        ):
            with self.assertRaises(ValidationError):
                DriveDone(level="low", **body)
        self.assertEqual(DriveDone(level="low", began="10:05", until="11:20").lasted, 75)


class Hubs(unittest.TestCase):
    def pairs(self, left, right, apart=60, spot="hub", since=None):
        hubs = {
            "wheel_front_left": [(NOON, HubRead(temp_c=left, spot=spot))],
            "wheel_front_right": [(NOON + timedelta(seconds=apart), HubRead(temp_c=right))],
        }
        return hub_pairs(hubs, since)

    def test_more_than_thirty_apart_is_told_of_the_hotter_one(self):
        told = hubs_found(self.pairs(75, 40))
        self.assertEqual([(one.code, one.subject) for one in told], [("road.hub_hot", "wheel_front_left")])
        self.assertEqual(hubs_found(self.pairs(70, 40)), [])

    def test_too_late_or_another_spot_is_measured_again(self):
        self.assertEqual(codes(hubs_found(self.pairs(90, 40, apart=121))), ["hub_again"])
        self.assertEqual(codes(hubs_found(self.pairs(90, 40, spot="disc"))), ["hub_again"])

    def test_what_was_read_before_the_drive_counts_for_nothing(self):
        late = self.pairs(90, 40, since=NOON + timedelta(hours=1))
        self.assertEqual([one.state for one in late], [Pair.OPEN, Pair.OPEN])


class Recorded(unittest.TestCase):
    def record(self, source, probability, none):
        told = [{"source": source, "hz": 12.8, "probability": probability}]
        return VibrationRecorded(kmh=92, rolling_m=2, rate_hz=100, usable_hz=45, candidates=told, none=none)

    def test_a_source_likelier_than_not_is_found_as_sure_as_it_is(self):
        one = vibration_found(self.record("tyre_1", 0.8, 0.1))[0]
        self.assertEqual((one.code, one.sureness), ("road.vibration_tyre", 0.8))
        self.assertEqual(codes(vibration_found(self.record("other", 0.7, 0.1))), ["vibration_other"])
        self.assertEqual(vibration_found(self.record("tyre_1", 0.4, 0.3)), [])
        self.assertEqual(vibration_found(self.record("tyre_1", 0.4, 0.6)), [])


class After(unittest.TestCase):
    def words(self, **since):
        engine = [AgainAfter("engine oil: sump", "", False)]
        told = after_list(NOON, engine, hub_pairs({}, None), Since(**since), electric=False)
        return {one.words: one.done for one in told}

    def test_before_the_drive_there_is_none(self):
        self.assertEqual(after_list(None, [], [], Since(), electric=False), [])
        told = after_list(None, [AgainAfter("smoke, hot", "", False)], [], Since(), electric=False)
        self.assertEqual([one.words for one in told], ["smoke, hot"])

    def test_it_is_made_by_the_day_and_ticked_by_what_came_since(self):
        plain = self.words()
        self.assertIn("engine oil: sump", plain)
        self.assertNotIn("second scan", plain)
        early, late = NOON - timedelta(hours=1), NOON + timedelta(minutes=5)
        told = self.words(
            scans=[early], vents=[early, late], starts=[early], levels=[late], functions=[("horn", "fails", [early])]
        )
        names = ("second scan", "vent again, by hand or thermometer", "restart, hot", "levels", "horn")
        self.assertEqual([told[one] for one in names], [False, True, False, True, False])
