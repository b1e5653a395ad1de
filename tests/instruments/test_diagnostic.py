import socket
import time
import unittest
from threading import Thread

from hakutsu.instruments.diagnostic.frames import packed, unpacked
from hakutsu.instruments.diagnostic.live import QUANTITIES, Pid, answer, mask, request, supported, value
from hakutsu.instruments.diagnostic.scan_link import NoLink, ScanLink
from hakutsu.instruments.diagnostic.services import ALLOWED, Refused, checked
from hakutsu.instruments.diagnostic.stand_in import Adapter, Engine, engines, serve_engine


class AllowList(unittest.TestCase):
    def test_all_256_first_bytes(self):
        reads = {0x01, 0x02, 0x03, 0x06, 0x07, 0x09, 0x0A, 0x19, 0x22, 0x3E}
        self.assertEqual(ALLOWED, reads)
        for first in range(256):
            payload = bytes([first, 0x00])
            if first in reads:
                self.assertEqual(checked(payload), payload)
            else:
                with self.assertRaises(Refused):
                    checked(payload)
        with self.assertRaises(Refused):
            checked(b"")

    def test_nothing_refused_reaches_the_bus(self):
        class Bus:
            sent = ()

            def send(self, message):
                self.sent = (*self.sent, message)

        link = ScanLink("socket://127.0.0.1:1")
        link._bus = Bus()
        for service in (0x04, 0x11, 0x14, 0x2E, 0x31):
            with self.assertRaises(Refused):
                link.ask(bytes([service, 0xFF]))
        self.assertEqual(link._bus.sent, ())


class Frames(unittest.TestCase):
    def test_a_single_frame_by_hand(self):
        self.assertEqual(packed(b"\x01\x0c"), bytes.fromhex("02010C5555555555"))
        self.assertEqual(unpacked(bytes.fromhex("04410C0C80555555")), bytes.fromhex("410C0C80"))

    def test_other_and_broken_frames_are_nothing(self):
        for data in ("", "100A490201314735", "3000000000000000", "0741", "00AAAAAAAAAAAAAA", "0841424344454647"):
            self.assertIsNone(unpacked(bytes.fromhex(data)), data)
        for payload in (b"", b"12345678"):
            with self.assertRaises(ValueError):
                packed(payload)


class Bytes(unittest.TestCase):
    def test_values_of_the_standard(self):
        self.assertEqual(value(Pid.COOLANT, bytes.fromhex("41057B")), 83.0)  # 0x7B = 123, less 40
        self.assertEqual(value(Pid.RPM, bytes.fromhex("410C0C80")), 800.0)  # 3,200 quarters
        self.assertEqual(value(Pid.RUN_TIME, bytes.fromhex("411F0258")), 600.0)
        self.assertEqual(value(Pid.VOLTS, bytes.fromhex("41423714")), 14.1)
        self.assertEqual(request(Pid.RPM), bytes.fromhex("010C"))

    def test_what_answers_something_else_is_nothing(self):
        for said in ("410C0C80", "7F0112", "4105", ""):
            self.assertIsNone(value(Pid.COOLANT, bytes.fromhex(said)), said)
        self.assertIsNone(value(0x77, bytes.fromhex("417700")))

    def test_a_mask_by_hand(self):
        # BE 1F A8 13: 1011 1110 0001 1111 1010 1000 0001 0011
        found = supported(0x00, bytes.fromhex("4100BE1FA813"))
        self.assertEqual(
            found, {1, 3, 4, 5, 6, 7, 0x0C, 0x0D, 0x0E, 0x0F, 0x10, 0x11, 0x13, 0x15, 0x1C, 0x1F, 0x20}
        )  # fmt: skip
        self.assertIsNone(supported(0x20, bytes.fromhex("4100BE1FA813")))
        self.assertEqual(supported(0, answer(0, mask(0, frozenset({5, 0x42})))), {5, 0x20})
        self.assertEqual(supported(0x20, answer(0x20, mask(0x20, frozenset({5, 0x42})))), {0x40})

    def test_every_quantity_goes_both_ways_and_is_held_within_its_bytes(self):
        for pid, quantity in QUANTITIES.items():
            for number in (20.0, 60.0):
                read = value(pid, answer(pid, quantity.write(number)))
                self.assertAlmostEqual(read, number, delta=0.5)
            self.assertEqual(len(quantity.write(1e9)), quantity.length)
            self.assertEqual(len(quantity.write(-1e9)), quantity.length)


