"""Surveys written by hand, drawn from no simulator: what must be said of them, and what never may be."""

import unittest
from dataclasses import replace

import numpy as np

from hakutsu.core.film import Concern, Cover, CueLooked, FilmSurvey, Observation, State, analyse, magnet_observation
from hakutsu.vehicle.panels import panels, walk_order
from hakutsu.vehicle.protocol import spot_pattern
from hakutsu.vehicle.vocabulary import CoverKind, Finish, MagnetGrade, ReadingStatus, Substrate

NAMES = [name for name in walk_order("hatch", 5) if "bumper" not in name]
WOBBLE = (-2, 1, 3, -1, 0)
WING = "front_wing_left"
LIMIT = 1500.0
MIL = 25.4
UPPER = [name for name in NAMES if name == "roof" or "pillar" in name]


def panel(name, level, *, count=5, wobble=1.0, limit=LIMIT, step=None):
    """An even panel: its readings lie a few micrometres about its level, at the spots of the protocol."""
    places = [*spot_pattern(panels()[name]), (0.35, 0.5), (0.65, 0.5)][:count]
    return [
        Observation(name, float(level + wobble * WOBBLE[i % 5]), u=u, v=v, limit_um=limit, step_um=step)
        for i, (u, v) in enumerate(places)
    ]


def car(level=115, *, without=(), levels=None, **more):
    """A whole car; panels differ by a few micrometres in a fixed pattern unless their level is said."""
    found = []
    for i, name in enumerate(NAMES):
        if name not in without:
            found += panel(name, (levels or {}).get(name, level + (i * 7) % 9 - 4), **more)
    return found


def judged(observations, finish=Finish.FACTORY, **more):
    """The analysis of a survey."""
    return analyse(FilmSurvey("by hand", observations, finish, **more))


def low_edge(*values, limit=LIMIT):
    """Three readings at one place of a wing's low edge; "over" is beyond the gauge's range."""
    made = []
    for u, value in zip((0.5, 0.53, 0.47), values, strict=True):
        over = value == "over"
        status = ReadingStatus.OVER if over else ReadingStatus.OK
        made.append(Observation(WING, None if over else float(value), status, u=u, v=0.12, limit_um=limit))
    return made


TAPERED = (((612, 905, 247), LIMIT), ((420, 510, 345), LIMIT), (("over",) * 3, 500.0), (("over", 1900, 1700), 1800.0))


class Filler(unittest.TestCase):
    def test_readings_of_one_place_corroborate_each_other_whatever_their_values(self):
        for values, limit in TAPERED:
            for rest in (panel(WING, 115, limit=limit), []):
                found = judged(car(without=(WING,), limit=limit) + rest + low_edge(*values, limit=limit))
                wing = found.panel(WING)
                with self.subTest(values=values, others=len(rest)):
                    chances = wing.probabilities
                    self.assertGreaterEqual(chances[State.FILLED] + chances[State.REBUILT], 0.8)
                    self.assertEqual(wing.state, State.FILLED)
                    self.assertLessEqual(chances[State.ORIGINAL], 0.1)
                    self.assertNotEqual(wing.judged.concern, Concern.NONE)

    def test_a_rise_to_one_corner_is_filler_with_its_extent(self):
        rising = ((180, 0.2, 0.8), (240, 0.4, 0.6), (350, 0.55, 0.45), (520, 0.7, 0.3), (800, 0.85, 0.15))
        found = judged(
            car(without=(WING,)) + [Observation(WING, float(x), u=u, v=v, limit_um=LIMIT) for x, u, v in rising]
        )
        wing = found.panel(WING)
        self.assertGreaterEqual(wing.probabilities[State.FILLED], 0.7)
        self.assertTrue(0 < wing.filled_share.low < wing.filled_share.high < 1)
        self.assertEqual(found.open_surprises, [])

    def test_magnet_and_ripples_make_it_surer_and_sound_spots_elsewhere_do_not_dissolve_it(self):
        seen = car(without=(WING,)) + panel(WING, 115) + low_edge(420, 510, 345)
        plain = judged(seen).panel(WING).probabilities[State.FILLED]
        more = judged(
            seen,
            cues={WING: (CueLooked("ripples", True),)},
            magnets=(magnet_observation(WING, MagnetGrade.WEAKER, 0.5, 0.3),),
        )
        self.assertGreaterEqual(more.panel(WING).probabilities[State.FILLED], plain)
        sound = [
            Observation(WING, 115.0 + i % 3, u=0.1 + 0.08 * i, v=0.55 + 0.04 * i, limit_um=LIMIT) for i in range(10)
        ]
        with_ten = judged([*seen, *sound]).panel(WING).probabilities
        self.assertGreaterEqual(with_ten[State.FILLED] + with_ten[State.REBUILT], 0.7)

    def test_a_skim_over_most_of_a_bonnet_is_not_painted_many_times(self):
        places = [*spot_pattern(panels()["bonnet"]), (0.9, 0.9)]
        mils = (25, 26, 28, 25.5, 27, 6)
        skim = [Observation("bonnet", x * MIL, u=u, v=v, limit_um=LIMIT, step_um=2.54)
                for x, (u, v) in zip(mils, places, strict=True)]  # fmt: skip
        found = judged(car(140, without=("bonnet",)) + skim).panel("bonnet")
        self.assertGreaterEqual(found.probabilities[State.FILLED], 0.6)
        self.assertEqual(found.state, State.FILLED)

    def test_a_restored_car_of_thick_panels_carries_no_filler_for_that(self):
        mils = (8, 10.5, 6.5, 13, 9.5)
        seen = [o for i, name in enumerate(NAMES) for o in panel(name, mils[i % 5] * MIL, count=4)]
        found = judged(seen, Finish.RESTORED)
        for name in NAMES:
            self.assertLessEqual(found.panel(name).probabilities[State.FILLED], 0.4, name)
            self.assertNotEqual(found.panel(name).state, State.FILLED)


