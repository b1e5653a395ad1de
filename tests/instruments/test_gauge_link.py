import socket
import threading
import time
import unittest
from unittest.mock import patch

from hakutsu.instruments.addresses import NotAllowed
from hakutsu.instruments.gauge_line import FilmLine, HelloLine, ProbeLine, WhoLine, check_sum, write_line
from hakutsu.instruments.gauge_link import GaugeLink
from hakutsu.instruments.gauge_stand_in import StandIn, painted_cars, serve_stand_in
from hakutsu.instruments.loopback import _serve
from hakutsu.vehicle.vocabulary import ReadingStatus, Substrate, Unit

PATIENCE_SECONDS = 10
ROOF = ProbeLine("roof", 0.5, 0.5)


def wait(condition):
    end = time.monotonic() + PATIENCE_SECONDS
    while not condition():
        if time.monotonic() > end:
            raise AssertionError("it did not happen")
        time.sleep(0.02)


class Heard:
    """What a link said, and the link."""

    def __init__(self, url):
        self.lines, self.garbled, self.states, self.ends = [], [], [], []
        self.link = GaugeLink(
            url,
            self.lines.append,
            lambda raw, why: self.garbled.append((raw, why)),
            self.states.append,
            self.ends.append,
        )

    def films(self):
        return [line for line in self.lines if isinstance(line, FilmLine)]


class LinkCase(unittest.TestCase):
    def hear(self, url):
        heard = Heard(url)
        heard.link.start()
        self.addCleanup(heard.link.stop)
        return heard

    def stand_in(self):
        ports = []
        threading.Thread(target=serve_stand_in, args=(StandIn("lantern"), 0, ports.append), daemon=True).start()
        wait(lambda: ports)
        return f"socket://127.0.0.1:{ports[0]}"


class Linked(LinkCase):
    def test_the_stand_in_says_who_it_is_and_answers_every_probe(self):
        heard = self.hear(self.stand_in())
        wait(lambda: heard.lines)
        for panel in ("roof", "bonnet", "front_bumper"):
            self.assertTrue(heard.link.send(ProbeLine(panel, 0.5, 0.5)))
        wait(lambda: len(heard.films()) == 3)
        self.assertIsInstance(heard.lines[0], HelloLine)
        roof, _, bumper = heard.films()
        self.assertEqual((roof.status, roof.substrate), (ReadingStatus.OK, Substrate.STEEL))
        self.assertEqual((bumper.value, bumper.status), (None, ReadingStatus.NONE))
        self.assertEqual(heard.garbled, [])

    def test_it_waits_for_a_gauge_that_comes_later_and_finds_it_again_when_it_goes(self):
        with socket.create_server(("127.0.0.1", 0)) as probe:
            port = probe.getsockname()[1]
        heard = self.hear(f"socket://127.0.0.1:{port}")
        self.assertFalse(heard.link.send(ROOF))
        for wanted in (1, 2):
            with socket.create_server(("127.0.0.1", port)) as server:
                connection, _ = server.accept()
                wait(lambda wanted=wanted: heard.states.count(True) == wanted)
                connection.sendall(write_line(FilmLine(110 + wanted, Unit.UM, ReadingStatus.OK, Substrate.STEEL)))
                wait(lambda wanted=wanted: len(heard.films()) == wanted)
                connection.close()
            wait(lambda wanted=wanted: heard.states.count(False) == wanted)
        self.assertEqual([line.value for line in heard.films()], [111, 112])

    def test_garbled_lines_are_told_and_dropped_and_a_cut_line_waits_for_its_rest(self):
        with socket.create_server(("127.0.0.1", 0)) as server:
            heard = self.hear(f"socket://127.0.0.1:{server.getsockname()[1]}")
            connection, _ = server.accept()
            wait(lambda: heard.states)  # what comes while the port is being opened is thrown away
            good = write_line(FilmLine(112, Unit.UM, ReadingStatus.OK, Substrate.STEEL))
            connection.sendall(b"film 11\x00 um\n" + good[:9])
            wait(lambda: heard.garbled)
            connection.sendall(good[9:] + b"\n" + b"z" * 400)
            wait(lambda: len(heard.garbled) == 2)
            connection.close()
        self.assertEqual([line.value for line in heard.films()], [112])


class StandIns(unittest.TestCase):
    def test_the_same_car_probed_alike_reads_alike(self):
        one, other = ([StandIn(car).measure(ROOF).value for car in painted_cars()] for _ in range(2))
        self.assertEqual(one, other)

    def test_any_name_and_body_makes_a_car(self):
        van = StandIn("whatever", "van", 5)
        self.assertIn("sliding_door_left", van.car.panels)
        self.assertNotEqual(van.measure(ROOF).value, StandIn("another", "van", 5).measure(ROOF).value)

    def test_it_shows_only_its_steps_and_nothing_beyond_its_range(self):
        fell = StandIn("fell")
        for panel in fell.car.panels:
            line = fell.measure(ProbeLine(panel, 0.3, 0.4))
            if line.value is not None:
                self.assertEqual(line.unit, Unit.MIL)
                self.assertAlmostEqual(line.value * 2, round(line.value * 2))
                self.assertLess(line.value, 40)


class Ends(LinkCase):
    def test_a_gauge_that_says_impossible_things_of_itself_is_dropped_and_read_on(self):
        odd = (
            "gauge um step 1 limit 999999 name Boaster",
            "gauge um step 0 limit 1500 name Still",
            "gauge mil step 9 limit 40 name Coarse",
            "gauge um step 1 limit 5 name Short",
        )
        lines = [f"{words} #{check_sum(words)}\n".encode() for words in odd]
        lines.append(write_line(FilmLine(118, Unit.UM, ReadingStatus.OK, Substrate.STEEL)))

        def talk(connection):  # a port used before may still be knocked at from elsewhere: whoever comes is told
            connection.recv(100)  # what is sent before it asks is no answer: a link begins by emptying what lies there
            connection.sendall(b"".join(lines))
            wait(lambda: heard.films())

        with socket.create_server(("127.0.0.1", 0)) as server:
            threading.Thread(target=_serve, args=(talk, server), daemon=True).start()
            heard = self.hear(f"socket://127.0.0.1:{server.getsockname()[1]}")
            wait(lambda: heard.films())
        self.assertEqual([why.split()[0] for _, why in heard.garbled][:4], ["no"] * 4)
        self.assertEqual(heard.ends, [])

    def test_what_ends_the_reader_is_told(self):
        def fail(_line):
            raise ZeroDivisionError("the page broke")

        ends = []
        link = GaugeLink(self.stand_in(), fail, lambda *_: None, lambda _: None, ends.append)
        with self.assertLogs("hakutsu.gauge", "ERROR"):
            link.start()
            wait(lambda: ends)
        self.assertEqual(ends, ["the link broke off: the page broke"])
        self.assertFalse(link.send(WhoLine()))

    def test_it_does_not_knock_for_ever(self):
        ends = []
        with patch("hakutsu.instruments.gauge_link.GIVES_UP_SECONDS", 0.3):
            link = GaugeLink("socket://127.0.0.1:1", lambda _: None, lambda *_: None, lambda _: None, ends.append)
            link.start()
            wait(lambda: ends)
        self.assertIn("connect it again", ends[0])

    def test_no_link_leads_where_none_may(self):
        for address in ("spy:///tmp/victim", "socket://192.0.2.7:7000"):
            with self.assertRaises(NotAllowed):
                GaugeLink(address, print, print, print, print)
