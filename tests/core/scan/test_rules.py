"""What a vehicle's memory is worth to a buyer."""

import unittest

from hakutsu.core.life.components import components
from hakutsu.core.scan.codes import code_table, told
from hakutsu.core.scan.compared import compared
from hakutsu.core.scan.rules import (
    Known,
    by_hand_findings,
    code_findings,
    code_grades,
    distance_findings,
    identity_findings,
    lamp_findings,
    measured_findings,
    none_findings,
    read_findings,
    trouble_findings,
)
from hakutsu.core.scan.values import counter_lines, misfire_lines, value_lines
from hakutsu.entries.corners import Grade
from hakutsu.entries.scan import (
    CodeRead,
    EngineLamp,
    LampSeen,
    Link,
    ModuleNoted,
    MonitorResult,
    NotScanned,
    ScanByHand,
    ScanNone,
    ScanRead,
    SinceCleared,
    Stored,
    UnitRead,
)
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import Consequence

HERE, THERE = "0RN1SKARRW2000017", "0RN1SKARRW2000452"
NOTHING = Known()


def unit(*codes, address="7E8", **more):
    """A unit with stored codes; one with its memories is a pair."""
    made = [(one, ("stored",)) if isinstance(one, str) else one for one in codes]
    return UnitRead(address=address, codes=tuple(CodeRead(code=a, memory=b) for a, b in made), **more)


def read(*units):
    return ScanRead(link=Link(bitrate=500_000, identifiers=11), modules=units)


class Table(unittest.TestCase):
    def test_at_least_150_codes_of_our_own_wording_and_every_one_is_a_standard_code(self):
        table = code_table()
        self.assertGreaterEqual(len(table.code), 150)
        for code, (_, words) in table.code.items():
            with self.subTest(code):
                self.assertRegex(code, r"^[PCBU][0-3][0-9A-F]{3}$")
                self.assertTrue(told(code).known)
                self.assertFalse(words.endswith("."))
        self.assertEqual(len({words for _, words in table.code.values()}), len(table.code), "no two say the same")

    def test_what_is_not_listed_stays_honest(self):
        self.assertIn("not in our list; it is about", told("P0191"[:4] + "F").words)
        self.assertEqual(told("P1234").words, "a code of the maker's own")
        self.assertFalse(told("P1234").known)
        self.assertEqual(told("B3123").words, "not in our list")

    def test_a_failure_type_does_not_change_what_it_is_about(self):
        self.assertEqual(told("C0035-14").words, told("C0035").words)


class Codes(unittest.TestCase):
    def test_a_stored_code_is_told_once_with_its_units_and_what_it_does_not_say(self):
        (found,) = code_findings([unit("P0301", name="ENGINE"), unit("P0301", address="7E9")], NOTHING)
        self.assertEqual((found.code, found.subject, found.consequence), ("scan.misfire", "P0301", Consequence.SETTLE))
        self.assertIn("engine 7E8 (stored), gearbox unit 7E9 (stored)", found.reasons[0])
        self.assertTrue(any("it does not say why it misses" in one for one in found.reasons))

    def test_one_that_is_only_pending_asks_for_a_drive_and_one_that_is_only_permanent_says_what_is_gone(self):
        (pending,) = code_findings([unit(("P0301", ("pending",)))], NOTHING)
        self.assertEqual((pending.code, pending.consequence), ("scan.pending", Consequence.BUDGET))
        (kept,) = code_findings([unit(("P0420", ("permanent",)))], NOTHING)
        self.assertIn("the stored one is gone", kept.words)

    def test_a_jump_start_may_have_left_low_voltage_behind(self):
        (found,) = code_findings([unit("P0562")], Known(innocent="a jump start"))
        self.assertIn("a jump start may have left it behind", found.reasons)
        (other,) = code_findings([unit("P0301")], Known(innocent="a jump start"))
        self.assertFalse(any("jump" in one for one in other.reasons))

    def test_a_unit_that_holds_codes_on_most_of_a_kind_lowers_concern_and_hides_nothing(self):
        often = Known(tally={"7E8": Stored(on=5, of=6)})
        (found,) = code_findings([unit("P0301")], often)
        self.assertEqual(found.consequence, Consequence.BUDGET)
        self.assertIn("this unit held codes on 5 of the 6 of this kind read before", found.reasons)
        (airbag,) = code_findings([unit("B0001")], often)
        self.assertEqual(airbag.consequence, Consequence.SETTLE)
        for few in (Stored(on=2, of=2), Stored(on=1, of=6)):
            (found,) = code_findings([unit("P0301")], Known(tally={"7E8": few}))
            self.assertEqual(found.consequence, Consequence.SETTLE)

    def test_stored_codes_grade_parts_with_a_life_and_pending_ones_do_not(self):
        found = code_grades([unit("P0301", "P0351", ("P0299", ("pending",)))])
        self.assertEqual(found, {"coils": (Grade.FAILING, "P0351 stored: coil of cylinder 1")})
        self.assertEqual(code_grades([UnitRead(address="7E8", codes=None)]), {})

    def test_every_part_graded_has_a_life(self):
        for family in code_table().family.values():
            if family.part:
                self.assertIn(family.part, components())
                Grade(family.grade)

    def test_stored_and_not_failing_now_is_said(self):
        row = CodeRead(code="C0035-14", memory=("stored",), status="28")
        (found,) = code_findings([UnitRead(address="7EA", codes=(row,))], NOTHING)
        self.assertIn("stored, not failing now", found.reasons)


