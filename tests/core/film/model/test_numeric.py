import unittest

import numpy as np
from scipy.special import ndtr

from hakutsu.core.film.model.numeric import (
    hats,
    interpolation,
    log_mean,
    normal_cdf,
    normal_weights,
    per_panel_sums,
    smooth_interpolation,
    weighted_quantiles,
)


class NormalDistribution(unittest.TestCase):
    Z = np.linspace(-12, 6, 500)

    def test_it_agrees_with_the_exact_function_to_its_stated_error(self):
        exact = ndtr(self.Z)
        np.testing.assert_allclose(normal_cdf(self.Z), exact, rtol=1.3e-7, atol=1e-16)

    def test_single_precision_is_good_to_a_few_millionths(self):
        single = normal_cdf(self.Z.astype(np.float32))
        self.assertEqual(single.dtype, np.float32)
        np.testing.assert_allclose(single, ndtr(self.Z), rtol=3e-5, atol=1e-30)

    def test_ends(self):
        np.testing.assert_allclose(normal_cdf(np.array([-np.inf, 0.0, np.inf])), [0, 0.5, 1], atol=1e-7)


class Interpolation(unittest.TestCase):
    def test_weights_sum_to_one_and_reproduce_straight_lines(self):
        grid = np.array([0.0, 1.0, 3.0, 7.0])
        at = np.array([-2.0, 0.5, 2.0, 6.0, 9.0])
        matrix = interpolation(at, grid)
        np.testing.assert_allclose(matrix.sum(axis=1), 1)
        np.testing.assert_allclose(matrix @ (2 * grid + 1), [1, 2, 5, 13, 15])

    def test_a_hat_stands_on_its_step(self):
        np.testing.assert_allclose(hats(np.array([1.25]), 3), [[0, 0.75, 0.25]])

    def test_cubics_reproduce_a_parabola_inside_and_its_grid_points_everywhere(self):
        grid = np.arange(6.0)
        at = np.array([0.0, 1.5, 2.25, 3.75, 5.0])
        matrix = smooth_interpolation(at, grid)
        np.testing.assert_allclose(matrix.sum(axis=1), 1)
        np.testing.assert_allclose(matrix @ (grid - 2) ** 2, (at - 2) ** 2)

    def test_cubics_go_straight_at_the_ends_and_stay_beyond_them(self):
        grid = np.array([1.0, 2.0, 4.0, 8.0])
        matrix = smooth_interpolation(np.array([0.5, 1.5, 6.0, 9.0]), grid)
        np.testing.assert_allclose(matrix @ np.array([3.0, 4.0, 5.0, 6.0]), [3, 3.5, 5.5, 6])

    def test_log_normal_weights_give_each_point_the_stretch_about_it(self):
        fine, coarse = np.linspace(-1, 0, 101), np.linspace(0, 1, 51)[1:]
        weights = normal_weights(np.concatenate([fine, coarse]), 0.0, 0.2)
        self.assertAlmostEqual(weights.sum(), 1)
        self.assertAlmostEqual(weights[:100].sum(), 0.5, delta=0.015)


class Sums(unittest.TestCase):
    def test_the_log_of_a_weighted_mean(self):
        log = np.log(np.array([[[1.0, 2.0], [3.0, 4.0]]]))
        np.testing.assert_allclose(np.exp(log_mean(log, np.array([0.25, 0.75]))), [[2.5, 3.5]])

    def test_readings_with_and_without_position_add_up_panel_by_panel(self):
        rng = np.random.default_rng(1)
        table, weights = rng.normal(size=(5, 3, 2)), rng.dirichlet(np.ones(3), size=(4, 3))
        placed = np.array([True, False, True, True, False])
        unplaced = rng.normal(size=(2, 4, 2))
        found = per_panel_sums(weights, table, placed, np.array([0, 3]), unplaced)
        by_hand = weights[:, 0] @ table[0] + unplaced[0] + weights[:, 1] @ table[2]
        np.testing.assert_allclose(found[0], by_hand)
        np.testing.assert_allclose(found[1], weights[:, 2] @ table[3] + unplaced[1])

    def test_quantiles_of_even_weights(self):
        low, middle, high = weighted_quantiles(np.arange(1.0, 11.0), np.full(10, 0.1), (0.1, 0.5, 0.9))
        self.assertAlmostEqual(middle, 5.5)
        self.assertAlmostEqual(low + high, 11)
