import unittest
from dataclasses import replace
from datetime import date

import numpy as np

from hakutsu.core.life.components import components, fitted, life_table, not_told, pieces, scheduled_items
from hakutsu.core.life.jobs import Basis, due_at, together
from hakutsu.core.life.reckon import Given, Proof, scheduled_jobs, survival_jobs, vehicle_ages, without_found
from hakutsu.core.life.use import effect_words, hazard_factor, use_table, wear_factor
from hakutsu.core.life.worn import Corners, disc_cases, pad_cases, tyre_case, worn_jobs
from hakutsu.entries.corners import Brake, Grade, Tyre
from hakutsu.entries.settings import LifeFigures
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.rules import rule_sets

NOW = date(2026, 11, 25)
DIESEL = Mechanics(
    power="diesel", drive="front", gearbox="manual", timing="belt", rear_axle="beam", rear_brakes="discs"
)
ELECTRIC = Mechanics(power="electric", drive="rear", gearbox="single", timing="neither")
FL, FR = "wheel_front_left", "wheel_front_right"


def given(**more):
    return Given(
        **{"mechanics": DIESEL, "doors": 5, "km_per_year": 12_000, "age_years": 10, "odometer_km": 140_000} | more
    )


def job(jobs, key):
    return next(one for one in jobs if one.key == key)


class WhatIsFitted(unittest.TestCase):
    def test_the_table_holds_the_trades_figures(self):
        battery, pump, damper = (components()[key] for key in ("battery", "water_pump", "damper"))
        scale = float(life_table().scale)
        self.assertEqual((battery.years, battery.beta), (6 * scale, 3.2))
        self.assertEqual((pump.km, pump.years, pump.beta), (190_000 * scale, 14 * scale, 2.8))
        self.assertEqual((damper.km, damper.years, damper.beta), (220_000 * scale, 20 * scale, 3))
        self.assertEqual(damper.corners, "all")
        self.assertTrue(all(one.basis for one in components().values()))

    def test_a_test_that_can_see_more_leaves_less_to_come(self):
        def chance(tested, grade="sound"):
            told = given(grades={"wheel_bearing:front_left": Grade(grade)}, tested={"wheel_bearing:front_left": tested})
            return job(survival_jobs(told), "wheel_bearing:front_left").chance(36)

        eye, hand, bar = (chance(one) for one in ("by eye", "by hand", "jacked, with a bar"))
        self.assertTrue(bar < hand < eye)
        self.assertEqual(eye, chance(""))
        self.assertEqual(chance("by eye", "worn"), chance("with a bar", "worn"))  # what is worn was seen either way

    def test_power_gearbox_and_axle_decide(self):
        names = {piece.key for piece in pieces(DIESEL, 5)}
        self.assertIn("glow_plugs", names)
        self.assertIn("shaft_boots:front_left", names)
        self.assertNotIn("shaft_boots:rear_left", names)
        self.assertNotIn("coils", names)
        self.assertNotIn("link:rear_left", names)  # a beam axle has none
        electric = {piece.key for piece in pieces(ELECTRIC, 5)}
        self.assertIn("on_board_charger", electric)
        self.assertFalse({"clutch", "thermostat", "exhaust_rear"} & electric)

    def test_doors_have_regulators_and_locks(self):
        self.assertEqual(sum(piece.component.key == "door_lock" for piece in pieces(DIESEL, 3)), 2)
        self.assertEqual(sum(piece.component.key == "door_lock" for piece in pieces(DIESEL, 5)), 4)

    def test_what_is_not_told_is_neither_reckoned_nor_denied(self):
        rows = {row.key for row in not_told(Mechanics())}
        self.assertIn("clutch", rows)
        self.assertIsNone(fitted(components()["clutch"], Mechanics()))
        self.assertNotIn("clutch", {piece.component.key for piece in pieces(Mechanics(), 5)})

    def test_the_inspector_rules_over_the_table(self):
        self.assertFalse(fitted(components()["turbo"], DIESEL))
        self.assertTrue(fitted(components()["turbo"], replace_facts(also_fitted=("turbo",))))
        self.assertFalse(fitted(components()["battery"], replace_facts(not_fitted=("battery",))))


