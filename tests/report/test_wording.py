import unittest

from hakutsu.report.wording import walk_words
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Direction, Names, SideNames, SteeringSide


class Walk(unittest.TestCase):
    def test_the_side_taken_first_in_every_naming_of_sides(self):
        spoken = {"sides": SideNames.SPOKEN, "steering": SteeringSide.RIGHT}
        for terms, words in (
            (PLAIN, "left side first"),
            (Terms(**spoken), "nearside first"),
            (Terms(names=Names.AMERICAN, **spoken), "passenger side first"),
        ):
            self.assertEqual(walk_words(Direction.LEFT_FIRST, terms), words)
