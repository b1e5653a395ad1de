"""The third world's cars are what they are said to be, and the same each time."""

import unittest

import numpy as np
from bench.film_third import GRID, make_car, survey

from hakutsu.core.film import analyse
from hakutsu.exchange.film_csv import read_film_csv


class ThirdWorld(unittest.TestCase):
    def test_the_same_seed_makes_the_same_survey(self):
        one, two = (survey("t", np.random.default_rng([3, 4])) for _ in range(2))
        self.assertEqual(one, two)

    def test_film_is_what_the_state_says(self):
        seen: dict[str, list[float]] = {}
        for number in range(60):
            car = make_car(np.random.default_rng([5, number]))
            for skin in car.skins.values():
                film = np.array([[skin.film(u, v) for u in GRID[::8]] for v in GRID[::8]])
                self.assertTrue((film > 20).all() and (film < 9000).all(), (number, skin.state))
                if car.story not in ("wrapped", "filmed"):
                    seen.setdefault(skin.state, []).append(float(np.median(film)))
                self.assertEqual(skin.state == "filled", skin.filled > 0.01)
        self.assertGreater(np.median(seen["refinished"]), np.median(seen["original"]) + 30)
        self.assertGreater(np.median(seen["rebuilt"]), np.median(seen["refinished"]) + 80)
        self.assertLess(np.median(seen["thinned"]), np.median(seen["original"]))

    def test_every_survey_can_be_read_and_judged(self):
        columns = "survey,panel,u,v,reading,unit,status,substrate,finish,gauge_limit,resolution"
        lines = [columns]
        for number in range(25):
            read, truth = survey(f"t{number}", np.random.default_rng([7, number]))
            self.assertEqual({row[1] for row in read}, {row[1] for row in truth})
            lines += [",".join(map(str, row)) for row in read]
        surveys = read_film_csv("\n".join(lines).encode()).surveys()
        self.assertEqual(len(surveys), 25)
        for one in surveys[:5]:
            self.assertTrue(all(panel.probabilities is not None for panel in analyse(one).panels))
