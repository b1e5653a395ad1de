"""The codec against published layouts, worked out by hand; what is encoded is decoded; no bytes crash it."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from hakutsu.core.scan.codec import identity
from hakutsu.core.scan.codec.codes import code_bytes, code_list, code_text, flags, system
from hakutsu.core.scan.codec.decode import decode, decode_text
from hakutsu.core.scan.codec.faults import Malformed
from hakutsu.core.scan.codec.parameters import known_parameters, mask, supported, value, written
from hakutsu.core.scan.codec.readiness import monitors, readiness, readiness_bytes
from hakutsu.core.scan.codec.results import Result, result_bytes, results

VIN = "0RN1SKARRW2000017"


def words(text):
    return text.split()


def row(text):
    return decode_text(text).row


class Published(unittest.TestCase):
    def test_codes(self):
        self.assertEqual(row("43 02 01 33 C1 00"), {"service": "03", "decoded": {"codes": ["P0133", "U0100"]}})
        self.assertEqual(row("4700"), {"service": "07", "decoded": {"codes": []}})
        self.assertEqual(row("4A 01 42 16")["decoded"], {"codes": ["C0216"]})
        for text in ("43 02 01 33", "43 01 01 33 00", "43", "43 00 00 00"):
            self.assertTrue(row(text)["problem"], text)

    def test_parameters(self):
        for text, expected in (
            ("41 05 7B", {"value": 83, "unit": "°C"}),
            ("41 0C 0C 80", {"value": 800, "unit": "rpm"}),
            ("41 04 FF", {"value": 100, "unit": "%"}),
            ("41 06 80", {"value": 0, "unit": "%"}),
            ("41 09 00", {"value": -100, "unit": "%"}),
            ("41 0D 32", {"value": 50, "unit": "km/h"}),
            ("41 42 37 14", {"value": 14.1, "unit": "V"}),
            ("41 31 47 3A", {"value": 18234, "unit": "km"}),
            ("41 30 FF", {"value": 255, "unit": "", "at_least": True}),
            ("41 30 03", {"value": 3, "unit": "", "at_least": False}),
            ("41 4E FF FF", {"value": 65535, "unit": "min", "at_least": True}),
            ("41 A6 00 15 8B D2", {"value": 141205.0, "unit": "km"}),
            ("41 03 02 00", {"value": "closed"}),
            ("41 03 10 00", {"value": "closed_fault"}),
        ):
            with self.subTest(text):
                self.assertEqual(row(text)["decoded"], {"pid": text[3:5], **expected})
        for text in ("41 05", "41 05 7B 00", "41 77 00", "41", "41 03 03 00", "41 03 02"):
            self.assertTrue(row(text)["problem"], text)

    def test_a_mask_by_hand(self):
        """BE 1F A8 13: 1011 1110 0001 1111 1010 1000 0001 0011."""
        found = row("41 00 BE 1F A8 13")["decoded"]["supported"]
        self.assertEqual(
            found,
            words("01 03 04 05 06 07 0C 0D 0E 0F 10 11 13 15 1C 1F 20"),
        )
        self.assertTrue(row("41 20 BE 1F A8")["problem"])

    def test_readiness(self):
        """81: lamp, one code. 07 65 04: spark, the three continuous ones, four of C, of which bit 2 is left."""
        said = row("41 01 81 07 65 04")["decoded"]
        self.assertEqual((said["lamp"], said["count"], said["ignition"]), (True, 1, "spark"))
        self.assertEqual(said["incomplete"], ["evaporative"])
        self.assertEqual(
            said["ready"], words("misfire fuel_system components catalyst oxygen_sensor oxygen_sensor_heater")
        )
        said = row("41 01 00 0E EB 40")["decoded"]  # compression: B bit 3; bits 1 and 2; C 1110 1011
        self.assertEqual((said["ignition"], said["incomplete"]), ("compression", ["particulate_filter"]))
        self.assertEqual(
            said["ready"],
            [
                "fuel_system",
                "components",
                "nmhc_catalyst",
                "nox_aftertreatment",
                "boost",
                "exhaust_gas_sensor",
                "egr_vvt",
            ],
        )
        self.assertNotIn("lamp", row("41 41 00 07 65 04")["decoded"])

    def test_freeze_frames(self):
        self.assertEqual(row("42 02 00 01 33")["decoded"], {"pid": "02", "frame": 0, "code": "P0133"})
        self.assertEqual(row("42 02 00 00 00")["decoded"], {"pid": "02", "frame": 0, "code": None})
        self.assertEqual(row("42 05 01 41")["decoded"], {"pid": "05", "frame": 1, "value": 25, "unit": "°C"})
        for text in ("42 02 00 01", "42 05", "42"):
            self.assertTrue(row(text)["problem"], text)

    def test_tests(self):
        said = row("46 A2 0B 24 00 58 00 00 00 19 A2 0C 24 00 00 00 00 00 00")["decoded"]["results"]
        self.assertEqual([(one["value"], one["max"], one["passed"]) for one in said], [(88, 25, False), (0, 0, None)])
        signed = row("46 31 81 9A FF F6 FF EC 00 14")["decoded"]["results"][0]
        self.assertEqual((signed["value"], signed["min"], signed["max"], signed["passed"]), (-10, -20, 20, True))
        unsigned = row("46 31 81 1A FF F6 00 00 FF FF")["decoded"]["results"][0]
        self.assertEqual(unsigned["value"], 65526)
        self.assertTrue(row("46 A2 0B 24 00 58")["problem"])
        self.assertEqual(row("46 00 C0 00 00 01")["decoded"]["supported"], ["01", "02", "20"])

    def test_identity(self):
        vin = VIN.encode().hex()
        self.assertEqual(row(f"49 02 01 {vin}")["decoded"], {"infotype": "02", "text": VIN})
        calibration = b"CAL-1".ljust(16, b"\0").hex()
        self.assertEqual(row(f"49 04 01 {calibration}")["decoded"]["calibrations"], ["CAL-1"])
        self.assertEqual(row("49 06 02 00 C0 FF EE 0A 41 C7 E2")["decoded"]["cvn"], ["00C0FFEE", "0A41C7E2"])
        self.assertEqual(row("49 08 02 00 10 01 00")["decoded"]["counters"], [16, 256])
        for text in (
            f"49 02 01 {vin[:-2]}",
            "49 04 02 " + calibration,
            "49 06 01 00 C0 FF",
            "49",
            "49 77 01",
            "49 02",
        ):
            self.assertTrue(row(text)["problem"], text)

    def test_memory_of_iso_14229(self):
        self.assertEqual(row("59 01 FF 01 00 02")["decoded"],
                         {"sub": "01", "availability": "FF", "format": "01", "count": 2})  # fmt: skip
        said = row("59 02 7F 01 33 1A AF")["decoded"]["codes"][0]
        self.assertEqual((said["code"], said["status"]), ("P0133-1A", "2F"))
        self.assertEqual(said["flags"], words("failed_now failed_this_cycle pending confirmed failed_since_clear"))
        self.assertEqual(row("59 0A FF")["decoded"]["codes"], [])
        for text in ("59", "59 02", "59 02 FF 01 33 1A", "59 01 FF 01 00", "59 33 FF"):
            self.assertTrue(row(text)["problem"], text)

    def test_identifiers_and_negative_answers(self):
        self.assertEqual(row("62 F1 90 41 42 43")["decoded"]["text"], "ABC")
        self.assertEqual(row("7F 22 78"), {"service": "22", "decoded": {"negative": "78", "pending": True}})
        self.assertEqual(row("7F 09 11"), {"service": "09", "decoded": {"negative": "11", "pending": False}})
        self.assertEqual(row("7E 00"), {"service": "3E", "decoded": {"sub": "00"}})
        for text, service in (
            ("7F 22", "22"),
            ("7F", None),
            ("zz", None),
            ("4", None),
            ("50 03", "10"),
            ("62 F1", "22"),
        ):
            self.assertEqual((row(text)["service"], bool(row(text)["problem"])), (service, True), text)

    def test_whose_code_it_is(self):
        for family, codes in (("standard", "P0133 P2002 P3400 B0010 C0035 U0100 U3000"), ("reserved", "B3001 C3001"),
                              ("maker", "P1234 P3000 P33FF B1001 C2001 U1001")):  # fmt: skip
            for code in codes.split():
                self.assertEqual(system(code), family, code)


class BothWays(unittest.TestCase):
    @given(st.integers(0, 0xFFFFFF))
    def test_codes(self, number):
        data = number.to_bytes(3, "big")
        self.assertEqual(code_bytes(code_text(data)), data)
        self.assertEqual(code_bytes(code_text(data[:2])), data[:2])

    @given(st.lists(st.integers(0, 0xFFFF), max_size=255))
    def test_lists_of_codes(self, numbers):
        data = bytes([len(numbers)]) + b"".join(one.to_bytes(2, "big") for one in numbers)
        self.assertEqual([code_bytes(one) for one in code_list(data)], [one.to_bytes(2, "big") for one in numbers])

    @given(st.sampled_from(sorted(known_parameters())), st.data())
    def test_parameters(self, pid, data):
        count = data.draw(st.binary(min_size=known_parameters()[pid].bytes, max_size=known_parameters()[pid].bytes))
        self.assertEqual(written(pid, value(pid, count)), count)

    @given(st.sets(st.integers(1, 0x1F)), st.sampled_from(range(0, 0x100, 0x20)))
    def test_masks(self, offsets, first):
        listed = {first + one for one in offsets}
        self.assertEqual(set(supported(first, mask(first, listed))), listed)

    @given(st.booleans(), st.booleans(), st.integers(0, 127), st.data())
    def test_readiness(self, compression, lamp, count, data):
        kind = monitors().compression if compression else monitors().spark
        names = [one for one in (*monitors().continuous, *kind) if one]
        ready = data.draw(st.sets(st.sampled_from(names)))
        left = data.draw(st.sets(st.sampled_from(names))) - ready
        found = readiness(readiness_bytes(ready, left, compression=compression, lamp=lamp, count=count))
        self.assertEqual((set(found.ready), set(found.incomplete), found.lamp, found.count), (ready, left, lamp, count))
        self.assertEqual(set(found.every), set(names))

    @given(st.lists(st.tuples(st.integers(0, 255), st.integers(0, 255), st.integers(0, 255),
                              *[st.integers(0, 0x7FFF)] * 3), min_size=1, max_size=6))  # fmt: skip
    def test_results(self, rows):
        given_ones = [Result(*one) for one in rows]
        self.assertEqual(results(result_bytes(given_ones)), given_ones)

    @given(st.lists(st.binary(min_size=4, max_size=4), max_size=20))
    def test_check_sums(self, parts):
        self.assertEqual(identity.check_sums(identity.itemised(parts)), [one.hex().upper() for one in parts])


class Whatever(unittest.TestCase):
    @settings(max_examples=600)
    @given(st.binary(max_size=80))
    def test_no_bytes_crash_it_and_what_is_unread_has_a_problem(self, payload):
        found = decode(payload)
        self.assertTrue(found.decoded or found.problem)
        if found.problem:
            self.assertEqual(found.decoded, {})

    @given(st.sampled_from([0x41, 0x42, 0x43, 0x46, 0x47, 0x49, 0x4A, 0x59, 0x62, 0x7E, 0x7F]), st.binary(max_size=40))
    def test_nor_do_those_of_a_service(self, first, rest):
        found = decode(bytes([first]) + rest)
        self.assertTrue(found.decoded or found.problem)

    @given(st.text(max_size=40))
    def test_nor_does_any_line(self, line):
        decode_text(line)

    def test_bits_of_a_status(self):
        self.assertEqual(flags(0x80), ["lamp"])
        self.assertEqual(flags(0x00), [])

    def test_what_is_no_code(self):
        for text in ("P4123", "X0123", "P01", "P0133-1", "p0133"):
            with self.assertRaises(Malformed):
                code_bytes(text)


if __name__ == "__main__":
    unittest.main()
