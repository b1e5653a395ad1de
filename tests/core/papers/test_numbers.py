"""The number at several places: what differs, what may be misread, and what a mark looks like."""

import unittest
from uuid import uuid4

from hakutsu.core.papers.numbers import (
    Reading,
    codes_found,
    engine_found,
    grid,
    may_be_misread,
    numbers_found,
    same_number,
)
from hakutsu.entries.papers import CodeRead, EngineNumber, Fixed
from hakutsu.vehicle.papers import NumberPlace
from hakutsu.vehicle.vocabulary import Consequence

GOOD = "0RNTSTRAND1900388"


def reading(where, text, name="", fixed=(), picture=False):
    place = NumberPlace(where)
    return Reading(place, text, name or place.value, tuple(fixed), (uuid4(),), picture)


def codes(*readings, enforced=False):
    return {one.code: one for one in numbers_found(readings, enforced=enforced)}


class Compared(unittest.TestCase):
    def test_the_same_number_with_blanks_and_small_letters_says_nothing(self):
        told = codes(reading("plate", "0rnt strand-1900388"), reading("papers", GOOD), reading("stamped", GOOD))
        self.assertEqual(told, {})

    def test_plate_and_papers_that_differ_are_walked_away_from(self):
        told = codes(reading("plate", GOOD), reading("papers", "0RNTSTRAND1904172"))
        one = told["papers.number_differs"]
        self.assertIs(one.consequence, Consequence.WALK_AWAY)
        self.assertIn("places 14, 15, 16, 17: 0388 against 4172", one.words)
        self.assertEqual(len(one.evidence), 2)

    def test_characters_that_look_alike_and_swapped_neighbours_are_read_again_first(self):
        for other in ("0RNTSTRAND190O388", "0RNTSTRAND1900383"[:-1] + "B", "0RNTSTRAND1903088"):
            with self.subTest(other):
                told = codes(reading("plate", GOOD), reading("papers", other))
                self.assertIn("papers.number_misread", told)
                self.assertNotIn("papers.number_differs", told)
                self.assertTrue(told["papers.number_misread"].open)

    def test_an_unread_character_is_compared_on_the_rest(self):
        self.assertTrue(same_number("AB?D", "ABCD"))
        self.assertFalse(same_number("AB?D", "ABCE"))
        told = codes(reading("plate", GOOD), reading("stamped", "0RNTSTRAND19?0388"))
        self.assertEqual(told, {})

    def test_what_no_place_shows_is_said(self):
        told = codes(reading("stamped", "0RNTSTRAND19?0388"))
        self.assertIn("place 13 could be read nowhere", told["papers.number_unread"].words)

    def test_two_readings_of_one_place_are_a_matter_of_reading(self):
        told = codes(
            reading("plate", GOOD), reading("plate", "0RNTSTRAND1905388", picture=True), reading("papers", GOOD)
        )
        self.assertEqual({*told}, {"papers.number_misread"})

    def test_a_pane_a_sticker_or_a_unit_of_another_number_is_no_reason_to_walk_away(self):
        told = codes(
            reading("plate", GOOD), reading("glass", "0RNTSTRAND1904172"), reading("module", "0RNTSTRAND1904172")
        )
        self.assertIs(told["papers.number_elsewhere"].consequence, Consequence.BUDGET)
        self.assertIs(told["papers.number_module"].consequence, Consequence.SETTLE)

    def test_another_length_is_another_number(self):
        self.assertIn("papers.number_differs", codes(reading("plate", GOOD), reading("papers", GOOD[:-1])))
        self.assertFalse(may_be_misread(GOOD, GOOD[:-1]))

    def test_old_numbers_are_compared_and_not_judged(self):
        told = codes(reading("plate", "4471-B"), reading("papers", "4471B"), enforced=True)
        self.assertEqual(told, {})

    def test_sixteen_characters_and_letters_no_number_has(self):
        told = codes(reading("plate", GOOD[:-1]))
        self.assertIn("16 characters, not 17", told["papers.number_length"].words)
        self.assertIn(
            "it may be 0RNTSTRAND1900388",
            codes(reading("plate", "ORNTSTRAND1900388"))["papers.number_characters"].reasons,
        )

    def test_the_check_digit_only_where_it_is_asked_for(self):
        self.assertNotIn("papers.number_check_digit", codes(reading("plate", GOOD)))
        self.assertIn("papers.number_check_digit", codes(reading("plate", GOOD), enforced=True))

    def test_how_a_mark_is_fixed(self):
        told = codes(reading("plate", GOOD, fixed=[Fixed.DISTURBED]), reading("stamped", GOOD, fixed=[Fixed.GROUND]))
        self.assertIs(told["papers.mark_altered"].consequence, Consequence.WALK_AWAY)
        self.assertIs(told["papers.mark_disturbed"].consequence, Consequence.SETTLE)
        self.assertEqual(codes(reading("plate", GOOD, fixed=[Fixed.ORIGINAL])), {})

    def test_the_grid_marks_what_differs_and_puts_the_plate_first(self):
        told = grid([reading("papers", GOOD), reading("glass", "0RNTSTRAND1904172"), reading("plate", GOOD)])
        self.assertEqual([one.reading.where.value for one in told.rows], ["plate", "glass", "papers"])
        self.assertEqual([sorted(one.differs) for one in told.rows], [[], [13, 14, 15, 16], []])
        self.assertEqual(grid([]).usual, "")


class Engine(unittest.TestCase):
    def told(self, *numbers):
        return [one.code for one in engine_found([(one, uuid4()) for one in numbers])]

    def test_against_the_papers_in_part_and_with_unread_characters(self):
        papers = EngineNumber(made="papers", text="H18E447120")
        self.assertEqual(self.told(papers, EngineNumber(made="stamped", text="447 1?0")), [])
        self.assertEqual(self.told(papers, EngineNumber(made="stamped", text="447 130")), ["papers.engine_differs"])

    def test_end_marks_that_are_missing(self):
        self.assertEqual(self.told(EngineNumber(made="stamped", text="1", ends=False)), ["papers.engine_altered"])


class Codes(unittest.TestCase):
    def told(self, **body):
        return [one.code for one in codes_found([(CodeRead(**body), uuid4())])]

    def test_another_colour_shows_inside_or_explains_itself(self):
        self.assertEqual(self.told(of="colour", seen="agrees"), [])
        self.assertEqual(self.told(of="colour", seen="differs"), ["papers.colour_differs"])
        self.assertEqual(self.told(of="colour", seen="differs", inside="old"), ["papers.colour_changed"])
        self.assertEqual(self.told(of="colour", seen="differs", explained="invoice"), ["papers.colour_changed"])
        self.assertEqual(self.told(of="trim", seen="differs"), ["papers.trim_differs"])