class ByHand(unittest.TestCase):
    def test_codes_words_or_a_count(self):
        noted = ScanByHand(modules=(ModuleNoted(module="seat", count=3), ModuleNoted(module="engine", codes=("P0171",)),
                                    ModuleNoted(module="roof", words="switch")))  # fmt: skip
        found = by_hand_findings(noted.modules)
        self.assertEqual([(one.code, one.subject) for one in found],
                         [("scan.noted", "seat"), ("scan.lean", "P0171"), ("scan.noted", "roof")])  # fmt: skip
        self.assertEqual(found[0].words, "seat: 3 stored codes")

    def test_none_found_by_it_is_no_finding(self):
        self.assertEqual(by_hand_findings([ModuleNoted(module="seat", count=0)]), [])


class Belonging(unittest.TestCase):
    def test_a_unit_that_names_another_vehicle_than_the_plate(self):
        units = [unit(vin=HERE), unit(address="7E9", vin=THERE)]
        (found,) = identity_findings(units, Known(plate=HERE))
        self.assertIn(THERE, found.words)
        self.assertEqual(len(identity_findings(units, Known(plate="0RN1SKARRW2000999"))), 2)

    def test_without_a_plate_the_odd_one_of_three_and_with_two_nobody_is_believed(self):
        units = [unit(vin=HERE), unit(address="7E9", vin=THERE)]
        (found,) = identity_findings(units, NOTHING)
        self.assertEqual(found.subject, "units")
        (odd,) = identity_findings([*units, unit(address="7EA", vin=HERE)], NOTHING)
        self.assertIn("7E9", odd.subject)
        self.assertEqual(identity_findings([unit(vin=HERE)], NOTHING), [])

    def test_distance_beyond_two_per_cent_and_500_km(self):
        """Of 141,203 km two per cent are 2,824; of 10,000 the 500 km count."""
        for km, dial, odd in ((141_203, 141_900, 0), (141_203, 145_000, 1), (10_400, 10_000, 0), (10_600, 10_000, 1)):
            with self.subTest(km=km, dial=dial):
                self.assertEqual(len(distance_findings([unit(live={"odometer_km": km})], Known(dial_km=dial))), odd)
        self.assertEqual(distance_findings([unit(live={"odometer_km": 5.0})], NOTHING), [])

    def test_two_units_apart_are_told_once_and_neither_is_accused(self):
        near, far = (unit(address="7E9", live={"odometer_km": km}) for km in (141_500, 212_880))
        one = unit(live={"odometer_km": 141_203})
        self.assertEqual(distance_findings([one, near], NOTHING), [])
        (found,) = distance_findings([one, far], NOTHING)
        self.assertEqual(found.subject, "units")
        (odd,) = distance_findings([one, near, unit(address="7EA", live={"odometer_km": 212_880})], NOTHING)
        self.assertIn("7EA", odd.subject)
        miles = Terms(distance="mi")
        self.assertIn("132,277 mi", miles.say(found.words))  # 212,880 km
        self.assertIn("132,277 mi", miles.say(odd.words))
        self.assertNotRegex(miles.say("; ".join((odd.words, *odd.reasons))), r"\bkm\b")


