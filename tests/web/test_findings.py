"""Every finding by itself, as somebody writes it down, followed to the buyer."""

import re
from unittest.mock import patch

from hakutsu.core import findings as made
from hakutsu.core.consequence import base
from hakutsu.core.findings import Finding
from hakutsu.demo.building import demo_drafts, demo_id
from hakutsu.entries import Draft
from hakutsu.entries.body import Blemish, Fit, Glass, Rust
from hakutsu.entries.cabin import CabinLooked, Inventory
from hakutsu.entries.corners import Brake, Gear, Pedal, Tyre, Wheel
from hakutsu.entries.engine import Air, Battery, EngineLook, EngineStart
from hakutsu.entries.functions import Lamp, Tried
from hakutsu.entries.general import DidNotWork, Hint, Seen, Strike
from hakutsu.entries.hazards import HazardRaised
from hakutsu.entries.money import Line, MechanicsSaid
from hakutsu.entries.opening import Brief
from hakutsu.entries.registry import kinds
from hakutsu.entries.under import Leak, UnderZone
from hakutsu.exchange.findings_json import findings_json
from hakutsu.vehicle.keyed import Keyed
from hakutsu.web.held import HeldReckonings
from tests.builders import NOON
from tests.web.case import RoundCase

FL = "wheel_front_left"
NOT_PRICED, REFLECTED = "not priced", {"excused": "wear the price reflects"}
# Written down, where; the code and what it asks for; where it stands on the sheet ("amount": with one).
ALONE = (
    (Brake(wet=True), FL, "corners.brake_wet", "settle", NOT_PRICED),
    (Brake(lining_mm=1.0), FL, "corners.drum_lining_at_limit", "settle", "amount"),
    (Brake(drum_mm=231, drum_max_mm=230), FL, "corners.drum_over_maximum", "settle", "amount"),
    (Brake(pad_inner_mm=1.5), FL, "corners.pad_unsafe", "settle", "amount"),
    (Tyre(depth_mm=(1.2,)), FL, "corners.tyre_below_legal", "settle", "amount"),
    (Wheel(fixings_missing=1), FL, "corners.fixings_missing", "settle", NOT_PRICED),
    (Gear(part="damper", grade="failed"), FL, "corners.gear_failed", "settle", "amount"),
    (Gear(part="damper", grade="worn"), FL, "corners.gear_worn", "budget", REFLECTED),
    (Pedal(parking="weak"), None, "corners.parking_weak", "settle", NOT_PRICED),
    (Tried(item="horn", result="fails"), None, "functions.horn_dead", "settle", NOT_PRICED),
    (Tried(item="wipers", result="fails"), None, "functions.wipers_dead", "settle", NOT_PRICED),
    (Tried(item="front_indicator_left", result="fails"), None, "functions.front_indicator_dead", "settle", NOT_PRICED),
    (Tried(item="front_window_left", result="fails"), None, "functions.front_window_dead", "budget", REFLECTED),
    (Tried(item="fan", result="not_for_me"), None, "functions.did_not_work", "budget", REFLECTED),
    (Lamp(name="airbag", red=True), None, "functions.airbag_warning", "settle", NOT_PRICED),
    (Lamp(name="engine"), None, "functions.engine_warning", "settle", NOT_PRICED),
    (Lamp(name="trailer", red=True), None, "functions.red_warning", "settle", NOT_PRICED),
    (Lamp(name="service due", kind="reminder"), None, "functions.reminder_lamp", "live_with", None),
    (Battery(charging_v=12.9), None, "engine.charging_fault", "settle", "amount"),
    (Battery(measured=300, rated=600), None, "engine.battery_failed", "settle", "amount"),
    (Air(intake_c=20, vent_c=20, heater_c=20, engine_warm=True), None, "engine.heater_cold", "budget", REFLECTED),
    (Air(intake_c=24, vent_c=24), None, "engine.air_not", "budget", REFLECTED),
    (EngineLook(smoke="blue_load"), None, "engine.smoke_blue_load", "settle", NOT_PRICED),
    (EngineStart(smoke="white_sweet"), None, "engine.smoke_white_sweet", "settle", NOT_PRICED),
    (EngineLook(oil_lamp=True), None, "engine.oil_lamp", "settle", NOT_PRICED),
    (Glass(fault="crack", in_sight=True), "windscreen", "body.screen_crack_in_sight", "settle", "amount"),
    (Glass(fault="crack"), "headlamp_left", "body.lamp_crack", "settle", "amount"),
    (Rust(grade="perforated", where="arch"), "flank_left", "body.rust_perforated", "settle", "amount"),
    (Rust(grade="perforated", where="sill", structural=True), "flank_left", "body.rust_perforated_structure",
     "walk_away", NOT_PRICED),
    (UnderZone(zone="tunnel", rust="perforated"), None, "under.rust_perforated", "settle", NOT_PRICED),
    (UnderZone(zone="rear_rail_left", rust="perforated"), None, "under.rust_perforated_structure", "walk_away",
     NOT_PRICED),
    (UnderZone(zone="tunnel", damage=("dent",)), None, "under.dent", "budget", REFLECTED),
    (UnderZone(zone="rear_rail_left", damage=("dent",)), None, "under.dent_structure", "settle", NOT_PRICED),
    (UnderZone(zone="tunnel", missing="heat shield"), None, "under.part_missing", "budget", REFLECTED),
    (UnderZone(zone="tunnel", exhaust="leaks"), None, "under.exhaust_leaks", "settle", "amount"),
    (Blemish(kind="misfit"), "bonnet", "body.misfit", "budget", REFLECTED),
    (Blemish(kind="missing"), "bonnet", "body.missing", "budget", REFLECTED),
    (Fit(drop=True), "front_door_left", "body.fit_drop", "budget", REFLECTED),
    (Inventory(thing="keys_second", there="missing"), None, "cabin.missing_keys_second", "budget", REFLECTED),
    (CabinLooked(smells=("fuel",)), None, "cabin.smells_fuel", "settle", NOT_PRICED),
    (Leak(fluid="oil", origin="sump", stage="stain"), None, "under.leak_stain", "live_with", None),
    (Leak(fluid="oil", origin="sump", stage="seep"), None, "under.leak_seep", "budget", REFLECTED),
    (Leak(fluid="oil", origin="sump", stage="weep"), None, "under.leak_weep", "settle", NOT_PRICED),
    (Leak(fluid="oil", origin="sump", stage="drip"), None, "under.leak_drip", "settle", NOT_PRICED),
    (Leak(fluid="oil", origin="sump", stage="run"), None, "under.leak_run", "settle", NOT_PRICED),
    (Leak(fluid="fuel", origin="tank", stage="seep"), None, "under.fuel_wet", "settle", NOT_PRICED),
    (Leak(fluid="water", origin="drain", stage="drip"), None, "under.water_drips", "fine", None),
    (Seen(text="pedal a little spongy"), "inside_front", "general.pedal_low", "settle", NOT_PRICED),
    (Seen(text="two keys"), "desk", "general.remark", "live_with", None),
    (Hint(seen="new clamp on an old hose"), "bay", "general.hint", "budget", REFLECTED),
    (DidNotWork(what="rear wiper"), "rear", "general.did_not_work", "budget", REFLECTED),
    (HazardRaised(cause="isolation_fault"), None, "hazards.isolation_fault", "settle", NOT_PRICED),
)  # fmt: skip