class StandIn(unittest.TestCase):
    def adapter(self, kind="healthy", seconds=0.0, fast=1.0):
        now = [0.0]
        engine = Engine(kind, fast, clock=lambda: now[0])
        now[0] = seconds
        return Adapter(engine)

    def test_frames_pass_only_while_the_channel_is_open(self):
        adapter = self.adapter()
        self.assertEqual(adapter.line("t7DF802010C5555555555"), "\a")
        self.assertEqual(adapter.line("L"), "\r")
        self.assertEqual(adapter.line("t7DF802010C5555555555"), "\a")
        adapter.line("O")
        said = adapter.line("t7DF802010C5555555555")
        self.assertTrue(said.startswith("z\rt7E8804410C"), said)
        self.assertEqual(adapter.line("t7DF8zz"), "\a")
        self.assertEqual(adapter.line("t7E0802010C5555555555"), "z\r")  # nobody of that address

    def test_it_answers_only_what_it_knows_and_never_a_service_that_writes(self):
        engine = Engine("healthy")
        self.assertIsNone(engine.answered(bytes.fromhex("0104")))
        self.assertIsNone(engine.answered(bytes.fromhex("04")))
        self.assertIsNotNone(engine.answered(bytes.fromhex("0105")))

    def test_each_kind_goes_its_course(self):
        at = {}
        for kind in engines():
            now = [0.0]
            engine = Engine(kind, 10.0, clock=lambda now=now: now[0])
            self.assertAlmostEqual(engine.coolant_c(), engines()[kind]["start_c"], delta=0.1)
            now[0] = 240.0  # forty minutes of its own
            at[kind] = engine.coolant_c()
        self.assertAlmostEqual(at["healthy"], 91.0)
        self.assertLess(at["stuck_open"], 75)
        self.assertGreater(at["overheating"], 118)
        with self.assertRaises(KeyError):
            Engine("steam")


class Linked(unittest.TestCase):
    def served(self, kind="healthy", fast=60.0):
        ports = []
        Thread(target=serve_engine, args=(Engine(kind, fast), 0, ports.append), daemon=True).start()
        end = time.monotonic() + 10
        while not ports and time.monotonic() < end:
            time.sleep(0.01)
        return ports[0]

    def test_it_finds_the_unit_reads_and_stays_within_what_is_supported(self):
        link = ScanLink(f"socket://127.0.0.1:{self.served()}")
        link.open()
        self.addCleanup(link.close)
        self.assertEqual(list(link.ecus), [0x7E8])
        self.assertIn(Pid.COOLANT, link.ecus[0x7E8])
        first = link.read(Pid.RUN_TIME)
        self.assertTrue(10 <= link.read(Pid.COOLANT) <= 92)
        self.assertAlmostEqual(link.read(Pid.RPM), 790, delta=60)
        self.assertGreaterEqual(link.read(Pid.RUN_TIME), first)
        self.assertIsNone(link.read(0x0B))

    def test_no_adapter_and_an_adapter_without_a_vehicle_are_told_apart(self):
        with self.assertRaises(NoLink) as nobody, socket.create_server(("127.0.0.1", 0)) as closed:
            port = closed.getsockname()[1]
            closed.close()
            ScanLink(f"socket://127.0.0.1:{port}").open()
        self.assertIn("no adapter at", str(nobody.exception))
        with socket.create_server(("127.0.0.1", 0)) as mute, self.assertRaises(NoLink) as silent:
            ScanLink(f"socket://127.0.0.1:{mute.getsockname()[1]}").open()
        self.assertIn("no control unit answers", str(silent.exception))

    def test_a_closed_link_says_so(self):
        with self.assertRaises(NoLink):
            ScanLink("socket://127.0.0.1:1").read(Pid.RPM)
