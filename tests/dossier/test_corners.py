import unittest

from pydantic import ValidationError

from hakutsu.core.hazards import open_stand_downs
from hakutsu.dossier.corners import piece_key
from hakutsu.entries.corners import Brake, Gear, PartProof, Pedal, Tyre, Wheel
from hakutsu.entries.general import NothingFound, Strike
from hakutsu.entries.hazards import HazardCleared
from hakutsu.entries.money import MechanicsSaid
from tests.inspection import InspectionCase

FL = "wheel_front_left"


class Folding(InspectionCase):
    def test_the_newest_counts_and_a_strike_brings_the_one_before_back(self):
        self.write("corner.tyre", Tyre(depth_mm=(5.0,)), place=FL)
        later = self.write("corner.tyre", Tyre(depth_mm=(4.0,)), place=FL)
        self.assertEqual(self.dossier().corners.tyres[FL].body.depth_mm, (4.0,))
        self.write("general.strike", Strike(), strikes=later)
        self.assertEqual(self.dossier().corners.tyres[FL].body.depth_mm, (5.0,))

    def test_parts_are_kept_by_corner(self):
        self.write("corner.gear", Gear(part="damper", grade="worn"), place=FL)
        self.write("corner.gear", Gear(part="damper", grade="sound"), place="wheel_rear_left")
        self.write("life.proof", PartProof(part="battery", when="2023-10", proof="invoice"))
        corners = self.dossier().corners
        self.assertEqual(set(corners.gear), {"damper:front_left", "damper:rear_left"})
        self.assertEqual(set(self.dossier().money.proofs), {"battery"})
        self.assertEqual(piece_key("clutch", None), "clutch")
        self.assertEqual(len(corners.seen_at(FL)), 1)

    def test_coverage_expects_tyres_and_brakes_by_protocol(self):
        def open_at(station):
            return next(one.open for one in self.dossier().station_coverage() if one.station == station)

        self.assertEqual((open_at("Tyres"), open_at("Brakes")), (4, 4))
        self.write("corner.tyre", Tyre(depth_mm=(5.0,)), place=FL)
        self.write("general.nothing_found", NothingFound(station="general"), place="brake_rear_left")
        self.assertEqual((open_at("Tyres"), open_at("Brakes")), (3, 3))
        by_place = {one.place: one for one in self.dossier().place_coverage()}
        self.assertEqual(sum(part.state == "open" for one in by_place.values() for part in one.parts
                             if part.check.key in ("tyres", "brakes")), 6)  # fmt: skip

    def test_mechanics_replace_each_other(self):
        for km in (100, 200):
            self.write("inspection.mechanics", MechanicsSaid(mechanics={"odometer_km": km}))
        self.assertEqual(self.dossier().mechanics.odometer_km, 200)


class StandDowns(InspectionCase):
    def causes(self):
        return [one.cause.key for one in open_stand_downs(self.dossier().hazards)]

    def test_what_a_corner_shows_raises_its_causes(self):
        for kind, body, cause in (
            ("corner.tyre", Tyre(damage=("bulge",)), "tyre_body"),
            ("corner.tyre", Tyre(damage=("string_plug",)), "tyre_plug"),
            ("corner.tyre", Tyre(depth_mm=(1.5,)), "tread_below_limit"),
            ("corner.wheel", Wheel(fixings_loose=1), "wheel_fixing"),
            ("corner.brake", Brake(pad_inner_mm=0.3), "friction_gone"),
            ("corner.brake", Brake(cracks="through"), "disc_cracked"),
            ("corner.brake", Brake(hose="swelling"), "brake_hose"),
            ("corner.brake", Brake(pipe="perforated"), "brake_pipe"),
            ("corner.brake", Brake(wet=True), "brake_fluid_wet"),
            ("corner.gear", Gear(part="ball_joint", grade="failed"), "steering_play"),
            ("corner.gear", Gear(part="spring", grade="failed", on_tyre=True), "spring_on_tyre"),
            ("corner.pedal", Pedal(sinks=True), "pedal_sinks"),
            ("corner.pedal", Pedal(parking="does_not_hold"), "no_parking_hold"),
        ):
            with self.subTest(cause):
                written = self.write(kind, body, place=None if kind == "corner.pedal" else FL)
                self.assertEqual(self.causes(), [cause])
                self.write("general.strike", Strike(because="mistyped"), strikes=written)
                self.assertEqual(self.causes(), [])

    def test_it_stands_once_a_corner_and_stays_when_noted_again_without(self):
        for body in (Tyre(damage=("bulge",)), Tyre(damage=("bulge",), make="Tarrock"), Tyre(make="Tarrock")):
            self.write("corner.tyre", body, place=FL)
        self.assertEqual(self.causes(), ["tyre_body"])
        self.write("corner.tyre", Tyre(damage=("bulge",)), place="wheel_rear_left")
        self.assertEqual(self.causes(), ["tyre_body", "tyre_body"])

    def test_what_belongs_to_no_corner_stands_once_too(self):
        for _ in range(2):
            self.write("corner.pedal", Pedal(sinks=True))
        self.assertEqual(self.causes(), ["pedal_sinks"])

    def test_it_is_cleared_like_any_other_and_comes_back_when_seen_again(self):
        self.write("corner.brake", Brake(wet=True), place=FL)
        [raised] = self.dossier().hazards.raised
        done = HazardCleared(of=raised, name="M. Trask", trade="workshop", done="pipe made new, dry")
        self.write("hazard.cleared", done)
        self.assertEqual(self.causes(), [])
        self.write("corner.brake", Brake(wet=True), place=FL)
        self.assertEqual(self.causes(), ["brake_fluid_wet"])

    def test_a_spare_in_the_boot_carries_nothing(self):
        self.write("corner.tyre", Tyre(damage=("bulge",)), place="wheel_spare")
        self.assertEqual(self.causes(), [])


class BadInput(unittest.TestCase):
    def test_it_is_refused_at_the_field(self):
        for model, said in (
            (Tyre, {"depth_mm": (4.0, 5.0, 5.0, 5.0)}),
            (Tyre, {"depth_mm": (-1.0,)}),
            (Tyre, {"depth_mm": (40.0,)}),
            (Tyre, {"date_code": "12a4"}),
            (Tyre, {"date_code": "12"}),
            (Tyre, {"range_mm": (5, 4)}),
            (Brake, {"disc_min_mm": 25, "disc_new_mm": 24}),
            (Brake, {"pad_range_mm": (6, 5)}),
            (Gear, {"part": "damper", "grade": "so-so"}),
            (PartProof, {"part": "battery", "proof": "invoice"}),
            (PartProof, {"part": "battery", "when": "2023-13", "proof": "invoice"}),
        ):
            with self.subTest(said), self.assertRaises(ValidationError):
                model(**said)
