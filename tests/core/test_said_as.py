import unittest

from hakutsu.core.findings import found
from hakutsu.core.said_as import weighed
from hakutsu.entries.envelope import SaidAs

ONE = found("body.dent", "roof", "dent")


class HowSure(unittest.TestCase):
    def test_less_sure_is_less_likely_and_a_guess_stays_open(self):
        plain, likely, guess = (weighed(ONE, [one]) for one in (None, SaidAs.LIKELY, SaidAs.GUESS))
        self.assertEqual(plain, ONE)
        self.assertTrue(guess.sureness < likely.sureness < plain.sureness)
        self.assertIsNone(likely.open)
        self.assertIn("look at it again", guess.open.check)

    def test_the_surest_of_several_looks_speaks(self):
        self.assertEqual(weighed(ONE, [SaidAs.GUESS, SaidAs.SURE]), ONE)
        self.assertEqual(weighed(ONE, [SaidAs.GUESS, None]), ONE)
        self.assertEqual(weighed(ONE, [SaidAs.GUESS, SaidAs.LIKELY]), weighed(ONE, [SaidAs.LIKELY]))
