import socket
import time
import unittest
from threading import Thread
from unittest.mock import patch

from hakutsu.core.scan.codec.parameters import Pid
from hakutsu.instruments.diagnostic.addresses import Unit, asked_one_by_one, unit_of
from hakutsu.instruments.diagnostic.bus import Bus, NoLink
from hakutsu.instruments.diagnostic.scan_link import ScanLink
from hakutsu.instruments.diagnostic.services import ALLOWED, Refused, checked, checked_frame, framed
from hakutsu.instruments.diagnostic.simulated_engine import Engine, engines
from hakutsu.instruments.diagnostic.simulated_vehicle import SimulatedUnit, SimulatedVehicle, scenarios
from hakutsu.instruments.diagnostic.stand_in import Adapter, serve_vehicle
from hakutsu.instruments.diagnostic.vehicle_reader import VehicleReader
from hakutsu.instruments.table_models import VehiclesUnit

VIN = "0RN1SKARRW2000017"
READS = {0x01, 0x02, 0x03, 0x06, 0x07, 0x09, 0x0A, 0x19, 0x22, 0x3E}


def served(vehicle):
    """The address of a simulated vehicle on a port of its own."""
    ports = []
    Thread(target=serve_vehicle, args=(vehicle, 0, ports.append), daemon=True).start()
    until = time.monotonic() + 5
    while not ports and time.monotonic() < until:
        time.sleep(0.01)
    return f"socket://127.0.0.1:{ports[0]}"


class AllowList(unittest.TestCase):
    def test_all_256_first_bytes(self):
        self.assertEqual(ALLOWED, READS)
        for first in range(256):
            payload = bytes([first, 0x00])
            if first in READS:
                self.assertEqual(checked(payload), payload)
            else:
                with self.assertRaises(Refused):
                    checked(payload)
        with self.assertRaises(Refused):
            checked(b"")

    def test_of_all_frames_only_whole_requests_that_read_and_go_on_reach_the_adapter(self):
        class Adapting:
            sent = ()

            def send(self, message):
                self.sent = (*self.sent, bytes(message.data))

        bus, adapter = object.__new__(Bus), Adapting()
        bus._bus = adapter
        for first in range(256):
            for second in range(256):
                frame = bytes([first, second]).ljust(8, b"\x00")
                good = (1 <= first <= 7 and second in READS) or frame[:3] == b"\x30\x00\x00"
                try:
                    bus.send(0x7DF, frame, extended=False)
                except Refused:
                    self.assertFalse(good, frame.hex())
                else:
                    self.assertTrue(good, frame.hex())
        self.assertEqual(len(adapter.sent), 7 * len(READS) + 1)

    def test_frames_are_eight_bytes_and_padded(self):
        self.assertEqual(framed(b"\x01\x0c"), bytes.fromhex("02010C5555555555"))
        for payload in (b"", b"\x01" * 8, b"\x04"):
            with self.assertRaises(Refused):
                framed(payload)
        with self.assertRaises(Refused):
            checked_frame(bytes.fromhex("02010C"))


class Addresses(unittest.TestCase):
    def test_who_answers_and_how_they_are_asked(self):
        self.assertEqual(unit_of(0x7EA, extended=False).asked, 0x7E2)
        self.assertEqual(unit_of(0x18DAF110, extended=True).asked, 0x18DA10F1)
        self.assertEqual(str(unit_of(0x18DAF10E, extended=True)), "18DAF10E")
        for identifier, extended in ((0x7E7, False), (0x7F0, False), (0x18DBF110, True), (0x7E8, True), (0x123, False)):
            self.assertIsNone(unit_of(identifier, extended=extended), hex(identifier))

    def test_a_sweep_asks_nobody_else(self):
        self.assertEqual([one.asked for one in asked_one_by_one()], list(range(0x7E0, 0x7E8)))
        wide = [one.asked for one in asked_one_by_one(wide=True)]
        self.assertEqual((len(wide), wide[8], wide[-1]), (264, 0x18DA00F1, 0x18DAFFF1))


class StandIn(unittest.TestCase):
    def test_nothing_passes_until_the_channel_is_open_and_listening_sends_nothing(self):
        adapter = Adapter(SimulatedVehicle.of("healthy"))
        ask = "t7DF8" + "0201005555555555"
        self.assertEqual(adapter.line(ask), "\a")
        adapter.line("L")
        self.assertEqual(adapter.line(ask), "\a")
        adapter.line("O")
        self.assertRegex(adapter.line(ask), r"^z\rt7E88064100[0-9A-F]{8}55\rt7E98064100")
        self.assertEqual(adapter.line("t7DF8zz"), "\a")
        self.assertEqual(adapter.line("t7DF"), "\a")

    def test_a_long_answer_waits_to_be_let_go_on(self):
        adapter = Adapter(SimulatedVehicle.of("healthy"))
        adapter.line("O")
        first = adapter.line("t7E080209025555555555")
        self.assertEqual(first, "z\rt7E881014490201" + b"0RN".hex().upper() + "\r")
        rest = adapter.line("t7E083000005555555555").split("\r")[1:-1]
        self.assertEqual([one[5:7] for one in rest], ["21", "22"])
        self.assertEqual(bytes.fromhex(rest[0][7:] + rest[1][7:]), b"1SKARRW2000017")

    def test_engines_that_ship(self):
        self.assertLessEqual({"healthy", "stuck_open", "overheating", "hunting", "rough"}, set(engines()))
        now = [100.0]
        engine = Engine("healthy", fast=60.0, clock=lambda: now[0])
        self.assertAlmostEqual(engine.coolant_c(), 14.0)
        now[0] += 60.0
        self.assertAlmostEqual(engine.coolant_c(), 91.0)
        self.assertEqual(engine.seconds(), 3600.0)
        with self.assertRaises(KeyError):
            Engine("steam")