class FindingsCase(RoundCase):
    def setUp(self):
        super().setUp()
        self.kind_of = {kind.model: kind.name for kind in kinds().values()}

    def note(self, body, place=None, **envelope):
        return self.write(self.kind_of[type(body)], body, **({"place": place} if place else {}), **envelope)

    def take_back(self, entry):
        self.post(self.inspection, Draft.write("general.strike", Strike(), NOON, strikes=entry))

    def reckoning(self, inspection=None):
        return self.client.app.state.desk.reckoning(inspection or self.inspection)

    def found(self):
        return {row["code"]: row for row in findings_json(self.reckoning())}


class ToTheBuyer(FindingsCase):
    def test_each_by_itself_is_a_finding_with_its_consequence_on_the_sheet_by_its_one_rule(self):
        facts = {"power": "petrol", "timing": "belt", "rear_axle": "beam", "rear_brakes": "drums", "drive": "front",
                 "first_used": "2016-05-01", "odometer_km": 120_000}  # fmt: skip
        self.note(MechanicsSaid(mechanics=facts))
        for body, place, code, consequence, on_sheet in ALONE:
            with self.subTest(code):
                entry = self.note(body, place)
                row = self.found()[code]
                self.assertEqual(row["consequence"], consequence)
                self.assertIn(str(entry), row["evidence"])
                if on_sheet == "amount":
                    self.assertGreater(row["on_sheet"]["amount"], 0)
                else:
                    self.assertEqual(row["on_sheet"], on_sheet)
                if consequence != "fine":
                    report = self.client.get(f"{self.here}/report").text
                    told = re.search(r'id="all-findings".*?</section>', report, re.DOTALL)[0]
                    self.assertIn(row["words"].rpartition(": ")[2].casefold(), told.casefold().replace("&#39;", "'"))
                self.take_back(entry)

    def test_a_negative_is_no_finding(self):
        for text in ("no oil leak, dry", "gauge steady, not above half", "door not stuck", "no knock"):
            self.note(Seen(text=text), "bay")
        self.assertEqual(self.found(), {})

    def test_what_we_caused_is_excused_with_its_code(self):
        self.note(Brake(wet=True), FL, own_doing=True)
        self.note(Leak(fluid="oil", origin="sump", stage="drip"), own_doing=True)
        found = self.found()
        self.assertEqual(found["corners.brake_wet"]["on_sheet"], {"excused": "own_doing"})
        self.assertEqual(found["under.leak_drip"]["on_sheet"], {"excused": "suspended"})
        self.assertEqual(self.reckoning().lives.sheet.lines, ())

    def test_the_sum_says_how_many_are_not_priced(self):
        self.note(Brief(asking_price=9000, currency="EUR", km_per_year=12_000))
        self.note(Wheel(fixings_missing=2), FL)
        self.note(Tried(item="horn", result="fails"))
        for room in ("life/sheet", "report"):
            self.assertIn("plus 2 not priced", self.client.get(f"{self.here}/{room}").text)


