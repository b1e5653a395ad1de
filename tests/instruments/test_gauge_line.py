import unittest

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.instruments.gauge_line import (
    FilmLine,
    Garbled,
    HelloLine,
    ProbeLine,
    WhoLine,
    check_sum,
    read_line,
    write_line,
)
from hakutsu.vehicle.vocabulary import ReadingStatus, Substrate, Unit

OK = ReadingStatus.OK


def signed(words):
    return f"{words} #{check_sum(words)}\n".encode()


class Lines(unittest.TestCase):
    def test_what_is_written_is_read_back(self):
        for line in (
            FilmLine(112, Unit.UM, OK, Substrate.STEEL, 83),
            FilmLine(4.5, Unit.MIL, OK, Substrate.ALUMINIUM),
            FilmLine(None, Unit.UM, ReadingStatus.OVER, Substrate.STEEL, 5),
            FilmLine(None, Unit.UM, ReadingStatus.NONE, Substrate.UNKNOWN),
            HelloLine(Unit.MIL, 0.5, 40, "Pocket gauge, grey"),
            ProbeLine("rear_quarter_left", 0.25, 0.75),
            WhoLine(),
        ):
            with self.subTest(line):
                self.assertEqual(read_line(write_line(line)), line)

    def test_a_line_by_hand(self):
        # The bytes of "film 112 um steel battery 83" add up to 2369 = 9 · 256 + 0x41.
        self.assertEqual(sum(b"film 112 um steel battery 83"), 2369)
        found = read_line(b"film 112 um steel battery 83 #41\r\n")
        self.assertEqual((found.value_um, found.battery), (112, 83))

    def test_mil_becomes_micrometres(self):
        self.assertAlmostEqual(read_line(write_line(FilmLine(4.5, Unit.MIL, OK, Substrate.STEEL))).value_um, 114.3)

    def test_one_changed_digit_is_garbled(self):
        self.refused(b"film 172 um steel battery 83 #41", "check sum")

    def refused(self, raw, why):
        with self.assertRaises(Garbled) as caught:
            read_line(raw)
        self.assertIn(why, str(caught.exception))

    def test_what_cannot_be_trusted_is_garbled(self):
        self.refused(b"\xff\xfe112", "not ASCII")
        self.refused(b"film 112 um steel", "check sum")
        self.refused(signed("film -5 um steel"), "not understood")
        self.refused(signed("film 0 um steel"), "no film")
        self.refused(signed("film 999999 um steel"), "no film")
        self.refused(signed("probe roof 1.5 0.5"), "not understood")
        self.refused(b"x" * 500, "too long")

    @given(st.binary(max_size=200))
    def test_no_bytes_whatever_do_anything_but_read_or_be_garbled(self, raw):
        try:
            read_line(raw)
        except Garbled:
            return
