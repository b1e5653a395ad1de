from datetime import timedelta

from hakutsu.entries import Draft
from hakutsu.entries.corners import Gear
from hakutsu.entries.day import Arrival
from hakutsu.entries.engine import Battery, Bay, EngineLook, EngineSample, EngineStart, Pack
from hakutsu.entries.fluids import Fluid
from hakutsu.entries.functions import Tried
from hakutsu.entries.general import Intervention
from hakutsu.entries.hazards import StepDone
from hakutsu.entries.money import MechanicsSaid
from hakutsu.entries.opening import Brief
from hakutsu.entries.under import Leak, UnderZone
from tests.builders import NOON, reading
from tests.web.case import RoundCase

FACTS = {"first_used": "2016-11-20", "odometer_km": 150_000, "power": "petrol", "gearbox": "automatic",
         "timing": "belt", "drive": "front", "rear_axle": "beam", "rear_brakes": "discs"}  # fmt: skip


class Condition(RoundCase):
    def setUp(self):
        super().setUp()
        self.write("inspection.mechanics", MechanicsSaid(mechanics=FACTS))

    def reckoning(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def text(self, room):
        answer = self.client.get(f"{self.here}/{room}")
        self.assertEqual(answer.status_code, 200)
        return answer.text

    def job(self, key):
        return next(one for one in self.reckoning().lives.jobs if one.key == key)

    def test_measurements_and_tries_move_the_lives_of_parts_with_their_reason(self):
        before = self.job("alternator").months().median
        self.write("engine.battery", Battery(charging_v=12.1, measured=300, rated=600))
        self.write("function.tried", Tried(item="front_window_left", result="fails"))
        self.write("under.zone", UnderZone(zone="rear_end", exhaust="leaks"))
        self.write("engine.bay", Bay(signs=("swollen",)))
        found = {key: str(grade) for key, (grade, _) in self.reckoning().condition.derived.items()}
        self.assertEqual(found, {"battery": "failed", "alternator": "failing", "window_regulator:front_left": "failed",
                                 "exhaust_rear": "failing", "coolant_hoses": "failing"})  # fmt: skip
        self.assertLess(self.job("alternator").months().median, min(before, 12))
        self.assertIn("12.1 V where 13.8 to 14.7 V belong: counted as failing", self.job("alternator").reasons)
        self.assertTrue(self.job("battery").settle)
        self.assertIn("starter battery", self.text("life/sheet"))

    def test_what_is_settled_without_a_job_of_its_own_stands_on_the_sheet_to_be_priced(self):
        def lines():
            return {line.item.words: line.item.amount for line in self.reckoning().lives.sheet.lines}

        before = set(lines())
        self.write("fluid.looked", Fluid(fluid="engine_oil", debris=("metal",)))
        self.write("fluid.looked", Fluid(fluid="coolant", freezes_c=5))
        self.write("leak.seen", Leak(fluid="gear", origin="axle seal", stage="drip"))
        self.write("under.zone", UnderZone(zone="rear_rail_left", repair=("weld",)))
        self.write("under.zone", UnderZone(zone="tunnel", exhaust="leaks"))
        new = {words: amount for words, amount in lines().items() if words not in before}
        unpriced = {words for words, amount in new.items() if amount is None}
        self.assertEqual(len(unpriced), 3)
        self.assertTrue(any("metal in the engine oil" in words for words in unpriced))
        self.assertTrue(any("gear oil from axle seal" in words for words in unpriced))
        self.assertFalse(any("exhaust" in words or "freezes" in words for words in unpriced))
        self.assertTrue(any("exhaust" in words for words in new))

    def test_a_grade_by_hand_goes_before_what_follows(self):
        self.write("engine.bay", Bay(signs=("swollen",)))
        self.write("corner.gear", Gear(part="coolant_hoses", grade="sound"))
        self.assertNotIn("coolant_hoses", self.reckoning().condition.derived)
        self.assertEqual(str(self.reckoning().condition.grades["coolant_hoses"]), "sound")

    def test_fluids_that_are_due_are_due_in_the_calendar(self):
        self.write("fluid.looked", Fluid(fluid="transmission", colour="brown"))
        job = self.job("gearbox_oil")
        self.assertEqual((job.due, job.settle), (0.0, False))
        self.assertIn("transmission fluid brown: due", job.reasons[0])
        self.write("fluid.looked", Fluid(fluid="transmission", smell="burnt"))
        self.assertEqual(str(self.reckoning().condition.grades["gearbox_automatic"]), "worn")

    def test_the_pack_waits_where_there_is_one(self):
        self.assertNotIn("pack", {one.key for one in self.reckoning().lives.jobs})
        self.write("inspection.mechanics", MechanicsSaid(mechanics=FACTS | {"power": "electric"}))
        self.assertEqual(str(self.job("pack").basis), "age and distance")
        self.write("engine.pack", Pack(health=0.66))
        self.assertTrue(self.job("pack").settle)
        self.assertIn("High-voltage pack", self.text("life/calendar"))

    def test_against_age_and_apart_against_taste(self):
        self.assertIn("Nothing to hold it against yet", self.text("life/condition"))
        self.write("corner.gear", Gear(part="coolant_hoses", grade="failing"))
        self.write("corner.gear", Gear(part="radiator", grade="fresh"))
        self.write("under.zone", UnderZone(zone="under_sill_left", rust="pitted"))
        self.write("inspection.brief", Brief(taste="show"))
        text = self.text("life/condition")
        for said in ("Worse than usual: 2", "Better than usual: 1", "<strong>rust pitted</strong>, usual rust surface"):
            self.assertIn(said, text)
        report = self.text("report")
        self.assertIn("Against what is usual at this age and distance", report)
        self.assertIn("rust pitted, worse than usual (usual: rust surface", report)

    def test_without_age_or_distance_nothing_is_held_against_anything(self):
        self.write("inspection.mechanics", MechanicsSaid(mechanics={"power": "petrol"}))
        self.write("corner.gear", Gear(part="radiator", grade="worn"))
        self.assertEqual(self.reckoning().condition.against, [])

    def test_work_below_is_a_cue_of_the_film_and_a_story(self):
        self.post(self.inspection, *(reading("rear_quarter_left", um) for um in (150, 155, 149, 152)))
        before = self.reckoning().film.analysis.panel("rear_quarter_left").altered
        self.write("under.zone", UnderZone(zone="rear_rail_left", clear=("repair",)))
        looked = self.reckoning().film.analysis.panel("rear_quarter_left").altered
        self.assertLess(looked, before)
        self.write("under.zone", UnderZone(zone="rear_rail_left", repair=("pulled",)))
        after = self.reckoning().film.analysis.panel("rear_quarter_left").altered
        self.assertGreater(after, before)
        self.write("under.zone", UnderZone(zone="rear_rail_left", not_visible="undertray"))
        self.assertAlmostEqual(self.reckoning().film.analysis.panel("rear_quarter_left").altered, before)

    def test_bolts_turned_speak_of_the_panels_on_their_side(self):
        self.write("engine.bay", Bay(signs=("bolts",), side="left"))
        cues = self.reckoning().film.survey.cues
        self.assertEqual([one.kind for one in cues["front_wing_left"]], ["broken_bolts"])
        self.assertNotIn("front_wing_right", cues)


class EngineAround(RoundCase):
    def text(self, room):
        return self.client.get(f"{self.here}/engine/{room}").text

    def test_standing_and_proof_of_cold_stand_with_the_start(self):
        arrival = Arrival(stood_days=120, moved="idled", engine="measured", engine_c=9, surroundings_c=8)
        self.write("day.arrival", arrival)
        text = self.text("run")
        self.assertIn("120 days, only idled", text)
        self.assertIn("proven by a separate thermometer", text)
        self.assertIn("Stood for months: stale fuel", text)
        self.write("engine.start", EngineStart(cranking_s=6, noise="rattle", noise_s=8))
        report = self.client.get(f"{self.here}/report").text
        for said in ("Cranked long", "noise that stays", "Cold before the start"):
            self.assertIn(said, report)

    def test_after_the_drive_everything_is_looked_at_again(self):
        self.assertNotIn("After the drive, look again", self.text("run"))
        self.write("engine.start", EngineStart())
        self.write("engine.sample", EngineSample(minute=20, coolant_c=90, rpm=800, oil_bar=1.2))
        self.write("leak.seen", Leak(fluid="oil", origin="sump", stage="seep"))
        self.post(self.inspection, Draft.write("step.done", StepDone(step="road"), NOON + timedelta(minutes=3)))
        text = self.text("run")
        self.assertIn("0 of 6 done", text)
        self.assertIn("10 looks after the drive", text)  # with those of road, corners and functions
        self.assertIn("before: 1.2 bar", text)
        late = Draft.write("engine.look", EngineLook(smoke="none", fumes="none", when="after_drive"),
                           NOON + timedelta(minutes=5))  # fmt: skip
        self.post(self.inspection, late)
        self.assertIn("2 of 6 done", self.text("run"))
        self.assertIn("Not looked at again after the drive", self.client.get(f"{self.here}/report").text)

    def test_only_what_was_done_at_the_place_of_a_leak_weakens_it(self):
        def looks(*between):
            for stage, minutes in (("seep", 0), ("seep", 30)):
                leak = Leak(fluid="oil", origin="sump gasket", zone="bay_floor", stage=stage)
                self.post(self.inspection, Draft.write("leak.seen", leak, NOON + timedelta(minutes=minutes)))
            for place, done in between:
                at = NOON + timedelta(minutes=10)
                self.post(
                    self.inspection, Draft.write("general.intervention", Intervention(done=done), at, place=place)
                )
            (found,) = self.client.app.state.desk.reckoning(self.inspection).under.leaks
            return found.words

        self.assertNotIn("proves less", looks(("rear", "wiped the plate"), (None, "opened the boot")))
        self.assertIn("wiped it clean, so it proves less", looks(("under_front", "wiped it clean")))

    def test_the_place_leads_to_the_room_where_it_is_looked_at(self):
        sheet = self.client.get(f"{self.here}/place/bay").text
        for room in ("fluids", "bay", "run", "electric"):
            self.assertIn(f"{self.here}/engine/{room}", sheet)
        before = self.place("bay").open
        self.write("engine.bay", Bay())
        self.write("fluid.looked", Fluid(fluid="engine_oil", level="right"))
        for minute in range(4):
            self.write("engine.sample", EngineSample(minute=minute, coolant_c=20 + 8 * minute))
        self.assertEqual(self.place("bay").open, before - 3)  # two looks, and the look at the place
        self.write("engine.sample", EngineSample(minute=4, coolant_c=50))
        self.assertEqual(self.place("bay").open, before - 4)