class Kept(FindingsCase):
    def line(self, code, subject):
        lines = {line.item.key: line for line in self.reckoning().lives.sheet.lines}
        return lines[code, subject]

    def test_a_price_outlives_a_correction(self):
        once = self.note(Wheel(fixings_missing=1), FL)
        self.note(Line(code="corners.fixings_missing", subject=FL, treat="settle", amount="25"))
        self.take_back(once)
        self.note(Wheel(fixings_missing=2), FL)
        line = self.line("corners.fixings_missing", FL)
        self.assertIn("2 wheel fixings missing", line.item.words)
        self.assertEqual((line.amount, line.own), (25, True))

    def test_a_leak_keeps_its_price_at_every_stage(self):
        self.note(Leak(fluid="oil", origin="sump", stage="weep"))
        self.note(Line(code="under.leak", subject="oil:sump:bay", treat="settle", amount="150"))
        self.note(Leak(fluid="oil", origin="sump", stage="drip"))
        self.assertEqual(self.line("under.leak", "oil:sump:bay").amount, 150)

    def test_a_price_outlives_other_words(self):
        self.note(Wheel(fixings_missing=1), FL)
        self.note(Line(code="corners.fixings_missing", subject=FL, treat="settle", amount="25"))

        def reworded(*fields):
            return Finding(fields[0], fields[1], "a bolt is gone", *fields[3:])

        self.client.app.state.desk._held = HeldReckonings()
        with patch.object(made, "Finding", reworded):
            self.assertEqual(self.line("corners.fixings_missing", FL).amount, 25)

    def test_budgeted_for_until_the_inspector_takes_it_up(self):
        self.note(Gear(part="damper", grade="worn"), FL)
        self.assertEqual(self.found()["corners.gear_worn"]["on_sheet"], REFLECTED)
        [line] = self.reckoning().lives.sheet.lines
        self.note(Line(code=line.item.code, subject=line.item.subject, treat="settle", amount="90"))
        self.assertEqual(self.found()["corners.gear_worn"]["on_sheet"], {"amount": 90.0, "currency": "EUR"})
        self.note(Line(code=line.item.code, subject=line.item.subject, treat="live_with"))
        self.assertEqual(list(self.found()["corners.gear_worn"]["on_sheet"]), ["excused"])


class WordsDecideNothing(FindingsCase):
    def decided(self, inspection):
        """Everything decided of an inspection, without its words."""
        reckoning = self.reckoning(inspection)
        sheet = reckoning.lives.sheet
        return (
            [(one.code, one.subject, one.consequence.value, one.evidence, one.job) for one in reckoning.findings],
            sorted((line.item.key, line.treat.value, line.amount) for line in sheet.lines),
            [(one.rule, [f.key for f in one.ones], [f.key for f in one.others]) for one in reckoning.stories],
            [(job.key, job.settle, job.due) for job in reckoning.lives.jobs],
            [one.steps for one in reckoning.condition.against],
        )

    def test_scrambling_every_word_changes_no_decision(self):
        words = [(one, one.words) for kind in _every(Keyed) for one in kind]  # members of two kinds may be equal

        def scrambled(code, subject, said, *more):
            return Finding(code, subject, said[::-1].replace("}", "").replace("{", ""), *more)

        try:
            for car in ("estate", "hatch", "fell"):
                id = demo_id(car)
                self.logbook.open_inspection(id, NOON)
                self.logbook.append(id, demo_drafts(car), "Test Inspector")
                before = self.decided(id)
                self.client.app.state.desk._held = HeldReckonings()
                for one, _ in words:
                    one.words = f"x{one.value[::-1]}"
                with patch.object(made, "Finding", scrambled):
                    self.assertEqual(self.decided(id), before, car)
                for one, said in words:
                    one.words = said
        finally:
            for one, said in words:
                one.words = said

    def test_every_finding_of_the_demo_rests_on_entries(self):
        for car in ("estate", "hatch", "fell"):
            id = demo_id(car)
            self.logbook.open_inspection(id, NOON)
            self.logbook.append(id, demo_drafts(car), "Test Inspector")
            for one in self.reckoning(id).findings:
                with self.subTest(car, code=one.code):
                    self.assertTrue(one.evidence and one.subject)
                    self.assertTrue(set(one.evidence) <= set(self.reckoning(id).entries))
                    self.assertTrue(base(one.code))


def _every(kind):
    return [one for sub in kind.__subclasses__() for one in (sub, *_every(sub))]
