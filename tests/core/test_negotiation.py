import unittest
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.negotiation import Item, negotiation, rounded, shared_out, step_of
from hakutsu.entries.money import Line
from hakutsu.vehicle.vocabulary import Consequence

CURRENCIES = ("EUR", "JPY", "KWD", "CHF", "TND")


class Sheet(unittest.TestCase):
    def test_line_by_line_and_what_is_left(self):
        items = [
            Item("a", "", "pads", 311.749),
            Item("b", "", "marks", 90.0, treat=Consequence.BUDGET),
            Item("c", "", "unpriced", None),
        ]
        sheet = negotiation(items, {}, Decimal(9800), "EUR")
        self.assertEqual((sheet.settled, sheet.left), (Decimal("311.75"), Decimal("9488.25")))
        self.assertEqual([line.amount for line in sheet.treated(Consequence.SETTLE)], [Decimal("311.75"), None])

    def test_the_inspectors_word_rules(self):
        said = {
            ("a", ""): Line(code="a", treat="budget"),
            ("b", ""): Line(code="b", treat="settle", amount=Decimal("120"), note="agreed"),
        }
        sheet = negotiation(
            [Item("a", "", "pads", 300.0), Item("b", "", "marks", 90.0, treat=Consequence.BUDGET)], said, None, "EUR"
        )
        self.assertEqual((sheet.settled, sheet.left), (Decimal("120.00"), None))
        self.assertEqual([line.note for line in sheet.treated(Consequence.SETTLE)], ["agreed"])
        self.assertTrue(all(line.own for line in sheet.lines))

    def test_one_defect_is_charged_once(self):
        sheet = negotiation([Item("a", "", "hose", 96.0), Item("a", "", "hose again", 96.0)], {}, Decimal(1000), "EUR")
        self.assertEqual((len(sheet.lines), sheet.settled), (1, Decimal("96.00")))

    def test_what_is_left_is_never_below_nothing(self):
        self.assertEqual(negotiation([Item("a", "", "x", 900.0)], {}, Decimal(500), "EUR").left, 0)


class Rounding(unittest.TestCase):
    def test_steps_of_currencies(self):
        self.assertEqual(
            [step_of(one) for one in ("EUR", "JPY", "KWD")], [Decimal("0.01"), Decimal(1), Decimal("0.001")]
        )
        self.assertEqual(rounded(2.5, "JPY"), 3)

    def test_largest_remainders_by_hand(self):
        # 10/3 three times is 10: 3.34, 3.33, 3.33
        amounts, total = shared_out([10 / 3] * 3, "EUR")
        self.assertEqual(
            (sorted(amounts), total), ([Decimal("3.33"), Decimal("3.33"), Decimal("3.34")], Decimal("10.00"))
        )

    @given(st.lists(st.floats(0, 1e6), max_size=40), st.sampled_from(CURRENCIES))
    def test_shares_add_up_in_every_currency(self, amounts, currency):
        found, total = shared_out(amounts, currency)
        self.assertEqual(sum(found, Decimal(0)), total)
        for one, exact in zip(found, amounts, strict=True):
            self.assertLessEqual(abs(float(one) - exact), float(step_of(currency)) * 1.001 + 1e-6)

    @given(st.lists(st.floats(0, 1e5), max_size=30), st.sampled_from(CURRENCIES))
    def test_settled_lines_add_up_as_they_stand(self, amounts, currency):
        items = [Item(str(i), "", "x", one) for i, one in enumerate(amounts)]
        sheet = negotiation(items, {}, Decimal(10**9), currency)
        lines = sheet.treated(Consequence.SETTLE)
        self.assertEqual(sum((one.amount for one in lines), Decimal(0)), sheet.settled)
        self.assertEqual(sheet.left + sheet.settled, sheet.asking)
