import unittest
from dataclasses import replace

from hakutsu.core.film import FilmModel, analyse, parameters
from hakutsu.core.film.steps import inferred_step
from tests.builders import honest_car, survey

HALF_MILS = [12.7 * n for n in (8, 9, 9, 10, 9, 8, 10, 9, 17, 18, 9)]


class Inferred(unittest.TestCase):
    def test_half_mils_also_when_rounded_to_whole_micrometres(self):
        self.assertEqual(inferred_step(HALF_MILS), 12.7)
        self.assertEqual(inferred_step([round(value) for value in HALF_MILS]), 12.7)

    def test_steps_of_two_five_and_ten(self):
        for step in (2.0, 5.0, 10.0):
            self.assertEqual(inferred_step([step * n for n in (11, 12, 13, 14, 17, 19, 21, 22, 23, 29)]), step)

    def test_numbers_of_every_kind_have_no_coarse_step_and_few_tell_nothing(self):
        self.assertIsNone(inferred_step([118, 121, 117, 119, 116, 120, 123, 115, 118, 122]))
        self.assertIsNone(inferred_step([120.0] * 9))

    def test_a_survey_without_steps_is_read_as_one_with_the_step_it_shows(self):
        coarse = [replace(o, value_um=round(o.value_um / 12.7) * 12.7) for o in honest_car()]
        told = survey([replace(o, step_um=12.7) for o in coarse])
        self.assertEqual(FilmModel(survey(coarse), parameters()).step_um, 12.7)
        self.assertEqual(analyse(survey(coarse)).panels, analyse(told).panels)
