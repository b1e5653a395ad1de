import tempfile
import unittest

from hakutsu.instruments.addresses import NotAllowed, checked_address


class Addresses(unittest.TestCase):
    def refused(self, address, why, **more):
        with self.assertRaisesRegex(NotAllowed, why):
            checked_address(address, **more)

    def test_ports_of_this_machine_and_loopback(self):
        for address in ("/dev/ttyUSB0", "/dev/serial/by-id/usb-gauge_0001", "/dev/null", "COM7", "socket://127.0.0.1:7000",
                        "socket://localhost:1", "socket://[::1]:65535", "socket://127.9.9.9:7000"):  # fmt: skip
            self.assertEqual(checked_address(f" {address} "), address)

    def test_no_other_handler_and_no_options(self):
        for address in (
            "spy:///dev/ttyUSB0?file=/home/ada/.profile",
            "spy:///tmp/x",
            "loop://",
            "hwgrep://.*",
            "alt:///dev/ttyUSB0",
            "rfc2217://127.0.0.1:7000",
            "cp2110://",
            "file:///etc/passwd",
            "socket://127.0.0.1:7000?logging=debug",
            "socket://127.0.0.1:7000/logging=debug",
            "socket://ada@127.0.0.1:7000",
            "socket://127.0.0.1",
            "socket://:7000",
            "/etc/passwd",
            "ttyUSB0",
            "",
            "socketcan:can0",
        ):
            with self.subTest(address):
                self.refused(address, "write a port")
        self.refused("/dev/../etc/passwd", "without ..")
        for port in ("0", "65536", "99999"):
            self.refused(f"socket://127.0.0.1:{port}", "no port")

    def test_what_lies_among_the_devices_and_is_none(self):
        with tempfile.NamedTemporaryFile(dir="/dev/shm", prefix="gauge") as file:
            self.refused(file.name, "no serial port")

    def test_other_machines_only_when_the_account_names_them(self):
        for host in ("192.0.2.7", "gauge-bridge", "127.0.0.1.example", "127.0.0.1.", "0.0.0.0", "[2001:db8::7]"):
            with self.subTest(host):
                self.refused(f"socket://{host}:7000", "another machine")
        self.assertEqual(checked_address("socket://Gauge-Bridge:7000", ("gauge-bridge",)), "socket://Gauge-Bridge:7000")
        self.refused("socket://gauge-bridge.example:7000", "another machine", hosts=("gauge-bridge",))

    def test_an_adapter_may_be_an_interface_of_this_machine(self):
        self.assertEqual(checked_address("socketcan:can0", can=True), "socketcan:can0")
        self.refused("socketcan:can0;x", "write a port", can=True)