class WholeCars(unittest.TestCase):
    def test_an_even_car_at_300_is_not_seventeen_proofs_of_a_factory(self):
        found = judged(car(300))
        self.assertEqual(found.baseline.kind, "respray")
        self.assertGreaterEqual(found.baseline.probability, 0.5)
        asked = " ".join(found.warnings)
        for word in ("shut faces", "under the lids", "labels", "edges"):
            self.assertIn(word, asked)
        for name in NAMES:
            self.assertLessEqual(found.panel(name).probabilities[State.ORIGINAL], 0.6)

    def test_shut_faces_of_an_ordinary_factory_speak_against_thick_factory_film(self):
        shuts = [Observation("front_door_left", um, u=0.02, v=0.5, edge=True, limit_um=LIMIT) for um in (62, 66, 70)]
        without, read = judged(car(196)), judged(car(196) + shuts)
        self.assertGreater(read.panel("roof").altered, without.panel("roof").altered)
        thick = [replace(o, value_um=125.0) for o in shuts]
        self.assertLess(judged(car(196) + thick).panel("roof").altered, read.panel("roof").altered)

    def test_a_wrap_over_everything_stays_open_until_its_edges_are_felt(self):
        found = judged(car(230))
        asked = " ".join(found.warnings)
        for word in ("wrap", "repaint", "thick film of the factory", "edges"):
            self.assertIn(word, asked)
        felt = {name: Cover(CoverKind.WRAP, 120.0) for name in NAMES}
        taken_off = judged(car(230), covers=felt)
        self.assertNotIn("all over", " ".join(taken_off.warnings))
        for name in NAMES:
            self.assertLess(taken_off.panel(name).altered, 0.5)

    def test_where_most_was_painted_roof_and_pillars_hold_the_factorys_film(self):
        painted = [name for name in NAMES if name not in UPPER][:12]
        found = judged(car(levels={name: 215 if name in painted else 122 for name in NAMES}, wobble=2.5))
        for name in NAMES:
            film = found.panel(name)
            if name in painted and not name.startswith("sill"):
                self.assertGreaterEqual(film.altered, 0.9, name)
            if name in UPPER:
                self.assertGreaterEqual(film.probabilities[State.ORIGINAL], 0.8, name)

    def test_sound_cars_of_any_level_are_not_accused(self):
        for level in (80, 92, 118, 140, 175, 195):
            found = judged(car(level))
            self.assertLess(max(one.altered for one in found.panels), 0.5, level)
            self.assertEqual("all over" in " ".join(found.warnings), level == 195)

    def test_nor_for_another_metal_a_zero_offset_or_a_coarse_scale(self):
        light = ("bonnet", "front_wing_left", "front_wing_right")
        for more in (-25, 25):
            metal = dict.fromkeys(light, Substrate.ALUMINIUM)
            found = judged(car(118, levels=dict.fromkeys(light, 118 + more)), substrates=metal)
            self.assertLess(max(one.altered for one in found.panels), 0.5)
        self.assertLess(max(one.altered for one in judged(car(118 + 15)).panels), 0.5)
        for step in (0.1 * MIL, 0.5 * MIL):
            coarse = [replace(o, value_um=round(o.value_um / step) * step, step_um=step) for o in car(118)]
            self.assertLess(max(one.altered for one in judged(coarse).panels), 0.5)

    def test_a_car_whose_honest_panels_differ_much_is_not_accused(self):
        levels = np.linspace(88, 132, len(NAMES))[np.random.default_rng(5).permutation(len(NAMES))]
        found = judged(car(levels=dict(zip(NAMES, levels, strict=True))))
        self.assertLess(max(one.altered for one in found.panels), 0.5)

    def test_two_tone_by_design_is_named(self):
        found = judged(car(115, levels=dict.fromkeys(UPPER, 175)))
        for name in UPPER:
            film = found.panel(name)
            self.assertLess(film.altered, 0.5)
            self.assertTrue(any("two-tone" in reason for reason in film.reasons), film.reasons)
        self.assertTrue(any("two-tone" in warning for warning in found.warnings))