def replace_facts(**more):
    return DIESEL.model_copy(update=more)


class Survivals(unittest.TestCase):
    def test_failed_is_now_and_settled(self):
        found = job(survival_jobs(given(grades={"brake_hose:rear_left": Grade.FAILED})), "brake_hose:rear_left")
        self.assertEqual((found.months().median, found.months().high, found.settle), (0, 0, True))

    def test_failing_ends_within_months_and_never_better_than_seven_times_the_hazard(self):
        found = job(
            survival_jobs(given(grades={"wheel_bearing:front_left": Grade.FAILING})), "wheel_bearing:front_left"
        )
        self.assertAlmostEqual(found.months().median, 4.0, delta=0.1)  # 4 months come before 6,000 km
        fast = job(
            survival_jobs(given(km_per_year=36_000, grades={"wheel_bearing:front_left": Grade.FAILING})),
            "wheel_bearing:front_left",
        )
        self.assertAlmostEqual(fast.months().median, 2.0, delta=0.1)  # 6,000 km at 3,000 a month

    def test_grades_order_what_is_left(self):
        medians = [
            job(survival_jobs(given(grades={"link:front_left": grade})), "link:front_left").months().median
            for grade in (Grade.FRESH, Grade.SOUND, Grade.WORN, Grade.FAILING, Grade.FAILED)
        ]
        self.assertEqual(medians, sorted(medians, reverse=True))

    def test_both_sides_of_an_axle_are_one_job_and_the_earlier_counts(self):
        alone = job(survival_jobs(given()), "damper:front")
        worse = job(survival_jobs(given(grades={"damper:front_left": Grade.FAILING})), "damper:front")
        self.assertLess(worse.months().median, alone.months().median)
        self.assertEqual(alone.places, (FL, FR))

    def test_a_proof_of_age_replaces_guessing(self):
        proof = {"battery": Proof(None, 0.2, "invoice")}
        fresh = job(survival_jobs(given(proofs=proof)), "battery")
        unknown = job(survival_jobs(given()), "battery")
        self.assertGreater(fresh.months().low, unknown.months().low)
        self.assertIn("invoice", fresh.reasons)
        self.assertTrue(any("may be the first" in one for one in unknown.reasons))

    def test_own_figures_and_stainless_replace_ours_and_say_so(self):
        own = job(survival_jobs(given(own={"battery": LifeFigures(years=2)})), "battery")
        self.assertLess(own.months().median, job(survival_jobs(given()), "battery").months().median)
        self.assertTrue(any("your own figures" in one for one in own.reasons))
        steel = job(survival_jobs(given()), "exhaust_rear").months()
        stainless = job(
            survival_jobs(given(mechanics=replace_facts(stainless_exhaust=True))), "exhaust_rear"
        ).months()  # fmt: skip
        self.assertGreater(stainless.median, steel.median)

    def test_salt_shortens_pipes_and_is_said(self):
        plain, salt = (job(survival_jobs(given(future=one)), "brake_pipes") for one in ((), ("salt",)))
        self.assertLess(salt.months().median, plain.months().median)
        self.assertTrue(any("salt ×2" in one for one in salt.reasons))
        self.assertEqual(hazard_factor("brake_pipes", ("salt", "dry")), 1.0)
        self.assertEqual(wear_factor("pad", ("towing",)), 1.3)
        self.assertEqual(effect_words("battery", ("salt",)), [])
        self.assertTrue(all(row["basis"] for row in use_table().values()))

    def test_nothing_known_is_wide_and_says_so(self):
        ages, words = vehicle_ages(given(age_years=None, odometer_km=None))
        self.assertEqual(len(ages), 5)
        self.assertIn("wide", words)
        known, unknown = (
            job(survival_jobs(one), "battery").months() for one in (given(), given(age_years=None, odometer_km=None))
        )
        self.assertGreater(unknown.high - unknown.low, known.high - known.low)