class Lamp(unittest.TestCase):
    def test_commanded_and_dark(self):
        lit = unit("P0301", lamp=True)
        (found,) = lamp_findings([lit], EngineLamp(running=LampSeen.DARK))
        self.assertIn("switched on by its unit and stays dark, running", found.words)
        self.assertEqual(lamp_findings([lit], EngineLamp(running=LampSeen.LIT)), [])
        self.assertEqual(lamp_findings([lit], None), [])

    def test_dark_with_the_key_on_is_a_finding_by_itself(self):
        (found,) = lamp_findings([], EngineLamp(key_on=LampSeen.DARK))
        self.assertIn("does not light with the key on", found.words)
        self.assertEqual(lamp_findings([], EngineLamp(key_on=LampSeen.LIT, running=LampSeen.DARK)), [])

    def test_a_lit_lamp_and_no_scan(self):
        (found,) = none_findings(ScanNone(why=NotScanned.NO_LINK, lamp_lit=True))
        self.assertEqual(found.consequence, Consequence.SETTLE)
        self.assertEqual(none_findings(ScanNone(why=NotScanned.NO_LINK)), [])


class Measured(unittest.TestCase):
    def test_trims_count_only_warm_and_in_closed_loop(self):
        live = {"fuel_system": "closed", "coolant_c": 88, "short_trim_1_percent": 11.0, "long_trim_1_percent": 12.0}
        (found,) = measured_findings([unit(live=live)])
        self.assertEqual((found.code, found.words), ("scan.trims_lean", "fuel trim of bank 1 far off: +23 %"))
        for other in ({"coolant_c": 40}, {"fuel_system": "open"}, {"long_trim_1_percent": -3.0}):
            self.assertEqual(measured_findings([unit(live=live | other)]), [], other)

    def test_a_failed_test_is_told_with_its_numbers(self):
        rows = (MonitorResult(mid="A2", tid="0B", value=88, min=0, max=25, passed=False),
                MonitorResult(mid="A3", tid="0B", value=0, min=0, max=0, passed=None))  # fmt: skip
        (found,) = measured_findings([unit(monitors=rows)])
        self.assertEqual(found.reasons, ("A2 0B: 88 (at most 25)",))

    def test_a_unit_that_was_not_read_is_no_healthy_unit(self):
        (found,) = trouble_findings([UnitRead(address="7E9", codes=None, problems=("it stopped answering",))])
        self.assertEqual((found.code, found.reasons), ("scan.unit_silent", ("it stopped answering",)))
        self.assertEqual(read_findings(read(unit()), None, NOTHING), [])


class Memory(unittest.TestCase):
    def test_cleared_with_and_without_an_innocent_cause(self):
        fresh = read(unit(since_cleared=SinceCleared(km=12, warm_ups=1)))
        (found,) = read_findings(fresh, None, NOTHING)
        self.assertEqual((found.code, found.consequence), ("scan.memory_cleared", Consequence.SETTLE))
        (innocent,) = read_findings(fresh, None, Known(innocent="a jump start"))
        self.assertEqual((innocent.code, innocent.consequence), ("scan.cleared_innocent", Consequence.BUDGET))

    def test_two_reads_line_by_line(self):
        before = read(unit("P0301", lamp=True, readiness={"catalyst": "complete", "boost": "not supported"}))
        after = read(unit("P0420", lamp=True, readiness={"catalyst": "incomplete", "boost": "not supported"}))
        changed = {(one.what, one.before, one.after) for one in compared(before, after) if not one.same}
        expected = {("P0301", "stored", "–"), ("P0420", "–", "stored"), ("catalyst", "complete", "incomplete")}
        self.assertEqual(changed, expected)
        self.assertEqual([one.what for one in compared(before, after) if one.same], ["engine lamp"])


class Values(unittest.TestCase):
    def test_values_in_words_and_units(self):
        said = value_lines({"coolant_c": 88.0, "fuel_system": "closed", "odometer_km": 141203.4, "volts": 14.12})
        self.assertEqual(said, [("mixture", "closed loop"), ("coolant", "88 °C"), ("supply", "14.1 V"),
                                ("distance it counts", "141,203 km")])  # fmt: skip


class Counts(unittest.TestCase):
    def test_misfires_by_cylinder_and_monitors_in_use(self):
        made = (("A2", "0B", 88, False), ("A2", "0C", 41, False), ("A3", "0B", 0, None), ("01", "83", 5, True))
        rows = tuple(MonitorResult(mid=mid, tid=tid, value=n, min=0, max=25, passed=ok) for mid, tid, n, ok in made)
        one = unit(monitors=rows, counters=(212, 340, 198, 340, 0, 0, 150, 290))
        self.assertEqual(misfire_lines(one), [("cylinder 1", "88 on average, 41 in the last drive")])
        self.assertEqual(
            counter_lines(one), [("catalyst, bank 1", "198 of 340"), ("oxygen sensor, bank 1", "150 of 290")]
        )
        self.assertEqual((misfire_lines(unit()), counter_lines(unit())), ([], []))


if __name__ == "__main__":
    unittest.main()
