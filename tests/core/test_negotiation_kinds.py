"""Lines that do not simply count: told before the price, for looks alone, claims beside their findings, auctions."""

import unittest
from decimal import Decimal

from hakutsu.core.claims import against
from hakutsu.core.consequence import codes
from hakutsu.core.findings import found, is_of
from hakutsu.core.negotiation import Item, Priced, items, negotiation
from hakutsu.entries.claims import ClaimKind
from hakutsu.entries.money import Line

ASKED = Decimal(8000)


def said(code, **more):
    return {(code, ""): Line(code=code, treat="settle", **more)}


class Disclosed(unittest.TestCase):
    ITEMS = (Item("a", "", "exhaust", 240.0), Item("b", "", "tyres", 300.0))

    def test_what_was_told_before_the_price_stands_apart_and_is_not_taken_off(self):
        sheet = negotiation(self.ITEMS, said("a", disclosed=True), ASKED, "EUR")
        self.assertEqual((sheet.settled, sheet.left), (Decimal("300.00"), Decimal("7700.00")))
        self.assertEqual([(one.disclosed, one.taken) for one in sheet.lines], [(True, 0), (False, Decimal("300.00"))])

    def test_unless_the_inspector_takes_it_off_all_the_same(self):
        sheet = negotiation(self.ITEMS, said("a", disclosed=True, taken_off=True), ASKED, "EUR")
        self.assertEqual(sheet.settled, Decimal("540.00"))

    def test_one_without_a_price_is_not_counted_as_missing(self):
        line = (Item("a", "", "x", None), Item("b", "", "y", None))
        self.assertEqual(negotiation(line, said("a", disclosed=True), ASKED, "EUR").unpriced, 1)


class Looks(unittest.TestCase):
    def test_what_is_for_looks_alone_is_summed_beside_the_rest(self):
        told = [found("body.scratch", "bonnet", "scratch"), found("corners.tyre_cord", "wheel_front_left", "cord")]
        told = [one.asking(found("corners.tyre_cord", "x", "x").consequence) for one in told]
        lines = items(told, lambda one: Priced(one.code, one.subject, one.words, 100.0))
        sheet = negotiation(lines, {}, ASKED, "EUR")
        self.assertEqual((sheet.settled, sheet.looks), (Decimal("200.00"), Decimal("100.00")))

    def test_a_line_that_mends_more_than_looks_is_not_for_looks_alone(self):
        told = [found("body.scratch", "bonnet", "scratch"), found("body.missing", "bonnet", "missing")]
        [line] = items(told, lambda one: Priced("body.marks", "bonnet", "marks", 100.0))
        self.assertFalse(line.looks)


class Claims(unittest.TestCase):
    def sheet(self, claim, tyres, treat="settle"):
        lines = (
            Item("job", "tyres:front", "tyres", tyres, of=(("corners.tyre_cord", "wheel_front_left"),)),
            Item("claims.not_as_claimed", "1", "“new tyres”", claim, besides=against(ClaimKind.NEW_TYRES)),
        )
        return negotiation(lines, {("job", ""): Line(code="job", treat=treat)}, ASKED, "EUR")

    def test_a_claim_counts_as_far_as_it_is_more_than_its_own_findings(self):
        for claim, tyres, settled in ((200, 300, 300), (400, 300, 400), (300, 300, 300), (200, None, 200)):
            with self.subTest(claim=claim, tyres=tyres):
                self.assertEqual(self.sheet(claim, tyres).settled, settled)

    def test_beside_a_finding_that_is_only_budgeted_for_it_counts_whole(self):
        self.assertEqual(self.sheet(200, 300, "budget").settled, 200)

    def test_what_contradicts_a_claim_is_known(self):
        for kind in ClaimKind:
            for pattern in against(kind):
                self.assertTrue(any(is_of(code, (pattern,)) for code in codes()), pattern)


class Auction(unittest.TestCase):
    def test_on_top_of_the_hammer_price(self):
        on_top = (("fees", Decimal(310)), ("transport", Decimal("95.5")))
        sheet = negotiation([Item("a", "", "x", 240.0)], {}, ASKED, "EUR", on_top)
        self.assertEqual((sheet.asking, sheet.left), (None, None))
        self.assertEqual(sheet.above_hammer, Decimal("645.50"))

    def test_without_fees_it_is_what_is_settled(self):
        sheet = negotiation([Item("a", "", "x", 240.0)], {}, None, "EUR", ())
        self.assertEqual(sheet.above_hammer, Decimal("240.00"))


if __name__ == "__main__":
    unittest.main()