class Live(unittest.TestCase):
    def test_the_engines_parameters_over_the_whole_link(self):
        link = ScanLink(served(SimulatedVehicle.of("healthy", fast=60.0)))
        link.open()
        self.addCleanup(link.close)
        self.assertEqual([str(one) for one in link.units], ["7E8", "7E9"])
        first = link.read(Pid.RUN_TIME)
        self.assertTrue(10 <= link.read(Pid.COOLANT) <= 92)
        self.assertAlmostEqual(link.read(Pid.RPM), 790, delta=60)
        self.assertGreaterEqual(link.read(Pid.RUN_TIME), first)
        self.assertIsNone(link.read(0x5C))

    def test_what_cannot_be_opened_says_so(self):
        with socket.create_server(("127.0.0.1", 0)) as server:
            taken = server.getsockname()[1]
        with self.assertRaisesRegex(NoLink, "no adapter"):
            ScanLink(f"socket://127.0.0.1:{taken}").open()
        with self.assertRaises(NoLink):
            ScanLink("http://somewhere/else")
        with self.assertRaisesRegex(NoLink, "closed"):
            ScanLink("socket://127.0.0.1:1").ask(b"\x01\x0c")


def unit(**more):
    """A simulated unit with a few parameters, an identification number and a calibration."""
    row = {"answers": "7E8", "services": ("01", "03", "07", "09", "0A"), "ready": ("misfire",), "stored": ("P0301",),
           "vin": VIN, "calibrations": ("CAL-1",), "cvns": ("00C0FFEE",),
           "parameters": {"30": 12, "31": 240}}  # fmt: skip
    return SimulatedUnit(VehiclesUnit.model_validate(row | more))


def read(*units, **more):
    """What is read of a vehicle with these units; the sweep asks only those that answered, so that tests are quick."""
    with patch("hakutsu.instruments.diagnostic.vehicle_reader.asked_one_by_one", return_value=()):
        return VehicleReader(served(SimulatedVehicle(list(units))), **more).read()


