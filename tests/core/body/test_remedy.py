import unittest
from typing import get_args

from hakutsu.core.body.remedy import Film, remedy, remedy_name, remedy_table
from hakutsu.entries.body import Blemish, BlemishKind, Depth, Trial
from hakutsu.vehicle.parts import On

ROOM = Film(headroom_um=8.0)


def mark(kind, depth="unknown", mm=None, **more):
    return Blemish(kind=kind, depth=depth, length_mm=mm, **more)


def said(found):
    return found.first, found.chance, found.otherwise


class Ladder(unittest.TestCase):
    def test_a_dozen_cases_by_hand(self):
        for blemish, on, film, wanted in (
            (mark("stain"), "panel", ROOM, ("clean", 0.8, "polish")),
            (mark("scratch", "on_film", 300), "panel", ROOM, ("clean", 0.8, "polish")),
            (mark("scratch", "clear", 200), "panel", ROOM, ("polish", 0.85, "local")),
            (mark("scratch", "clear", 400), "panel", ROOM, ("polish", 0.8, "panel")),
            (mark("scratch", "colour", 40), "panel", ROOM, ("touch_in", 0.6, "local")),
            (mark("scratch", "metal", 250), "panel", ROOM, ("local", 0.7, "panel")),
            (mark("scratch", "primer", 900), "panel", ROOM, ("panel", 1.0, None)),
            (mark("chip", "primer", 3), "panel", ROOM, ("touch_in", 0.9, "local")),
            (mark("ding", mm=20), "panel", ROOM, ("dent_lift", 0.85, "panel")),
            (mark("dent", mm=120), "panel", ROOM, ("dent_lift", 0.6, "panel")),
            (mark("dent", mm=400), "panel", ROOM, ("panel", 1.0, None)),
            (mark("dent", "metal", 20), "panel", ROOM, ("panel", 1.0, None)),
            (mark("crease", mm=90), "panel", ROOM, ("dent_lift", 0.35, "panel")),
            (mark("dent", mm=90), "plastic", ROOM, ("local", 0.5, "replace")),
            (mark("crack", mm=300), "plastic", ROOM, ("replace", 1.0, None)),
            (mark("stress_crack", mm=60), "plastic", ROOM, ("plastic_repair", 0.75, "replace")),
            (mark("tear", mm=80), "plastic", ROOM, ("plastic_repair", 0.6, "replace")),
            (mark("scuff", "clear", 40), "fitting", None, ("polish", 0.85, "fitting_refinish")),
            (mark("chip", "primer", 4), "fitting", None, ("touch_in", 0.9, "fitting_refinish")),
            (mark("scuff", "primer", 90), "fitting", None, ("fitting_refinish", 1.0, None)),
            (mark("crack", mm=40), "fitting", None, ("fitting", 1.0, None)),
            (mark("dent", mm=30), "wheel", None, ("wheel_straighten", 0.7, "wheel_replace")),
            (mark("crack", mm=30), "wheel", None, ("wheel_replace", 1.0, None)),
            (mark("spokes"), "wheel", None, ("wheel_rebuild", 0.7, "wheel_replace")),
            (mark("kerb", "metal", 20), "wheel", None, ("touch_in", 0.6, "wheel")),
            (mark("tear", mm=40), "folding", None, ("roof_patch", 0.6, "roof_cover")),
            (mark("tear", mm=300), "folding", None, ("roof_cover", 1.0, None)),
            (mark("fade"), "folding", None, ("roof_clean", 0.7, "roof_cover")),
            (mark("scratch", mm=90), "plastic_pane", None, ("plastic_polish", 0.6, "plastic_pane")),
            (mark("tear", mm=90), "plastic_pane", None, ("plastic_pane", 1.0, None)),
            (mark("peel"), "panel", ROOM, ("panel", 1.0, None)),
            (mark("misfit"), "panel", ROOM, ("adjust", 0.7, "replace")),
            (mark("touched_well"), "panel", ROOM, ("none", 1.0, None)),
            (mark("kerb", "metal", 60), "wheel", None, ("wheel", 1.0, None)),
            (mark("chip", mm=8), "pane", None, ("screen_chip", 0.85, "windscreen")),
            (mark("chip", mm=40), "pane", None, ("windscreen", 1.0, None)),
            (mark("moisture"), "lamp", None, ("lamp", 1.0, None)),
            (mark("letting_go"), "fitting", None, ("reglue", 0.8, "fitting")),
        ):
            with self.subTest(f"{blemish.kind} {blemish.depth} {blemish.length_mm} on {on}"):
                self.assertEqual(said(remedy(blemish, on, film)), wanted)

    def test_every_kind_depth_and_carrier_has_a_remedy_with_a_name(self):
        for kind in BlemishKind:
            for depth in Depth:
                for on in get_args(On):
                    found = remedy(mark(kind, depth, 50, note="wiped"), on, ROOM)
                    self.assertTrue(all(remedy_name(step) for step in found.steps))
                    self.assertTrue(0 < found.chance <= 1)

    def test_every_remedy_is_a_job_that_has_a_cost(self):
        from hakutsu.core.costs import usual_jobs

        jobs = {row["job"] for row in remedy_table()["jobs"].values()} - {""}
        self.assertEqual(jobs - set(usual_jobs()), set())


