"""Identity numbers: a published check digit, misreadings, earlier forms, and what is not judged."""

import unittest

from hakutsu.core.papers.identity import expected_digit, read_identity

GOOD = "1M8GDM9AXKP042788"  # the example of 49 CFR 565: X in place 9


def codes(text):
    return [code for code, _ in read_identity(text).problems]


class Numbers(unittest.TestCase):
    def test_the_published_example(self):
        one = read_identity(GOOD)
        self.assertEqual((one.check_digit.expected, one.check_digit.agrees), ("X", True))
        self.assertEqual((one.model_years, one.region), ((1989, 2019), "North America"))
        self.assertEqual((one.problems, one.suggestions), ((), ()))
        self.assertEqual(expected_digit("1" * 17), "1")

    def test_blanks_hyphens_and_small_letters_are_tidied_and_nothing_else(self):
        one = read_identity("1m8-gdm9 axkp042788")
        self.assertEqual((one.text, one.characters), ("1m8-gdm9 axkp042788", GOOD))

    def test_letters_taken_for_digits_are_mended_together(self):
        one = read_identity("IM8GDM9AXKPO42788")
        self.assertFalse(one.valid_characters)
        self.assertEqual(codes("IM8GDM9AXKPO42788"), ["characters"])
        self.assertIsNone(one.check_digit.expected)
        self.assertEqual(one.suggestions, (GOOD,))

    def test_another_alphabet_is_no_other_character_but_an_o_beside_it_is(self):
        cyrillic = GOOD.replace("K", "К")
        self.assertEqual(codes(cyrillic), ["look_alike"])
        self.assertEqual(read_identity(cyrillic).suggestions, (GOOD,))
        self.assertEqual(codes(cyrillic.replace("0", "O")), ["characters", "look_alike"])

    def test_a_wrong_digit_offers_every_swap_of_neighbours_that_mends_it(self):
        swapped = GOOD[:12] + GOOD[13] + GOOD[12] + GOOD[14:]
        one = read_identity(swapped)
        self.assertEqual(codes(swapped), ["check_digit"])
        self.assertIn(GOOD, one.suggestions)
        for number in one.suggestions:
            self.assertTrue(read_identity(number).check_digit.agrees)

    def test_unread_characters_are_not_guessed(self):
        one = read_identity(GOOD[:5] + "?" + GOOD[6:])
        self.assertEqual((one.check_digit.expected, one.check_digit.found, one.check_digit.agrees), (None, "X", None))
        self.assertTrue(one.valid_characters)
        self.assertEqual([code for code, _ in one.problems], ["unread"])
        ninth = read_identity(GOOD[:8] + "?" + GOOD[9:])
        self.assertEqual((ninth.check_digit.expected, ninth.check_digit.found), ("X", None))
        self.assertEqual(read_identity(GOOD[:9] + "?" + GOOD[10:]).model_years, ())

    def test_length_and_earlier_forms(self):
        self.assertEqual(codes(""), ["length"])
        self.assertEqual(codes("1M8GDM9AXKP04278"), ["length"])
        self.assertEqual(codes("OR 58-1124"), ["free_form"])
        self.assertEqual(read_identity("OR 58-1124").suggestions, ())
        self.assertIsNone(read_identity("1M8GDM9AXKP0427").region)

    def test_years_and_regions_where_there_are_none(self):
        for letter, years in (
            ("A", (1980, 2010)),
            ("Y", (2000, 2030)),
            ("9", (2009, 2039)),
            ("U", ()),
            ("Z", ()),
            ("0", ()),
        ):
            self.assertEqual(read_identity(GOOD[:9] + letter + GOOD[10:]).model_years, years)
        for letter, region in (
            ("C", "Africa"),
            ("D", None),
            ("R", "Asia"),
            ("S", "Europe"),
            ("0", None),
            ("7", "Oceania"),
        ):
            self.assertEqual(read_identity(letter + GOOD[1:]).region, region)