class OnePanel(unittest.TestCase):
    def test_a_new_door_under_its_neighbours_is_looked_at_again(self):
        found = judged(car(118, levels={"front_door_left": 97})).panel("front_door_left")
        said = next(reason for reason in found.reasons if "under its neighbours" in reason)
        self.assertIn("look at its bolts, glass and labels", said)
        self.assertNotEqual(found.judged.concern, Concern.NONE)

    def test_one_reading_a_panel_leaves_wide_words(self):
        for seen in (car(116, count=1), [o for name in NAMES[:3] for o in panel(name, 116, count=1)]):
            found = judged(seen)
            for film in found.panels:
                self.assertLessEqual(max(film.probabilities.values()), 0.95)

    def test_while_a_reading_waits_for_its_repeat_nobody_says_that_all_agrees(self):
        odd = [replace(o, value_um=190.0) if i == 4 else o for i, o in enumerate(panel("front_door_left", 116))]
        found = judged(car(116, without=("front_door_left",)) + odd)
        self.assertEqual(len(found.open_surprises), 1)
        self.assertEqual(found.panel("front_door_left").judged.concern, Concern.LOOK)

    def test_a_reading_raised_from_the_baseline_up_never_lowers_altered(self):
        for count in (1, 3, 5):
            flat = panel("front_door_left", 118, count=count)
            rest = car(118, without=("front_door_left",))
            least = judged(rest + flat).panel("front_door_left").altered
            for um in (125, 140, 170, 230, 320, 480, 900, 1490):
                raised = [*flat[:-1], replace(flat[-1], value_um=float(um))]
                self.assertGreaterEqual(judged(rest + raised).panel("front_door_left").altered, least, (count, um))
            over = [*flat[:-1], replace(flat[-1], value_um=None, status=ReadingStatus.OVER)]
            self.assertGreaterEqual(judged(rest + over).panel("front_door_left").altered, least)

    def test_a_mirror_image_says_the_same_of_the_other_side(self):
        seen = car(without=(WING,)) + low_edge(612, 905, 247)
        other = [replace(o, panel=panels()[o.panel].mirror or o.panel) for o in seen]
        one, two = judged(seen), judged(other)
        for name in NAMES:
            mirror = panels()[name].mirror or name
            for state, chance in one.panel(name).probabilities.items():
                self.assertAlmostEqual(chance, two.panel(mirror).probabilities[state], places=3)


class WithoutAGauge(unittest.TestCase):
    def test_magnet_and_eye_alone_are_evidence_with_wide_words(self):
        magnets = [magnet_observation("front_door_left", MagnetGrade.WEAKER, u, 0.3) for u in (0.3, 0.5, 0.7)]
        cues = {"front_door_left": (CueLooked("ripples", True), CueLooked("overspray", True))}
        steel = dict.fromkeys(NAMES, Substrate.STEEL)
        found = judged([], magnets=tuple(magnets), cues=cues, substrates=steel).panel("front_door_left")
        self.assertGreater(found.altered, 0.5)
        self.assertTrue(found.words.endswith("by magnet and eye"), found.words)
        self.assertIn("judged by magnet and eye, no gauge reading", found.reasons)
        self.assertTrue(any(reason.startswith("magnet: ") for reason in found.reasons))

    def test_peeling_on_a_lid_in_the_sun_is_age(self):
        steel = dict.fromkeys(NAMES, Substrate.STEEL)
        plain, roof, door = (
            judged(car(), cues=cues, substrates=steel)
            for cues in (
                {},
                {"roof": (CueLooked("peeling", True),)},
                {"front_door_left": (CueLooked("peeling", True),)},
            )
        )
        self.assertAlmostEqual(roof.panel("roof").altered, plain.panel("roof").altered, delta=0.02)
        self.assertGreater(
            door.panel("front_door_left").altered / plain.panel("front_door_left").altered,
            roof.panel("roof").altered / plain.panel("roof").altered,
        )
