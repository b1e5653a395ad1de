import unittest
from datetime import date
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.vehicle.typed import Unclear, amount, day, whole


class Amounts(unittest.TestCase):
    def test_as_people_write_them(self):
        for text, value in {
            "9900": 9900, "9 900": 9900, "9 900,50": "9900.50", "1,250.50": "1250.50", "1.250,50": "1250.50",
            "12 500": 12500, "12’500": 12500, "1,234,567": 1234567, "95,50": "95.50", "95.5": "95.5", "0,5": "0.5",
            "1.234.567,8": "1234567.8", " 80 ": 80,
        }.items():  # fmt: skip
            with self.subTest(text):
                self.assertEqual(amount(text), Decimal(str(value)))

    def test_one_mark_before_three_digits_is_asked_about(self):
        for text in ("12.500", "12,500", "1.000"):
            with self.assertRaisesRegex(Unclear, "may be"):
                amount(text)

    def test_what_is_no_amount_is_said_so(self):
        for text in ("", "cheap", "-5", "12..5", "1,2,3", "1.25.000", "5 EUR", "1e5"):
            with self.subTest(text), self.assertRaises(Unclear):
                amount(text)

    @given(st.decimals(0, 10_000_000, places=2))
    def test_whatever_is_written_plainly_is_read_as_it_is(self, value):
        self.assertEqual(amount(f"{value}"), value)
        self.assertEqual(amount(f"{value:,}".replace(",", " ").replace(".", ",")), value)


class Others(unittest.TestCase):
    def test_whole_numbers(self):
        for text, value in {"12000": 12000, "12 000": 12000, "12.000": 12000, "104,000": 104000}.items():
            self.assertEqual(whole(text), value)
        for text in ("many", "12.5", "1,00", "-5", ""):
            with self.subTest(text), self.assertRaises(Unclear):
                whole(text)

    def test_days(self):
        wanted = date(2026, 12, 24)
        for text in ("2026-12-24", "24.12.2026", "24/12/2026", "12/24/2026", " 24 12 2026"):
            self.assertEqual(day(text), wanted, text)
        self.assertEqual(day("04.12.2026"), date(2026, 12, 4))
        for text in ("04/12/2026", "Friday", "31.02.2026", "2026-13-01", "40.50.2026"):
            with self.subTest(text), self.assertRaises(Unclear):
                day(text)


if __name__ == "__main__":
    unittest.main()
