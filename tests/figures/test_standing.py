import unittest
from xml.etree import ElementTree

from hakutsu.figures.standing import EDGE, WIDE, standing_scale


class Scale(unittest.TestCase):
    def parts(self, seen, usual, steps=5):
        root = ElementTree.fromstring(standing_scale(seen, usual, steps, "seen worn, usual < sound"))
        circle = next(one for one in root.iter() if one.tag.endswith("circle"))
        rect = next(one for one in root.iter() if one.tag.endswith("rect"))
        return float(circle.get("cx")), float(rect.get("x")) + 7, root.get("aria-label")

    def test_the_best_stands_left_and_the_worst_right(self):
        self.assertEqual(self.parts(0, 4)[:2], (EDGE, WIDE - EDGE))
        self.assertEqual(self.parts(4, 0)[:2], (WIDE - EDGE, EDGE))

    def test_alike_lie_on_each_other_and_words_say_the_same(self):
        seen, usual, words = self.parts(2, 2)
        self.assertEqual(seen, usual)
        self.assertEqual(words, "seen worn, usual < sound")