class Scheduled(unittest.TestCase):
    def test_without_proof_it_is_due(self):
        found = job(scheduled_jobs(given()), "timing_belt")
        self.assertEqual((found.months().median, found.basis), (0, Basis.SCHEDULED))
        self.assertIn("no proof", found.reasons[0])
        self.assertFalse(found.settle)

    def test_the_earlier_of_distance_and_time(self):
        # belt: 120,000 km or 8 years; after 60,000 km and 5 years at 12,000 a year: 36 months by time, 60 by distance
        proofs = {"timing_belt": Proof(60_000, 5.0, "invoice")}
        self.assertAlmostEqual(job(scheduled_jobs(given(proofs=proofs)), "timing_belt").months().median, 36.0)
        proofs = {"timing_belt": Proof(110_000, 2.0, "invoice")}
        self.assertAlmostEqual(job(scheduled_jobs(given(proofs=proofs)), "timing_belt").months().median, 10.0)

    def test_overdue_is_now_and_what_the_vehicle_lacks_is_not_asked_for(self):
        proofs = {"engine_oil": Proof(40_000, 3.0, "sticker")}
        self.assertEqual(job(scheduled_jobs(given(proofs=proofs)), "engine_oil").due, 0.0)
        electric = {one.key for one in scheduled_jobs(given(mechanics=ELECTRIC))}
        self.assertEqual(electric, {"brake_fluid", "cabin_filter"})
        self.assertLess(electric, set(scheduled_items()))