class ByFilm(unittest.TestCase):
    SCRATCH = mark("scratch", "clear", 100)

    def test_polish_only_where_the_film_leaves_headroom(self):
        self.assertEqual(said(remedy(self.SCRATCH, film=Film(2.0))), ("local", 1.0, None))
        self.assertIn("2 µm to polish", remedy(self.SCRATCH, film=Film(2.0)).because[0])
        self.assertEqual(remedy(self.SCRATCH, film=Film(3.0)).first, "polish")

    def test_measuring_sound_film_never_makes_polish_less_likely_than_not_measuring(self):
        unread = remedy(self.SCRATCH, film=Film(None)).chance
        for chance in (0.2, 0.5, 0.7, 0.9, 1.0):
            found = remedy(self.SCRATCH, film=Film(8.0, chance=chance))
            self.assertAlmostEqual(found.chance, 0.85 * max(chance, 0.7), places=4)
            self.assertGreaterEqual(found.chance, unread)

    def test_unread_film_makes_it_less_sure_and_asks_for_a_reading(self):
        found = remedy(self.SCRATCH, film=Film(None))
        self.assertEqual(said(found), ("polish", round(0.85 * 0.7, 4), "local"))
        self.assertEqual(found.because, ("read the film here first",))

    def test_no_dent_is_lifted_over_filler_or_at_an_edge(self):
        self.assertEqual(remedy(mark("ding", mm=20), film=Film(8, filled=0.5)).first, "panel")
        self.assertEqual(remedy(mark("ding", mm=20, on_edge=True), film=ROOM).first, "panel")


class ByTrial(unittest.TestCase):
    def test_a_trial_spot_weighs_more_than_the_table(self):
        scratch = {"kind": "scratch", "depth": "clear", "length_mm": 100}
        stayed = remedy(Blemish(trial=Trial.STAYED, **scratch), film=ROOM)
        self.assertEqual(said(stayed), ("polish", round(0.85 * 0.35, 4), "local"))
        partly = remedy(Blemish(trial=Trial.LESS, **scratch), film=ROOM)
        self.assertAlmostEqual(partly.chance, 0.85 * 1.1)
        off = remedy(Blemish(trial=Trial.WIPED_OFF, **scratch), film=ROOM)
        self.assertEqual(said(off), ("clean", 1.0, None))

    def test_a_stain_that_stays_is_not_cleaned_again(self):
        found = remedy(mark("stain", trial=Trial.STAYED), film=ROOM)
        self.assertEqual(said(found), ("polish", 0.7, "local"))

    def test_an_unidentified_mark_says_what_was_tried(self):
        with self.assertRaises(ValueError):
            Blemish(kind="unidentified")
        self.assertEqual(remedy(mark("unidentified", note="wiped, no change")).first, "none")