class Reading(unittest.TestCase):
    def test_three_units_swept_and_read(self):
        told = []
        vehicle = SimulatedVehicle.of("jump_started")
        found = VehicleReader(served(vehicle), told=told.append).read()
        self.assertEqual([one.address for one in found.modules], ["7E8", "7E9", "7EA"])
        engine, gearbox, brakes = found.modules
        self.assertEqual((found.link.bitrate, found.link.identifiers, found.problems), (500_000, 11, ()))
        self.assertEqual((engine.vin, engine.calibration_ids, engine.cvns), (VIN, ("SKF-ENG-014",), ("0A41C7E2",)))
        self.assertEqual(
            (engine.since_cleared.km, engine.since_cleared.warm_ups, engine.since_cleared.minutes), (2, 1, 9)
        )
        self.assertEqual(engine.readiness["catalyst"], "incomplete")
        self.assertEqual(engine.readiness["secondary_air"], "not supported")
        self.assertEqual([one.code for one in gearbox.codes], ["U0100"])
        self.assertEqual(
            [(one.code, one.memory) for one in brakes.codes], [("U0100-87", ("stored",)), ("C0035-14", ("stored",))]
        )
        self.assertEqual((brakes.lamp, brakes.readiness), (None, {}))
        self.assertTrue(any("7E9" in one.doing for one in told))

    def test_a_freeze_frame_and_tests_with_their_numbers(self):
        row = {"stored": ("P0301",), "services": ("01", "02", "03", "06", "09"),
               "frozen": {"05": 61, "0C": 1180},
               "tests": (("A2", "0B", "24", 88, 0, 25), ("A2", "0C", "24", 0, 0, 0))}  # fmt: skip
        (found,) = read(unit(**row)).modules
        self.assertEqual(found.freeze_frames[0].values, {"coolant_c": 61, "rpm": 1180})
        self.assertEqual(
            [(one.tid, one.value, one.passed) for one in found.monitors], [("0B", 88, False), ("0C", 0, None)]
        )

    def test_two_units_of_29_bits_answer_across_each_other(self):
        units = (unit(answers="18DAF10E", vin="0RN1SKARRW2000018"), unit(answers="18DAF140", stored=()))
        found = read(*units)
        self.assertEqual([one.address for one in found.modules], ["18DAF10E", "18DAF140"])
        self.assertEqual([one.vin for one in found.modules], ["0RN1SKARRW2000018", VIN])
        self.assertEqual(found.link.identifiers, 29)

    def test_a_vehicle_with_iso_14229_alone_is_found_and_named_so(self):
        row = {"services": ("19", "22", "3E"), "by_status": (("P0301-00", "08"),), "answers": "18DAF110"}
        found = read(unit(**row))
        (one,) = found.modules
        self.assertEqual(([code.code for code in one.codes], one.vin, one.lamp), (["P0301-00"], VIN, None))
        self.assertIn("by ISO 14229 alone", found.problems[0])

    def test_asked_wide_a_unit_of_29_bits_that_speaks_only_when_asked_alone_is_found(self):
        units = (unit(), unit(answers="18DAF12A", services=("19", "22"), by_status=(("C0040-14", "08"),)))
        self.assertEqual([one.address for one in read(*units).modules], ["7E8"])
        some = [one for one in asked_one_by_one(wide=True) if one.extended][0x28:0x2C]
        with patch("hakutsu.instruments.diagnostic.vehicle_reader.asked_one_by_one", return_value=some):
            found = VehicleReader(served(SimulatedVehicle(list(units))), wide=True).read()
        self.assertEqual([one.address for one in found.modules], ["7E8", "18DAF12A"])
        self.assertEqual([one.code for one in found.modules[1].codes], ["C0040-14"])

    def test_short_frames_are_normal(self):
        (found,) = read(unit(faults={"short": True})).modules
        self.assertEqual(([one.code for one in found.codes], found.problems), (["P0301"], ()))

    def test_a_unit_that_asks_for_more_time_gets_it(self):
        (found,) = read(unit(faults={"pending": {"0906": 12, "03": 1}})).modules
        self.assertEqual(
            (found.cvns, [one.code for one in found.codes], found.problems), (("00C0FFEE",), ["P0301"], ())
        )

    def test_what_breaks_once_is_asked_for_again(self):
        for fault in ("cut", "disorder"):
            with self.subTest(fault):
                (found,) = read(unit(faults={fault: ("0902", "0904"), "once": True})).modules
                self.assertEqual((found.vin, found.calibration_ids, found.problems), (VIN, ("CAL-1",), ()))

    def test_what_breaks_twice_is_none_and_a_problem_never_half_a_value(self):
        for fault, words in (("cut", "cut off"), ("disorder", "out of order")):
            with self.subTest(fault):
                (found,) = read(unit(faults={fault: ("0902", "0904")})).modules
                self.assertEqual((found.vin, found.calibration_ids, found.cvns), (None, None, ("00C0FFEE",)))
                self.assertEqual(len(found.problems), 2)
                self.assertTrue(all(words in one for one in found.problems), found.problems)

    def test_a_unit_that_falls_silent_has_no_codes_that_anybody_read(self):
        (found,) = read(unit(faults={"quiet": True})).modules
        self.assertIsNone(found.codes)
        self.assertIsNone(found.calibration_ids)
        self.assertIn("fault codes could not be read", found.problems)

    def test_nobody_answers(self):
        began = time.monotonic()
        with self.assertRaisesRegex(NoLink, "no control unit answers"):
            VehicleReader(served(SimulatedVehicle([]))).read()
        self.assertLess(time.monotonic() - began, 20)

    def test_stopped_it_gives_what_it_has(self):
        seen = []
        found = read(unit(), unit(answers="7E9"), told=seen.append, stopped=lambda: any(one.read for one in seen))
        first, second = found.modules
        self.assertEqual([one.code for one in first.codes], ["P0301"])
        self.assertIsNone(second.codes)
        self.assertIn("stopped by hand", " ".join((*second.problems, *found.problems)))

    def test_a_link_lost_in_the_middle_keeps_what_was_good(self):
        heard = Adapter._heard

        def breaking(adapter, identifier, data, *, extended):
            if data[1:3] == b"\x09\x00":
                raise OSError("pulled out")
            return heard(adapter, identifier, data, extended=extended)

        with patch.object(Adapter, "_heard", breaking):
            found = read(unit(), unit(answers="7E9"))
        first, second = found.modules
        self.assertEqual([one.code for one in first.codes], ["P0301"])
        self.assertIsNone(first.cvns)
        self.assertIn("the link was lost", " ".join(first.problems))
        self.assertEqual(second.problems, ("not read",))
        self.assertIn("the link was lost", found.problems[0])

    def test_every_scenario_can_be_made(self):
        names = {"healthy", "cleared_recently", "jump_started", "intake_leak", "misfire", "thermostat_open",
                 "distance_module", "identity_module", "weak_pack", "blocked_filter", "silent_module",
                 "no_link"}  # fmt: skip
        self.assertEqual(set(scenarios()), names)
        for name in names:
            self.assertEqual(len(SimulatedVehicle.of(name).units), len(scenarios()[name].units))
        self.assertEqual(Unit(0x7E8), SimulatedVehicle.of("healthy").units[0].unit)


if __name__ == "__main__":
    unittest.main()