class Worn(unittest.TestCase):
    def jobs(self, tyres=None, brakes=None, out=None, **more):
        corners = Corners(tyres or {}, brakes or {}, rule_sets()["orrin"], NOW, out or {})
        return worn_jobs(given(**more), corners)

    def test_the_worse_tyre_of_an_axle_counts(self):
        worse = job(self.jobs({FL: Tyre(depth_mm=(3.0,)), FR: Tyre(depth_mm=(6.0,))}), "tyres:front").months()
        both = job(self.jobs({FL: Tyre(depth_mm=(3.0,)), FR: Tyre(depth_mm=(3.0,))}), "tyres:front").months()
        self.assertAlmostEqual(worse.median, both.median, delta=0.3)

    def test_a_tyre_read_at_the_limit_is_settled_now_whatever_its_invoice_says(self):
        proofs = {"tyres:front_left": Proof(8_000, 0.5, "invoice")}
        found = job(self.jobs({"wheel_front_left": Tyre(depth_mm=(1.6,))}, proofs=proofs), "tyres:front")
        self.assertEqual(found.months().median, 0)
        self.assertTrue(found.settle)

    def test_ten_years_of_age_cap_it_and_are_said(self):
        found = job(self.jobs({FL: Tyre(depth_mm=(7.0,), date_code="4817"), FR: Tyre(depth_mm=(7.0,))}), "tyres:front")
        self.assertEqual(found.limited_by, "age")
        self.assertLess(found.months().high, 12.5)

    def test_condemned_is_now_whatever_its_depth(self):
        found = job(self.jobs({FL: Tyre(depth_mm=(7.0,))}, out={FL: "bulge"}), "tyres:front")
        self.assertTrue(found.settle)
        self.assertIn("bulge", found.reasons[0])
        brakes = job(
            self.jobs(brakes={FL: Brake(pad_inner_mm=9.0)}, out={"front": "disc cracked through"}), "brakes:front"
        )
        self.assertEqual((brakes.settle, brakes.cost), (True, "discs_axle"))

    def test_pad_and_disc_are_one_job_the_earlier_counts(self):
        brake = Brake(pad_inner_mm=10.0, disc_mm=(22.2,), disc_min_mm=22.0, disc_new_mm=25.0)
        found = job(self.jobs(brakes={FL: brake}), "brakes:front")
        alone = job(self.jobs(brakes={FL: Brake(pad_inner_mm=10.0)}), "brakes:front")
        self.assertLess(found.months().median, alone.months().median)
        np.testing.assert_allclose(found.alive, together([found.strand.alive, found.major.alive]))

    def test_a_disc_without_its_figures_is_not_reckoned_and_says_why(self):
        found = job(self.jobs(brakes={FL: Brake(pad_inner_mm=8.0, disc_mm=(24.0,))}), "brakes:front")
        self.assertIsNone(found.major)
        self.assertTrue(any("without their minimum" in one for one in found.reasons))

    def test_regenerative_pads_last_longer(self):
        brakes = {FL: Brake(pad_inner_mm=7.0)}
        hybrid = self.jobs(brakes=brakes, mechanics=replace_facts(power="hybrid"))
        self.assertGreater(
            job(hybrid, "brakes:front").months().median,
            1.6 * job(self.jobs(brakes=brakes), "brakes:front").months().median,
        )

    def test_nothing_has_run_further_than_its_vehicle(self):
        # 5,000 km wear about 0.8 of 6.4 mm at 6,500 km a mm
        nearly_new = self.jobs(age_years=0.5, odometer_km=5_000)
        for key in ("tyres:front", "brakes:front"):
            old, young = (job(jobs, key).months() for jobs in (self.jobs(), nearly_new))
            self.assertGreater(young.low, 2 * old.low)
            self.assertGreater(young.median, old.median)
        told = "; ".join(job(nearly_new, "tyres:front").reasons)
        self.assertIn("at most {distance 5000} since new", told)

    def test_nothing_measured_is_wide_and_never_settled(self):
        found = job(self.jobs(), "tyres:front")
        self.assertEqual((found.basis, found.settle), (Basis.NOT_MEASURED, False))
        months = found.months()
        self.assertGreater(months.high / max(months.low, 0.1), 5)
        drums = self.jobs(mechanics=replace_facts(rear_brakes="drums"))
        self.assertNotIn("brakes:rear", {one.key for one in drums})

    def test_proofs_and_date_codes_bound_the_distance(self):
        corners = Corners({}, {}, rule_sets()["orrin"], NOW)
        coded = tyre_case(FL, Tyre(depth_mm=(5.0,), date_code="4724"), given(), corners)
        self.assertEqual(coded.since_km[0], 0.0)
        self.assertAlmostEqual(coded.since_km[1], 1.25 * coded.age_years * 14_000)
        proven = tyre_case(FL, Tyre(depth_mm=(5.0,)), given(proofs={"tyres": Proof(21_000, 1.5, "invoice")}), corners)
        self.assertEqual(proven.since_km, (21_000, 21_000))
        [none] = pad_cases("front", given(), corners)
        self.assertIsNone(none.now_mm)
        self.assertEqual(disc_cases("front", given(), corners), [])

    def test_use_to_come_wears_faster(self):
        tyres = {FL: Tyre(depth_mm=(5.0,)), FR: Tyre(depth_mm=(5.0,))}
        rough = job(self.jobs(tyres, future=("rough_tracks",)), "tyres:front").months()
        plain = job(self.jobs(tyres), "tyres:front").months()
        self.assertAlmostEqual(plain.median / rough.median, 1.25, delta=0.03)


class Jobs(unittest.TestCase):
    def test_known_times_are_exact_and_chances_follow(self):
        found = replace(job(scheduled_jobs(given()), "coolant"), due=10.0, strand=replace_strand(due_at(10.0)))
        self.assertEqual((found.months().low, found.months().high), (10.0, 10.0))
        self.assertEqual((found.chance(9.9), found.chance(10.0)), (0.0, 1.0))

    def test_once_done_its_clock_starts_anew(self):
        bad = job(survival_jobs(given(grades={"brake_hose:rear_left": Grade.FAILED})), "brake_hose:rear_left")
        done = without_found(bad)
        self.assertGreater(done.months().median, 60)
        self.assertFalse(done.settle)


def replace_strand(curve):
    from hakutsu.core.life.jobs import strand

    return strand(curve, curve)
